/** Short runs on a timer without cycle and soak: more start times, each after the soak of the one before. Source: field guide, Starts. */
import { attempt, Effort } from '../engine/effort.ts';
import type { Overlap } from '../engine/overlap.ts';
import { verdictOf } from '../engine/verdict.ts';
import { WetStarts } from '../engine/wetStarts.ts';
import { ProgramCycles } from '../engine/nominal.ts';
import { applyChange, type PlanChange } from '../plan/change.ts';
import { splitBy } from '../plan/linked.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { adjustedSeconds, effectivePercent } from '../plan/program.ts';
import { formatTime, parseTime, SECONDS_PER_DAY, type EpochDay } from '../time/calendar.ts';
import { runOffFindings } from './runOffFindings.ts';

export interface Split {
  readonly change: PlanChange;
  /** Start times after it. */
  readonly starts: readonly string[];
}

const MONTHS = Array.from({ length: 12 }, (_, i) => i + 1);

/**
 * More starts with equal, shorter runs, on the same dates. It was tried: no station of the program runs off or soaks too short, and nothing
 * overlaps that did not before.
 *
 * @returns null if the timer splits runs itself, has too few start times, or no such split passes
 */
export function splitByStarts(plan: Plan, program: Program, on: EpochDay): Split | null {
  const { timer } = plan;
  const starts = program.starts.map((start) => parseTime(start) ?? 0).sort((a, b) => a - b);
  if (timer.cycleSoak !== 'none' || starts.length === 0) return null;
  const percent = Math.max(...MONTHS.map((month) => effectivePercent(plan, program, month)));
  const lasting = (seconds: number) => adjustedSeconds(seconds, percent, timer.seasonal);
  const limits = plan.stations.flatMap((station) => {
    const { cycleSeconds, soakSeconds = 0 } = splitBy(plan, station);
    const run = program.runs.find((one) => one.station === station.number);
    return cycleSeconds === undefined || !run || run.seconds === 0
      ? []
      : [{ run, cycleSeconds, soakSeconds }];
  });
  const fewest = Math.max(
    ...limits.map(({ run, cycleSeconds }) => Math.ceil(lasting(run.seconds) / cycleSeconds)),
  );
  const most = Math.floor(timer.startsPerProgram / starts.length);
  for (let times = Math.max(2, fewest); times <= most; times++) {
    const shorter = (seconds: number) =>
      Math.max(
        timer.runStepSeconds,
        Math.round(seconds / times / timer.runStepSeconds) * timer.runStepSeconds,
      );
    const runs = program.runs.map(({ station, seconds }) => ({
      station,
      seconds: seconds === 0 ? null : shorter(seconds),
    }));
    const changed: Program = {
      ...program,
      runs: runs.flatMap(({ station, seconds }) =>
        seconds === null ? [] : [{ station, seconds }],
      ),
    };
    const tried = attempt(() => {
      const length = new ProgramCycles(plan, changed, new Effort()).lengthAt(percent);
      const apart = Math.max(
        length,
        ...limits.map(({ run, soakSeconds }) => lasting(shorter(run.seconds)) + soakSeconds),
      );
      const step = timer.startStepMinutes * 60;
      const gap = Math.ceil(apart / step) * step;
      const all = starts.flatMap((start) =>
        Array.from({ length: times }, (_, i) => start + i * gap),
      );
      if (new Set(all).size < all.length || all.some((start) => start >= SECONDS_PER_DAY))
        return null;
      const sorted = [...all].sort((a, b) => a - b).map(formatTime);
      const change: PlanChange = {
        type: 'several',
        changes: [
          { type: 'set-runs', program: program.letter, runs },
          { type: 'set-starts', program: program.letter, starts: sorted },
        ],
      };
      return passes(plan, program.letter, change, on) ? { change, starts: sorted } : null;
    });
    if (!tried.ok) return null;
    if (tried.value) return tried.value;
  }
  return null;
}

const pairOf = ({ first, second }: Overlap) =>
  [first, second].map(({ letter, start }) => `${letter} ${start}`).join();

/** Whether a change leaves no run-off in a program and adds no overlap. */
function passes(plan: Plan, letter: string, change: PlanChange, on: EpochDay): boolean {
  const made = applyChange(plan, change);
  if (!made.ok) return false;
  const { plan: after } = made.value;
  const isDry = !runOffFindings(after, new WetStarts(after, on, new Effort())).some(
    ({ where }) => where.program === letter,
  );
  const known = new Set(verdictOf(plan, on).overlaps.map(pairOf));
  return isDry && verdictOf(after, on).overlaps.every((overlap) => known.has(pairOf(overlap)));
}
