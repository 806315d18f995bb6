/**
 * Messages. The English sentence is the key, with `{0}`, `{1}` … for its values. Without a translator a message is returned as it stands; `packages/words` has the
 * translators of other languages.
 */

export type MessageValue = string | number | undefined;

/** Languages of the product. The first one is the language of the code. */
export const LANGUAGES = ['en', 'es'] as const;
export type Language = (typeof LANGUAGES)[number];

/** Parts of a date to write. */
export type DatePart = 'weekday' | 'month' | 'date' | 'date and year' | 'plain date';

/** Translates messages and formats lists and dates in one language. */
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

/** A message, as a template: say`Station ${number} is off`. */
export function say(parts: TemplateStringsArray, ...values: readonly MessageValue[]): string {
  const current = translator();
  if (!current) return parts.reduce((text, part, i) => `${text}${values[i - 1] ?? ''}${part}`);
  const message = parts.reduce((text, part, i) => `${text}{${i - 1}}${part}`);
  // Leading and trailing spaces belong to the surrounding text, not to the message.
  const [, before = '', core = '', after = ''] = /^(\s*)(.*?)(\s*)$/su.exec(message) ?? [];
  return core === '' ? message : `${before}${current.say(core, values)}${after}`;
}

/** Separates a message's context from its text, as in gettext. */
const CONTEXT_END = '\u0004';

/**
 * A word with several meanings, as a template: sayAs('position of a switch')`off`. Each context has its own translation; without one, the
 * translation without context is used.
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

/** Translates a text from elsewhere, such as a line of a shipped timer kind; without a translation it stays as it is. */
export const sayText = (text: string): string => translator()?.say(text, []) ?? text;

/** A count with its noun, in the language's plural forms: plural(3, 'one start', '# starts'). English has two; `#` is the number. */
export function plural(count: number, one: string, other: string): string {
  const current = translator();
  if (!current) return (count === 1 ? one : other).replace('#', String(count));
  return current.say(`{0, plural, one {${one}} other {${other}}}`, [count]);
}

/** A table of messages (null for none), each translated when it is read. */
export function wordsOf<T extends Readonly<Record<string, string | null | undefined>>>(
  table: T,
): T {
  const words = {};
  for (const [name, text = ''] of Object.entries(table))
    Object.defineProperty(words, name, {
      enumerable: true,
      get: () => (text === null ? null : sayText(text)),
    });
  // Safe cast: each name has a text.
  return words as T;
}
