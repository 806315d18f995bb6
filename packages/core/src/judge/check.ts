/** The verdict on a plan, exact for all time (plan-format.md, `check`). */
import type { Brief } from '../brief/brief.ts';
import { LAST_DAY, SECONDS_PER_DAY, type EpochDay } from '../time/calendar.ts';
import { firstDayNotDelayed, resumesAt, type StartDays } from '../time/dayRules.ts';
import { Effort } from '../engine/effort.ts';
import { findingsOf, type Finding } from './findings.ts';
import { headroomOf, meetsFirstAt } from '../engine/headroom.ts';
import { EVERY_MONTH, Meetings } from '../time/meetings.ts';
import { allYear, asSet, ProgramCycles, type CycleClass } from '../engine/nominal.ts';
import { OverlapProof, type Overlap, type Span } from '../engine/overlap.ts';
import { programsByLetter, type Plan, type Settings } from '../plan/plan.ts';
import { enabledStations, isUnused, missingOf, type Missing } from '../plan/program.ts';

export type Verdict = 'clear' | 'overlap' | 'incomplete' | 'empty';

export interface ProgramCheck {
  readonly letter: string;
  readonly missing: readonly Missing[];
  /** Of nominal cycles over all dates from the day of the check on; null where it never fires. */
  readonly cycleSeconds: { readonly shortest: number; readonly longest: number } | null;
  /** Up to five. */
  readonly nextWateringDays: readonly EpochDay[];
}

/** What becomes of the verdict where somebody else moves the percent (`percentDrivenBy`). */
export interface DrivenPercent {
  readonly by: Exclude<Settings['percentDrivenBy'], 'person' | undefined>;
  readonly lowest: number;
  readonly highest: number;
  /** The first overlap that some percents of the range, changing from cycle to cycle as they like, can bring. */
  readonly overlap: Overlap | null;
}

export interface Check {
  readonly on: EpochDay;
  readonly verdict: Verdict;
  readonly overlaps: readonly Overlap[];
  /** How many there are, also where not all are handed on. */
  readonly overlapCount: number;
  /** How often each of the first overlaps happens in a mean year, in their order; at most `OFTEN_TOLD` of them. */
  readonly perYear: readonly number[];
  readonly headroomPercent: number | null;
  /** Where nothing overlaps as set: the next step of the percent and what meets first there. Null: no step does harm. */
  readonly beyond: { readonly percent: number; readonly meets: Overlap } | null;
  /** Null: a person sets the percent, or it makes no difference. */
  readonly driven: DrivenPercent | null;
  readonly programs: readonly ProgramCheck[];
  readonly findings: readonly Finding[];
}

const NEXT_DATES = 5;
/** The frequency of so many overlaps is worked out; nobody reads on. */
export const OFTEN_TOLD = 20;

/** What one check has in hand. */
class Examination {
  readonly effort: Effort;
  readonly meetings: Meetings;
  readonly span: Span;
  readonly programs: readonly {
    readonly letter: string;
    readonly missing: readonly Missing[];
    readonly cycles: ProgramCycles | null;
  }[];
  readonly complete: readonly ProgramCycles[];
  readonly proof: OverlapProof;

  constructor(plan: Plan, on: EpochDay, effort: Effort) {
    this.effort = effort;
    this.meetings = new Meetings(effort);
    this.span = { from: on, resumes: resumesAt(plan) };
    const enabled = enabledStations(plan);
    this.programs = programsByLetter(plan).map((program) => {
      const missing = missingOf(program, enabled);
      const cycles = missing.length > 0 ? null : new ProgramCycles(plan, program, effort);
      return { letter: program.letter, missing, cycles };
    });
    this.complete = this.programs.flatMap(({ cycles }) => cycles ?? []);
    this.proof = new OverlapProof(this.complete, this.span, this.meetings, effort);
  }

  private least({ secondOfDay }: StartDays): EpochDay {
    return firstDayNotDelayed(this.span.resumes, secondOfDay, this.span.from);
  }

  /** The first dates on which at least one start of a program fires. */
  private nextDays({ starts }: ProgramCycles): EpochDay[] {
    const days = new Set<EpochDay>();
    for (const start of starts) {
      const dates = this.meetings.classOf(start.days, start.days.weekdays, EVERY_MONTH);
      let day = this.meetings.firstOf(dates, this.least(start));
      for (let n = 0; n < NEXT_DATES && day !== null; n++) {
        days.add(day);
        day = day === LAST_DAY ? null : this.meetings.firstOf(dates, day + 1);
      }
    }
    return [...days].sort((a, b) => a - b).slice(0, NEXT_DATES);
  }

