/** A plan checked in full: what is proven of it, and what the checks find besides (plan-format.md, `check`). */
import type { Brief } from '../brief/brief.ts';
import { proveAnyPhase } from '../engine/anyPhase.ts';
import { prove, type ProofOptions, type Proven } from '../engine/verdict.ts';
import type { Plan } from '../plan/plan.ts';
import type { ComingRules } from '../rules/houseRules.ts';
import type { EpochDay } from '../time/calendar.ts';
import type { Finding } from './finding.ts';
import { findingsOf } from './findings.ts';
import type { SupplyNoted } from './supplyFindings.ts';

export interface Check extends Proven {
  readonly findings: readonly Finding[];
}

export interface CheckOptions extends ProofOptions {
  /** What was wanted; null or absent: the findings say nothing of that. */
  readonly brief?: Brief | null | undefined;
  /** Programs of which nobody knows where their interval stands: what is proven holds for every phase. */
  readonly anyPhase?: readonly string[] | undefined;
  /** Rules of the place that begin later, in the order of their dates. */
  readonly coming?: readonly ComingRules[] | undefined;
  /** What is known of the water. */
  readonly supply?: SupplyNoted | null | undefined;
}

/**
 * Checks a sound plan (`readPlan`) as if it were switched on. Who needs only the verdict asks `verdictOf`, and `prove` where findings do not matter.
 *
 * @param on the day of the check; only dates on or after it count.
 * @throws TooMuchWork
 * Cost: see docs/benchmarks.md.
 */
export function check(plan: Plan, on: EpochDay, options: CheckOptions = {}): Check {
  const { anyPhase = [] } = options;
  const proven =
    anyPhase.length > 0 ? proveAnyPhase(plan, on, anyPhase, options) : prove(plan, on, options);
  return {
    ...proven,
    findings: findingsOf(
      plan,
      proven,
      options.brief ?? null,
      options.coming,
      options.supply ?? null,
    ),
  };
}
