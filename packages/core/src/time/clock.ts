/** The timer's own clock: how wrong it is, and the effect of clock changes at the site (timing-rules.md section 8). */
import {
  civilOf,
  epochDayOf,
  SECONDS_PER_DAY,
  type ClockSecond,
  type EpochDay,
} from './calendar.ts';

/** What a timer's display shows: a date, or only a weekday (0 Monday). */
export type Display =
  | { readonly day: EpochDay; readonly secondOfDay: number }
  | { readonly weekday: number; readonly secondOfDay: number };

/**
 * Seconds by which a timer's clock is ahead of true time; negative: behind.
 *
 * If the display has only a weekday, assumes the smallest possible error: at most half a week.
 */
export function clockAhead(display: Display, now: ClockSecond): number {
  if ('day' in display) return display.day * SECONDS_PER_DAY + display.secondOfDay - now;
  const week = 7 * SECONDS_PER_DAY;
  // Epoch day −3 was a Monday.
  const shown = (display.weekday - 3) * SECONDS_PER_DAY + display.secondOfDay;
  const out = (((shown - now) % week) + week) % week;
  return out > week / 2 ? out - week : out;
}

/** Seconds by which a clock is ahead that shows the same time some years away; 29 February becomes 28. */
export function yearsAhead(now: ClockSecond, years: number): number {
  const day = Math.floor(now / SECONDS_PER_DAY);
  const { year, month, day: dayOfMonth } = civilOf(day);
  const leap = month === 2 && dayOfMonth === 29;
  const other = epochDayOf({ year: year + years, month, day: leap ? 28 : dayOfMonth });
  return (other - day) * SECONDS_PER_DAY;
}
