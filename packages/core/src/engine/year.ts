/** A year of dates: which programs water when, and what a program's day rule says of each date. */
import { assertDefined } from '../document/assertDefined.ts';
import { civilOf, parseDate, SECONDS_PER_DAY, type EpochDay } from '../time/calendar.ts';
import { daysLeft, isIn, type DaySet } from '../time/dayRules.ts';
import { resumesAt, startsOf } from '../plan/starts.ts';
import { NIGHT_BEGINS_SECOND } from './night.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { dueCycles, type DueCycle } from './simulate.ts';
import { WeekWindows } from '../time/windows.ts';

/** An off day of the month; rain delay; no-water hours from midnight to midnight. */
export type Forbidden = 'off' | 'delay' | 'hours';

/** A date on the timer's calendar. */
export interface YearDay {
  readonly day: EpochDay;
  /** Letters of programs with a start that fires and has something to run. */
  readonly programs: readonly string[];
  /** Whether a cycle due on this date overlaps another. */
  readonly overlaps: boolean;
  /** Letters of programs that would be due, but for a blocked weekday, an off day or the rain delay. */
  readonly held: readonly string[];
  /** Why nothing may water all day; null: something may. */
  readonly forbidden: Forbidden | null;
  /** The night to show for this date: that of its first cycle, or the one that ends in its morning. */
  readonly night: EpochDay;
}

/** Cycles begun up to this many days before may still overlap the first ones. */
const DAYS_BEFORE = 8;

/**
 * Cycles that overlap another, in order of beginning: those that begin before an earlier one ends, and those still running when the next
 * begins.
 */
function overlapping(cycles: readonly DueCycle[]): Set<DueCycle> {
  const found = new Set<DueCycle>();
  const inOrder = cycles
    .flatMap((cycle) => (cycle.nominal ? [{ cycle, ...cycle.nominal }] : []))
    .sort((x, y) => x.begins - y.begins);
  let latestEnd = -Infinity;
  inOrder.forEach(({ cycle, begins, ends }, i) => {
    const next = inOrder[i + 1];
    if (begins < latestEnd || (next && next.begins < ends)) found.add(cycle);
    latestEnd = Math.max(latestEnd, ends);
  });
  return found;
}

/**
 * Dates from `first` on.
 *
 * @throws TooMuchWork
 */
export function yearFrom(plan: Plan, first: EpochDay, count: number): YearDay[] {
  const cycles = dueCycles(plan, first - DAYS_BEFORE, count + DAYS_BEFORE + 1);
  const overlaps = overlapping(cycles);
  const byDay = new Map<EpochDay, DueCycle[]>();
  for (const cycle of cycles) {
    const day = Math.floor(cycle.due / SECONDS_PER_DAY);
    const known = byDay.get(day);
    if (known) known.push(cycle);
    else byDay.set(day, [cycle]);
  }
  const held = plan.programs.map((program) => ({
    letter: program.letter,
    states: ruleDaysFrom(plan, program, first, count),
  }));
  const forbidden = forbiddenOn(plan);
  return Array.from({ length: count }, (_, i) => {
    const day = first + i;
    const due = byDay.get(day) ?? [];
    const told = due.find((cycle) => overlaps.has(cycle)) ?? due[0];
    const moment = told?.nominal?.begins ?? day * SECONDS_PER_DAY;
    return {
      day,
      programs: [...new Set(due.map(({ letter }) => letter))],
      overlaps: due.some((cycle) => overlaps.has(cycle)),
      held: held.flatMap(({ letter, states }) =>
        HOLDS.includes(assertDefined(states[i], 'states[i]').state) ? letter : [],
      ),
      forbidden: forbidden(day),
      night: Math.floor((moment - NIGHT_BEGINS_SECOND) / SECONDS_PER_DAY),
    };
  });
}

const HOLDS: readonly RuleDay['state'][] = ['blocked', 'off', 'delayed'];

/** Why a whole date is without water, for all programs. */
function forbiddenOn(plan: Plan): (day: EpochDay) => Forbidden | null {
  const { noWaterWindows = [], offDaysOfMonth = [] } = plan.settings;
  const windows = new WeekWindows(noWaterWindows);
  const resumes = resumesAt(plan);
  return (day) => {
    const [midnight, next] = [day * SECONDS_PER_DAY, (day + 1) * SECONDS_PER_DAY];
    if (offDaysOfMonth.includes(civilOf(day).day)) return 'off';
    if (next <= resumes) return 'delay';
    return windows.nextFree(midnight) >= next ? 'hours' : null;
  };
}

/** What a day rule says of a date. */
export interface RuleDay {
  readonly day: EpochDay;
  /** `waters`; `blocked`: due, but the weekday is blocked; `off`: an off day of the month; `delayed`: rain delay all day; `dry`: not due. */
  readonly state: 'waters' | 'blocked' | 'off' | 'delayed' | 'dry';
}

/** Dates from `first` on by a program's day rule alone; dry without a rule. */
export function ruleDaysFrom(
  plan: Plan,
  program: Program,
  first: EpochDay,
  count: number,
): RuleDay[] {
  const { days } = program;
  // A rule can be shown before there is a start.
  const starts = days?.rule === 'hours' || program.starts.length > 0 ? program.starts : ['00:00'];
  const { offDaysOfMonth: _off, ...settings } = plan.settings;
  const bare = { ...plan, settings };
  const unblocked =
    days !== null && 'blockedWeekdays' in days ? { ...days, blockedWeekdays: [] } : days;
  const sets = (of: Plan, rule: Program['days']) =>
    startsOf(of, { ...program, starts, days: rule });
  const all = sets(plan, days);
  const withoutOff = sets(bare, days);
  const withoutBlocks = sets(bare, unblocked);
  const resumes = resumesAt(plan);
  const on = (set: readonly { readonly days: DaySet }[], day: EpochDay) =>
    set.some((one) => isIn(one.days, day));
  const state = (day: EpochDay): RuleDay['state'] => {
    if (!on(withoutBlocks, day)) return 'dry';
    if (!on(withoutOff, day)) return 'blocked';
    if (!on(all, day)) return 'off';
    const runs = all.some(
      (start) => isIn(start.days, day) && day * SECONDS_PER_DAY + start.secondOfDay >= resumes,
    );
    return runs ? 'waters' : 'delayed';
  };
  return Array.from({ length: count }, (_, i) => ({ day: first + i, state: state(first + i) }));
}

/** Days left of a program's interval as the timer shows them on a date; null if its rule is not an interval. */
export function intervalDaysLeft({ days }: Program, today: EpochDay): number | null {
  if (days?.rule !== 'interval') return null;
  return daysLeft(
    days.everyDays,
    assertDefined(parseDate(days.firstDate), 'parseDate(days.firstDate)'),
    today,
  );
}
