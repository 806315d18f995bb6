import { useState } from 'react';
import { Button } from 'antd';
import { WEEKDAYS, type NoWaterWindow, type Timer, say } from '@water-clock/core';
import { LabelledTime } from './LabelledTime.tsx';
import { WeekdayButtons } from './WeekdayButtons.tsx';

interface Props {
  readonly label: string;
  /** Display whose weekday order to use. */
  readonly timer: Pick<Timer, 'dialect'>;
  readonly windows: readonly NoWaterWindow[];
  /** Core's refusal as a message, or null if the change was made. */
  readonly commit: (windows: readonly NoWaterWindow[] | null) => string | null;
}

/** No-water hours, each on some weekdays. */
export function WindowsEditor({ label, timer, windows, commit }: Props) {
  const [refused, setRefused] = useState<string | null>(null);
  const replace = (at: number, window: NoWaterWindow | null): string | null => {
    const next = windows.flatMap((one, i) => (i === at ? (window ?? []) : one));
    const refusal = commit(next.length > 0 ? next : null);
    setRefused(refusal);
    return refusal;
  };
  return (
    <div className="stack near" role="group" aria-label={label}>
      {windows.map((window, i) => (
        <div key={i} className="row at-foot near">
          <LabelledTime
            label={say`No water from`}
            value={window.from}
            commit={(from) => replace(i, { ...window, from })}
          />
          <LabelledTime
            label={say`to`}
            value={window.to}
            commit={(to) => replace(i, { ...window, to })}
          />
          <WeekdayButtons
            label={say`on`}
            timer={timer}
            pressed={window.weekdays ?? WEEKDAYS}
            commit={(weekdays) => {
              const { weekdays: _before, ...rest } = window;
              replace(i, weekdays.length === 7 ? rest : { ...rest, weekdays });
            }}
          />
          <Button onClick={() => replace(i, null)}>{say`Remove`}</Button>
        </div>
      ))}
      <Button
        onClick={() => setRefused(commit([...windows, { from: '10:00', to: '18:00' }]))}
      >{say`Add no-water hours`}</Button>
      {refused && <p className="fault">{refused}</p>}
    </div>
  );
}
