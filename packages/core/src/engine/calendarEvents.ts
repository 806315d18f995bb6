/**
 * What waters when, as events of a calendar: with a rule that comes again where that is exact forever, else date by date.
 */
import { sure } from '../document/sure.ts';
import {
  SECONDS_PER_DAY,
  WEEKDAYS,
  type ClockSecond,
  type EpochDay,
  type Weekday,
} from '../time/calendar.ts';
import { verdictOf } from './verdict.ts';
import { EVERY_MONTH_DAY, EVERY_WEEKDAY, isIn } from '../time/dayRules.ts';
import { resumesAt, startsOf } from '../plan/starts.ts';
import { programsByLetter, type Plan } from '../plan/plan.ts';
import { wateringStations } from '../plan/linked.ts';
import { missingOf, variesByMonth } from '../plan/program.ts';
import { simulate } from './simulate.ts';

/** Every so many days, only on these weekdays and days of the month (RFC 5545, 3.3.10: DAILY with BYDAY and BYMONTHDAY). */
export interface DailyRule {
  readonly everyDays: number;
  /** Null: all of them. */
  readonly weekdays: readonly Weekday[] | null;
  readonly monthDays: readonly number[] | null;
}

export interface WateringEvent {
  readonly station: number;
  readonly program: string;
  /** Of the first one, on the timer's clock. */
  readonly on: ClockSecond;
  readonly seconds: number;
  /** Null: this one time. */
  readonly rule: DailyRule | null;
}

/** How far ahead events are listed that no rule can express. */
export const DAYS_AHEAD = 731;

/** Whether all cycles of a program are alike forever, so that a rule can express them. */
function isRegular(plan: Plan, from: EpochDay): boolean {
  const { settings, programs, timer } = plan;
  const windows = [settings, ...programs].flatMap((one) => one.noWaterWindows ?? []);
  return (
    (settings.percentDrivenBy ?? 'person') === 'person' &&
    !variesByMonth(plan) &&
    (windows.length === 0 || timer.inWindow === 'ignore') &&
    resumesAt(plan) <= from * SECONDS_PER_DAY &&
    verdictOf(plan, from).overlaps.length === 0
  );
}

const weekdaysIn = (mask: number) => WEEKDAYS.filter((_, i) => mask & (1 << i));
const monthDaysIn = (mask: number) =>
  Array.from({ length: 31 }, (_, i) => i + 1).filter((day) => mask & (1 << (day - 1)));

/** An interval and weekdays meet within this many days, or never. */
const MOST_DAYS_TO_FIRST = 366 * 28;

/**
 * Every run of a plan from 00:00 of a date on. With rules they have no end; else they are those of the next `DAYS_AHEAD` days.
 *
 * @throws TooMuchWork
 */
export function wateringEvents(plan: Plan, from: EpochDay, days = DAYS_AHEAD): WateringEvent[] {
  if (plan.settings.mode === 'off') return [];
  if (!isRegular(plan, from)) return oneByOne(plan, from, days, null);
  const watering = wateringStations(plan);
  const events: WateringEvent[] = [];
  for (const program of programsByLetter(plan)) {
    if (missingOf(program, watering).length > 0) continue;
    for (const start of startsOf(plan, program)) {
      let day = from;
      while (!isIn(start.days, day) && day < from + MOST_DAYS_TO_FIRST) day++;
      if (!isIn(start.days, day)) continue;
      const { every, weekdays, monthDays } = start.days;
      const alone = { ...plan, programs: [program] };
      const { cycles, runs } = simulate(alone, day, 1);
      const own = cycles.findIndex(
        ({ due }) => due.due === day * SECONDS_PER_DAY + start.secondOfDay,
      );
      for (const run of runs.filter(({ cycle }) => cycle === own)) {
        const later = Math.floor(run.on / SECONDS_PER_DAY) - day;
        if (later > 0 && monthDays !== EVERY_MONTH_DAY) {
          // No calendar rule can express the days after odd dates.
          events.push(
            ...oneByOne(alone, from, days, {
              start: start.start,
              on: run.on - day * SECONDS_PER_DAY,
              station: run.station,
            }),
          );
          continue;
        }
        const shifted = weekdaysIn(weekdays).map((one) =>
          sure(WEEKDAYS[(WEEKDAYS.indexOf(one) + later) % 7]),
        );
        events.push({
          station: run.station,
          program: program.letter,
          on: run.on,
          seconds: run.off - run.on,
          rule: {
            everyDays: every,
            weekdays:
              weekdays === EVERY_WEEKDAY ? null : WEEKDAYS.filter((one) => shifted.includes(one)),
            monthDays: monthDays === EVERY_MONTH_DAY ? null : monthDaysIn(monthDays),
          },
        });
      }
    }
  }
  return events.sort((a, b) => a.on - b.on || a.station - b.station);
}

/** Each run by itself; of one run of a start only, where `only` names it by its offset from the start's midnight. */
function oneByOne(
  plan: Plan,
  from: EpochDay,
  days: number,
  only: { readonly start: string; readonly on: number; readonly station: number } | null,
): WateringEvent[] {
  const { cycles, runs } = simulate(plan, from, days);
  return runs
    .filter(({ cycle, on, station }) => {
      if (!only) return true;
      const due = cycles[cycle]?.due;
      return (
        due !== undefined &&
        due.start === only.start &&
        station === only.station &&
        on - Math.floor(due.due / SECONDS_PER_DAY) * SECONDS_PER_DAY === only.on
      );
    })
    .map(({ station, letter, on, off }) => ({
      station,
      program: letter,
      on,
      seconds: off - on,
      rule: null,
    }));
}

/** A weekday as calendars write it: `MO`. */
export const calendarWeekday = (weekday: Weekday): string => weekday.slice(0, 2).toUpperCase();
