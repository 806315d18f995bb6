/** The seasonal percent, or one for each month. */
import { Button, Checkbox } from 'antd';
import { monthName, percentSteps, type Plan, say } from '@water-clock/core';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { MonthBars } from './MonthBars.tsx';
import type { SetSettings } from './setSettings.ts';

export function PercentOfTimer({
  plan,
  month,
  set,
}: {
  readonly plan: Plan;
  /** Current month, 1 to 12. */
  readonly month: number;
  readonly set: SetSettings;
}) {
  const { timer, settings } = plan;
  const steps = percentSteps(timer);
  const percent = settings.seasonalPercent ?? 100;
  const step = (by: 1 | -1) => {
    const next =
      by > 0 ? steps.find((one) => one > percent) : steps.findLast((one) => one < percent);
    if (next !== undefined) set({ seasonalPercent: next });
  };
  const byMonth = timer.seasonal.byMonth && settings.monthlyPercent !== undefined;
  const monthly = settings.monthlyPercent ?? new Array<number>(12).fill(percent);
  if (timer.seasonal.scope === 'none') return <p>{say`This timer has no seasonal percent.`}</p>;
  if (timer.seasonal.scope === 'program')
    return (
      <p>{say`On this timer each program has its own seasonal percent. Set it in the program.`}</p>
    );
  return (
    <>
      <div className="row at-foot">
        {!byMonth && (
          <>
            {' '}
            <Button aria-label={say`One step less`} onClick={() => step(-1)}>
              −
            </Button>
            <NumberField
              label={say`Seasonal percent`}
              unit="%"
              value={percent}
              most={500}
              commit={(value) => set({ seasonalPercent: value ?? 100 })}
            />
            <Button aria-label={say`One step more`} onClick={() => step(1)}>
              +
            </Button>
          </>
        )}{' '}
        {timer.seasonal.byMonth && (
          <Checkbox
            className="check"
            checked={byMonth}
            onChange={(event) => set({ monthlyPercent: event.target.checked ? monthly : null })}
          >{say`a percent for each month`}</Checkbox>
        )}
      </div>
      {byMonth && <MonthBars plan={plan} month={month} set={set} />}
      {byMonth && (
        <Disclosure className="more" summary={say`Type percents`}>
          {() => (
            <div className="months tiles of-100 near">
              {monthly.map((value, i) => (
                <NumberField
                  key={i}
                  label={monthName(i + 1)}
                  unit="%"
                  value={value}
                  most={500}
                  commit={(next) =>
                    set({
                      monthlyPercent: monthly.map((one, k) => (k === i ? (next ?? 100) : one)),
                    })
                  }
                />
              ))}
            </div>
          )}
        </Disclosure>
      )}
    </>
  );
}
