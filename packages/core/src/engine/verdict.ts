/**
 * What is proven about a plan's overlaps, exact for all time (timing-rules.md section 7): whether any two cycles ever overlap
 * (`verdictOf`), and also how often, how far the percent can go, and what each program does (`prove`). Findings are separate, in
 * `findings/`.
 */
import type { Plan } from '../plan/plan.ts';
import { isUnused, type Missing } from '../plan/program.ts';
import type { EpochDay } from '../time/calendar.ts';
import { Effort } from './effort.ts';
import { Examination, type DrivenPercent, type ProgramCheck } from './examination.ts';
import { headroomOf, meetsFirstAt } from './headroom.ts';
import { asSet } from './nominal.ts';
import type { Overlap } from './overlap.ts';

export type Verdict = 'clear' | 'overlap' | 'incomplete' | 'empty';

/** Options of the proof, and progress. */
export interface ProofOptions {
  /** Called with the share done of the longest part, 0 to 1. */
  readonly progress?: ((share: number) => void) | undefined;
  /** Limit of work. */
  readonly effort?: Effort | undefined;
}

export interface Proven {
  readonly on: EpochDay;
  readonly verdict: Verdict;
  readonly overlaps: readonly Overlap[];
  /** Total number, even if not all are returned. */
  readonly overlapCount: number;
  /** Frequency of each of the first overlaps in an average year, in order; at most `MOST_FREQUENCIES`. */
  readonly perYear: readonly number[];
  readonly headroomPercent: number | null;
  /** If nothing overlaps as set: the next percent step and its first overlap. Null: no step overlaps. */
  readonly beyond: { readonly percent: number; readonly meets: Overlap } | null;
  /** Null: a person sets the percent, or it does not matter. */
  readonly driven: DrivenPercent | null;
  readonly programs: readonly ProgramCheck[];
}

/** Overlaps whose frequency is computed; no one reads more. */
export const MOST_FREQUENCIES = 20;

function verdictFrom(
  overlaps: readonly Overlap[],
  programs: readonly { readonly missing: readonly Missing[] }[],
): Verdict {
  if (overlaps.length > 0) return 'overlap';
  if (programs.some(({ missing }) => missing.length > 0 && !isUnused(missing))) return 'incomplete';
  return programs.some(({ missing }) => missing.length === 0) ? 'clear' : 'empty';
}

/**
 * Only the verdict and its overlaps, for lists and yes-or-no questions.
 *
 * @param on day of the check; earlier dates do not count
 * @throws TooMuchWork
 */
export function verdictOf(
  plan: Plan,
  on: EpochDay,
  { progress, effort = new Effort() }: ProofOptions = {},
): Pick<Proven, 'verdict' | 'overlaps'> {
  const { proof, programs } = new Examination(plan, on, effort);
  const overlaps = proof.find(asSet, progress);
  return { verdict: verdictFrom(overlaps, programs), overlaps };
}

/**
 * Everything that is proven about a valid plan (`readPlan`), as if it were switched on. Arguments as for `verdictOf`.
 *
 * Cost: see docs/benchmarks.md.
 *
 * @throws TooMuchWork
 */
export function prove(
  plan: Plan,
  on: EpochDay,
  { progress, effort = new Effort() }: ProofOptions = {},
): Proven {
  const examination = new Examination(plan, on, effort);
  const { proof, programs, complete } = examination;
  const overlaps = proof.find(asSet, progress);
  const { percent, nextStep } = headroomOf(plan.timer, complete, proof);
  const meets = overlaps.length === 0 && nextStep !== null ? meetsFirstAt(nextStep, proof) : null;
  return {
    on,
    verdict: verdictFrom(overlaps, programs),
    overlaps,
    overlapCount: overlaps.length,
    perYear: overlaps.slice(0, MOST_FREQUENCIES).map((overlap) => proof.perYear(overlap)),
    headroomPercent: percent,
    beyond: meets && nextStep !== null ? { percent: nextStep, meets } : null,
    driven: examination.driven(plan),
    programs: examination.checked(),
  };
}
