import { useState } from 'react';
import {
  faultSentence,
  ON_OVERLAPS,
  START_STEPS_MINUTES,
  type OnOverlap,
  type Plan,
  type Timer,
} from '@water-clock/core';
import type { TimerEditor } from './editor.ts';

const OVERLAP_WORDS: Record<OnOverlap, string> = {
  queue: 'the second cycle waits for the first to end',
  drop: 'the second start is lost',
  cut: 'the first cycle is cut off',
  together: 'both run at once',
};

interface NumberFieldProps {
  readonly label: string;
  readonly unit?: string;
  readonly value: number;
  readonly commit: (value: number) => string | null;
}

/** A whole number that is made when the field is left; a refusal stands at the field. */
function NumberField({ label, unit, value, commit }: NumberFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const finish = () => {
    if (typed === null) return;
    const number = /^\d{1,6}$/.test(typed.trim()) ? Number(typed) : NaN;
    const refused = Number.isNaN(number)
      ? `"${typed}" is not a whole number.`
      : number === value
        ? null
        : commit(number);
    setFault(refused);
    if (refused === null) setTyped(null);
  };
  return (
    <label className="labelled">
      {label}
      {unit && ` (${unit})`}
      <input
        className="field"
        inputMode="numeric"
        value={typed ?? value}
        aria-invalid={fault !== null}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={finish}
        onKeyDown={(event) => {
          if (event.key === 'Enter') finish();
          if (event.key !== 'Escape') return;
          setTyped(null);
          setFault(null);
        }}
      />
      {fault && <span className="fault">{fault}</span>}
    </label>
  );
}

/** What this timer can do: the limits that the checks and the editors go by. */
export function TimerAbilities({
  plan,
  editor,
}: {
  readonly plan: Plan;
  readonly editor: TimerEditor;
}) {
  const { timer } = plan;
  const [name, setName] = useState<string | null>(null);
  const commit = (more: Partial<Timer>): string | null => {
    const [fault] = editor.commit({ type: 'set-timer', timer: { ...timer, ...more } });
    return fault ? `Not possible: ${faultSentence(fault)}.` : null;
  };
  return (
    <div className="abilities">
      <label className="labelled abilities-wide">
        Name of the timer
        <input
          className="field"
          value={name ?? timer.name}
          maxLength={120}
          onChange={(event) => setName(event.target.value)}
          onBlur={() => {
            if (name !== null && name.trim() !== '' && name.trim() !== timer.name)
              commit({ name: name.trim() });
            setName(null);
          }}
        />
      </label>
      <label className="labelled abilities-wide">
        When a start comes while a cycle is running
        <select
          className="field"
          value={timer.onOverlap}
          // The cast holds because the options are the names themselves.
          onChange={(event) => commit({ onOverlap: event.target.value as OnOverlap })}
        >
          {ON_OVERLAPS.map((one) => (
            <option key={one} value={one}>
              {OVERLAP_WORDS[one]}
            </option>
          ))}
        </select>
      </label>
      <NumberField
        label="Stations"
        value={timer.stationCount}
        commit={(stationCount) => commit({ stationCount })}
      />
      <NumberField
        label="Programs"
        value={timer.programCount}
        commit={(programCount) => commit({ programCount })}
      />
      <NumberField
        label="Starts a program"
        value={timer.startsPerProgram}
        commit={(startsPerProgram) => commit({ startsPerProgram })}
      />
      <label className="labelled">
        Starts are set in steps of
        <select
          className="field"
          value={timer.startStepMinutes}
          onChange={(event) => {
            const startStepMinutes = START_STEPS_MINUTES.find(
              (step) => step === Number(event.target.value),
            );
            if (startStepMinutes) commit({ startStepMinutes });
          }}
        >
          {START_STEPS_MINUTES.map((step) => (
            <option key={step} value={step}>
              {step} minutes
            </option>
          ))}
        </select>
      </label>
      <NumberField
        label="Runs are set in steps of"
        unit="seconds"
        value={timer.runStepSeconds}
        commit={(runStepSeconds) => commit({ runStepSeconds })}
      />
      <NumberField
        label="Longest run"
        unit="minutes"
        value={Math.floor(timer.longestRunSeconds / 60)}
        commit={(minutes) => commit({ longestRunSeconds: minutes * 60 })}
      />
    </div>
  );
}
