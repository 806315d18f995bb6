import { memo, useState } from 'react';
import { Button, Slider } from 'antd';
import { monthName, percentSteps, type Plan, say } from '@water-clock/core';
import type { WhatIf } from '../../data/workers/timerQuestion.ts';
import { aheadWords } from './aheadWords.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';

interface Props {
  readonly timer: Plan['timer'];
  readonly monthlyPercent: Plan['settings']['monthlyPercent'];
  readonly whatIf: WhatIf;
  readonly headroom: number | null;
  readonly set: (whatIf: WhatIf) => void;
}

/** The what-if percent and clock error of the strip. */
function WhatIfBar(props: Props) {
  const { timer, monthlyPercent, whatIf, headroom, set } = props;
  const steps = percentSteps(timer).filter((percent) => percent > 0);
  const { percent, ahead } = whatIf;
  const nearest = (wanted: number) =>
    steps.reduce(
      (best, one, i) => (Math.abs(one - wanted) < Math.abs((steps[best] ?? 0) - wanted) ? i : best),
      0,
    );
  const usual = nearest(100);
  const at = percent === null ? usual : nearest(percent);
  const monthly = timer.seasonal.byMonth ? monthlyPercent : undefined;
  // Several months can have the same percent; keep the chosen one's name.
  const [month, setMonth] = useState(-1);
  const shownMonth =
    percent !== null && monthly?.[month] === percent
      ? month
      : (monthly?.findIndex((one) => one === percent) ?? -1);
  const over = percent !== null && (headroom === null || percent > headroom);
  return (
    <div
      className={`what-if row push ${percent === null && ahead === 0 ? 'soft' : 'aside accent'}`}
    >
      <div className="row in-line">
        <span>{say`Percent shown`}</span>
        <Slider
          style={{ width: 110 }}
          min={0}
          max={steps.length - 1}
          value={at}
          tooltip={{ open: false }}
          {...(headroom === null ? {} : { marks: { [nearest(headroom)]: ' ' } })}
          ariaLabelForHandle={say`Percent shown on the strip`}
          ariaValueTextFormatterForHandle={() => (percent === null ? say`as set` : `${percent} %`)}
          onChange={(step) => set({ ...whatIf, percent: steps[step] ?? 100 })}
        />
        <strong
          style={{ minWidth: '3.5em' }}
          title={
            headroom === null
              ? say`Overlaps at every percent`
              : say`No overlaps up to ${headroom} %`
          }
        >
          {percent === null ? say`as set` : `${percent} %`}
        </strong>
      </div>
      {timer.seasonal.scope === 'timer' && monthly && (
        <SelectField
          value={shownMonth}
          options={[
            [-1, say`each month`] as const,
            ...monthly.map((one, i) => [i, `${monthName(i + 1)}, ${one} %`] as const),
          ]}
          pick={(value) => {
            const chosen = Number(value);
            setMonth(chosen);
            set({ ...whatIf, percent: monthly[chosen] ?? null });
          }}
          aria-label={say`Month shown on the strip`}
        />
      )}
      {over && <strong className="fault">{say`overlaps at this percent`}</strong>}
      {ahead !== 0 && <strong>{say`Clock ${aheadWords(ahead)}: actual hours shown`}</strong>}
      {(percent !== null || ahead !== 0) && (
        <Button onClick={() => set({ ...whatIf, percent: null, ahead: 0 })}>{say`As set`}</Button>
      )}
    </div>
  );
}

export default memo(WhatIfBar);
