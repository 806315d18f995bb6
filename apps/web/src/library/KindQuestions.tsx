import { useState, type ReactNode } from 'react';
import { Button, Checkbox, Input } from 'antd';
import { START_STEPS_MINUTES, type TimerKind } from '@water-clock/core';
import { Choice } from '../fields/Choice.tsx';
import { NumberField } from '../fields/NumberField.tsx';
import { kindOfAnswers, USUAL_ANSWERS, type Answers } from './kindQuestions.ts';

const DAYS = [
  ['weekdays', 'days of the week, each by itself'],
  ['interval', 'every so many days'],
  ['parity', 'odd or even dates'],
  ['hours', 'every so many hours'],
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
        if (answers.name.trim() === '') setFault('Give it a name first.');
        else make(kindOfAnswers(answers));
      }}
    >
      <label className="labelled">
        What will you call it?
        <Input
          autoFocus
          maxLength={120}
          placeholder="Grey box with the round knob"
          value={answers.name}
          aria-invalid={fault !== null}
          onChange={({ target: { value } }) => set({ name: value })}
          status={fault !== null ? 'error' : ''}
        />
      </label>
      {fault && <p className="fault">{fault}</p>}
      <ol className="points far">
        <Question asks="How many stations have a terminal, a module’s empty places not counted?">
          {number('stations', 'Stations', 1, 99)}
        </Question>
        <Question asks="How many program letters or numbers can you page through?">
          {number('programs', 'Programs', 1, 26)}
        </Question>
        <Question asks="Within one program, how many starts can you page through before the first one comes again?">
          {number('starts', 'Starts', 1, 24)}
        </Question>
        <Question asks="Press plus once at a start: by how much does it move?">
          <Choice
            label="Minutes"
            value={String(answers.startStep)}
            words={Object.fromEntries(
              START_STEPS_MINUTES.map((one) => [String(one), `${one} min`]),
            )}
            commit={(value) =>
              set({ startStep: START_STEPS_MINUTES.find((one) => String(one) === value) ?? 15 })
            }
          />
        </Question>
        <Question asks="Hold plus at a run time: where does it end, and in which steps does it go?">
          <div className="tiles fill of-150">
            {number('longestRunMinutes', 'Longest run', 1, 1440, 'minutes')}
            <Choice
              label="Steps"
              value={answers.runStep}
              words={{ seconds: 'seconds', minutes: 'minutes', fives: 'five minutes' }}
              commit={(runStep) => set({ runStep })}
            />
          </div>
        </Question>
        <Question asks="Which ways of choosing days does it show?">
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
            number('longestInterval', 'The most days it counts', 1, 365)}
        </Question>
        <Question asks="Is there a percent that changes all run times?">
          <Choice
            label="Percent"
            value={answers.percent}
            words={{
              none: 'no',
              timer: 'one for the whole timer',
              program: 'one for each program',
              months: 'one for each month',
            }}
            commit={(percent) => set({ percent })}
          />
          {answers.percent !== 'none' && (
            <div className="tiles fill of-150">
              {number('highestPercent', 'How high does it go', 100, 500, '%')}
              {number('percentStep', 'In steps of', 1, 50, '%')}
            </div>
          )}
        </Question>
        <Question asks="Can it split a run and let it soak in?">
          <Choice
            label="Cycle and soak"
            value={answers.soak}
            words={{ none: 'no', station: 'yes, by station', program: 'yes, by program' }}
            commit={(soak) => set({ soak })}
          />
        </Question>
        <Question asks="Can it wait between two stations?">
          {number('longestDelaySeconds', 'Longest delay', 0, 36_000, 'seconds, 0: no')}
        </Question>
        <Question asks="Set two programs to the same start and look: what happens?">
          <Choice
            label="When a start comes while a cycle is running"
            value={answers.overlap}
            words={{
              queue: 'the second waits for the first to end',
              drop: 'the second is lost',
              cut: 'the first is cut off',
              together: 'both run at once',
              share: 'both run, with no more stations open than its limit',
            }}
            commit={(overlap) => set({ overlap })}
          />
        </Question>
        <Question asks="Can it be told hours in which nothing may water?">
          <Choice
            label="Hours without water"
            value={answers.dryHours}
            words={{
              ignore: 'no',
              cut: 'yes, and what meets them is cut off',
              pause: 'yes, and watering goes on after them',
            }}
            commit={(dryHours) => set({ dryHours })}
          />
        </Question>
        <Question asks="How many valves can it open at once?">
          {number('atOnce', 'At once', 1, 99)}
        </Question>
        <Question asks="What does its clock know?">
          <Choice
            label="Clock"
            value={answers.clock}
            words={{ date: 'the date', weekday: 'only the weekday' }}
            commit={(clock) => set({ clock })}
          />
        </Question>
      </ol>
      <div>
        <Button type="primary" size="large" htmlType="submit">
          Make this kind
        </Button>{' '}
        <Button size="large" onClick={leave}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
