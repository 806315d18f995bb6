/** Watering as calendar events: recurring if a rule is exact forever, otherwise date by date. */
import { assertDefined } from '../document/assertDefined.ts';
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
import { TooMuchWork } from './effort.ts';

/** Every so many days, only on these weekdays and days of the month (RFC 5545, 3.3.10: DAILY with BYDAY and BYMONTHDAY). */
interface DailyRule {
  readonly everyDays: number;
  /** Null: all of them. */
  readonly weekdays: readonly Weekday[] | null;
  readonly monthDays: readonly number[] | null;
}

export interface WateringEvent {
  readonly station: number;
  readonly program: string;
  /** Start of the first one, on the timer's clock. */
  readonly on: ClockSecond;
  readonly seconds: number;
  /** Null: once. */
  readonly rule: DailyRule | null;
}

/** No one reads a calendar with more events, and few programs accept it. Our own limit. */
const MOST_EVENTS = 20_000;

/** How far ahead events are listed that no rule can express. */
const DAYS_AHEAD = 731;

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

/** An interval and weekdays coincide within this many days, or never. */
const MOST_DAYS_TO_FIRST = 366 * 28;

/**
 * Every run of a plan from 00:00 of a date on: endless with rules, otherwise the next `DAYS_AHEAD` days.
 *
 * @throws TooMuchWork also for more than `MOST_EVENTS` events
 */
export function wateringEvents(plan: Plan, from: EpochDay, days = DAYS_AHEAD): WateringEvent[] {
  const events = eventsOf(plan, from, days);
  if (events.length > MOST_EVENTS)
    throw new TooMuchWork({ code: 'too-many-events', path: [], most: MOST_EVENTS });
  return events.sort((a, b) => a.on - b.on || a.station - b.station);
}

function eventsOf(plan: Plan, from: EpochDay, days: number): WateringEvent[] {
  if (plan.settings.mode === 'off') return [];
  if (!isRegular(plan, from)) return oneByOne(plan, from, days, null);
  const watering = wateringStations(plan);
  const events: WateringEvent[] = [];
  for (const program of programsByLetter(plan)) {
    if (missingOf(program, watering).length > 0) continue;
    const alone = { ...plan, programs: [program] };
    // Runs no calendar rule can express: those on the days after odd dates.
    const odd = new Set<string>();
    for (const start of startsOf(plan, program)) {
      let day = from;
      while (!isIn(start.days, day) && day < from + MOST_DAYS_TO_FIRST) day++;
      if (!isIn(start.days, day)) continue;
      const { every, weekdays, monthDays } = start.days;
      const { cycles, runs } = simulate(alone, day, 1);
      const own = cycles.findIndex(
        ({ due }) => due.due === day * SECONDS_PER_DAY + start.secondOfDay,
      );
      for (const run of runs.filter(({ cycle }) => cycle === own)) {
        const later = Math.floor(run.on / SECONDS_PER_DAY) - day;
        if (later > 0 && monthDays !== EVERY_MONTH_DAY) {
          odd.add(runKey(start.start, run.station, run.on - day * SECONDS_PER_DAY));
          continue;
        }
        const shifted = weekdaysIn(weekdays).map((one) =>
          assertDefined(WEEKDAYS[(WEEKDAYS.indexOf(one) + later) % 7], 'WEEKDAYS'),
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
    if (odd.size > 0) events.push(...oneByOne(alone, from, days, odd));
  }
  return events;
}

/** A run of a start, by its seconds from the midnight of the start. */
const runKey = (start: string, station: number, on: number) => `${start} ${station} ${on}`;

/** Each run by itself; with keys given, only these runs. */
function oneByOne(
  plan: Plan,
  from: EpochDay,
  days: number,
  only: ReadonlySet<string> | null,
): WateringEvent[] {
  const { cycles, runs } = simulate(plan, from, days);
  return runs
    .filter(({ cycle, on, station }) => {
      if (!only) return true;
      const due = cycles[cycle]?.due;
      if (due === undefined) return false;
      const midnight = Math.floor(due.due / SECONDS_PER_DAY) * SECONDS_PER_DAY;
      return only.has(runKey(due.start, station, on - midnight));
    })
    .map(({ station, letter, on, off }) => ({
      station,
      program: letter,
      on,
      seconds: off - on,
      rule: null,
    }));
}

/** A weekday in calendar notation: `MO`. */
export const calendarWeekday = (weekday: Weekday): string => weekday.slice(0, 2).toUpperCase();
