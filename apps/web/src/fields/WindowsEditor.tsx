import { useState } from 'react';
import { Button, Input } from 'antd';
import {
  parseTimeEntry,
  startWords,
  TIME_ENTRY_HELP,
  WEEKDAYS,
  type NoWaterWindow,
  type Timer,
} from '@water-clock/core';
import { usePreferences } from '../platform/preferences.tsx';
import { WeekdayButtons } from './WeekdayButtons.tsx';

interface TimeFieldProps {
  readonly label: string;
  readonly value: string;
  readonly commit: (time: string) => string | null;
}

function TimeField({ label, value, commit }: TimeFieldProps) {
  const { clock } = usePreferences();
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const finish = () => {
    if (typed === null) return;
    const time = parseTimeEntry(typed);
    const refused =
      time === null
        ? `"${typed}" is not a time. ${TIME_ENTRY_HELP}`
        : time === value
          ? null
          : commit(time);
    setFault(refused);
    if (refused === null) setTyped(null);
  };
  return (
    <label className="labelled">
      {label}
      <Input
        value={typed ?? startWords(value, clock)}
        aria-invalid={fault !== null}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={finish}
        onKeyDown={(event) => {
          if (event.key === 'Enter') finish();
          if (event.key === 'Escape') setTyped(null);
        }}
        status={fault !== null ? 'error' : ''}
      />
      {fault && <span className="fault">{fault}</span>}
    </label>
  );
}

interface Props {
  readonly label: string;
  /** Whose display gives the order of the weekdays. */
  readonly timer: Pick<Timer, 'dialect'>;
  readonly windows: readonly NoWaterWindow[];
  /** The refusal in words, or null where it is made. */
  readonly commit: (windows: readonly NoWaterWindow[] | null) => string | null;
}

/** Hours in which nothing may water, each on some weekdays. */
export function WindowsEditor({ label, timer, windows, commit }: Props) {
  const [refused, setRefused] = useState<string | null>(null);
  const replace = (at: number, window: NoWaterWindow | null): string | null => {
    const next = windows.flatMap((one, i) => (i === at ? (window ?? []) : one));
    const refusal = commit(next.length > 0 ? next : null);
    setRefused(refusal);
    return refusal;
  };
  return (
    <div className="windows" role="group" aria-label={label}>
      {windows.map((window, i) => (
        <div key={i} className="window">
          <TimeField
            label="No water from"
            value={window.from}
            commit={(from) => replace(i, { ...window, from })}
          />
          <TimeField label="to" value={window.to} commit={(to) => replace(i, { ...window, to })} />
          <WeekdayButtons
            label="beginning on"
            timer={timer}
            pressed={window.weekdays ?? WEEKDAYS}
            commit={(weekdays) => {
              const { weekdays: _before, ...rest } = window;
              replace(i, weekdays.length === 7 ? rest : { ...rest, weekdays });
            }}
          />
          <Button onClick={() => replace(i, null)}>Take out</Button>
        </div>
      ))}
      <Button onClick={() => setRefused(commit([...windows, { from: '10:00', to: '18:00' }]))}>
        Add hours without water
      </Button>
      {refused && <p className="fault">{refused}</p>}
    </div>
  );
}
