/**
 * Calendar days as integers. Everything is proleptic Gregorian without time zones: a date is a date on the timer's display
 * (timing-rules.md, opening paragraph).
 *
 * Conversions use the era method: 400 years are one era of 146,097 days, and a year counts from 1 March, so that the leap day is at its
 * end.
 */

/** Days since 1970-01-01, day 0. */
export type EpochDay = number & { readonly __unit?: 'epoch day' };

/** Seconds since 1970-01-01T00:00:00 on the timer's clock, with 86,400 in every day. */
export type ClockSecond = number & { readonly __unit?: 'clock second' };

export const SECONDS_PER_DAY = 86_400;

/** Monday first, as in the plan document. Index 0 is Monday. */
export const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;
export type Weekday = (typeof WEEKDAYS)[number];

export interface CivilDate {
  readonly year: number;
  /** 1 to 12. */
  readonly month: number;
  /** 1 to 31. */
  readonly day: number;
}

const DAYS_PER_ERA = 146_097;
const DAYS_FROM_0000_03_01_TO_1970 = 719_468;

/** Epoch day of a calendar date, which must exist; see `parseDate` for untrusted dates. */
export function epochDayOf({ year, month, day }: CivilDate): EpochDay {
  const shifted = month <= 2 ? year - 1 : year;
  const era = Math.floor(shifted / 400);
  const yearOfEra = shifted - era * 400;
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1;
  const dayOfEra =
    yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear;
  return era * DAYS_PER_ERA + dayOfEra - DAYS_FROM_0000_03_01_TO_1970;
}

/** Date of an epoch day; inverse of `epochDayOf`. */
export function civilOf(epochDay: EpochDay): CivilDate {
  const z = epochDay + DAYS_FROM_0000_03_01_TO_1970;
  const era = Math.floor(z / DAYS_PER_ERA);
  const dayOfEra = z - era * DAYS_PER_ERA;
  const yearOfEra = Math.floor(
    (dayOfEra -
      Math.floor(dayOfEra / 1460) +
      Math.floor(dayOfEra / 36_524) -
      Math.floor(dayOfEra / 146_096)) /
      365,
  );
  const dayOfYear =
    dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const shiftedMonth = Math.floor((5 * dayOfYear + 2) / 153);
  const day = dayOfYear - Math.floor((153 * shiftedMonth + 2) / 5) + 1;
  const month = shiftedMonth < 10 ? shiftedMonth + 3 : shiftedMonth - 9;
  return { year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0), month, day };
}

/** 0 for Monday to 6 for Sunday. 1970-01-01 was a Thursday. */
export function weekdayIndexOf(epochDay: EpochDay): number {
  return (((epochDay + 3) % 7) + 7) % 7;
}

/** Month of an epoch day, 1 to 12. */
export function monthOf(epochDay: EpochDay): number {
  return civilOf(epochDay).month;
}

/** First date a plan may name, 1970-01-01 (plan-format.md, "Dates exist in the calendar"). */
export const FIRST_DAY: EpochDay = 0;
/** The end of the calendar, 9999-12-31 (timing-rules.md section 7). */
export const LAST_DAY: EpochDay = epochDayOf({ year: 9999, month: 12, day: 31 });

/** `YYYY-MM-DD` to an epoch day; null if the text is not a date from 1970 to 9999. */
export function parseDate(text: string): EpochDay | null {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  if (!match) return null;
  const date = { year: Number(match[1]), month: Number(match[2]), day: Number(match[3]) };
  if (date.year < 1970 || date.month < 1 || date.month > 12 || date.day < 1) return null;
  const epochDay = epochDayOf(date);
  const back = civilOf(epochDay);
  return back.month === date.month && back.day === date.day ? epochDay : null;
}

const two = (n: number) => String(n).padStart(2, '0');

/** An epoch day as `YYYY-MM-DD`. */
export function formatDate(epochDay: EpochDay): string {
  const { year, month, day } = civilOf(epochDay);
  return `${String(year).padStart(4, '0')}-${two(month)}-${two(day)}`;
}

/** `HH:MM`, 00:00 to 23:59, to a second of the day; null if the text is not such a time. */
export function parseTime(text: string): number | null {
  const match = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(text);
  return match ? Number(match[1]) * 3600 + Number(match[2]) * 60 : null;
}

/** A second of the day as `HH:MM`, without seconds. */
export function formatTime(secondOfDay: number): string {
  return `${two(Math.floor(secondOfDay / 3600))}:${two(Math.floor((secondOfDay % 3600) / 60))}`;
}

/** `YYYY-MM-DD` (meaning 00:00) or `YYYY-MM-DDTHH:MM` to a clock second; null if neither. */
export function parseMoment(text: string): ClockSecond | null {
  const [date = '', time, ...rest] = text.split('T');
  const day = parseDate(date);
  const second = time === undefined ? 0 : parseTime(time);
  if (day === null || second === null || rest.length > 0) return null;
  return day * SECONDS_PER_DAY + second;
}

/** `YYYY-MM-DDTHH:MM:SS` to a clock second; null otherwise. */
export function parseSecond(text: string): ClockSecond | null {
  const match = /^(\d{4}-\d{2}-\d{2}T\d{2}:\d{2}):([0-5]\d)$/.exec(text);
  const minute = match?.[1] === undefined ? null : parseMoment(match[1]);
  return minute === null ? null : minute + Number(match?.[2]);
}

/** A clock second as `YYYY-MM-DDTHH:MM:SS`. */
export function formatMoment(moment: ClockSecond): string {
  const day = Math.floor(moment / SECONDS_PER_DAY);
  const second = moment - day * SECONDS_PER_DAY;
  return `${formatDate(day)}T${formatTime(second)}:${two(second % 60)}`;
}

/** A time of day on the timer's clock, `"00:00"` to `"23:59"`. */
export type TimeText = string;
/** A date, `"YYYY-MM-DD"`. */
export type DateText = string;
