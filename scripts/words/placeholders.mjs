/**
 * Message values have names in the catalogues, `{time}`, and numbers in the code and the application's JSON, `{0}`. A name comes from the
 * expression in the code, at the message's first place.
 */
import ts from 'typescript';

const PLURAL = /^\{(\w+), plural, /u;
/** A name begins with a lower-case letter, so `{A}` in a message is text. */
const isName = (text) => /^[a-z]\w*$/u.test(text);
/** Functions that only pass on their argument. */
const PASSING = [
  'String',
  'Number',
  'round',
  'abs',
  'max',
  'min',
  'assertDefined',
  'listed',
  'counted',
];
/** Methods that describe their object. */
const METHODS = ['join', 'map', 'toFixed', 'toString', 'slice', 'replace', 'trim', 'at', 'filter'];

/** `SWITCHED_WORDS` as `switched`. */
const lowered = (name) =>
  /^[A-Z][A-Z\d_]*$/u.test(name)
    ? name
        .replace(/_WORDS$/u, '')
        .toLowerCase()
        .replaceAll(/_(\w)/gu, (_, letter) => letter.toUpperCase())
    : name;

/** Subject of an expression: the last word of its path, or of the function that makes it. */
function wordOf(node) {
  if (ts.isIdentifier(node)) return lowered(node.text);
  if (ts.isPropertyAccessExpression(node))
    return node.name.text === 'length' ? 'count' : lowered(node.name.text);
  if (ts.isCallExpression(node)) {
    const made = wordOf(node.expression).replace(/(?<=.)(Words|Text|Of)$/u, '');
    // `names.join(', ')` is about the names.
    if (METHODS.includes(made) && ts.isPropertyAccessExpression(node.expression))
      return wordOf(node.expression.expression);
    return PASSING.includes(made) && node.arguments[0] ? wordOf(node.arguments[0]) : made;
  }
  if (ts.isConditionalExpression(node))
    return [node.whenTrue, node.whenFalse].map(wordOf).find((word) => word !== 'value') ?? 'value';
  if (ts.isBinaryExpression(node))
    return [node.left, node.right].map(wordOf).find((word) => word !== 'value') ?? 'value';
  if (ts.isParenthesizedExpression(node) || ts.isNonNullExpression(node) || ts.isAsExpression(node))
    return wordOf(node.expression);
  if (ts.isElementAccessExpression(node)) return wordOf(node.expression);
  return 'value';
}

/**
 * A unique name for each expression.
 *
 * @returns {string[]}
 */
export function namesOf(expressions) {
  const names = [];
  for (const node of expressions) {
    const word = wordOf(node);
    const base = isName(word) ? word : 'value';
    let name = base;
    for (let n = 2; names.includes(name); n++) name = `${base}${n}`;
    names.push(name);
  }
  return names;
}

/**
 * Names in a catalogue text, in order.
 *
 * @returns {string[]}
 */
export function namesIn(text) {
  const [, counted] = PLURAL.exec(text) ?? [];
  if (counted !== undefined) return [counted];
  return [...new Set([...text.matchAll(/\{([a-z\d]\w*)\}/gu)].map(([, name]) => name))];
}

/** A text with names in place of numbers. */
export const named = (text, names) =>
  text.replaceAll(/\{(\d+)(?=[,}])/gu, (found, i) => (names[i] ? `{${names[i]}` : found));

/** A text with numbers in place of names: each name's index in `names`. Unknown names stay. */
export const numbered = (text, names) =>
  text.replaceAll(/\{(\w+)(?=[,}])/gu, (found, name) => {
    const place = names.indexOf(name);
    return place < 0 ? found : `{${place}`;
  });

/** Texts that number their values in the order of one of them, which is the order in a code template. */
export function renumbered(text, texts) {
  const order = [...new Set([...text.matchAll(/\{(\d+)(?=[,}])/gu)].map(([, i]) => i))];
  return texts.map((one) => one && numbered(one, order));
}
