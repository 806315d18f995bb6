/**
 * Nominal cycles: what each start of a program would do alone (timing-rules.md sections 5 and 6). A nominal cycle depends only on the
 * start's time of day, the weekday of its date (because of windows) and the percent of its month. It is computed once for each of these, in
 * seconds from 00:00 of its date.
 */
import { assertDefined } from '../document/assertDefined.ts';
import {
  monthOf,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  type ClockSecond,
  type EpochDay,
  type TimeText,
} from '../time/calendar.ts';
import {
  betweenWindows,
  cycleSecondsAt,
  pausedCycleEnd,
  shapeAt,
  type CycleShape,
} from './cycle.ts';
import { cycleModel, longestConceivable, type CycleModel, type CycleRun } from './cycleModel.ts';
import { EVERY_WEEKDAY, isIn, type WeekdayMask, type StartDays } from '../time/dayRules.ts';
import { startsOf } from '../plan/starts.ts';
import { Effort } from './effort.ts';
import type { MonthMask } from '../time/meetings.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { effectivePercent, variesByMonth } from '../plan/program.ts';
import { SECONDS_PER_WEEK, WeekWindows } from '../time/windows.ts';

/** What a cycle occupies, end excluded. Seconds from 00:00 of the date it was due, or clock seconds. */
export interface Occupied {
  readonly begins: number;
  readonly ends: number;
}

/** Equal nominal cycles: those of one start on some weekdays and in some months. */
export interface CycleClass extends Occupied {
  readonly weekdays: WeekdayMask;
  readonly months: MonthMask;
}

/** Classes found for given percents. */
interface Classes {
  readonly choices: PercentChoices;
  readonly classes: readonly CycleClass[];
}

const EACH_WEEKDAY: readonly WeekdayMask[] = Array.from({ length: 7 }, (_, w) => 1 << w);
const NO_CYCLE: Occupied = { begins: 0, ends: 0 };

/** Index of the first weekday in a mask. */
export const lowestWeekday = (mask: WeekdayMask) => 31 - Math.clz32(mask & -mask);

/** Monday 1969-12-29 as an epoch day: weekday w of any week is represented by day `MONDAY + w`. */
const MONDAY: EpochDay = -3;

/** Everything one complete program does alone, computed on demand and cached. */
export class ProgramCycles {
  readonly letter: string;
  readonly starts: readonly StartDays[];
  readonly model: CycleModel;
  /** Windows in force: null if the timer has none, or none is set. */
  readonly windows: WeekWindows | null;
  readonly cutsInWindow: boolean;
  /** Percent of each month, January first. */
  readonly percents: readonly number[];
  private readonly isSameAllYear: boolean;
  private readonly effort: Effort;
  private readonly lengths = new Map<number, number>();
  private readonly shapes = new Map<number, CycleShape>();
  /** End of a pausing cycle by second of the week and percent, in seconds of that week. */
  private readonly pausedEnds = new Map<number, number>();
  /** Length of a cycle by the distance to the one window it meets, the window's length, and the percent. */
  private readonly pausedOnce = new Map<number, number>();
  private readonly classesOnce = new Map<StartDays, Classes>();
  private ownChoices: PercentChoices | null = null;

  constructor(plan: Plan, program: Program, effort: Effort) {
    const { inWindow } = plan.timer;
    this.letter = program.letter;
    this.starts = startsOf(plan, program);
    this.model = cycleModel(plan, program);
    this.effort = effort;
    const set = [...(plan.settings.noWaterWindows ?? []), ...(program.noWaterWindows ?? [])];
    const windows = inWindow === 'ignore' ? null : new WeekWindows(set);
    this.windows = windows === null || windows.isEmpty ? null : windows;
    this.cutsInWindow = inWindow === 'cut';
    this.percents = variesByMonth(plan)
      ? Array.from({ length: 12 }, (_, i) => effectivePercent(plan, program, i + 1))
      : new Array<number>(12).fill(effectivePercent(plan, program, 1));
    this.isSameAllYear = this.percents.every((percent) => percent === this.percents[0]);
  }

  percentOn(day: EpochDay): number {
    // Asked for on every day of every simulation, and usually the same all year.
    return assertDefined(this.percents[this.isSameAllYear ? 0 : monthOf(day) - 1], 'percents');
  }

