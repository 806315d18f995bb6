/** How far the seasonal percent may go before two cycles overlap (timing-rules.md section 7, Headroom). */
import { cycleSeconds } from './cycle.ts';
import { everOverlaps, type ProgramCycles, type Span } from './overlap.ts';
import type { Plan, Program } from './plan.ts';
import { percentSteps } from './program.ts';

/** A complete program beside what the proof needs of it. */
export interface CompleteProgram {
  readonly program: Program;
  readonly cycles: ProgramCycles;
}

/**
 * The greatest step of the timer's percent up to which, with every cycle at that percent, no two ever overlap; null where
 * already the lowest step overlaps. With no complete program it is the highest step.
 *
 * Goes up step by step, because the answer asks that each lower step is free too, and a longer cycle is not always the
 * longer one in all its places once pieces and soaks interleave. Cost: steps × cost of the proof.
 */
export function headroomPercent(
  plan: Plan,
  complete: readonly CompleteProgram[],
  span: Span,
): number | null {
  let free: number | null = null;
  for (const percent of percentSteps(plan.timer)) {
    const atPercent = complete.map(({ program, cycles }) => ({
      ...cycles,
      secondsByMonth: new Array<number>(12).fill(cycleSeconds(plan, program, percent)),
    }));
    if (everOverlaps(atPercent, span)) return free;
    free = percent;
  }
  return free;
}
