/** How far the seasonal percent may go before two cycles overlap (timing-rules.md section 7, Headroom). */
import { cycleSecondsAt, type CycleModel } from './cycle.ts';
import {
  everOverlaps,
  isFarFromTheEnd,
  weekOf,
  weekOverlaps,
  type ProgramCycles,
  type Span,
} from './overlap.ts';
import type { Timer } from './plan.ts';
import { percentSteps } from './program.ts';

/** What is needed of a complete program to work out its cycles at any percent. */
export interface CompleteProgram {
  readonly model: CycleModel;
  readonly cycles: ProgramCycles;
}

/**
 * The greatest step of the timer's percent up to which, with every cycle at that percent, no two ever overlap; null where
 * already the lowest step overlaps. With no complete program it is the highest step.
 *
 * Goes up step by step, because the answer asks that each lower step is free too, and a higher percent does not make every
 * cycle longer in all its places once pieces and soaks interleave. The week is put in order once; a step then costs one
 * walk through it.
 */
export function headroomPercent(
  timer: Timer,
  complete: readonly CompleteProgram[],
  span: Span,
): number | null {
  const cycles = complete.map((one) => one.cycles);
  const week = isFarFromTheEnd(span) ? weekOf(cycles) : null;
  let free: number | null = null;
  for (const percent of percentSteps(timer)) {
    const lengths = complete.map(({ model }) => cycleSecondsAt(model, percent));
    const overlaps = week
      ? weekOverlaps(week, lengths)
      : everOverlaps(
          cycles.map((one, i) => ({
            ...one,
            secondsByMonth: new Array<number>(12).fill(lengths[i] ?? 0),
          })),
          span,
        );
    if (overlaps) return free;
    free = percent;
  }
  return free;
}