  /** Length in seconds with no window in the way; 0: nothing to run. */
  lengthAt(percent: number): number {
    let seconds = this.lengths.get(percent);
    if (seconds === undefined) {
      seconds = cycleSecondsAt(this.model, percent, this.effort);
      this.lengths.set(percent, seconds);
    }
    return seconds;
  }

  /** Upper bound in seconds of cycles at up to a percent; coarse. */
  longestAt(percent: number): number {
    return longestConceivable(this.model, percent, this.windows);
  }

  /** When a cycle begins whose start is due, or whose turn comes, at `moment`; null: a window cancels it. */
  beginOf(moment: ClockSecond): ClockSecond | null {
    if (!this.windows) return moment;
    const free = this.windows.nextFree(moment);
    return free === moment || !this.cutsInWindow ? free : null;
  }

  /** When a cycle begun at a free moment ends, with windows in force and nothing else in its way. */
  endOf(begin: ClockSecond, percent: number): ClockSecond {
    const length = this.lengthAt(percent);
    if (!this.windows) return begin + length;
    const until = this.windows.nextWindow(begin);
    if (begin + length <= until) return begin + length;
    if (this.cutsInWindow) return until;
    // A cycle usually meets one window; then the weekday does not matter.
    const resumes = this.windows.nextFree(until);
    const again = this.windows.nextWindow(resumes);
    const once = ((until - begin) * SECONDS_PER_WEEK + (resumes - until)) * 1024 + percent;
    const known = this.pausedOnce.get(once);
    if (known !== undefined && begin + known <= again) return begin + known;
    const end = this.pausedEnd(begin, percent);
    if (end <= again) this.pausedOnce.set(once, end - begin);
    return end;
  }

  private pausedEnd(begin: ClockSecond, percent: number): ClockSecond {
    const { windows } = this;
    if (!windows) return begin;
    const week =
      Math.floor((begin - MONDAY * SECONDS_PER_DAY) / SECONDS_PER_WEEK) * SECONDS_PER_WEEK;
    const inWeek = begin - week;
    const key = (inWeek + SECONDS_PER_WEEK) * 1024 + percent;
    let end = this.pausedEnds.get(key);
    if (end === undefined) {
      end = pausedCycleEnd(this.model, percent, windows, inWeek, this.effort);
      this.pausedEnds.set(key, end);
    }
    return week + end;
  }

  /** Runs of a cycle begun at a free moment, up to `ends`, which may be before its own end. */
  runsOf(begin: ClockSecond, ends: ClockSecond, percent: number): CycleRun[] {
    const runs: CycleRun[] = [];
    const add = ({ station, on, off }: CycleRun) => {
      if (on < ends) runs.push({ station, on, off: Math.min(off, ends) });
    };
    const { windows } = this;
    if (windows && !this.cutsInWindow && begin + this.lengthAt(percent) > windows.nextWindow(begin))
      pausedCycleEnd(this.model, percent, windows, begin, this.effort, (piece) => {
        for (const run of betweenWindows(piece, windows, this.effort)) add(run);
      });
    else
      for (const { station, on, off } of this.shapeAt(percent).runs)
        add({ station, on: begin + on, off: begin + off });
    this.effort.spend(runs.length * 4);
    return runs;
  }

  private shapeAt(percent: number): CycleShape {
    let shape = this.shapes.get(percent);
    if (!shape) this.shapes.set(percent, (shape = shapeAt(this.model, percent, this.effort)));
    return shape;
  }

  /** Nominal cycle of a start due on a weekday, from 00:00 of its date, or null. */
  nominal(secondOfDay: number, weekday: number, percent: number): Occupied | null {
    if (this.lengthAt(percent) === 0) return null;
    const midnight = (MONDAY + weekday) * SECONDS_PER_DAY;
    const begin = this.beginOf(midnight + secondOfDay);
    if (begin === null) return null;
    return { begins: begin - midnight, ends: this.endOf(begin, percent) - midnight };
  }

