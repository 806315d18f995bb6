import { Slider } from 'antd';
import { monthName, percentSteps, type Plan, say } from '@water-clock/core';
import type { SetSettings } from './setSettings.ts';

/** The scale reaches at least this percent. */
const USUAL_TOP = 150;

/** The twelve months' percents as bars, moved by dragging or arrow keys. */
export function MonthBars({
  plan,
  month,
  set,
}: {
  readonly plan: Plan;
  /** Current month, 1 to 12. */
  readonly month: number;
  readonly set: SetSettings;
}) {
  const monthly = plan.settings.monthlyPercent ?? [];
  const steps = percentSteps(plan.timer);
  const [least = 0, second = 10] = steps;
  const top = Math.max(USUAL_TOP, ...monthly);
  return (
    <div className="month-bars">
      {monthly.map((percent, i) => {
        const name = monthName(i + 1);
        return (
          <div key={name} className={i + 1 === month ? 'month-bar month-bar-now' : 'month-bar'}>
            <strong>{percent}</strong>
            <Slider
              // The bar follows the pointer; the month changes on release.
              key={percent}
              vertical
              min={0}
              max={Math.min(top, Math.max(...steps))}
              step={second - least}
              defaultValue={percent}
              tooltip={{ formatter: (value) => `${value ?? 0} %` }}
              ariaLabelForHandle={say`${name}, percent`}
              onChangeComplete={(value) =>
                set({
                  monthlyPercent: monthly.map((one, k) => (k === i ? Math.max(least, value) : one)),
                })
              }
            />
            <span aria-hidden>{name.slice(0, 1)}</span>
          </div>
        );
      })}
    </div>
  );
}
