/**
 * What is proven of a plan's overlaps, exact for all time (timing-rules.md section 7): whether any two cycles ever overlap (`verdictOf`), and with it
 * how often, how far the percent may go, and what each program does (`prove`). The findings of the checks stand apart, in `judge/`.
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

/** How the plan is proven, and how the work is watched. */
export interface ProofOptions {
  /** Called with the share of the longest part of the work that is done, 0 to 1. */
  readonly progress?: ((share: number) => void) | undefined;
  /** What the answer may cost. */
  readonly effort?: Effort | undefined;
}

export interface Proven {
  readonly on: EpochDay;
  readonly verdict: Verdict;
  readonly overlaps: readonly Overlap[];
  /** How many there are, also where not all are handed on. */
  readonly overlapCount: number;
  /** How often each of the first overlaps happens in a mean year, in their order; at most `MOST_FREQUENCIES` of them. */
  readonly perYear: readonly number[];
  readonly headroomPercent: number | null;
  /** Where nothing overlaps as set: the next step of the percent and what overlaps first there. Null: no step does any harm. */
  readonly beyond: { readonly percent: number; readonly meets: Overlap } | null;
  /** Null: a person sets the percent, or it makes no difference. */
  readonly driven: DrivenPercent | null;
  readonly programs: readonly ProgramCheck[];
}

/** For how many overlaps the frequency is worked out; nobody reads more. */
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
 * The verdict and the overlaps behind it, and nothing else: for lists and for questions of yes or no.
 *
 * @param on the day of the check; only dates on or after it count.
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
 * Everything that is proven of a sound plan (`readPlan`), as if it were switched on. The same arguments as `verdictOf`.
 *
 * @throws TooMuchWork
 * Cost: see docs/benchmarks.md.
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
