import { useState } from 'react';
import { Checkbox, Input } from 'antd';
import {
  faultSentence,
  ON_OVERLAPS,
  START_STEPS_MINUTES,
  type EpochDay,
  type Plan,
  type Seasonal,
  type Timer,
  say,
  type Survey,
} from '@water-clock/core';
import type { TimerEditor } from '../../data/editor/editor.ts';
import {
  OVERLAP_WORDS,
  ROUNDING_WORDS,
  RULE_WORDS,
  SCOPE_WORDS,
  SOAK_WORDS,
  UNIT_WORDS,
  WINDOW_WORDS,
} from './abilityWords.ts';
import { BoxAbilities } from './BoxAbilities.tsx';
import { KindPicker } from './KindPicker.tsx';
import { Choice } from '../../shared/fields/Choice.tsx';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { PanelAbilities } from './PanelAbilities.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';

// Safe cast: the record has exactly these keys.
const RULES = Object.keys(RULE_WORDS) as (keyof typeof RULE_WORDS)[];

/** What this timer can do: limits used by the checks and editors. */
export function TimerAbilities({
  plan,
  survey,
  editor,
  today,
}: {
  readonly plan: Plan;
  /** Absent in the library, which edits a kind and no timer. */
  readonly survey?: Survey;
  readonly editor: Pick<TimerEditor, 'commit'>;
  readonly today: EpochDay;
}) {
  const { timer } = plan;
  const [name, setName] = useState<string | null>(null);
  const commit = (more: Partial<Timer>): string | null => {
    const [fault] = editor.commit({ type: 'set-timer', timer: { ...timer, ...more } });
    return fault ? say`Not possible: ${faultSentence(fault)}.` : null;
  };
  const seasonal = (more: Partial<Seasonal>) =>
    commit({ seasonal: { ...timer.seasonal, ...more } });
  return (
    <div className="tiles far">
      <KindPicker plan={plan} survey={survey} editor={editor} today={today} />
      <label className="labelled whole">
        {say`Name of the timer`}
        <Input
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
      <SelectField
        className="whole"
        label={say`When a start falls inside a running cycle`}
        value={timer.onOverlap}
        options={ON_OVERLAPS.map((one) => [one, OVERLAP_WORDS[one]] as const)}
        pick={(value) => commit({ onOverlap: value })}
      />
      <NumberField
        label={say`Stations`}
        least={1}
        most={99}
        value={timer.stationCount}
        commit={(value) => commit({ stationCount: value ?? timer.stationCount })}
      />
      <NumberField
        label={say`Programs`}
        least={1}
        most={26}
        value={timer.programCount}
        commit={(value) => commit({ programCount: value ?? timer.programCount })}
      />
      <NumberField
        label={say`Start times per program`}
        least={1}
        most={24}
        value={timer.startsPerProgram}
        commit={(value) => commit({ startsPerProgram: value ?? timer.startsPerProgram })}
      />
      <SelectField
        label={say`Start time steps`}
        value={timer.startStepMinutes}
        options={START_STEPS_MINUTES.map((step) => [step, say`${step} minutes`] as const)}
        pick={(value) => {
          const startStepMinutes = START_STEPS_MINUTES.find((step) => step === Number(value));
          if (startStepMinutes) commit({ startStepMinutes });
        }}
      />
      <NumberField
        label={say`Run time steps`}
        unit={say`seconds`}
        least={1}
        most={3600}
        value={timer.runStepSeconds}
        commit={(value) => commit({ runStepSeconds: value ?? timer.runStepSeconds })}
      />
      <NumberField
        label={say`Longest run`}
        unit={say`minutes`}
        least={1}
        most={1440}
        value={Math.floor(timer.longestRunSeconds / 60)}
        commit={(minutes) => commit({ longestRunSeconds: (minutes ?? 1) * 60 })}
      />
      <NumberField
        label={say`Longest station delay`}
        unit={say`seconds`}
        most={36_000}
        value={timer.longestStationDelaySeconds}
        commit={(value) => commit({ longestStationDelaySeconds: value ?? 0 })}
      />
      <NumberField
        label={say`Stations at once`}
        least={1}
        most={99}
        value={timer.stationsAtOnce}
        commit={(value) => commit({ stationsAtOnce: value ?? 1 })}
      />
      <NumberField
        label={say`Longest interval`}
        unit={say`days`}
        least={1}
        most={365}
        value={timer.longestIntervalDays}
        commit={(value) => commit({ longestIntervalDays: value ?? 1 })}
      />
      <Choice
        label={say`Cycle and soak`}
        value={timer.cycleSoak}
        words={SOAK_WORDS}
        commit={(cycleSoak) => commit({ cycleSoak })}
      />
      <Choice
        label={say`No-water hours`}
        value={timer.inWindow}
        words={WINDOW_WORDS}
        commit={(inWindow) => commit({ inWindow })}
      />
      <Choice
        label={say`Seasonal percent`}
        value={timer.seasonal.scope}
        words={SCOPE_WORDS}
        commit={(scope) => seasonal({ scope })}
      />
      {timer.seasonal.scope !== 'none' && (
        <>
          <NumberField
            label={say`Lowest percent`}
            unit="%"
            most={100}
            value={timer.seasonal.lowestPercent}
            commit={(value) => seasonal({ lowestPercent: value ?? 0 })}
          />
          <NumberField
            label={say`Highest percent`}
            unit="%"
            least={100}
            most={500}
            value={timer.seasonal.highestPercent}
            commit={(value) => seasonal({ highestPercent: value ?? 100 })}
          />
          <NumberField
            label={say`Percent steps`}
            unit="%"
            least={1}
            most={50}
            value={timer.seasonal.stepPercent}
            commit={(value) => seasonal({ stepPercent: value ?? 1 })}
          />
          <Choice
            label={say`Rounding of adjusted run times`}
            value={timer.seasonal.rounding}
            words={ROUNDING_WORDS}
            commit={(rounding) => seasonal({ rounding })}
          />
          <Choice
            label={say`to whole`}
            value={timer.seasonal.roundToSeconds === 60 ? say`minutes` : say`seconds`}
            words={UNIT_WORDS}
            commit={(unit) => seasonal({ roundToSeconds: unit === 'minutes' ? 60 : 1 })}
          />
        </>
      )}
      <div className="tiles near whole" role="group" aria-label={say`Day rules`}>
        {RULES.map((rule) => (
          <Checkbox
            className="check"
            key={rule}
            checked={timer.dayRules.includes(rule)}
            onChange={(event) =>
              commit({
                dayRules: RULES.filter((one) =>
                  one === rule ? event.target.checked : timer.dayRules.includes(one),
                ),
              })
            }
          >
            {RULE_WORDS[rule]}
          </Checkbox>
        ))}
        <Checkbox
          className="check"
          checked={timer.oddDaysSkip31}
          onChange={(event) => commit({ oddDaysSkip31: event.target.checked })}
        >{say`odd dates skip the 31st`}</Checkbox>
        <Checkbox
          className="check"
          checked={timer.seasonal.byMonth}
          onChange={(event) => seasonal({ byMonth: event.target.checked })}
        >{say`a percent for each month`}</Checkbox>
        <Checkbox
          className="check"
          checked={timer.followsDaylightSaving}
          onChange={(event) => commit({ followsDaylightSaving: event.target.checked })}
        >{say`adjusts for daylight saving time`}</Checkbox>
      </div>
      <BoxAbilities timer={timer} commit={commit} />
      <PanelAbilities dialect={timer.dialect ?? {}} commit={(dialect) => commit({ dialect })} />
    </div>
  );
}
