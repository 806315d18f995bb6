/**
 * The words of the product as messages: the English sentence is the name of its message, with `{0}`, `{1}` … in the places of its values. Without a speaker it is said as it
 * stands; a speaker says it in another language (`packages/words`).
 */

export type Said = string | number | undefined;

/** Languages in which the product speaks; the first stands in the code. */
export const LANGUAGES = ['en', 'es'] as const;
export type Language = (typeof LANGUAGES)[number];

/** What of a date is said. */
export type DatePart = 'weekday' | 'month' | 'date' | 'date and year' | 'plain date';

/** Says messages, lists and dates in a language. */
export interface Speaker {
  /** BCP 47, such as `es`. */
  readonly language: string;
  readonly say: (message: string, values: readonly Said[]) => string;
  readonly list: (items: readonly string[], last: 'and' | 'or') => string;
  /** @param day days since 1970-01-01 */
  readonly date: (day: number, part: DatePart, order: 'day-month' | 'month-day') => string;
}

/** Who speaks; null: English, as the messages stand. */
export let spoken: () => Speaker | null = () => null;

/** Asks from now on who speaks: a server that talks with several people at a time. */
export const speakAs = (who: () => Speaker | null): void => {
  spoken = who;
};

/** Who speaks from now on. For a program that speaks one language at a time. */
export const speakBy = (next: Speaker | null): void => speakAs(() => next);

/** Works while somebody speaks. The work must not wait for anything: whoever comes between would hear the same language. */
export function spokenBy<T>(next: Speaker | null, work: () => T): T {
  const before = spoken;
  spoken = () => next;
  try {
    return work();
  } finally {
    spoken = before;
  }
}

/** The language that is spoken, BCP 47. */
export const language = (): string => spoken()?.language ?? 'en';

/** A sentence, as a template: say`Station ${number} is off`. */
export function say(parts: TemplateStringsArray, ...values: readonly Said[]): string {
  const speaker = spoken();
  if (!speaker) return parts.reduce((text, part, i) => `${text}${values[i - 1] ?? ''}${part}`);
  const message = parts.reduce((text, part, i) => `${text}{${i - 1}}${part}`);
  // Spaces at its ends are of whatever it stands in.
  const [, before = '', core = '', after = ''] = /^(\s*)(.*?)(\s*)$/su.exec(message) ?? [];
  return core === '' ? message : `${before}${speaker.say(core, values)}${after}`;
}

/** Between the context of a message and its text, as in gettext. */
const CONTEXT_END = '\u0004';

/**
 * A word that means different things in different places, as a template: sayAs('position of a switch')`off`. Each context has a translation of its own; where it has
 * none, the one without a context stands in.
 */
export const sayAs =
  (context: string) =>
  (parts: TemplateStringsArray, ...values: readonly Said[]): string => {
    const speaker = spoken();
    if (!speaker) return say(parts, ...values);
    const message = parts.reduce((text, part, i) => `${text}{${i - 1}}${part}`);
    const name = `${context}${CONTEXT_END}${message}`;
    const said = speaker.say(name, values);
    return said.includes(CONTEXT_END) ? say(parts, ...values) : said;
  };

/** A text that stands elsewhere, such as a line of a kind that ships: where no message has this name, it stays as it is. */
export const sayText = (text: string): string => spoken()?.say(text, []) ?? text;

/** A count with its word, in the forms that a language has for it: plural(3, 'one start', '# starts'). English has two; `#` is the number. */
export function plural(count: number, one: string, other: string): string {
  const speaker = spoken();
  if (!speaker) return (count === 1 ? one : other).replace('#', String(count));
  return speaker.say(`{0, plural, one {${one}} other {${other}}}`, [count]);
}

/** A table of words, null where there are none: each is said in the language that is spoken when it is read. */
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