  /** Nominal cycle of a start due on a date, at the set percent, or null. */
  nominalOn(secondOfDay: number, day: EpochDay): Occupied | null {
    const cycle = this.nominal(secondOfDay, weekdayIndexOf(day), this.percentOn(day));
    const midnight = day * SECONDS_PER_DAY;
    return cycle && { begins: midnight + cycle.begins, ends: midnight + cycle.ends };
  }

  /** Masks of weekdays with equal windows: all together, or each alone. */
  weekdayMasks(): readonly WeekdayMask[] {
    return !this.windows || this.windows.sameEveryDay ? [EVERY_WEEKDAY] : EACH_WEEKDAY;
  }

  /**
   * Divides the dates of one start into classes of equal cycles; every date is in exactly one. A class without a cycle (nothing to run, or
   * cancelled by a window) begins and ends at 0.
   *
   * @param choices percents each month may have, January first; with several, a cycle is taken to occupy what the longest of them does
   */
  classesOf(start: StartDays, choices: PercentChoices): readonly CycleClass[] {
    const known = this.classesOnce.get(start);
    if (known?.choices === choices) return known.classes;
    const months = new Map<readonly number[], MonthMask>();
    choices.forEach((percents, i) => months.set(percents, (months.get(percents) ?? 0) | (1 << i)));
    const classes: CycleClass[] = [];
    for (const [percents, mask] of months) {
      const alike: (CycleClass & { weekdays: number })[] = [];
      for (const weekdays of this.weekdayMasks()) {
        if (!(weekdays & start.days.weekdays)) continue;
        const weekday = lowestWeekday(weekdays);
        const cycle = this.longestNominal(start.secondOfDay, weekday, percents) ?? NO_CYCLE;
        const { begins, ends } = cycle;
        const like = alike.find((one) => one.begins === begins && one.ends === ends);
        if (like) like.weekdays |= weekdays;
        else alike.push({ begins, ends, weekdays, months: mask });
      }
      classes.push(...alike);
    }
    const found = { choices, classes };
    this.classesOnce.set(start, found);
    return classes;
  }

  /** The set percents, one for each month; always the same list. */
  choicesAsSet(): PercentChoices {
    if (this.ownChoices) return this.ownChoices;
    const lists = new Map<number, readonly number[]>();
    for (const percent of this.percents) if (!lists.has(percent)) lists.set(percent, [percent]);
    return (this.ownChoices = this.percents.map((percent) => lists.get(percent) ?? [percent]));
  }

  private longestNominal(
    secondOfDay: number,
    weekday: number,
    percents: readonly number[],
  ): Occupied | null {
    let longest: Occupied | null = null;
    for (const percent of percents) {
      const cycle = this.nominal(secondOfDay, weekday, percent);
      if (cycle && (!longest || cycle.ends > longest.ends)) longest = cycle;
    }
    return longest;
  }
}

/** Percents each month may have, January first. Equal months share one list. */
export type PercentChoices = readonly (readonly number[])[];

export const allYear = (percents: readonly number[]): PercentChoices =>
  new Array<readonly number[]>(12).fill(percents);

/** The set percents, one for each month. */
export const asSet = (program: ProgramCycles): PercentChoices => program.choicesAsSet();

/** A start's next occurrence: what it occupies alone, in clock seconds. */
export interface NextCycle {
  readonly start: TimeText;
  readonly due: ClockSecond;
  /** Null: nothing to run, or cancelled by a window. */
  readonly cycle: Occupied | null;
}

/** Days searched for a start's next date. */
const DAYS_AHEAD = 400;

/**
 * The next cycle of each start of a program on or after a date, in order of time of day; without a date soon, or without a day rule, as it
 * would be on the given date. Incomplete programs are included.
 *
 * @throws TooMuchWork
 */
export function nextCycles(plan: Plan, program: Program, from: EpochDay): NextCycle[] {
  const cycles = new ProgramCycles(plan, program, new Effort());
  return cycles.starts.map(({ start, secondOfDay, days }) => {
    let day = from;
    while (day < from + DAYS_AHEAD && !isIn(days, day)) day++;
    if (day === from + DAYS_AHEAD) day = from;
    const due = day * SECONDS_PER_DAY + secondOfDay;
    return { start, due, cycle: cycles.nominalOn(secondOfDay, day) };
  });
}
