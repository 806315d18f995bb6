/** The product's messages in the code: each can be located, and reworded in place. */
import fs from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { ROOT } from '../setup.mjs';
import { namesOf } from './placeholders.mjs';

const SOURCES = ['packages/core/src', 'apps/web/src', 'apps/server/src'];
/** Folders of shipped documents, with the fields people read; a task's `name` is that of a station or a kind. */
const DOCUMENTS = [
  {
    folder: 'packages/core/src/plan/kinds',
    fields: ['name', 'manual', 'restore', 'restoreSteps', 'hides', 'line', 'sign', 'means'],
  },
  { folder: 'packages/core/src/trainer/tasks', fields: ['title', 'says', 'hints', 'name'] },
];
/** Functions whose texts are translated later. */
const NAMING = ['required', 'textLike', 'notFound', 'Line', 'NameField'];

/** Separates a message's context from its text, as in gettext. */
const CONTEXT_END = '\u0004';

/** Key of a message. */
export const keyOf = ({ context, text }) => (context ? `${context}${CONTEXT_END}${text}` : text);
export const partsOf = (key) => {
  const [context, text] = key.includes(CONTEXT_END) ? key.split(CONTEXT_END) : [undefined, key];
  return { context, text };
};

const pluralOf = (one, other) => `{0, plural, one {${one}} other {${other}}}`;

/** Text of a template, with `{0}`, `{1}` … in place of its values. */
const templateText = (template) =>
  ts.isNoSubstitutionTemplateLiteral(template)
    ? template.text
    : template.head.text +
      template.templateSpans.map((span, i) => `{${i}}${span.literal.text}`).join('');

/** Names of its values. */
const templateNames = (template) =>
  ts.isNoSubstitutionTemplateLiteral(template)
    ? []
    : namesOf(template.templateSpans.map(({ expression }) => expression));

/** A text with words, not only values. */
const isMessage = (text) => /\p{L}/u.test(text.replaceAll(/\{\d+\}/gu, ''));

/**
 * Every message in a file.
 *
 * @param {ts.SourceFile} source
 * @returns {{ form: 'template' | 'string' | 'plural' | 'counted', text: string, names: string[], context?: string, node: ts.Node }[]}
 */
export function placesIn(source) {
  const places = [];
  const add = (form, text, node, names = [], context = undefined) => {
    const message = text.trim();
    if (isMessage(message)) places.push({ form, text: message, names, node, context });
  };
  const strings = (node) => {
    if (ts.isStringLiteralLike(node)) add('string', node.text, node);
    else ts.forEachChild(node, strings);
  };
  const tag = (node) => {
    if (node.tag.getText(source) === 'say')
      add('template', templateText(node.template), node, templateNames(node.template));
    // sayAs('context')`text`
    if (ts.isCallExpression(node.tag) && node.tag.expression.getText(source) === 'sayAs') {
      const [context] = node.tag.arguments;
      add(
        'template',
        templateText(node.template),
        node,
        templateNames(node.template),
        context.text,
      );
    }
  };
  const call = (node) => {
    const called = node.expression.getText(source);
    if (called === 'wordsOf')
      for (const property of node.arguments[0]?.properties ?? [])
        if (property.initializer) strings(property.initializer);
    if (called === 'sayText') node.arguments.forEach(strings);
    // What a field expects, and what a refusal names.
    if (NAMING.includes(called))
      for (const argument of node.arguments)
        if (ts.isStringLiteralLike(argument)) add('string', argument.text, argument);
    const [, one, other] = node.arguments;
    if (called === 'counted' && one && ts.isStringLiteralLike(one))
      add('counted', pluralOf(`# ${one.text}`, `# ${other?.text ?? `${one.text}s`}`), node, [
        'count',
      ]);
    if (called === 'plural' && ts.isStringLiteralLike(one) && ts.isStringLiteralLike(other))
      add('plural', pluralOf(one.text, other.text), node, ['count']);
  };
  const visit = (node) => {
    if (ts.isTaggedTemplateExpression(node)) tag(node);
    if (ts.isCallExpression(node)) call(node);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return places;
}

const filesIn = (folder, ending) =>
  fs
    .readdirSync(path.join(ROOT, folder), { recursive: true })
    .map(String)
    .filter((name) => ending.test(name))
    .sort()
    .map((name) => path.join(ROOT, folder, name));

export const codeFiles = () => SOURCES.flatMap((folder) => filesIn(folder, /\.tsx?$/u));
export const documentFiles = () =>
  DOCUMENTS.flatMap(({ folder, fields }) =>
    filesIn(folder, /\.json$/u).map((file) => ({ file, fields })),
  );

export const sourceOf = (file, text = fs.readFileSync(file, 'utf8')) =>
  ts.createSourceFile(
    file,
    text,
    ts.ScriptTarget.Latest,
    true,
    file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );

/** Every text in some fields of a document. */
function textsIn(value, fields, field = '') {
  if (typeof value === 'string') return fields.includes(field) && isMessage(value) ? [value] : [];
  if (Array.isArray(value)) return value.flatMap((one) => textsIn(one, fields, field));
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([name, one]) => textsIn(one, fields, name));
}

/** @returns {Map<string, { places: string[], names: string[] }>} by message key: the files that contain it, and the names of its values */
export function messages() {
  const found = new Map();
  const add = (key, file, names = []) => {
    const message = found.get(key) ?? { places: [], names };
    const place = path.relative(ROOT, file);
    if (!message.places.includes(place)) message.places.push(place);
    found.set(key, message);
  };
  for (const file of codeFiles())
    for (const place of placesIn(sourceOf(file))) add(keyOf(place), file, place.names);
  for (const { file, fields } of documentFiles())
    for (const text of textsIn(JSON.parse(fs.readFileSync(file, 'utf8')), fields)) add(text, file);
  return found;
}
