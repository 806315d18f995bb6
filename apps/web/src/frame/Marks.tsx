import { CheckCircleFilled, ExclamationCircleFilled } from '@ant-design/icons';
import type { StepState } from '../steps/steps.ts';

/** Whether a step is done, needs attention, or is open; in words for those who do not see it. */
export function StepMark({ state }: { readonly state: StepState | undefined }) {
  if (state?.alarm)
    return <ExclamationCircleFilled className="mark fault" aria-label="needs attention" />;
  if (state?.done) return <CheckCircleFilled className="mark calm" aria-label="done" />;
  return <span className="mark mark-open" aria-hidden />;
}
