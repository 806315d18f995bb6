/** Dates at a distance: which programs water on which dates of a year, and what a program's day rule makes of each date. */
import { assertDefined } from '../document/assertDefined.ts';
import { civilOf, parseDate, SECONDS_PER_DAY, type EpochDay } from '../time/calendar.ts';
import { daysLeft, isIn, type DaySet } from '../time/dayRules.ts';
import { resumesAt, startsOf } from '../plan/starts.ts';
import { NIGHT_BEGINS_SECOND } from './night.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { dueCycles, type DueCycle } from './simulate.ts';
import { WeekWindows } from '../time/windows.ts';

/** An off day of the month; the rain delay; hours without water that are set from midnight to midnight. */
export type Forbidden = 'off' | 'delay' | 'hours';

/** One date on the timer's display. */
export interface YearDay {
  readonly day: EpochDay;
  /** Letters of the programs of which a start fires with something to run. */
  readonly programs: readonly string[];
  /** Whether a cycle due on this date overlaps another one. */
  readonly overlaps: boolean;
  /** Letters of the programs whose turn it would be, were it not for a blocked weekday, an off day or the rain delay. */
  readonly held: readonly string[];
  /** Why nothing may water on the whole of the date; null: something may. */
  readonly forbidden: Forbidden | null;
  /** The night to look at for this date: that of its first cycle, or the one that ends in its morning. */
  readonly night: EpochDay;
}

/** Cycles that began that many days before may still overlap the first ones. */
const DAYS_BEFORE = 8;

/**
 * The cycles that overlap another one: in the order of their beginnings, those that begin before an earlier one has ended, and
 * those that have not ended when the next begins.
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

/** What a day rule says of one date. */
export interface RuleDay {
  readonly day: EpochDay;
  /**
   * `waters`; `blocked`: the rule's turn, but the weekday is blocked; `off`: an off day of the month; `delayed`: by the rain
   * delay, every start of the date; `dry`: not the rule's turn.
   */
  readonly state: 'waters' | 'blocked' | 'off' | 'delayed' | 'dry';
}

/** Dates from `first` on as a program's day rule has them, whatever else it lacks; dry where none is set. */
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

/** Days left of a program's interval as its timer shows them on a date; null where its rule is not an interval. */
export function intervalDaysLeft({ days }: Program, today: EpochDay): number | null {
  if (days?.rule !== 'interval') return null;
  return daysLeft(
    days.everyDays,
    assertDefined(parseDate(days.firstDate), 'parseDate(days.firstDate)'),
    today,
  );
}
