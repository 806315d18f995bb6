import { visitFindings, visitFindingSentence, type VisitFinding, say } from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { useKind } from '../timerKind/useKind.ts';

const SEVERITY_WORDS = {
  error: say`Fix`,
  warning: say`Review`,
  note: say`For information`,
} as const;

interface Props extends StepProps {
  /** Undefined: all. */
  readonly only?: readonly VisitFinding['code'][];
}

/** Findings only someone at the timer can make: clock, totals, switches, memory, decoders. */
export function VisitFindings({ plan, survey, today, only }: Props) {
  const { clock, order } = usePreferences();
  const findings = visitFindings(plan, survey, today, useKind(plan)).filter(
    ({ code }) => only === undefined || only.includes(code),
  );
  if (findings.length === 0) return null;
  return (
    <ul className="findings stack list" aria-label={say`Found at the timer`}>
      {findings.map((finding, i) => (
        <li key={i} className={`finding aside finding-${finding.severity}`}>
          <b className="heavy">{SEVERITY_WORDS[finding.severity]}:</b>{' '}
          {visitFindingSentence(finding, { on: today, clock, order, plan })}
        </li>
      ))}
    </ul>
  );
}
