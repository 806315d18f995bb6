/** Data of the night strip: nights from afternoon to afternoon, as intended and as the timer really runs them. */
import {
  SECONDS_PER_DAY,
  type ClockSecond,
  type EpochDay,
  type TimeText,
} from '../time/calendar.ts';
import type { ClockChange } from './clockChanges.ts';
import type { Effort } from './effort.ts';
import type { Plan } from '../plan/plan.ts';
import { dueCycles, serve, type DueCycle, type ServedCycle, type ServedRun } from './simulate.ts';

/** A night runs from 15:00 to 15:00, so that midnight and sunrise are well inside it. */
export const NIGHT_BEGINS_SECOND = 15 * 3600;
/** Until 9 in the morning "tonight" is the night still going on. */
const MORNING_ENDS_SECOND = 9 * 3600;
/** The queue of a weekly plan empties within a week or grows forever; simulating this many days before the night shows which. */
const DAYS_BEFORE = 8;

/** A cycle as it would run alone, at its place in time. */
interface IntendedCycle {
  readonly letter: string;
  readonly start: TimeText;
  readonly begins: ClockSecond;
  readonly ends: ClockSecond;
  readonly runs: readonly { readonly station: number; readonly on: number; readonly off: number }[];
}

/** A period in which two intended cycles both run. */
interface SharedStretch {
  readonly first: IntendedCycle;
  readonly second: IntendedCycle;
  readonly from: ClockSecond;
  readonly to: ClockSecond;
}

/** A start due in the night, and its outcome. */
export interface ServedStart {
  readonly letter: string;
  readonly start: TimeText;
  readonly due: ClockSecond;
  readonly outcome: 'ran' | 'cut' | 'lost';
  /** Null if it was lost. */
  readonly began: ClockSecond | null;
  readonly ended: ClockSecond | null;
  /** What it does alone; null: a window blocks it entirely. */
  readonly intended: { readonly begins: ClockSecond; readonly ends: ClockSecond } | null;
}

/** An open valve; no letter: a manual run. */
type NightRun = Pick<ServedRun, 'station' | 'on' | 'off'> & {
  readonly letter: string | null;
};

export interface Night {
  /** The date on whose afternoon the night begins. */
  readonly day: EpochDay;
  readonly from: ClockSecond;
  readonly to: ClockSecond;
  /** Every cycle with a second inside the night, by beginning. */
  readonly intended: readonly IntendedCycle[];
  readonly overlaps: readonly SharedStretch[];
  /** Every start due in the night, and its outcome. */
  readonly served: readonly ServedStart[];
  /** Every valve really open for a second inside the night. */
  readonly runs: readonly NightRun[];
  /** Whether people, weather or power act on the timer. */
  readonly isPressed?: boolean;
  /** True if so much happens that single runs, and all but the first overlaps, are left out. */
  readonly condensed: boolean;
}

/** The night people call tonight: until nine in the morning the current one, then the coming one. */
export function tonightOf(now: ClockSecond): EpochDay {
  return Math.floor((now - MORNING_ENDS_SECOND) / SECONDS_PER_DAY);
}

/** The night that contains a moment, by the date on whose afternoon it begins. */
export function nightOf(moment: ClockSecond): EpochDay {
  return Math.floor((moment - NIGHT_BEGINS_SECOND) / SECONDS_PER_DAY);
}

/** More runs over all nights than anyone could tell apart, or a page could hold. */
const MOST_RUNS = 20_000;
const MOST_OVERLAPS_OF_A_CONDENSED_NIGHT = 200;

/** The cycles with all their runs, or without any if there would be too many. */
function intendedOf(due: readonly DueCycle[]): {
  readonly cycles: IntendedCycle[];
  readonly condensed: boolean;
} {
  const bare: IntendedCycle[] = [];
  const whole: IntendedCycle[] = [];
  let left = MOST_RUNS;
  for (const { letter, start, percent, nominal, program } of due) {
    if (!nominal) continue;
    const cycle = { letter, start, ...nominal, runs: [] };
    bare.push(cycle);
    if (left < 0) continue;
    const runs = program.runsOf(nominal.begins, nominal.ends, percent);
    left -= runs.length;
    whole.push({ ...cycle, runs });
  }
  return left < 0 ? { cycles: bare, condensed: true } : { cycles: whole, condensed: false };
}

/** The first overlaps in a list of cycles ordered by beginning. */
function sharedStretches(cycles: readonly IntendedCycle[], most: number): SharedStretch[] {
  const shared: SharedStretch[] = [];
  for (const [i, first] of cycles.entries())
    for (let k = i + 1; k < cycles.length; k++) {
      const second = cycles[k];
      if (!second || second.begins >= first.ends) break;
      if (shared.length === most) return shared;
      shared.push({ first, second, from: second.begins, to: Math.min(first.ends, second.ends) });
    }
  return shared;
}

/** What a night depends on besides the plan. */
export interface Circumstances {
  /** Seconds by which the timer's clock is ahead; all moments of the answer are in true time. */
  readonly ahead?: number;
  /** Clock changes of the site; a timer that follows them fires the starts of a skipped hour after it. */
  readonly changes?: readonly ClockChange[];
  /** Limit of work. */
  readonly effort?: Effort;
}

/**
 * A number of nights, the first beginning on the afternoon of `first`. Cycles and overlaps are those of the plan switched on; a timer that
 * is off really runs nothing.
 *
 * Cost: simulating the nights and `DAYS_BEFORE` days before them.
 *
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
  const { cycles, condensed } = intendedOf(
    due.filter(({ nominal }) => nominal && nominal.ends > begin),
  );
  const all = cycles.map((cycle) => shifted(cycle, ahead)).sort((x, y) => x.begins - y.begins);
  const simulation = serve(plan, due, condensed ? Infinity : begin);
  const mostOverlaps = condensed ? MOST_OVERLAPS_OF_A_CONDENSED_NIGHT : Infinity;
  const served = simulation.cycles.map((cycle) => servedStart(cycle, ahead));
  const runs = simulation.runs.map((run) => ({ ...run, on: run.on - ahead, off: run.off - ahead }));
  return Array.from({ length: count }, (_, i) => {
    const day = first + i;
    const from = day * SECONDS_PER_DAY + NIGHT_BEGINS_SECOND;
    const to = from + SECONDS_PER_DAY;
    const intended = all.filter((cycle) => cycle.begins < to && cycle.ends > from);
    return {
      day,
      from,
      to,
      intended,
      overlaps: sharedStretches(intended, mostOverlaps).filter(
        (stretch) => stretch.from < to && stretch.to > from,
      ),
      served: served.filter((servedStart) => servedStart.due >= from && servedStart.due < to),
      runs: runs.filter((run) => run.on < to && run.off > from),
      condensed,
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

/** The plan with every cycle at one percent, whatever the timer supports: July's strip in March. Not for saving. */
export function atPercent(plan: Plan, percent: number): Plan {
  const { monthlyPercent: _dropped, ...settings } = plan.settings;
  return {
    ...plan,
    timer: { ...plan.timer, seasonal: { ...plan.timer.seasonal, scope: 'timer', byMonth: false } },
    settings: { ...settings, seasonalPercent: percent },
  };
}
