/** A plan checked in full: what is proven of it, and what the checks find besides (plan-format.md, `check`). */
import type { Brief } from '../brief/brief.ts';
import { prove, type ProofOptions, type Proven } from '../engine/verdict.ts';
import type { Plan } from '../plan/plan.ts';
import type { EpochDay } from '../time/calendar.ts';
import type { Finding } from './finding.ts';
import { findingsOf } from './findings.ts';

export interface Check extends Proven {
  readonly findings: readonly Finding[];
}

export interface CheckOptions extends ProofOptions {
  /** What was wanted; null or absent: the findings say nothing of that. */
  readonly brief?: Brief | null | undefined;
}

/**
 * Checks a sound plan (`readPlan`) as if it were switched on. Who needs only the verdict asks `verdictOf`, and `prove` where findings do not matter.
 *
 * @param on the day of the check; only dates on or after it count.
 * @throws TooMuchWork
 * Cost: see docs/benchmarks.md.
 */
export function check(plan: Plan, on: EpochDay, options: CheckOptions = {}): Check {
  const proven = prove(plan, on, options);
  return { ...proven, findings: findingsOf(plan, proven, options.brief ?? null) };
}
