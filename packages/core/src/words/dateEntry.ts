/** Parses typed dates. */
import { civilOf, epochDayOf, parseDate, weekdayIndexOf, type EpochDay } from '../time/calendar.ts';
import { say } from '../language/say.ts';
import { monthName, weekdayName, type DateOrder } from './words.ts';

const ENGLISH_MONTHS = 'jan feb mar apr may jun jul aug sep oct nov dec'.split(' ');
const ENGLISH_WEEKDAYS = 'mon tue wed thu fri sat sun'.split(' ');
const LEAST_LETTERS = 3;

/** Allowed input, for the message next to the field. */
export const dateEntryHelp = (order: DateOrder): string =>
  order === 'month-day'
    ? say`Type a date such as 12/3/2027, Dec 3, tomorrow or Thu.`
    : say`Type a date such as 3/12/2027, 3 Dec, tomorrow or Thu.`;

/** Lower case, without accents. */
const plain = (text: string) =>
  text.trim().toLowerCase().normalize('NFD').replaceAll(/\p{M}/gu, '');

/** Index of the name that a word begins, in English or the reader's language; -1: none. */
function indexIn(word: string, english: readonly string[], nameOf: (index: number) => string) {
  if (word.length < LEAST_LETTERS) return -1;
  const isBegun = (name: string) => name.startsWith(word) || word.startsWith(name);
  const own = english.findIndex((_, i) => isBegun(plain(nameOf(i)).replace('.', '')));
  return own >= 0 ? own : english.findIndex(isBegun);
}

/** A calendar date; null if it does not exist. */
function dayOf(year: number, month: number, day: number): EpochDay | null {
  if (month < 1 || month > 12 || day < 1 || day > 31) return null;
  const date = epochDayOf({ year, month, day });
  return civilOf(date).month === month ? date : null;
}

/** Without a year: of last, this and next year, the date closest to today. */
function inYear(
  year: string | undefined,
  month: number,
  day: number,
  today: EpochDay,
): EpochDay | null {
  if (year !== undefined) return dayOf(Number(year) + (year.length === 2 ? 2000 : 0), month, day);
  const now = civilOf(today).year;
  const dates = [now - 1, now, now + 1]
    .map((one) => dayOf(one, month, day))
    .filter((date) => date !== null);
  return dates.sort((a, b) => Math.abs(a - today) - Math.abs(b - today))[0] ?? null;
}

/** `12/3/2027`, `3.12.27`, `3/12`: in the reader's order, unless only the other one is a date. */
function numeric(text: string, order: DateOrder, today: EpochDay): EpochDay | null {
  const [, first, second, year] =
    /^(\d{1,2})[/.\s-](\d{1,2})(?:[/.\s-](\d{4}|\d{2}))?\.?$/.exec(text) ?? [];
  if (first === undefined) return null;
  const [a, b] = [Number(first), Number(second)];
  const read = (isMonthFirst: boolean) =>
    isMonthFirst ? inYear(year, a, b, today) : inYear(year, b, a, today);
  const isMonthFirst = order === 'month-day';
  return read(isMonthFirst) ?? read(!isMonthFirst);
}

/** `dec 1`, `1 december 2027`, `thu 3 dec`, `1 de diciembre`. */
function named(words: readonly string[], today: EpochDay): EpochDay | null {
  const months = words
    .map((word) => indexIn(word, ENGLISH_MONTHS, (i) => monthName(i + 1)))
    .filter((index) => index >= 0);
  const numbers = words.filter((word) => /^\d+(?:st|nd|rd|th)?$/.test(word));
  const day = numbers.find((number) => number.replace(/\D/g, '').length <= 2);
  const year = numbers.find((number) => /^\d{4}$/.test(number));
  const [month] = months;
  if (months.length !== 1 || month === undefined || day === undefined) return null;
  if (numbers.length !== (year === undefined ? 1 : 2)) return null;
  return inYear(year, month + 1, Number.parseInt(day, 10), today);
}

/**
 * A date as typed: `2027-12-01`, `12/1/2027` or `1/12/2027` by the reader's order, `Dec 1`, `1 December`, `today`, `tomorrow`, `yesterday`,
 * `Thu` (today or the next one), in English or the reader's language.
 *
 * @param today date at the reader's place; a date without a year is the closest to it
 * @returns null if it cannot be read as a date
 */
export function parseDateEntry(typed: string, order: DateOrder, today: EpochDay): EpochDay | null {
  const text = plain(typed);
  const iso = parseDate(text);
  if (iso !== null) return iso;
  const relative = [
    ['yesterday', say`yesterday`],
    ['today', say`today`],
    ['tomorrow', say`tomorrow`],
  ].findIndex((names) => names.some((name) => plain(name) === text));
  if (relative >= 0) return today + relative - 1;
  const inNumbers = numeric(text, order, today);
  if (inNumbers !== null) return inNumbers;
  const words = text.split(/[\s,./-]+/).filter((word) => word !== '');
  if (words.length === 1 && words[0] !== undefined) {
    const weekday = indexIn(words[0], ENGLISH_WEEKDAYS, weekdayName);
    if (weekday >= 0) return today + ((weekday - weekdayIndexOf(today) + 7) % 7);
  }
  return named(words, today);
}
