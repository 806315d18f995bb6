import { useMemo } from 'react';
import {
  judged,
  type Brief,
  type Check,
  type EpochDay,
  type Finding,
  type Judged,
  type Plan,
  type Survey,
} from '@water-clock/core';

/** What the findings are worked out from. */
export interface CheckedFacts {
  readonly check: Check;
  /** The plan that was checked. */
  readonly plan: Plan;
  readonly brief: Brief;
  readonly survey: Survey;
  readonly today: EpochDay;
}

/** The verdict and the list of overlaps cover half-set programs and all overlaps; the first overlap is here for its fix. */
function shownOf({ overlaps, findings }: Check, { timer }: Plan): Finding[] {
  const [overlap] = overlaps;
  const rest = findings.filter(({ code }) => code !== 'overlap' && !code.startsWith('missing-'));
  if (!overlap) return rest;
  const { letter, start, day } = overlap.second;
  const where = { program: letter, start, date: day };
  return [
    { code: 'overlap', severity: 'error', overlap, onOverlap: timer.onOverlap, where },
    ...rest,
  ];
}

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
