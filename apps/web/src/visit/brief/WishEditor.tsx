import { Checkbox } from 'antd';
import { usualWish, wishOf, type Plan, type Survey, type Wish, say } from '@water-clock/core';
import { LabelledTime } from '../../shared/fields/LabelledTime.tsx';
import { Choice } from '../../shared/fields/Choice.tsx';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';

const START_WORDS: Record<NonNullable<Wish['starts']>, string> = {
  any: say`any`,
  one: say`one start time per program`,
  repeated: say`repeated start times`,
  'timer-soak': say`the timer’s cycle and soak`,
};
const DAY_WORDS: Record<NonNullable<Wish['days']>, string> = {
  any: say`any`,
  weekdays: say`weekdays`,
  interval: say`every few days`,
};
const PROGRAM_WORDS: Record<NonNullable<Wish['programs']>, string> = {
  any: say`as few as possible`,
  'by-need': say`by need`,
  one: say`one for all`,
};

interface Props {
  readonly plan: Plan;
  readonly survey: Survey;
  readonly editor: TimerEditor;
}

/** The wishes for the programs: when, how many starts, which days. */
export function WishEditor({ plan, survey, editor }: Props) {
  const wish = wishOf({ wish: usualWish(plan, survey) });
  const set = (more: Partial<Wish>): string | null =>
    commitWords(editor, { type: 'note', fields: { wish: { ...survey.wish, ...more } } });
  const time = (key: 'notBefore' | 'finishBy', label: string) => (
    <LabelledTime label={label} value={wish[key]} commit={(read) => set({ [key]: read })} />
  );
  const groups = [
    ...new Set(survey.stations.flatMap(({ group }) => (group ? [group] : []))),
  ].sort();
  const isApart = (a: string, b: string) =>
    wish.apart.some(([x, y]) => (x === a && y === b) || (x === b && y === a));
  const pairs = groups.flatMap((a, i) => groups.slice(i + 1).map((b) => [a, b] as const));
  return (
    <div className="stack no-print">
      <div className="tiles fill of-150">
        {time('notBefore', say`Not before`)}
        {time('finishBy', say`Finished by`)}
        <NumberField
          label={say`Or minutes before sunrise (negative: after)`}
          unit={say`min`}
          least={-180}
          most={180}
          empty={say`fixed time`}
          value={survey.finishBeforeSunrise ?? null}
          commit={(minutes) =>
            commitWords(editor, { type: 'note', fields: { finishBeforeSunrise: minutes } })
          }
        />
        <Choice
          label={say`Start times`}
          value={wish.starts}
          words={START_WORDS}
          commit={(starts) => set({ starts })}
        />
        <Choice
          label={say`Days`}
          value={wish.days}
          words={DAY_WORDS}
          commit={(days) => set({ days })}
        />
        <Choice
          label={say`Programs`}
          value={wish.programs}
          words={PROGRAM_WORDS}
          commit={(programs) => set({ programs })}
        />
        <NumberField
          label={say`No overlaps up to`}
          unit="%"
          least={100}
          most={500}
          value={wish.headroomPercent}
          commit={(value) => set({ headroomPercent: value ?? 130 })}
        />
      </div>
      <Checkbox
        className="check"
        checked={wish.dripAnyTime}
        onChange={(event) => set({ dripAnyTime: event.target.checked })}
      >{say`drip may run at any time`}</Checkbox>
      {pairs.length > 0 && (
        <div className="tiles near" role="group" aria-label={say`Groups kept in separate programs`}>
          {pairs.map(([a, b]) => (
            <Checkbox
              className="check"
              key={`${a} ${b}`}
              checked={isApart(a, b)}
              onChange={(event) =>
                set({
                  apart: event.target.checked
                    ? [...wish.apart, [a, b]]
                    : wish.apart.filter(
                        ([x, y]) => !((x === a && y === b) || (x === b && y === a)),
                      ),
                })
              }
            >
              {say`${a} and ${b} in separate programs`}
            </Checkbox>
          ))}
        </div>
      )}
    </div>
  );
}
