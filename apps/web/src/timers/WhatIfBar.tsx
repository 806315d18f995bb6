import { percentSteps, type Plan } from '@water-clock/core';
import type { WhatIf } from '../workers/messages.ts';
import { aheadWords } from './ClockPanel.tsx';

interface Props {
  readonly plan: Plan;
  readonly whatIf: WhatIf;
  readonly headroom: number | null;
  readonly set: (whatIf: WhatIf) => void;
}

/** The percent at which the strip is looked at, and what it takes the timer's clock to be. */
export function WhatIfBar({ plan, whatIf, headroom, set }: Props) {
  const steps = percentSteps(plan.timer).filter((percent) => percent > 0);
  const { percent, ahead } = whatIf;
  const usual = steps.reduce(
    (best, one, i) => (Math.abs(one - 100) < Math.abs((steps[best] ?? 0) - 100) ? i : best),
    0,
  );
  const at = percent === null ? usual : Math.max(0, steps.indexOf(percent));
  const over = percent !== null && (headroom === null || percent > headroom);
  return (
    <div className={percent === null && ahead === 0 ? 'what-if' : 'what-if what-if-on'}>
      <label>
        <span>{percent === null ? 'Strip at the percent set' : `Strip at ${percent} %`}</span>
        <input
          type="range"
          min={0}
          max={steps.length - 1}
          value={at}
          aria-label="Percent at which the strip is shown"
          aria-valuetext={percent === null ? 'as set' : `${percent} %`}
          onChange={(event) =>
            set({ ...whatIf, percent: steps[Number(event.target.value)] ?? 100 })
          }
        />
      </label>
      {over && <strong className="fault">beyond what stays clear</strong>}
      {ahead !== 0 && <strong>Clock {aheadWords(ahead)}: true hours shown</strong>}
      {(percent !== null || ahead !== 0) && (
        <button
          type="button"
          className="plain-button"
          onClick={() => set({ percent: null, ahead: 0 })}
        >
          As set
        </button>
      )}
    </div>
  );
}
