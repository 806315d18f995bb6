/** What the night strip shows: nights from afternoon to afternoon, as intended and as the timer will really run them. */
import { SECONDS_PER_DAY, type ClockSecond, type EpochDay } from './calendar.ts';
import type { ClockChange } from './clock.ts';
import type { Effort } from './effort.ts';
import type { TimeText, Plan } from './plan.ts';
import { dueCycles, serve, type DueCycle, type ServedCycle, type ServedRun } from './simulate.ts';

/** A night runs from 15:00 to 15:00, so that midnight and sunrise stand well inside it. */
export const NIGHT_BEGINS_SECOND = 15 * 3600;
/** Until 9 in the morning "tonight" is the night that is still going on. */
const MORNING_ENDS_SECOND = 9 * 3600;
/** A queue on a weekly plan is either worked off within a week or grows for ever; so many days before show which. */
const DAYS_BEFORE = 8;

/** A cycle as it would run by itself, at its place in time. */
export interface IntendedCycle {
  readonly letter: string;
  readonly start: TimeText;
  readonly begins: ClockSecond;
  readonly ends: ClockSecond;
  readonly runs: readonly { readonly station: number; readonly on: number; readonly off: number }[];
}

/** A stretch of time in which two intended cycles both run. */
export interface SharedStretch {
  readonly first: IntendedCycle;
  readonly second: IntendedCycle;
  readonly from: ClockSecond;
  readonly to: ClockSecond;
}

/** A start due in the night, and what becomes of it. */
export interface ServedStart {
  readonly letter: string;
  readonly start: TimeText;
  readonly due: ClockSecond;
  readonly outcome: 'ran' | 'cut' | 'lost';
  /** Null where it was lost. */
  readonly began: ClockSecond | null;
  readonly ended: ClockSecond | null;
  /** What it does by itself; null: a window takes it whole. */
  readonly intended: { readonly begins: ClockSecond; readonly ends: ClockSecond } | null;
}

export interface Night {
  /** The date on whose afternoon the night begins. */
  readonly day: EpochDay;
  readonly from: ClockSecond;
  readonly to: ClockSecond;
  /** Every cycle that has a second inside the night, by beginning. */
  readonly intended: readonly IntendedCycle[];
  readonly overlaps: readonly SharedStretch[];
  /** Every start due in the night, and what becomes of it. */
  readonly served: readonly ServedStart[];
  /** Every valve that is really open for a second inside the night. */
  readonly runs: readonly ServedRun[];
}

/** The night that people call tonight: the one going on until nine in the morning, then the coming one. */
export function tonightOf(now: ClockSecond): EpochDay {
  return Math.floor((now - MORNING_ENDS_SECOND) / SECONDS_PER_DAY);
}

/** The night in which a moment falls, by the date on whose afternoon it begins. */
export function nightOf(moment: ClockSecond): EpochDay {
  return Math.floor((moment - NIGHT_BEGINS_SECOND) / SECONDS_PER_DAY);
}

function intendedOf({ letter, start, percent, nominal, program }: DueCycle): IntendedCycle[] {
  if (!nominal) return [];
  const { begins, ends } = nominal;
  return [{ letter, start, begins, ends, runs: program.runsOf(begins, ends, percent) }];
}

/** Stretches that two cycles of a list have in common; the list stands in the order of beginnings. */
function sharedStretches(cycles: readonly IntendedCycle[]): SharedStretch[] {
  const shared: SharedStretch[] = [];
  for (const [i, first] of cycles.entries())
    for (const second of cycles.slice(i + 1)) {
      if (second.begins >= first.ends) break;
      shared.push({ first, second, from: second.begins, to: Math.min(first.ends, second.ends) });
    }
  return shared;
}

/** What nights are seen under, beside the plan. */
export interface Circumstances {
  /** Seconds by which the timer's clock is ahead of the true hour; all moments of the answer are true ones. */
  readonly ahead?: number;
  /** Of the house's clocks; a timer that follows them fires the starts of a skipped hour after it. */
  readonly changes?: readonly ClockChange[];
  /** What the answer may cost. */
  readonly effort?: Effort;
}

/**
 * So many nights from the one that begins on the afternoon of `first`. The cycles and the overlaps are those of the plan
 * switched on; what really runs is nothing where the timer is off.
 *
 * Cost: that of simulating the nights and `DAYS_BEFORE` days before them.
 * @throws TooMuchWork
 */
export function nightsFrom(
  plan: Plan,
  first: EpochDay,
  count: number,
  { ahead = 0, changes = [], effort }: Circumstances = {},
): Night[] {
  const begin = first * SECONDS_PER_DAY + NIGHT_BEGINS_SECOND + ahead;
  const firstDay = Math.floor(begin / SECONDS_PER_DAY) - DAYS_BEFORE;
  const days = DAYS_BEFORE + count + 1;
  const followed = plan.timer.followsDaylightSaving ? changes : [];
  const due = dueCycles(plan, firstDay, days, followed, effort);
  const all = due
    .filter(({ nominal }) => nominal && nominal.ends > begin)
    .flatMap(intendedOf)
    .map((cycle) => shifted(cycle, ahead))
    .sort((x, y) => x.begins - y.begins);
  const simulation = serve(plan, due);
  const served = simulation.cycles.map((cycle) => servedStart(cycle, ahead));
  const runs = simulation.runs.map((run) => ({ ...run, on: run.on - ahead, off: run.off - ahead }));
  return Array.from({ length: count }, (_, i) => {
    const day = first + i;
    const from = day * SECONDS_PER_DAY + NIGHT_BEGINS_SECOND;
    const to = from + SECONDS_PER_DAY;
    const intended = all.filter((one) => one.begins < to && one.ends > from);
    return {
      day,
      from,
      to,
      intended,
      overlaps: sharedStretches(intended).filter((one) => one.from < to && one.to > from),
      served: served.filter((one) => one.due >= from && one.due < to),
      runs: runs.filter((run) => run.on < to && run.off > from),
    };
  });
}

function shifted(
  { letter, start, begins, ends, runs }: IntendedCycle,
  ahead: number,
): IntendedCycle {
  return {
    letter,
    start,
    begins: begins - ahead,
    ends: ends - ahead,
    runs: runs.map(({ station, on, off }) => ({ station, on: on - ahead, off: off - ahead })),
  };
}

function servedStart({ due, outcome, began, ended }: ServedCycle, ahead: number): ServedStart {
  return {
    letter: due.letter,
    start: due.start,
    due: due.due - ahead,
    outcome,
    began: began === null ? null : began - ahead,
    ended: ended === null ? null : ended - ahead,
    intended: due.nominal && {
      begins: due.nominal.begins - ahead,
      ends: due.nominal.ends - ahead,
    },
  };
}

/**
 * The plan as it would be with every cycle at one percent, whatever the timer can hold: July's strip in March. Not for
 * saving.
 */
export function atPercent(plan: Plan, percent: number): Plan {
  const { monthlyPercent: _dropped, ...settings } = plan.settings;
  return {
    ...plan,
    timer: { ...plan.timer, seasonal: { ...plan.timer.seasonal, scope: 'timer', byMonth: false } },
    settings: { ...settings, seasonalPercent: percent },
  };
}
