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
import { NumberField } from './NumberField.tsx';

const OVERLAP_WORDS: Record<OnOverlap, string> = {
  queue: 'the second cycle waits for the first to end',
  drop: 'the second start is lost',
  cut: 'the first cycle is cut off',
  together: 'both run at once',
};

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
        least={1}
        most={99}
        value={timer.stationCount}
        commit={(value) => commit({ stationCount: value ?? timer.stationCount })}
      />
      <NumberField
        label="Programs"
        least={1}
        most={26}
        value={timer.programCount}
        commit={(value) => commit({ programCount: value ?? timer.programCount })}
      />
      <NumberField
        label="Starts a program"
        least={1}
        most={24}
        value={timer.startsPerProgram}
        commit={(value) => commit({ startsPerProgram: value ?? timer.startsPerProgram })}
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
        least={1}
        most={3600}
        value={timer.runStepSeconds}
        commit={(value) => commit({ runStepSeconds: value ?? timer.runStepSeconds })}
      />
      <NumberField
        label="Longest run"
        unit="minutes"
        least={1}
        most={1440}
        value={Math.floor(timer.longestRunSeconds / 60)}
        commit={(minutes) => commit({ longestRunSeconds: (minutes ?? 1) * 60 })}
      />
    </div>
  );
}
