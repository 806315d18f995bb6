/**
 * When each station is wet, for all dates at once: the runs of nominal cycles (timing-rules.md sections 5 and 6), one set for each start
 * and each class of dates with equal cycles.
 */
import { SECONDS_PER_DAY, type EpochDay } from '../time/calendar.ts';
import type { CycleRun } from './cycleModel.ts';
import { firstDayNotDelayed, resumesAt } from '../plan/starts.ts';
import { type StartDays } from '../time/dayRules.ts';
import type { Effort } from './effort.ts';
import { Meetings, type DayClass, type MonthMask } from '../time/meetings.ts';
import { lowestWeekday, ProgramCycles } from './nominal.ts';
import { programsByLetter, type Plan, type Program } from '../plan/plan.ts';
import { wateringStations } from '../plan/linked.ts';
import { missingOf } from '../plan/program.ts';

/** The Monday 1969-12-29. */
const MONDAY = -3;

/** One start on the dates with equal cycles. */
export interface WetStart {
  readonly program: Program;
  readonly start: StartDays;
  readonly dates: DayClass;
  /** The first date that counts. */
  readonly least: EpochDay;
  /** Seconds from 00:00 of the start's due date; ascending by `on`. */
  readonly runs: readonly CycleRun[];
  /** Stations that run in it, each once. */
  readonly stations: readonly number[];
  /** Whether a window interrupts between two moments. */
  readonly isPause: (off: number, on: number) => boolean;
}

export class WetStarts {
  readonly effort: Effort;
  readonly all: readonly WetStart[];
  readonly meetings: Meetings;
  /** Every start of each complete program, with the set of its dates. */
  readonly starts = new Map<string, readonly StartDays[]>();

  /** @throws TooMuchWork */
  constructor(plan: Plan, on: EpochDay, effort: Effort) {
    this.effort = effort;
    this.meetings = new Meetings(effort);
    const watering = wateringStations(plan);
    const resumes = resumesAt(plan);
    const all: WetStart[] = [];
    for (const program of programsByLetter(plan)) {
      if (missingOf(program, watering).length > 0) continue;
      const cycles = new ProgramCycles(plan, program, effort);
      this.starts.set(program.letter, cycles.starts);
      const months = new Map<number, MonthMask>();
      cycles.percents.forEach((percent, i) =>
        months.set(percent, (months.get(percent) ?? 0) | (1 << i)),
      );
      for (const start of cycles.starts)
        for (const [percent, mask] of months)
          for (const weekdays of cycles.weekdayMasks()) {
            if (!(weekdays & start.days.weekdays)) continue;
            const runs = runsOf(cycles, start, weekdays, percent);
            const dates = this.meetings.classOf(start.days, weekdays, mask);
            const least = firstDayNotDelayed(resumes, start.secondOfDay, on);
            if (runs.length > 0 && this.meetings.firstOf(dates, least) !== null)
              all.push({
                program,
                start,
                dates,
                least,
                runs,
                stations: [...new Set(runs.map(({ station }) => station))],
                isPause: pausesOf(cycles, weekdays),
              });
          }
    }
    this.all = all;
  }

  private stationsOnce: ReadonlyMap<number, readonly WetStart[]> | null = null;

  /** The starts that wet a station, in the order of `all`. */
  of(station: number): readonly WetStart[] {
    return (this.stationsOnce ??= this.byStation()).get(station) ?? [];
  }

  private byStation(): Map<number, WetStart[]> {
    const sorted = new Map<number, WetStart[]>();
    for (const wet of this.all)
      for (const station of wet.stations) {
        this.effort.spend(1);
        const own = sorted.get(station);
        if (own) own.push(wet);
        else sorted.set(station, [wet]);
      }
    return sorted;
  }

  /** The first date of a start on some weekdays, or null. */
  firstOn({ start, dates, least }: WetStart, weekdays: number): EpochDay | null {
    return this.meetings.firstOf(
      this.meetings.classOf(start.days, dates.weekdays & weekdays, dates.months),
      least,
    );
  }
}

function pausesOf({ windows }: ProgramCycles, weekdays: number): WetStart['isPause'] {
  const midnight = (MONDAY + lowestWeekday(weekdays)) * SECONDS_PER_DAY;
  return (off, on) =>
    windows !== null &&
    !windows.isFree(midnight + off) &&
    windows.nextFree(midnight + off) === midnight + on;
}

function runsOf(
  cycles: ProgramCycles,
  start: StartDays,
  weekdays: number,
  percent: number,
): CycleRun[] {
  const weekday = lowestWeekday(weekdays & start.days.weekdays);
  const cycle = cycles.nominal(start.secondOfDay, weekday, percent);
  if (!cycle) return [];
  const midnight = (MONDAY + weekday) * SECONDS_PER_DAY;
  return cycles
    .runsOf(midnight + cycle.begins, midnight + cycle.ends, percent)
    .map(({ station, on, off }) => ({ station, on: on - midnight, off: off - midnight }))
    .sort((a, b) => a.on - b.on || a.station - b.station);
}

/** Days, counted from the start's date, that a range of seconds touches. */
export function* daysOf({
  on,
  off,
}: {
  readonly on: number;
  readonly off: number;
}): Generator<number> {
  for (let day = Math.floor(on / SECONDS_PER_DAY); day * SECONDS_PER_DAY < off; day++) yield day;
}

/** Runs of one station in a start's cycle. */
export const runsOfStation = ({ runs }: Pick<WetStart, 'runs'>, station: number): CycleRun[] =>
  runs.filter((run) => run.station === station);

/** Runs of one station, ascending; adjacent runs are joined. */
export function joinedRuns(
  runs: readonly { readonly on: number; readonly off: number }[],
): { on: number; off: number }[] {
  const joined: { on: number; off: number }[] = [];
  for (const { on, off } of runs) {
    const last = joined.at(-1);
    if (last && on <= last.off) last.off = Math.max(last.off, off);
    else joined.push({ on, off });
  }
  return joined;
}
