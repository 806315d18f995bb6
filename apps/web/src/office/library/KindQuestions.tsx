import { useState, type ReactNode } from 'react';
import { Button, Checkbox, Input } from 'antd';
import { START_STEPS_MINUTES, type TimerKind, say } from '@water-clock/core';
import { Choice } from '../../shared/fields/Choice.tsx';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { kindOfAnswers, USUAL_ANSWERS, type Answers } from './kindQuestions.ts';

const DAYS = [
  ['weekdays', say`days of the week, each by itself`],
  ['interval', say`every so many days`],
  ['parity', say`odd or even dates`],
  ['hours', say`every so many hours`],
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

/** A kind of timer of one's own, from answers about what is on the box. */
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
        if (answers.name.trim() === '') setFault(say`Give it a name first.`);
        else make(kindOfAnswers(answers));
      }}
    >
      <label className="labelled">
        {say`What will you call it?`}
        <Input
          autoFocus
          maxLength={120}
          placeholder={say`Grey box with the round knob`}
          value={answers.name}
          aria-invalid={fault !== null}
          onChange={({ target: { value } }) => set({ name: value })}
          status={fault !== null ? 'error' : ''}
        />
      </label>
      {fault && <p className="fault">{fault}</p>}
      <ol className="points far">
        <Question
          asks={say`How many stations have a terminal, a module’s empty places not counted?`}
        >
          {number('stations', say`Stations`, 1, 99)}
        </Question>
        <Question asks={say`How many program letters or numbers can you page through?`}>
          {number('programs', say`Programs`, 1, 26)}
        </Question>
        <Question
          asks={say`Within one program, how many starts can you page through before the first one comes again?`}
        >
          {number('starts', say`Starts`, 1, 24)}
        </Question>
        <Question asks={say`Press plus once at a start: by how much does it move?`}>
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
          asks={say`Hold plus at a run time: where does it end, and in which steps does it go?`}
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
        <Question asks={say`Which ways of choosing days does it show?`}>
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
            number('longestInterval', say`The most days it counts`, 1, 365)}
        </Question>
        <Question asks={say`Is there a percent that changes all run times?`}>
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
              {number('highestPercent', say`How high does it go`, 100, 500, '%')}
              {number('percentStep', say`In steps of`, 1, 50, '%')}
            </div>
          )}
        </Question>
        <Question asks={say`Can it split a run and let it soak in?`}>
          <Choice
            label={say`Cycle and soak`}
            value={answers.soak}
            words={{ none: 'no', station: say`yes, by station`, program: say`yes, by program` }}
            commit={(soak) => set({ soak })}
          />
        </Question>
        <Question asks={say`Can it wait between two stations?`}>
          {number('longestDelaySeconds', say`Longest delay`, 0, 36_000, say`seconds, 0: no`)}
        </Question>
        <Question asks={say`Set two programs to the same start and look: what happens?`}>
          <Choice
            label={say`When a start comes while a cycle is running`}
            value={answers.overlap}
            words={{
              queue: say`the second waits for the first to end`,
              drop: say`the second is lost`,
              cut: say`the first is cut off`,
              together: say`both run at once`,
              share: say`both run, with no more stations open than its limit`,
            }}
            commit={(overlap) => set({ overlap })}
          />
        </Question>
        <Question asks={say`Can it be told hours in which nothing may water?`}>
          <Choice
            label={say`Hours without water`}
            value={answers.dryHours}
            words={{
              ignore: 'no',
              cut: say`yes, and what meets them is cut off`,
              pause: say`yes, and watering goes on after them`,
            }}
            commit={(dryHours) => set({ dryHours })}
          />
        </Question>
        <Question asks={say`How many valves can it open at once?`}>
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
        <Button type="primary" size="large" htmlType="submit">{say`Make this kind`}</Button>{' '}
        <Button size="large" onClick={leave}>{say`Cancel`}</Button>
      </div>
    </form>
  );
}
