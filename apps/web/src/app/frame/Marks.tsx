import { CheckCircleFilled, ExclamationCircleFilled } from '@ant-design/icons';
import type { StepState } from '../../visit/steps/steps.ts';
import { say } from '@water-clock/core';

/** Whether a step is done, needs attention or is open, with text for screen readers. */
export function StepMark({ state }: { readonly state: StepState | undefined }) {
  if (state?.alarm)
    return <ExclamationCircleFilled className="mark fault" aria-label={say`needs attention`} />;
  if (state?.done) return <CheckCircleFilled className="mark calm" aria-label={say`done`} />;
  return (
    <svg className="mark" width="17" height="17" style={{ verticalAlign: -3 }} aria-hidden>
      <circle cx="8.5" cy="8.5" r="7.5" fill="none" stroke="var(--line-strong)" strokeWidth="1.5" />
    </svg>
  );
}
