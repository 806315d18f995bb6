import { useState, type ReactNode } from 'react';
import { Button, Checkbox, Input } from 'antd';
import { START_STEPS_MINUTES, type TimerKind, say } from '@water-clock/core';
import { Choice } from '../../shared/fields/Choice.tsx';
import { stopsAtUnread } from '../../shared/fields/unread.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { kindOfAnswers, USUAL_ANSWERS, type Answers } from './kindQuestions.ts';

const DAYS = [
  ['weekdays', say`days of the week`],
  ['interval', say`every few days`],
  ['parity', say`odd or even dates`],
  ['hours', say`every few hours`],
] as const;

function Question({ asks, children }: { readonly asks: string; readonly children: ReactNode }) {
  return (
    <li>
      <p>
        <strong>{asks}</strong>
      </p>
      {children}
    </li>
  );
}

interface Props {
  readonly make: (kind: TimerKind) => void;
  readonly leave: () => void;
}

/** A timer kind of the company's own, from questions about the timer. */
export function KindQuestions({ make, leave }: Props) {
  const [answers, setAnswers] = useState<Answers>(USUAL_ANSWERS);
  const [fault, setFault] = useState<string | null>(null);
  const set = (more: Partial<Answers>) => {
    setAnswers((before) => ({ ...before, ...more }));
    return null;
  };
  const number = (
    key: keyof Answers,
    label: string,
    least: number,
    most: number,
    unit?: string,
  ) => (
    <NumberField
      label={label}
      least={least}
      most={most}
      value={Number(answers[key])}
      {...(unit === undefined ? {} : { unit })}
      commit={(value) => set({ [key]: value ?? answers[key] })}
    />
  );
  return (
    <form
      className="library-form stack column"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        if (stopsAtUnread(event.currentTarget)) return;
        if (answers.name.trim() === '') setFault(say`Enter a name first.`);
        else make(kindOfAnswers(answers));
      }}
    >
      <label className="labelled">
        {say`Name of the timer kind`}
        <Input
          autoFocus
          maxLength={120}
          placeholder={say`Grey box with eight keys`}
          value={answers.name}
          aria-invalid={fault !== null}
          onChange={({ target: { value } }) => set({ name: value })}
          status={fault !== null ? 'error' : ''}
        />
      </label>
      {fault && <p className="fault">{fault}</p>}
      <ol className="points far">
        <Question asks={say`How many stations have a terminal? Do not count empty module slots.`}>
          {number('stations', say`Stations`, 1, 99)}
        </Question>
        <Question asks={say`How many programs can you page through?`}>
          {number('programs', say`Programs`, 1, 26)}
        </Question>
        <Question asks={say`How many start times does one program have?`}>
          {number('starts', say`Start times`, 1, 24)}
        </Question>
        <Question asks={say`Press plus once on a start time. How far does it move?`}>
          <Choice
            label={say`Minutes`}
            value={String(answers.startStep)}
            words={Object.fromEntries(
              START_STEPS_MINUTES.map((one) => [String(one), say`${one} min`]),
            )}
            commit={(value) =>
              set({ startStep: START_STEPS_MINUTES.find((one) => String(one) === value) ?? 15 })
            }
          />
        </Question>
        <Question
          asks={say`Hold plus on a run time. Where does it stop, and in what steps does it move?`}
        >
          <div className="tiles fill of-150">
            {number('longestRunMinutes', say`Longest run`, 1, 1440, say`minutes`)}
            <Choice
              label={say`Steps`}
              value={answers.runStep}
              words={{ seconds: say`seconds`, minutes: say`minutes`, fives: say`five minutes` }}
              commit={(runStep) => set({ runStep })}
            />
          </div>
        </Question>
        <Question asks={say`Which day rules does it have?`}>
          <div className="tiles near">
            {DAYS.map(([one, words]) => (
              <Checkbox
                className="check"
                key={one}
                checked={answers.days.includes(one)}
                onChange={() =>
                  set({
                    days: DAYS.map(([each]) => each).filter(
                      (each) => (each === one) !== answers.days.includes(each),
                    ),
                  })
                }
              >
                {words}
              </Checkbox>
            ))}
          </div>
          {answers.days.includes('interval') &&
            number('longestInterval', say`Longest interval in days`, 1, 365)}
        </Question>
        <Question asks={say`Does it have a seasonal percent?`}>
          <Choice
            label={say`Percent`}
            value={answers.percent}
            words={{
              none: 'no',
              timer: say`one for the whole timer`,
              program: say`one for each program`,
              months: say`one for each month`,
            }}
            commit={(percent) => set({ percent })}
          />
          {answers.percent !== 'none' && (
            <div className="tiles fill of-150">
              {number('highestPercent', say`Highest percent`, 100, 500, '%')}
              {number('percentStep', say`Step size`, 1, 50, '%')}
            </div>
          )}
        </Question>
        <Question asks={say`Does it have cycle and soak?`}>
          <Choice
            label={say`Cycle and soak`}
            value={answers.soak}
            words={{ none: 'no', station: say`yes, by station`, program: say`yes, by program` }}
            commit={(soak) => set({ soak })}
          />
        </Question>
        <Question asks={say`Does it have a station delay?`}>
          {number('longestDelaySeconds', say`Longest delay`, 0, 36_000, say`seconds, 0 for none`)}
        </Question>
        <Question asks={say`Set two programs to the same start time. What happens?`}>
          <Choice
            label={say`When a start falls inside a running cycle`}
            value={answers.overlap}
            words={{
              queue: say`the second waits for the first to end`,
              drop: say`the second is lost`,
              cut: say`the first is cut off`,
              together: say`both run at once`,
              share: say`both run, within its limit of open stations`,
            }}
            commit={(overlap) => set({ overlap })}
          />
        </Question>
        <Question asks={say`Does it have no-water hours?`}>
          <Choice
            label={say`No-water hours`}
            value={answers.dryHours}
            words={{
              ignore: 'no',
              cut: say`yes, and watering inside them is cut off`,
              pause: say`yes, and watering resumes after them`,
            }}
            commit={(dryHours) => set({ dryHours })}
          />
        </Question>
        <Question asks={say`How many valves can open at once?`}>
          {number('atOnce', say`At once`, 1, 99)}
        </Question>
        <Question asks={say`What does its clock know?`}>
          <Choice
            label={say`Clock`}
            value={answers.clock}
            words={{ date: say`the date`, weekday: say`only the weekday` }}
            commit={(clock) => set({ clock })}
          />
        </Question>
      </ol>
      <div>
        <Button type="primary" size="large" htmlType="submit">{say`Create timer kind`}</Button>{' '}
        <Button size="large" onClick={leave}>{say`Cancel`}</Button>
      </div>
    </form>
  );
}
