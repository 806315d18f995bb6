/** The verdict on a plan, exact for all time (plan-format.md, `check`). */
import {
  LAST_DAY,
  monthOf,
  parseTime,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  type EpochDay,
} from './calendar.ts';
import { cycleModel, cycleSecondsAt, type CycleModel } from './cycle.ts';
import { findingsOf, type Finding } from './findings.ts';
import { headroomPercent, type CompleteProgram } from './headroom.ts';
import { blockedTimes, findOverlaps, type NamedStart, type Overlap, type Span } from './overlap.ts';
import { programsByLetter, type Plan, type Program } from './plan.ts';
import {
  effectivePercent,
  enabledStations,
  firstDayNotDelayed,
  isUnused,
  missingOf,
  resumesAt,
  variesByMonth,
  weekdayMaskOf,
  type Missing,
} from './program.ts';

export type Verdict = 'clear' | 'overlap' | 'incomplete' | 'empty';

export interface ProgramCheck {
  readonly letter: string;
  readonly missing: readonly Missing[];
  /** Of nominal cycles over all dates from the day of the check on; null where it never fires. */
  readonly cycleSeconds: { readonly shortest: number; readonly longest: number } | null;
  /** Up to five. */
  readonly nextWateringDays: readonly EpochDay[];
}

export interface Check {
  readonly on: EpochDay;
  readonly verdict: Verdict;
  readonly overlaps: readonly Overlap[];
  readonly headroomPercent: number | null;
  readonly programs: readonly ProgramCheck[];
  readonly findings: readonly Finding[];
}

function namedStarts(program: Program): NamedStart[] {
  const times = new Map<string, number>();
  for (const start of program.starts) times.set(start, (times.get(start) ?? 0) + 1);
  return [...times]
    .map(([start, count]) => ({ start, secondOfDay: parseTime(start) ?? 0, times: count }))
    .sort((a, b) => a.secondOfDay - b.secondOfDay);
}

/** Length of a program's cycle for each month, January first, at the set percents. */
function lengthsByMonth(plan: Plan, program: Program, model: CycleModel): number[] {
  if (!variesByMonth(plan)) {
    const seconds = cycleSecondsAt(model, effectivePercent(plan, program, 1));
    return new Array<number>(12).fill(seconds);
  }
  return Array.from({ length: 12 }, (_, i) =>
    cycleSecondsAt(model, effectivePercent(plan, program, i + 1)),
  );
}

const NEXT_DATES = 5;
/** Every month has every weekday, so a weekly rule has met each of the twelve within a year of dates. */
const DATES_THAT_SHOW_EVERY_MONTH = 400;

/** The first dates on which at least one start of a complete program fires. */
function wateringDays(weekdays: number, earliest: EpochDay, most: number): EpochDay[] {
  const days: EpochDay[] = [];
  for (let day = earliest; day <= LAST_DAY && days.length < most; day++)
    if (weekdays & (1 << weekdayIndexOf(day))) days.push(day);
  return days;
}

function checkProgram(
  letter: string,
  missing: readonly Missing[],
  complete: CompleteProgram | undefined,
  { from, resumes }: Span,
  byMonth: boolean,
): ProgramCheck {
  const none = { letter, missing, cycleSeconds: null, nextWateringDays: [] };
  if (!complete) return none;
  const { weekdays, starts, secondsByMonth } = complete.cycles;
  // A later time of day can come a date earlier out of a rain delay.
  const earliest = Math.min(
    ...starts.map((start) => firstDayNotDelayed(resumes, start.secondOfDay, from)),
  );
  const nextWateringDays = wateringDays(weekdays, earliest, NEXT_DATES);
  if (nextWateringDays.length === 0) return none;
  const seen = byMonth
    ? wateringDays(weekdays, earliest, DATES_THAT_SHOW_EVERY_MONTH)
    : nextWateringDays;
  const lengths = seen.map((day) => secondsByMonth[monthOf(day) - 1] ?? 0);
  return {
    letter,
    missing,
    cycleSeconds: { shortest: Math.min(...lengths), longest: Math.max(...lengths) },
    nextWateringDays,
  };
}

/** Every program with what it lacks, or where it lacks nothing with what the proof needs of it. */
function examined(plan: Plan, on: EpochDay) {
  const enabled = enabledStations(plan);
  const span: Span = { from: on, resumes: resumesAt(plan) };
  const programs = programsByLetter(plan).map((program) => {
    const missing = missingOf(program, enabled);
    if (missing.length > 0) return { program, missing, complete: undefined };
    const model = cycleModel(plan, program);
    const complete: CompleteProgram = {
      model,
      cycles: {
        letter: program.letter,
        weekdays: weekdayMaskOf(program.days),
        starts: namedStarts(program),
        secondsByMonth: lengthsByMonth(plan, program, model),
      },
    };
    return { program, missing, complete };
  });
  return { span, programs };
}

/**
 * The times of day on the timer's step to which a start may not be moved, since its cycle would at some time overlap
 * another one or itself. Empty where the program is not complete.
 *
 * @returns seconds of the day, ascending.
 */
export function blockedStarts(plan: Plan, letter: string, start: string, on: EpochDay): number[] {
  const { span, programs } = examined(plan, on);
  const step = plan.timer.startStepMinutes * 60;
  const candidates = Array.from({ length: SECONDS_PER_DAY / step }, (_, i) => i * step);
  const complete = programs.flatMap((one) => one.complete?.cycles ?? []);
  return blockedTimes(complete, letter, start, candidates, span);
}

/**
 * Checks a sound and covered plan (`readPlan`, `notCovered`) as if it were switched on.
 *
 * @param on the day of the check; only dates on or after it count.
 * Cost: pairs of starts × percent steps at the most; see docs/benchmarks.md.
 */
export function check(plan: Plan, on: EpochDay): Check {
  const { span, programs } = examined(plan, on);
  const complete = programs.flatMap((one) => one.complete ?? []);
  const overlaps = findOverlaps(
    complete.map((one) => one.cycles),
    span,
  );
  const headroom = headroomPercent(plan.timer, complete, span);
  const halfSet = programs.some(({ missing }) => missing.length > 0 && !isUnused(missing));
  const verdict: Verdict =
    overlaps.length > 0
      ? 'overlap'
      : halfSet
        ? 'incomplete'
        : complete.length === 0
          ? 'empty'
          : 'clear';
  const byMonth = variesByMonth(plan);
  const checked = programs.map((one) =>
    checkProgram(one.program.letter, one.missing, one.complete, span, byMonth),
  );
  return {
    on,
    verdict,
    overlaps,
    headroomPercent: headroom,
    programs: checked,
    findings: findingsOf(plan, { on, overlaps, headroomPercent: headroom, programs: checked }),
  };
}