  /** The shortest and the longest of a program's nominal cycles, over classes of dates of which there is one to come. */
  private lengths(program: ProgramCycles): ProgramCheck['cycleSeconds'] {
    const classes = program.starts
      .flatMap((start) =>
        program
          .classesOf(start, asSet(program))
          .map((one) => ({ start, one, seconds: length(one) })),
      )
      .sort((a, b) => a.seconds - b.seconds);
    const comes = ({ start, one }: { start: StartDays; one: CycleClass }) =>
      this.meetings.firstOf(
        this.meetings.classOf(start.days, one.weekdays, one.months),
        this.least(start),
      ) !== null;
    const shortest = classes.find(comes);
    const longest = classes.findLast(comes);
    return shortest && longest ? { shortest: shortest.seconds, longest: longest.seconds } : null;
  }

  checked(): ProgramCheck[] {
    return this.programs.map(({ letter, missing, cycles }) => ({
      letter,
      missing,
      cycleSeconds: cycles && this.lengths(cycles),
      nextWateringDays: cycles ? this.nextDays(cycles) : [],
    }));
  }

  /** Whether any overlap can come of percents that somebody else moves. */
  driven({ settings, timer }: Plan): DrivenPercent | null {
    const { percentDrivenBy: by = 'person', percentRange: range } = settings;
    if (by === 'person' || !range || timer.seasonal.scope === 'none') return null;
    const lowest = Math.min(range.lowest, range.highest);
    const highest = Math.max(range.lowest, range.highest);
    const percents = Array.from({ length: highest - lowest + 1 }, (_, i) => lowest + i);
    const choices = allYear(percents);
    return { by, lowest, highest, overlap: this.proof.find(() => choices)[0] ?? null };
  }
}

const length = ({ begins, ends }: CycleClass) => ends - begins;

/**
 * The times of day on the timer's step to which a start may not be moved, since its cycle would at some time overlap
 * another one or itself. Empty where the program is not complete, or has no starts of its own.
 *
 * @returns seconds of the day, ascending.
 * @throws TooMuchWork
 */
export function blockedStarts(plan: Plan, letter: string, start: string, on: EpochDay): number[] {
  const { proof, complete } = new Examination(plan, on, new Effort());
  const program = complete.find((one) => one.letter === letter);
  const own = program?.starts.find((one) => one.start === start);
  const rule = plan.programs.find((one) => one.letter === letter)?.days?.rule;
  if (!program || !own || rule === 'hours') return [];
  const step = plan.timer.startStepMinutes * 60;
  const candidates = Array.from({ length: SECONDS_PER_DAY / step }, (_, i) => i * step);
  const others = proof.othersThan(letter, start);
  return candidates.filter((secondOfDay) =>
    proof.blocks(program, { ...own, times: 1, secondOfDay }, others),
  );
}

/**
 * Checks a sound plan (`readPlan`) as if it were switched on.
 *
 * @param on the day of the check; only dates on or after it count.
 * @param progress is told the share of the longest part of the work that is done, 0 to 1.
 * @param effort what the answer may cost.
 * @param brief what was wanted; null: the findings say nothing of that.
 * @throws TooMuchWork
 * Cost: see docs/benchmarks.md.
 */
export function check(
  plan: Plan,
  on: EpochDay,
  progress?: (share: number) => void,
  effort = new Effort(),
  brief: Brief | null = null,
): Check {
  const examination = new Examination(plan, on, effort);
  const { proof, programs, complete } = examination;
  const overlaps = proof.find(asSet, progress);
  const headroom = headroomOf(plan.timer, complete, proof);
  const meets =
    overlaps.length === 0 && headroom.nextStep !== null
      ? meetsFirstAt(headroom.nextStep, proof)
      : null;
  const halfSet = programs.some(({ missing }) => missing.length > 0 && !isUnused(missing));
  const verdict: Verdict =
    overlaps.length > 0
      ? 'overlap'
      : halfSet
        ? 'incomplete'
        : complete.length === 0
          ? 'empty'
          : 'clear';
  const checked = {
    on,
    verdict,
    overlaps,
    overlapCount: overlaps.length,
    perYear: overlaps.slice(0, OFTEN_TOLD).map((overlap) => proof.perYear(overlap)),
    headroomPercent: headroom.percent,
    beyond: meets && headroom.nextStep !== null ? { percent: headroom.nextStep, meets } : null,
    driven: examination.driven(plan),
    programs: examination.checked(),
  };
  return { ...checked, findings: findingsOf(plan, checked, brief) };
}
