/** Readers of times, dates, weekdays and windows in documents. */
import { assertDefined } from '../document/assertDefined.ts';
import {
  type Reader,
  textLike,
  list,
  oneOf,
  required,
  optional,
  object,
} from '../document/reader.ts';
import { parseTime, parseDate, parseSecond, WEEKDAYS } from './calendar.ts';
import type { NoWaterWindow } from './windows.ts';

export const readTime: Reader<string> = textLike(
  (t) => parseTime(t) !== null,
  'a time of day "HH:MM", "00:00" to "23:59"',
);
export const readDate: Reader<string> = textLike(
  (t) => parseDate(t) !== null,
  'a date of the calendar "YYYY-MM-DD", years 1970 to 9999',
);
export const readSecond: Reader<string> = textLike(
  (t) => parseSecond(t) !== null,
  'a moment "YYYY-MM-DDTHH:MM:SS", years 1970 to 9999',
);
const MINUTES_PER_WEEK = 7 * 1440;

export const readWeekdays = list(oneOf(WEEKDAYS), { unique: true });
export const readWindow: Reader<NoWaterWindow> = object<NoWaterWindow>({
  from: required(readTime, 'a time of day'),
  to: required(readTime, 'a time of day'),
  weekdays: optional(readWeekdays),
});
/** Whether windows leave a minute (and so a second) of the week free; all their ends are on whole minutes. */
export function leavesFreeTime(windows: readonly NoWaterWindow[]): boolean {
  const taken = new Uint8Array(MINUTES_PER_WEEK);
  for (const window of windows) {
    const from = assertDefined(parseTime(window.from), 'parseTime(window.from)') / 60;
    const to = assertDefined(parseTime(window.to), 'parseTime(window.to)') / 60;
    const length = to > from ? to - from : to - from + 1440;
    for (const weekday of window.weekdays ?? WEEKDAYS) {
      const begin = WEEKDAYS.indexOf(weekday) * 1440 + from;
      for (let m = 0; m < length; m++) taken[(begin + m) % MINUTES_PER_WEEK] = 1;
    }
  }
  return taken.includes(0);
}
