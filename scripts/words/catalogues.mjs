/** The catalogues as gettext PO files, one for each language, and as JSON for the application. */
import fs from 'node:fs';
import path from 'node:path';
import gettext from 'gettext-parser';
import { ROOT } from '../setup.mjs';
import { keyOf, partsOf } from './collect.mjs';
import { named, namesIn, numbered } from './placeholders.mjs';

const FOLDER = path.join(ROOT, 'packages/words/src/catalogues');
/** Built; not under version control. */
const COMPILED = path.join(FOLDER, 'compiled');
/** English is the text of the messages themselves. */
export const SOURCE_LANGUAGE = 'en';

const fileOf = (language) => path.join(FOLDER, `${language}.po`);
export const languages = () =>
  fs
    .readdirSync(FOLDER)
    .filter((name) => name.endsWith('.po'))
    .map((name) => path.basename(name, '.po'));

/**
 * @returns {Map<string, { text: string, isFuzzy: boolean, note: string }>} by message key, both with numbered values. `note` is for the
 * translator; a fuzzy text is from an earlier wording
 */
export function read(language) {
  const file = fileOf(language);
  if (!fs.existsSync(file)) return new Map();
  const { translations } = gettext.po.parse(fs.readFileSync(file), 'utf-8');
  const entries = Object.values(translations)
    .flatMap((ofContext) => Object.values(ofContext))
    .filter(({ msgid }) => msgid !== '');
  return new Map(
    entries.map(({ msgid, msgctxt, msgstr, comments }) => {
      const names = namesIn(msgid);
      return [
        keyOf({ context: msgctxt, text: numbered(msgid, names) }),
        {
          text: numbered(msgstr[0] ?? '', names),
          isFuzzy: comments?.flag?.includes('fuzzy') ?? false,
          note: comments?.extracted ?? '',
        },
      ];
    }),
  );
}

/** @param {ReturnType<import('./collect.mjs').messages>} messages */
export function write(language, messages, entries) {
  const translations = {
    '': { '': { msgid: '', comments: { translator: `Water Clock, ${language}` }, msgstr: [''] } },
  };
  for (const [key, { places, names }] of messages) {
    const { context, text: source } = partsOf(key);
    const msgid = named(source, names);
    const { text = '', isFuzzy = false, note = '' } = entries.get(key) ?? {};
    const comments = { reference: places.join('\n') };
    if (note) comments.extracted = note;
    if (isFuzzy) comments.flag = 'fuzzy';
    (translations[context ?? ''] ??= {})[msgid] = {
      ...{ msgid, msgstr: [named(text, names)], comments },
      ...(context ? { msgctxt: context } : {}),
    };
  }
  const headers = {
    'Content-Type': 'text/plain; charset=UTF-8',
    'Content-Transfer-Encoding': '8bit',
    Language: language,
    'MIME-Version': '1.0',
  };
  const po = gettext.po.compile({ charset: 'utf-8', headers, translations }, { foldLength: 0 });
  fs.writeFileSync(fileOf(language), `${po.toString('utf8').trimEnd()}\n`);
}

/** Writes the JSON of every language except the source language: message keys and texts. A fuzzy text is better than none. */
export function compile() {
  fs.mkdirSync(COMPILED, { recursive: true });
  for (const language of languages().filter((one) => one !== SOURCE_LANGUAGE)) {
    const catalogue = Object.fromEntries(
      [...read(language)].flatMap(([key, { text }]) => (text === '' ? [] : [[key, text]])),
    );
    fs.writeFileSync(path.join(COMPILED, `${language}.json`), JSON.stringify(catalogue));
  }
}
