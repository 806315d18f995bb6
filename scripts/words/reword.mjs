/** Rewords messages in the code, together with their translations. */
import fs from 'node:fs';
import path from 'node:path';
import prettier from 'prettier';
import ts from 'typescript';
import { ROOT } from '../setup.mjs';
import { codeFiles, documentFiles, keyOf, placesIn, sourceOf } from './collect.mjs';

const valuesIn = (text) => [...new Set(text.match(/\{\d+(?=[,}])/gu) ?? [])].sort().join();
const quoted = (text) =>
  text.includes("'") && !text.includes('"') ? `"${text}"` : `'${text.replaceAll("'", "\\'")}'`;

/**
 * The two forms of a plural message.
 *
 * @throws Error if it has another shape
 */
function formsOf(text) {
  const [, one, other] = /^\{0, plural, one \{(.*)\} other \{(.*)\}\}$/su.exec(text) ?? [];
  if (other === undefined) throw new Error(`no plural: ${text}`);
  return [one, other];
}

/**
 * The template for a message with the values of the old one.
 *
 * @param {(node: ts.Node) => string} textOf source of a value
 */
function templateOf(source, { template }, text, textOf) {
  const spans = ts.isNoSubstitutionTemplateLiteral(template) ? [] : [...template.templateSpans];
  const inner = template.getText(source).slice(1, -1);
  const [, before] = /^(\s*)/u.exec(inner);
  const [, after] = /(\s*)$/u.exec(inner);
  const said = text
    .replaceAll('\\', '\\\\')
    .replaceAll('`', '\\`')
    .replaceAll(/\{(\d+)\}/gu, (_, i) => `\${${textOf(spans[i].expression)}}`);
  return `\`${before}${said}${after}\``;
}

/** Replacement of a message: its range and new text. */
function replacement(source, { form, node }, text) {
  const at = (first, last, say) => ({ start: first.getStart(source), end: last.end, say });
  if (form === 'template')
    return at(node.template, node.template, (textOf) => templateOf(source, node, text, textOf));
  if (form === 'string') return at(node, node, () => quoted(text));
  const [one, other] = formsOf(text);
  const [, first, second] = node.arguments;
  const words =
    form === 'counted' ? [one, other].map((each) => each.replace(/^# /u, '')) : [one, other];
  return at(first, second ?? first, () => words.map(quoted).join(', '));
}

/** The code with its messages reworded. @param {{ get: (name: string) => string | undefined }} pairs */
export function rewordedText(code, pairs, file = 'code.ts') {
  const source = sourceOf(file, code);
  const edits = placesIn(source).flatMap((place) => {
    const text = pairs.get(keyOf(place));
    return text === undefined ? [] : [replacement(source, place, text)];
  });
  edits.sort((a, b) => a.start - b.start || b.end - a.end);
  // A message's value can contain a message itself.
  const between = (start, end) => {
    let made = '';
    let at = start;
    for (const edit of edits) {
      if (edit.start < at || edit.end > end) continue;
      made += code.slice(at, edit.start);
      made += edit.say((node) => between(node.getStart(source), node.end));
      at = edit.end;
    }
    return made + code.slice(at, end);
  };
  return between(0, code.length);
}

/**
 * @param {Map<string, string>} pairs message keys and their new texts
 * @returns {Promise<string[]>} keys that were not found
 */
export async function rewordCode(pairs) {
  for (const [key, text] of pairs)
    if (valuesIn(key) !== valuesIn(text))
      throw new Error(`the values of “${key}” are not those of “${text}”`);
  const seen = new Set();
  const newTextOf = (key) => {
    if (pairs.has(key)) seen.add(key);
    return pairs.get(key);
  };
  for (const file of codeFiles()) {
    const before = fs.readFileSync(file, 'utf8');
    const after = rewordedText(before, { get: newTextOf }, file);
    if (after !== before) await writeFormatted(file, after);
  }
  for (const { file, fields } of documentFiles()) {
    const reworded = (value, field = '') => {
      if (typeof value === 'string')
        return fields.includes(field) ? (newTextOf(value) ?? value) : value;
      if (Array.isArray(value)) return value.map((one) => reworded(one, field));
      if (typeof value !== 'object' || value === null) return value;
      return Object.fromEntries(
        Object.entries(value).map(([name, one]) => [name, reworded(one, name)]),
      );
    };
    const before = JSON.parse(fs.readFileSync(file, 'utf8'));
    const after = reworded(before);
    if (JSON.stringify(after) !== JSON.stringify(before))
      await writeFormatted(file, JSON.stringify(after));
  }
  return [...pairs.keys()].filter((key) => !seen.has(key));
}

async function writeFormatted(file, text) {
  const options = await prettier.resolveConfig(file);
  fs.writeFileSync(file, await prettier.format(text, { ...options, filepath: file }));
  process.stdout.write(`${path.relative(ROOT, file)}\n`);
}
