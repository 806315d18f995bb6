/** How long a program's cycle takes and when its valves are open (timing-rules.md section 4, and section 6 for pauses). */
import type { ClockSecond } from '../time/calendar.ts';
import { Effort } from './effort.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { adjustedSeconds } from '../plan/program.ts';
import type { WeekWindows } from '../time/windows.ts';
import { cycleModel, sharesAt, type CycleModel, type CycleRun } from './cycleModel.ts';
import { Work } from './cycleWork.ts';

export interface CycleShape {
  /** Seconds from start to end, including soaks and delays. */
  readonly seconds: number;
  readonly runs: readonly CycleRun[];
}

/** A cycle at a percent as it would run alone, with no window in its way, with every run. */
export function shapeAt(model: CycleModel, percent: number, effort: Effort): CycleShape {
  effort.at = model.path;
  const runs: CycleRun[] = [];
  const seconds = new Work(sharesAt(model, percent), model, null, 0).run(effort, (piece) =>
    runs.push(piece),
  );
  return { seconds, runs };
}

/** Length in seconds of a cycle at a percent with no window in its way; equals `shapeAt(…).seconds`. */
export function cycleSecondsAt(model: CycleModel, percent: number, effort: Effort): number {
  effort.spend(model.runs.length);
  if (model.atOnce === 1) {
    let sum = 0;
    let count = 0;
    let split = false;
    for (const run of model.runs) {
      const seconds = adjustedSeconds(run.seconds, percent, model.seasonal);
      split ||= run.split !== null && run.split.piece < seconds;
      sum += seconds;
      if (seconds > 0) count++;
    }
    // Nothing is split at this percent: each station once, in order, with the delay between.
    if (!split) return sum + model.delaySeconds * Math.max(0, count - 1);
  }
  effort.at = model.path;
  return new Work(sharesAt(model, percent), model, null, 0).run(effort, null);
}

/**
 * A cycle paused by windows, from a moment outside any.
 *
 * @returns the end. Passes each run to `opened` with the windows inside it; see `betweenWindows`.
 */
export function pausedCycleEnd(
  model: CycleModel,
  percent: number,
  windows: WeekWindows,
  begin: ClockSecond,
  effort: Effort,
  opened: ((piece: CycleRun) => void) | null = null,
): ClockSecond {
  effort.at = model.path;
  return new Work(sharesAt(model, percent), model, windows, begin).run(effort, opened);
}

/** Splits a run at the windows inside it into periods in which the valve is open. */
export function betweenWindows(
  { station, on, off }: CycleRun,
  windows: WeekWindows,
  effort: Effort,
): CycleRun[] {
  const runs: CycleRun[] = [];
  for (
    let from = on;
    from < off;
    from = windows.nextFree(Math.min(windows.nextWindow(from), off))
  ) {
    effort.spend(4);
    runs.push({ station, on: from, off: Math.min(windows.nextWindow(from), off) });
  }
  return runs;
}

/**
 * A program's cycle at a percent as it would run alone, with no window in its way. For screens.
 *
 * @throws TooMuchWork
 */
export function cycleShape(plan: Plan, program: Program, percent: number): CycleShape {
  return shapeAt(cycleModel(plan, program), percent, new Effort());
}
