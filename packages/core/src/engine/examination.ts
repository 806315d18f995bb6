/** What a check of a plan reports, depending on what was asked for. */
import { type Settings, type Plan, programsByLetter } from '../plan/plan.ts';
import { wateringStations } from '../plan/linked.ts';
import { type Missing, missingOf } from '../plan/program.ts';
import { resumesAt, firstDayNotDelayed } from '../plan/starts.ts';
import { type StartDays } from '../time/dayRules.ts';
import { type EpochDay, LAST_DAY } from '../time/calendar.ts';
import { Meetings, EVERY_MONTH } from '../time/meetings.ts';
import type { Effort } from './effort.ts';
import { ProgramCycles, asSet, type CycleClass, allYear } from './nominal.ts';
import { type Overlap, OverlapProof } from './overlap.ts';
import { type Span } from './namedStarts.ts';

export interface ProgramCheck {
  readonly letter: string;
  readonly missing: readonly Missing[];
  /** Over nominal cycles on all dates from the day of the check; null if it never fires. */
  readonly cycleSeconds: { readonly shortest: number; readonly longest: number } | null;
  /** Up to five. */
  readonly nextWateringDays: readonly EpochDay[];
}

/** The verdict if someone else changes the percent (`percentDrivenBy`). */
export interface DrivenPercent {
  readonly by: Exclude<Settings['percentDrivenBy'], 'person' | undefined>;
  readonly lowest: number;
  readonly highest: number;
  /** The first overlap possible if percents in the range change from cycle to cycle. */
  readonly overlap: Overlap | null;
}

const NEXT_DATES = 5;
/** Inputs of one check. */
export class Examination {
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
    const watering = wateringStations(plan);
    this.programs = programsByLetter(plan).map((program) => {
      const missing = missingOf(program, watering);
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

  /** Shortest and longest of a program's nominal cycles, over classes of dates that still occur. */
  private lengths(program: ProgramCycles): ProgramCheck['cycleSeconds'] {
    const classes = program.starts
      .flatMap((start) =>
        program
          .classesOf(start, asSet(program))
          .map((dates) => ({ start, one: dates, seconds: length(dates) })),
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

  /** Whether percents that someone else changes can cause an overlap. */
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
