/**
 * The messages of the product, from its code: each `say` template, each table of `wordsOf`, both forms of `plural`, and the words of the kinds and tasks that ship.
 *
 *   node scripts/words.mjs          writes packages/words/src/catalogues/en.json, and tells what other languages lack
 *   node scripts/words.mjs --check  fails where a catalogue is not up to date
 */
import fs from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { ROOT } from './setup.mjs';

const SOURCES = ['packages/core/src', 'apps/web/src', 'apps/server/src'];
const CATALOGUES = path.join(ROOT, 'packages/words/src/catalogues');
/** Of the kinds that ship: what is for people to read. */
const KIND_FIELDS = new Set([
  'name',
  'manual',
  'restore',
  'restoreSteps',
  'hides',
  'line',
  'sign',
  'means',
]);
/** Of the tasks that ship; `name` is that of a station, or of a kind that ships. */
const TASK_FIELDS = new Set(['title', 'says', 'hints', 'name']);

/** Functions whose texts are said later. */
const NAMING = new Set(['required', 'textLike', 'notFound', 'Line', 'NameField']);

const filesIn = (folder) =>
  fs
    .readdirSync(path.join(ROOT, folder), { recursive: true })
    .map(String)
    .filter((name) => /\.tsx?$/u.test(name))
    .map((name) => path.join(ROOT, folder, name));

/** @param {string} text of a template in code */
const asMessage = (template) =>
  ts.isNoSubstitutionTemplateLiteral(template)
    ? template.text
    : template.head.text +
      template.templateSpans.map((span, i) => `{${i}}${span.literal.text}`).join('');

/** @param {string} file @param {Map<string, string>} found message → where it stands first */
function collect(file, found) {
  const source = ts.createSourceFile(
    file,
    fs.readFileSync(file, 'utf8'),
    ts.ScriptTarget.Latest,
    true,
    file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const add = (message) => {
    const text = message.trim();
    if (/\p{L}/u.test(text.replaceAll(/\{\d+\}/gu, '')) && !found.has(text))
      found.set(text, path.relative(ROOT, file));
  };
  const strings = (node) => {
    if (ts.isStringLiteralLike(node)) add(node.text);
    else ts.forEachChild(node, strings);
  };
  const literal = (node) => {
    if (ts.isStringLiteralLike(node)) add(node.text);
  };
  const visit = (node) => {
    if (ts.isTaggedTemplateExpression(node) && node.tag.getText(source) === 'say')
      add(asMessage(node.template));
    if (ts.isCallExpression(node)) {
      const called = node.expression.getText(source);
      if (called === 'wordsOf')
        for (const property of node.arguments[0]?.properties ?? [])
          if (property.initializer) strings(property.initializer);
      if (called === 'sayText') node.arguments.forEach(strings);
      // What belongs into a field, and what is named in a refusal.
      if (NAMING.has(called)) node.arguments.forEach(literal);
      if (called === 'counted') {
        const [, one, many] = node.arguments;
        if (one && ts.isStringLiteralLike(one))
          add(`{0, plural, one {# ${one.text}} other {# ${many?.text ?? `${one.text}s`}}}`);
      }
      if (called === 'plural') {
        const [, one, other] = node.arguments;
        if (ts.isStringLiteralLike(one) && ts.isStringLiteralLike(other))
          add(`{0, plural, one {${one.text}} other {${other.text}}}`);
      }
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
}

/** Of the documents in a folder, the words of some fields. */
function collectDocuments(found, folder, fields, place) {
  const walk = (value, field) => {
    if (typeof value === 'string') {
      if (fields.has(field) && /\p{L}/u.test(value) && !found.has(value)) found.set(value, place);
    } else if (Array.isArray(value)) value.forEach((one) => walk(one, field));
    else if (typeof value === 'object' && value !== null)
      for (const [name, one] of Object.entries(value)) walk(one, name);
  };
  for (const name of fs.readdirSync(path.join(ROOT, folder)))
    walk(JSON.parse(fs.readFileSync(path.join(ROOT, folder, name), 'utf8')), '');
}

/** @returns {Map<string, string>} message → where it stands first */
export function messages() {
  const found = new Map();
  for (const file of SOURCES.flatMap(filesIn)) collect(file, found);
  collectDocuments(found, 'packages/core/src/plan/kinds', KIND_FIELDS, 'the kinds that ship');
  collectDocuments(found, 'packages/core/src/trainer/tasks', TASK_FIELDS, 'the tasks that ship');
  return found;
}

const read = (language) => {
  const file = path.join(CATALOGUES, `${language}.json`);
  return fs.existsSync(file) ? JSON.parse(fs.readFileSync(file, 'utf8')) : {};
};
const write = (language, catalogue) =>
  fs.writeFileSync(
    path.join(CATALOGUES, `${language}.json`),
    `${JSON.stringify(catalogue, null, 2)}\n`,
  );

if (process.argv[1] === import.meta.filename) {
  const found = messages();
  const english = Object.fromEntries([...found.keys()].map((message) => [message, message]));
  const isCheck = process.argv.includes('--check');
  if (isCheck && JSON.stringify(read('en')) !== JSON.stringify(english)) {
    console.error(
      'packages/words/src/catalogues/en.json is not up to date: run node scripts/words.mjs',
    );
    process.exit(1);
  }
  fs.mkdirSync(CATALOGUES, { recursive: true });
  if (!isCheck) write('en', english);
  const spanish = read('es');
  const kept = Object.fromEntries(
    [...found.keys()].flatMap((one) => (spanish[one] ? [[one, spanish[one]]] : [])),
  );
  if (!isCheck) write('es', kept);
  console.log(`${found.size} messages; Spanish has ${Object.keys(kept).length} of them`);
}
