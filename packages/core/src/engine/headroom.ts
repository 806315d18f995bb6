/** How high the seasonal percent can go before two cycles overlap (timing-rules.md section 7, Headroom). */
import { allYear, type ProgramCycles } from './nominal.ts';
import type { Overlap, OverlapProof } from './overlap.ts';
import type { Timer } from '../plan/plan.ts';
import { percentSteps } from '../plan/program.ts';

export interface Headroom {
  /** The highest step up to which no two cycles ever overlap; null if the lowest step already overlaps. */
  readonly percent: number | null;
  /** The next step, at which some overlap, or null. */
  readonly nextStep: number | null;
}

/**
 * Tries step by step: every lower step must be free too, and a higher percent does not lengthen every cycle everywhere once cycles, soaks
 * and windows interleave. Beginnings do not depend on the percent, so gaps are computed once and compared with the cycle length at each
 * step; a cycle cannot reach a later beginning without reaching the next. Without a complete program it is the highest step.
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

/** The first overlap with every cycle at one percent: of all pairs, the one with the earliest event. */
export function meetsFirstAt(percent: number, proof: OverlapProof): Overlap | null {
  const choices = allYear([percent]);
  return proof.find(() => choices)[0] ?? null;
}
