import { useState } from 'react';
import { Input } from 'antd';
import { type RainDelayOfKind, type TimerKind, say } from '@water-clock/core';
import { SelectField } from '../../shared/fields/SelectField.tsx';

interface Props {
  readonly document: TimerKind;
  readonly change: (document: TimerKind) => void;
}

const UNITS = [
  ['', say`none or not known`],
  ['hours', 'hours'],
  ['days', 'days'],
  ['date', say`the date on which watering resumes`],
] as const;

const ENDS = [
  ['minute', say`after that many hours, to the minute`],
  ['midnight', say`at midnight`],
] as const;

/** Lengths as typed, `24 48 72`; null if one cannot be read. */
function lengthsOf(text: string): number[] | null {
  const numbers = text
    .split(/[\s,]+/u)
    .filter(Boolean)
    .map(Number);
  return numbers.length > 0 &&
    numbers.every((one) => Number.isInteger(one) && one > 0 && one < 1000)
    ? [...new Set(numbers)].sort((a, b) => a - b)
    : null;
}

const USUAL: Readonly<Record<'hours' | 'days', readonly number[]>> = {
  hours: [24, 48, 72],
  days: [1, 2, 3, 4, 5, 6, 7],
};

/** How rain delay works on this kind: unit, lengths and end. */
export function RainDelayFields({ document, change }: Props) {
  const { rainDelay } = document;
  const [typed, setTyped] = useState<string | null>(null);
  const set = (next: RainDelayOfKind | null) => {
    const { rainDelay: _before, ...rest } = document;
    change(next ? { ...rest, rainDelay: next } : rest);
    setTyped(null);
  };
  const text = typed ?? (rainDelay?.allowed ?? []).join(' ');
  const isWrong = typed !== null && lengthsOf(typed) === null;
  return (
    <fieldset className="aside stack tiles fill of-150">
      <legend>{say`Rain delay`}</legend>
      <SelectField
        label={say`Set in`}
        value={rainDelay?.unit ?? ''}
        options={UNITS}
        pick={(unit) =>
          set(
            unit === ''
              ? null
              : unit === 'date'
                ? { unit, ends: 'midnight' }
                : { unit, allowed: USUAL[unit], ends: rainDelay?.ends ?? 'minute' },
          )
        }
      />
      {rainDelay && rainDelay.unit !== 'date' && (
        <label className="labelled">
          {say`Lengths offered`}
          <Input
            value={text}
            placeholder="24 48 72"
            status={isWrong ? 'error' : ''}
            onChange={({ target }) => setTyped(target.value)}
            onBlur={() => {
              const allowed = lengthsOf(text);
              if (allowed) set({ ...rainDelay, allowed });
            }}
          />
          {isWrong && (
            <span className="fault">{say`Whole numbers from 1 to 999, separated by spaces.`}</span>
          )}
        </label>
      )}
      {rainDelay && (
        <SelectField
          label={say`Ends`}
          value={rainDelay.ends}
          options={ENDS}
          pick={(ends) => set({ ...rainDelay, ends })}
        />
      )}
    </fieldset>
  );
}
