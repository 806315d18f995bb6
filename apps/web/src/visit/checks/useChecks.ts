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

/** Inputs of the findings. */
export interface CheckedFacts {
  readonly check: Check;
  /** The plan that was checked. */
  readonly plan: Plan;
  readonly brief: Brief;
  /** Without the site's rules the checks are incomplete. */
  readonly rulesState: RulesState;
  readonly survey: Survey;
  readonly today: EpochDay;
  /** Announced rules. */
  readonly coming: readonly ComingRules[];
}

/** The verdict and the overlap list already cover incomplete programs and all overlaps; the first ones are here to be fixed or accepted. */
const shownOf = ({ overlaps, findings }: Check, plan: Plan): Finding[] => [
  ...overlapFindings(plan, overlaps),
  ...withoutRepeats(findings).filter(
    ({ code }) => code !== 'overlap' && !code.startsWith('missing-'),
  ),
];

/** The findings, with accepted ones apart; null: not known yet. */
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
