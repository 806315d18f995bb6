/**
 * The timer's own clock as it stands: how far it is out, and what a change of the house's clocks does to it
 * (timing-rules.md section 8).
 */
import {
  civilOf,
  epochDayOf,
  SECONDS_PER_DAY,
  type ClockSecond,
  type EpochDay,
} from './calendar.ts';

/** What a timer's display shows: with a date, or with a weekday only (0 Monday). */
export type Display =
  | { readonly day: EpochDay; readonly secondOfDay: number }
  | { readonly weekday: number; readonly secondOfDay: number };

/**
 * Seconds by which a timer's clock is ahead of the true hour; below 0 behind.
 *
 * A display that knows only the weekday is taken to be out by the least that it can be: at most half a week.
 */
export function clockAhead(display: Display, now: ClockSecond): number {
  if ('day' in display) return display.day * SECONDS_PER_DAY + display.secondOfDay - now;
  const week = 7 * SECONDS_PER_DAY;
  // Epoch day −3 was a Monday.
  const shown = (display.weekday - 3) * SECONDS_PER_DAY + display.secondOfDay;
  const out = (((shown - now) % week) + week) % week;
  return out > week / 2 ? out - week : out;
}

/** Seconds by which a clock is ahead that shows this hour of a date so many years away; 29 February becomes 28. */
export function yearsAhead(now: ClockSecond, years: number): number {
  const day = Math.floor(now / SECONDS_PER_DAY);
  const { year, month, day: dayOfMonth } = civilOf(day);
  const leap = month === 2 && dayOfMonth === 29;
  const other = epochDayOf({ year: year + years, month, day: leap ? 28 : dayOfMonth });
  return (other - day) * SECONDS_PER_DAY;
}
