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
import { isIn, startsOf } from './dayRules.ts';
import { programsByLetter, type Plan, type TimeText } from '../plan/plan.ts';
import { enabledStations, missingOf } from '../plan/program.ts';

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

/** A change of the house's clocks: the hours between the two are skipped, or come twice. */
export interface ClockChange {
  readonly day: EpochDay;
  /** Second of the day at which the clocks are moved, and to which. */
  readonly from: number;
  readonly to: number;
}

/** A start that a change of the clocks meets. */
export interface MovedStart {
  readonly letter: string;
  readonly start: TimeText;
  /** Second of the day at which it waters then, by the house's clocks. */
  readonly at: number;
}

/**
 * The starts that a change of the clocks touches. A timer that follows it: those due within the hour that is skipped, which
 * fire on the first second after it, and those within the hour that comes twice, which fire the first time. One that does
 * not: all of its starts, which are an hour off from then on.
 */
export function startsMovedBy(plan: Plan, { day, from, to }: ClockChange): MovedStart[] {
  const enabled = enabledStations(plan);
  const complete = programsByLetter(plan).filter((one) => missingOf(one, enabled).length === 0);
  return complete.flatMap((program) =>
    startsOf(plan, program).flatMap(({ start, secondOfDay, days }): MovedStart[] => {
      const { letter } = program;
      if (!plan.timer.followsDaylightSaving) {
        const at = (secondOfDay + to - from + SECONDS_PER_DAY) % SECONDS_PER_DAY;
        return [{ letter, start, at }];
      }
      const met = secondOfDay >= Math.min(from, to) && secondOfDay < Math.max(from, to);
      if (!met || !isIn(days, day)) return [];
      return [{ letter, start, at: to > from ? to : secondOfDay }];
    }),
  );
}
