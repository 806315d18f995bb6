/**
 * The messages of the product: `say` templates, tables of `wordsOf`, both forms of `plural`, and the words of the kinds and tasks that ship.
 *
 *   npm run words                           brings the catalogues up to date, and tells what is missing or fuzzy
 *   npm run words -- check                  fails where they are not up to date
 *   npm run words -- compile                writes the JSON that the application loads; the build does this
 *   npm run words -- reword FILE            FILE: JSON of old texts and new ones, "new" or { "en": "new", "es": "nuevo" }
 *   npm run words -- sample N [--seed S]    prints N messages at random, the same for the same seed
 */
import fs from 'node:fs';
import { parseArgs } from 'node:util';
import { compile, languages, read, SOURCE_LANGUAGE, write } from './words/catalogues.mjs';
import { messages, partsOf, keyOf } from './words/collect.mjs';

export { messages } from './words/collect.mjs';
export { read as readCatalogue } from './words/catalogues.mjs';

/** Writes every catalogue for the messages that there are now; `moved` maps old names to what becomes of them. */
function update(moved = new Map()) {
  const found = messages();
  for (const language of languages()) {
    const entries = read(language);
    for (const [old, { key, said }] of moved) {
      const entry = entries.get(old);
      const text = said[language];
      if (text !== undefined) entries.set(key, { ...entry, text, isFuzzy: false });
      else if (entry && language !== SOURCE_LANGUAGE)
        entries.set(key, { ...entry, isFuzzy: entry.text !== '' });
    }
    // What another message still says is found under its own name.
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
  const pairs = Object.entries(JSON.parse(fs.readFileSync(file, 'utf8'))).map(([old, given]) => {
    const said = typeof given === 'string' ? { en: given } : given;
    const { context } = partsOf(old);
    return [old, { key: keyOf({ context, text: said.en }), said }];
  });
  const missing = await rewordCode(new Map(pairs.map(([old, { said }]) => [old, said.en])));
  for (const old of missing) process.stderr.write(`no such message: ${old}\n`);
  update(
    new Map(pairs.map(([old, { key, said }]) => [old, { key, said: { ...said, en: undefined } }])),
  );
  process.exitCode = missing.length > 0 ? 1 : 0;
}

/** Numbers from 0 to 1 that a seed makes again (mulberry32). */
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
  const all = [...messages()].map(([key, places]) => ({ key, places, at: random() }));
  all.sort((a, b) => a.at - b.at);
  for (const { key, places } of all.slice(0, count))
    process.stdout.write(`${partsOf(key).text}\n    ${places[0]}\n`);
}

function check() {
  const found = messages();
  const known = read(SOURCE_LANGUAGE);
  const isSame = known.size === found.size && [...found.keys()].every((key) => known.has(key));
  if (isSame) return;
  process.stderr.write('The catalogues are not up to date: run npm run words\n');
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
