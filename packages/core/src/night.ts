/** What the night strip shows: nights from afternoon to afternoon, as intended and as the timer will really run them. */
import { SECONDS_PER_DAY, type ClockSecond, type EpochDay } from './calendar.ts';
import type { TimeText, Plan } from './plan.ts';
import {
  dueCycles,
  simulate,
  type DueCycle,
  type ServedCycle,
  type ServedRun,
} from './simulate.ts';

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

export interface Night {
  /** The date on whose afternoon the night begins. */
  readonly day: EpochDay;
  readonly from: ClockSecond;
  readonly to: ClockSecond;
  /** Every cycle that has a second inside the night, by beginning. */
  readonly intended: readonly IntendedCycle[];
  readonly overlaps: readonly SharedStretch[];
  /** Every start due in the night, and what becomes of it. */
  readonly served: readonly ServedCycle[];
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

function intendedOf({ letter, start, due, shape }: DueCycle): IntendedCycle {
  return {
    letter,
    start,
    begins: due,
    ends: due + shape.seconds,
    runs: shape.runs.map(({ station, on, off }) => ({ station, on: due + on, off: due + off })),
  };
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

/**
 * So many nights from the one that begins on the afternoon of `first`. The cycles and the overlaps are those of the plan
 * switched on; what really runs is nothing where the timer is off.
 *
 * Cost: that of simulating the nights and `DAYS_BEFORE` days before them.
 */
export function nightsFrom(plan: Plan, first: EpochDay, count: number): Night[] {
  const days = DAYS_BEFORE + count + 1;
  const due = dueCycles(plan, first - DAYS_BEFORE, days);
  const { cycles, runs } = simulate(plan, first - DAYS_BEFORE, days);
  return Array.from({ length: count }, (_, i) => {
    const day = first + i;
    const from = day * SECONDS_PER_DAY + NIGHT_BEGINS_SECOND;
    const to = from + SECONDS_PER_DAY;
    const intended = due
      .filter((one) => one.due < to && one.due + one.shape.seconds > from)
      .map(intendedOf);
    return {
      day,
      from,
      to,
      intended,
      overlaps: sharedStretches(intended).filter((one) => one.from < to && one.to > from),
      served: cycles.filter((one) => one.due.due >= from && one.due.due < to),
      runs: runs.filter((run) => run.on < to && run.off > from),
    };
  });
}
