/** Lists, dates and numbers as a language writes them. */
import type { DatePart, Translator } from '@water-clock/core';

const DAY_MS = 86_400_000;

const PARTS: Readonly<Record<DatePart, Intl.DateTimeFormatOptions>> = {
  weekday: { weekday: 'short' },
  month: { month: 'long' },
  date: { weekday: 'short', day: 'numeric', month: 'long' },
  'plain date': { day: 'numeric', month: 'long', year: 'numeric' },
  'date and year': { weekday: 'short', day: 'numeric', month: 'long', year: 'numeric' },
};

/** @param language BCP 47 */
export function byIntl(language: string): Pick<Translator, 'language' | 'list' | 'date'> & {
  readonly number: (value: number) => string;
} {
  const lists = {
    and: new Intl.ListFormat(language, { type: 'conjunction' }),
    or: new Intl.ListFormat(language, { type: 'disjunction' }),
  };
  const dates = new Map<DatePart, Intl.DateTimeFormat>();
  const dateOf = (part: DatePart) => {
    const made =
      dates.get(part) ?? new Intl.DateTimeFormat(language, { ...PARTS[part], timeZone: 'UTC' });
    dates.set(part, made);
    return made;
  };
  const numbers = new Intl.NumberFormat(language, {
    useGrouping: false,
    maximumFractionDigits: 6,
  });
  return {
    language,
    list: (items, last) => lists[last].format(items),
    // The language decides the order of day and month.
    date: (day, part) => dateOf(part).format(day * DAY_MS),
    number: (value) => numbers.format(value),
  };
}
