/** How far the seasonal percent may go before two cycles overlap (timing-rules.md section 7, Headroom). */
import { allYear, type ProgramCycles } from './nominal.ts';
import type { Overlap, OverlapProof } from './overlap.ts';
import type { Timer } from '../plan/plan.ts';
import { percentSteps } from '../plan/program.ts';

export interface Headroom {
  /** The greatest step up to which no two cycles ever overlap; null where already the lowest step overlaps. */
  readonly percent: number | null;
  /** The next step, at which some do, or null. */
  readonly nextStep: number | null;
}

/**
 * Goes up step by step, because the answer asks that each lower step is free too, and a higher percent does not make every
 * cycle longer in all its places once pieces, soaks and windows interleave. When cycles begin does not depend on the
 * percent; so the gap from each beginning to the next one is worked out once, and at each step it is only compared with the
 * length of the cycle: no cycle reaches a later one without reaching the next. With no complete program it is the highest
 * step.
 */
export function headroomOf(
  timer: Timer,
  programs: readonly ProgramCycles[],
  proof: OverlapProof,
): Headroom {
  const steps = percentSteps(timer);
  const gaps = proof.gaps().filter(({ seconds }) => seconds < Infinity);
  const leastGap = new Map<ProgramCycles, number>();
  for (const { beginning, seconds } of gaps)
    leastGap.set(beginning.program, Math.min(leastGap.get(beginning.program) ?? Infinity, seconds));
  const overlapsAt = (percent: number) =>
    programs.some((program) => {
      if (!program.windows) return program.lengthAt(percent) > (leastGap.get(program) ?? Infinity);
      return gaps.some(({ beginning, seconds }) => {
        if (beginning.program !== program) return false;
        const cycle = program.nominal(beginning.start.secondOfDay, beginning.weekday, percent);
        return cycle !== null && cycle.ends - cycle.begins > seconds;
      });
    });
  let free: number | null = null;
  for (const percent of steps) {
    if (overlapsAt(percent)) return { percent: free, nextStep: percent };
    free = percent;
  }
  return { percent: free, nextStep: null };
}

/** What meets first with every cycle at one percent: of the pairs that overlap then, the one with the earliest event. */
export function meetsFirstAt(percent: number, proof: OverlapProof): Overlap | null {
  const choices = allYear([percent]);
  return proof.find(() => choices)[0] ?? null;
}
