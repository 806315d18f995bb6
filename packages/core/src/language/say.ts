/**
 * Messages. The English sentence is the key, with `{0}`, `{1}` … for its values. Without a translator a message is returned as it stands; `packages/words` has the
 * translators of other languages.
 */

export type MessageValue = string | number | undefined;

/** Languages of the product. The first one is written in the code. */
export const LANGUAGES = ['en', 'es'] as const;
export type Language = (typeof LANGUAGES)[number];

/** Which part of a date is written. */
export type DatePart = 'weekday' | 'month' | 'date' | 'date and year' | 'plain date';

/** Writes messages, lists and dates in one language. */
export interface Translator {
  /** BCP 47, such as `es`. */
  readonly language: string;
  readonly say: (message: string, values: readonly MessageValue[]) => string;
  readonly list: (items: readonly string[], last: 'and' | 'or') => string;
  /** @param day days since 1970-01-01 */
  readonly date: (day: number, part: DatePart, order: 'day-month' | 'month-day') => string;
}

/** Returns the translator of the current request or page; null: English. */
export let translator: () => Translator | null = () => null;

/** Sets how the current translator is found. The server finds it by request. */
export const setLocaleResolver = (resolve: () => Translator | null): void => {
  translator = resolve;
};

/** Sets the translator of a program that uses one language at a time. */
export const setTranslator = (next: Translator | null): void => setLocaleResolver(() => next);

/** Runs `work` with a translator. `work` must be synchronous, or code that runs in between would use the same translator. */
export function withTranslator<T>(next: Translator | null, work: () => T): T {
  const before = translator;
  translator = () => next;
  try {
    return work();
  } finally {
    translator = before;
  }
}

/** The current language, BCP 47. */
export const language = (): string => translator()?.language ?? 'en';

/** A sentence, as a template: say`Station ${number} is off`. */
export function say(parts: TemplateStringsArray, ...values: readonly MessageValue[]): string {
  const current = translator();
  if (!current) return parts.reduce((text, part, i) => `${text}${values[i - 1] ?? ''}${part}`);
  const message = parts.reduce((text, part, i) => `${text}{${i - 1}}${part}`);
  // Leading and trailing spaces belong to the surrounding text, not to the message.
  const [, before = '', core = '', after = ''] = /^(\s*)(.*?)(\s*)$/su.exec(message) ?? [];
  return core === '' ? message : `${before}${current.say(core, values)}${after}`;
}

/** Between the context of a message and its text, as in gettext. */
const CONTEXT_END = '\u0004';

/**
 * A word that means different things in different places, as a template: sayAs('position of a switch')`off`. Each context has a translation of its own; where it has
 * none, the one without a context stands in.
 */
export const sayAs =
  (context: string) =>
  (parts: TemplateStringsArray, ...values: readonly MessageValue[]): string => {
    const current = translator();
    if (!current) return say(parts, ...values);
    const message = parts.reduce((text, part, i) => `${text}{${i - 1}}${part}`);
    const name = `${context}${CONTEXT_END}${message}`;
    const said = current.say(name, values);
    return said.includes(CONTEXT_END) ? say(parts, ...values) : said;
  };

/** A text that stands elsewhere, such as a line of a kind that ships: where no message has this name, it stays as it is. */
export const sayText = (text: string): string => translator()?.say(text, []) ?? text;

/** A count with its word, in the forms that a language has for it: plural(3, 'one start', '# starts'). English has two; `#` is the number. */
export function plural(count: number, one: string, other: string): string {
  const current = translator();
  if (!current) return (count === 1 ? one : other).replace('#', String(count));
  return current.say(`{0, plural, one {${one}} other {${other}}}`, [count]);
}

/** A table of words, null where there are none: each is said in the language that is translator when it is read. */
export function wordsOf<T extends Readonly<Record<string, string | null | undefined>>>(
  table: T,
): T {
  const words = {};
  for (const [name, text = ''] of Object.entries(table))
    Object.defineProperty(words, name, {
      enumerable: true,
      get: () => (text === null ? null : sayText(text)),
    });
  // The cast holds because each name has a text.
  return words as T;
}
