import { useState } from 'react';
import { Checkbox } from 'antd';
import { parseDate, usualOften, type EpochDay, type OftenADay, say } from '@water-clock/core';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { commitWords } from '../../data/editor/commitWords.ts';
import { DateField } from '../../shared/fields/DateField.tsx';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { LabelledTime } from '../../shared/fields/LabelledTime.tsx';

interface Props {
  readonly number: number;
  readonly often: OftenADay | undefined;
  readonly editor: TimerEditor;
  readonly today: EpochDay;
}

/** New seed and turf: several waterings a day until a date, when someone comes back. */
export function Often({ number, often, editor, today }: Props) {
  const [fault, setFault] = useState<string | null>(null);
  const set = (oftenADay: OftenADay | null) =>
    setFault(commitWords(editor, { type: 'note-station', station: number, fields: { oftenADay } }));
  return (
    <div className="often">
      <Checkbox
        className="check"
        checked={often !== undefined}
        onChange={(event) => set(event.target.checked ? usualOften(today) : null)}
      >{say`several times a day (new seed or turf)`}</Checkbox>
      {often && (
        <div className="tiles fill of-150">
          <NumberField
            label={say`Times a day`}
            least={2}
            most={8}
            value={often.times}
            commit={(times) =>
              commitWords(editor, {
                type: 'note-station',
                station: number,
                fields: { oftenADay: { ...often, times: times ?? often.times } },
              })
            }
          />
          {(['from', 'to'] as const).map((key) => (
            <LabelledTime
              key={key}
              label={key === 'from' ? say`From` : say`To`}
              value={often[key]}
              commit={(time) => set({ ...often, [key]: time })}
            />
          ))}
          <DateField
            label={say`Last on`}
            value={often.until ?? ''}
            commit={(date) => {
              const { until: _before, ...rest } = often;
              if (date === '') set(rest);
              else if (parseDate(date) !== null) set({ ...rest, until: date });
            }}
          />
        </div>
      )}
      {fault && <p className="fault">{fault}</p>}
    </div>
  );
}
