/**
 * The messages of the product: `say` templates, tables of `wordsOf`, both forms of `plural`, and the words of the kinds and tasks that ship.
 *
 *   npm run words                           brings the catalogues up to date, and tells what is missing or fuzzy
 *   npm run words -- check                  fails where they are not up to date, or a message uses a word that docs/glossary.md has given up
 *   npm run words -- compile                writes the JSON that the application loads; the build does this
 *   npm run words -- reword FILE            FILE: JSON of old texts and new ones as in the catalogues, "new" or { "en": "new", "es": "nuevo" }
 *   npm run words -- sample N [--seed S]    prints N messages at random, the same for the same seed
 */
import fs from 'node:fs';
import { parseArgs } from 'node:util';
import { compile, languages, read, SOURCE_LANGUAGE, write } from './words/catalogues.mjs';
import { messages, partsOf, keyOf } from './words/collect.mjs';
import { oldWordsIn } from './words/oldWords.mjs';
import { named, numbered, renumbered } from './words/placeholders.mjs';

export { messages } from './words/collect.mjs';
export { read as readCatalogue } from './words/catalogues.mjs';

/** Updates every catalogue for the current messages; `moved` maps old keys to new ones, with new or previous translations. */
function update(moved = new Map()) {
  const found = messages();
  for (const language of languages()) {
    const entries = read(language);
    for (const [old, { key, said, before }] of moved) {
      const entry = entries.get(old);
      const text = said[language];
      if (text !== undefined) entries.set(key, { ...entry, text, isFuzzy: false });
      else if (entry && language !== SOURCE_LANGUAGE)
        entries.set(key, { ...entry, text: before[language] ?? '', isFuzzy: entry.text !== '' });
    }
    // A text another message still uses is found under its own name.
    write(language, found, entries);
    const all = read(language);
    const count = (is) => [...all.values()].filter(is).length;
    if (language !== SOURCE_LANGUAGE)
      process.stdout.write(
        `${language}: ${count(({ text }) => text !== '')} of ${found.size} messages, ${count(({ isFuzzy }) => isFuzzy)} fuzzy\n`,
      );
  }
}

async function reword(file) {
  const { rewordCode } = await import('./words/reword.mjs');
  const byText = new Map(
    [...messages()].map(([key, { names }]) => [named(key, names), { key, names }]),
  );
  const given = Object.entries(JSON.parse(fs.readFileSync(file, 'utf8')));
  const missing = given.filter(([old]) => !byText.has(old)).map(([old]) => old);
  const pairs = given.flatMap(([old, text]) => {
    const message = byText.get(old);
    if (!message) return [];
    const said = typeof text === 'string' ? { en: text } : text;
    const [en, es] = [said.en, said.es].map((one) => one && numbered(one, message.names));
    return [{ old: message.key, en, es }];
  });
  await rewordCode(new Map(pairs.map(({ old, en }) => [old, en])));
  const spanishBefore = read('es');
  const moved = pairs.map(({ old, en, es }) => {
    // In code, values are in the order of the new text.
    const kept = spanishBefore.get(old)?.text;
    const [text, spanish, before] = renumbered(en, [en, es, kept]);
    const { context } = partsOf(old);
    return [old, { key: keyOf({ context, text }), said: { es: spanish }, before: { es: before } }];
  });
  update(new Map(moved));
  for (const old of missing) process.stderr.write(`no such message: ${old}\n`);
  process.exitCode = missing.length > 0 ? 1 : 0;
}

/** Seeded pseudo-random numbers from 0 to 1 (mulberry32). */
function randomFrom(seed) {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

function sample(count, seed) {
  const random = randomFrom(seed);
  const all = [...messages()].map(([key, message]) => ({ ...message, key, at: random() }));
  all.sort((a, b) => a.at - b.at);
  for (const { key, names, places } of all.slice(0, count))
    process.stdout.write(`${named(partsOf(key).text, names)}\n    ${places[0]}\n`);
}

function check() {
  const found = messages();
  const known = read(SOURCE_LANGUAGE);
  const isSame = known.size === found.size && [...found.keys()].every((key) => known.has(key));
  const faults = [
    ...(isSame ? [] : ['The catalogues are not up to date: run npm run words']),
    ...oldWordsIn([...found.keys()].map((key) => partsOf(key).text)),
  ];
  if (faults.length === 0) return;
  process.stderr.write(`${faults.join('\n')}\n`);
  process.exitCode = 1;
}

if (process.argv[1] === import.meta.filename) {
  const { positionals, values } = parseArgs({
    allowPositionals: true,
    options: { seed: { type: 'string', default: '1' } },
  });
  const [what = 'update', given = ''] = positionals;
  if (what === 'update') update();
  else if (what === 'check') check();
  else if (what === 'compile') compile();
  else if (what === 'reword') await reword(given);
  else if (what === 'sample') sample(Number(given), Number(values.seed));
  else {
    process.stderr.write(`unknown: ${what}; update, check, compile, reword or sample\n`);
    process.exitCode = 2;
  }
}
