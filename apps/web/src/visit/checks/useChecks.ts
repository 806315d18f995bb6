import { useMemo } from 'react';
import {
  judged,
  overlapFindings,
  withoutRepeats,
  type Brief,
  type Check,
  type ComingRules,
  type EpochDay,
  type Finding,
  type Judged,
  type Plan,
  type Survey,
} from '@water-clock/core';
import type { RulesState } from '../steps/useVisitBasis.ts';

/** What the findings are worked out from. */
export interface CheckedFacts {
  readonly check: Check;
  /** The plan that was checked. */
  readonly plan: Plan;
  readonly brief: Brief;
  /** Without the rules of the place the checks are not whole. */
  readonly rulesState: RulesState;
  readonly survey: Survey;
  readonly today: EpochDay;
  /** Rules that are announced. */
  readonly coming: readonly ComingRules[];
}

/** The verdict and the list of overlaps cover half-set programs and all overlaps; the first ones are here for their fix, or to be accepted. */
const shownOf = ({ overlaps, findings }: Check, plan: Plan): Finding[] => [
  ...overlapFindings(plan, overlaps),
  ...withoutRepeats(findings).filter(
    ({ code }) => code !== 'overlap' && !code.startsWith('missing-'),
  ),
];

/** The findings of the checks with the accepted ones apart; null: not worked out yet. */
export function useChecks(facts: CheckedFacts | null): Judged | null {
  const { check, plan, brief, today } = facts ?? {};
  const accepted = facts?.survey.accepted;
  return useMemo(
    () =>
      check && plan && brief && today !== undefined
        ? judged(shownOf(check, plan), accepted ?? [], plan, brief, today)
        : null,
    [check, plan, brief, accepted, today],
  );
}
