/** A complete check of a plan: what is proven, and the findings (plan-format.md, `check`). */
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
  /** The brief; null or absent: findings do not consider one. */
  readonly brief?: Brief | null | undefined;
  /** Programs whose interval phase is not known: the proof covers every phase. */
  readonly anyPhase?: readonly string[] | undefined;
  /** Announced rules, by date. */
  readonly coming?: readonly ComingRules[] | undefined;
  /** Known facts about the water supply. */
  readonly supply?: SupplyNoted | null | undefined;
}

/**
 * Checks a valid plan (`readPlan`) as if it were switched on. For the verdict alone use `verdictOf`, and without findings `prove`.
 *
 * Cost: see docs/benchmarks.md.
 *
 * @param on day of the check; earlier dates do not count
 * @throws TooMuchWork
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
