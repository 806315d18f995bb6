import { Checkbox } from 'antd';
import {
  dateWords,
  say,
  timeWords,
  usualWish,
  wishOf,
  type Plan,
  type Survey,
  type Wish,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { LabelledTime } from '../../shared/fields/LabelledTime.tsx';
import { Choice } from '../../shared/fields/Choice.tsx';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import type { Sunrise } from '../steps/useBrief.ts';

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

type DaysPerWeek = NonNullable<Wish['daysPerWeek']>;

/** Options for the days a week of the whole garden. */
const DAYS_PER_WEEK: readonly DaysPerWeek[] = [
  [1, 1],
  [1, 2],
  [2, 2],
  [2, 3],
  [3, 3],
  [3, 4],
  [4, 7],
  [7, 7],
].map(([least = 1, most = 7]) => ({ least, most }));

const daysWords = ({ least, most }: DaysPerWeek) =>
  least === most ? (least === 7 ? say`every day` : String(least)) : say`${least} to ${most}`;

const daysKey = (days: DaysPerWeek | undefined) => (days ? `${days.least}-${days.most}` : '');

interface Props {
  readonly plan: Plan;
  readonly survey: Survey;
  readonly editor: TimerEditor;
  /** The earliest sunrise on the dates the programs are for; null: not known. */
  readonly sunrise: Sunrise | null;
}

/** Wishes for the programs: hours, starts, days. */
export function WishEditor({ plan, survey, editor, sunrise }: Props) {
  const { clock, order } = usePreferences();
  const wish = wishOf({ wish: usualWish(plan, survey) });
  const set = (more: Partial<Wish>): string | null =>
    commitWords(editor, { type: 'note', fields: { wish: { ...survey.wish, ...more } } });
  const time = (key: 'notBefore' | 'finishBy', label: string) => (
    <LabelledTime label={label} value={wish[key]} commit={(read) => set({ [key]: read })} />
  );
  const setDays = (days: DaysPerWeek | undefined) => {
    const { daysPerWeek: _before, ...rest } = survey.wish ?? {};
    commitWords(editor, {
      type: 'note',
      fields: { wish: days ? { ...rest, daysPerWeek: days } : rest },
    });
  };
  // An imported brief may have others.
  const ranges = [
    ...DAYS_PER_WEEK,
    ...(wish.daysPerWeek && !DAYS_PER_WEEK.some((one) => daysKey(one) === daysKey(wish.daysPerWeek))
      ? [wish.daysPerWeek]
      : []),
  ];
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
          label={say`Or minutes before sunrise`}
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
        <SelectField
          label={say`Days a week`}
          value={daysKey(wish.daysPerWeek)}
          options={[
            ['', say`any`] as const,
            ...ranges.map((days) => [daysKey(days), daysWords(days)] as const),
          ]}
          pick={(key) => setDays(ranges.find((days) => daysKey(days) === key))}
        />
        <Choice
          label={say`Weekdays or interval`}
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
      {sunrise && (
        <p className="soft">{say`Sunrise counts as ${timeWords(sunrise.second, clock)}, the earliest in the next 12 months (${dateWords(sunrise.day, sunrise.day, order)}). For a time after sunrise, enter a negative number.`}</p>
      )}
      {wish.daysPerWeek && (
        <p className="soft">{say`Stations with days of their own keep them.`}</p>
      )}
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
