import {
  cupResult,
  LACKING_WORDS,
  lengthWords,
  monthName,
  quantityWords,
  SCHOOL_WORDS,
  SCHOOLS,
  shownIn,
  SOURCE_WORDS,
  STEP_WORDS,
  surveyOf,
  typedIn,
  unitWords,
  type EpochDay,
  type School,
  type Overruled,
  type SchoolAnswer,
  type StationMinutes,
  type Step,
  type StepUnit,
  type Survey,
  type UnitSystem,
  say,
} from '@water-clock/core';
import { useState } from 'react';
import { Button, Input, Segmented } from 'antd';
import { Link } from 'react-router';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { Often } from '../stations/Often.tsx';
import { Scroll } from '../../app/platform/Scroll.tsx';

/** How a number in a calculation is shown and typed: digits and unit. */
function unitOf(
  unit: StepUnit,
  units: UnitSystem,
): { words: string; show: (value: number) => number; read: (typed: number) => number } {
  const round = (value: number, digits: number) => Number(value.toFixed(digits));
  switch (unit) {
    case 'mm-an-hour':
      return {
        words: unitWords(units, 'rate'),
        show: (value) => Number(shownIn(units, 'rate', value)),
        read: (typed) => typedIn(units, 'rate', typed),
      };
    case 'mm-a-day':
    case 'mm-a-week':
      return {
        words:
          unit === 'mm-a-day'
            ? say`${unitWords(units, 'depth')} a day`
            : say`${unitWords(units, 'depth')} a week`,
        show: (value) => Number(shownIn(units, 'depth', value)),
        read: (typed) => typedIn(units, 'depth', typed),
      };
    case 'share':
      return { words: '%', show: (value) => round(value * 100, 0), read: (typed) => typed / 100 };
    case 'minutes':
      return { words: say`min`, show: (value) => round(value, 1), read: (typed) => typed };
    case 'times':
      return { words: '', show: (value) => value, read: (typed) => typed };
    case 'factor':
      return { words: '×', show: (value) => round(value, 2), read: (typed) => typed };
  }
}

interface StepProps {
  readonly step: Step;
  readonly overrule: (key: keyof Overruled, value: number | null) => string | null;
}

/** A number with its source. One that can be overridden is a field; emptying it restores the default. */
function StepLine({ step, overrule }: StepProps) {
  const { units } = usePreferences();
  const { words, show, read } = unitOf(step.unit, units);
  const key = step.overrule;
  return (
    <div className="step row near spread">
      {key ? (
        <NumberField
          label={STEP_WORDS[step.what]}
          unit={words}
          decimal
          value={show(step.value)}
          empty={say`as it was`}
          commit={(value) => overrule(key, value === null ? null : read(value))}
        />
      ) : (
        <p>
          <span className="heavy">
            {show(step.value)} {words}
          </span>{' '}
          {STEP_WORDS[step.what]}
        </p>
      )}
      <span
        className={step.source === 'measured' || step.source === 'overruled' ? 'calm bold' : 'soft'}
      >
        {SOURCE_WORDS[step.source]}
      </span>
    </div>
  );
}

function Answer({
  answer,
  overrule,
}: { readonly answer: SchoolAnswer } & Pick<StepProps, 'overrule'>) {
  return (
    <section className="school stack near">
      {answer.weeklySeconds === null ? (
        <p>
          {say`Needs`} {answer.lacking.map((lacking) => LACKING_WORDS[lacking]).join(', and ')}.
        </p>
      ) : (
        <>
          {answer.steps.map((step) => (
            <StepLine key={step.what} step={step} overrule={overrule} />
          ))}
          <p className="part heavy">{say`= ${Math.round(answer.weeklySeconds / 60)} min a week`}</p>
        </>
      )}
    </section>
  );
}

interface Props {
  readonly minutes: StationMinutes;
  readonly survey: Survey;
  readonly today: EpochDay;
  readonly editor: TimerEditor;
  readonly choose: (school: School) => void;
}

/** The calculation for one station, by method, and further wishes for it. */
export function StationSteps({ minutes, survey, today, editor, choose }: Props) {
  const [seen, setSeen] = useState<School>(minutes.school);
  const { units } = usePreferences();
  const { number, answers, figures, longestIntervalDays: longest } = minutes;
  const noted = surveyOf(survey, number);
  const overrule = (key: keyof Overruled, value: number | null): string | null => {
    const { [key]: _before, ...rest } = noted.overruled ?? {};
    const next = value === null ? rest : { ...rest, [key]: value };
    return commitWords(editor, {
      type: 'note-station',
      station: number,
      fields: { overruled: Object.keys(next).length > 0 ? next : null },
    });
  };
  const { longestRun, soakSeconds, allowance, intake } = figures;
  const { year } = minutes;
  return (
    <div className="station-steps aside accent stack">
      <Segmented<School>
        block
        aria-label={say`Method shown`}
        options={SCHOOLS.map((value) => ({ value, label: SCHOOL_WORDS[value] }))}
        value={seen}
        onChange={setSeen}
      />
      <Answer answer={answers[seen]} overrule={overrule} />
      {seen !== minutes.school && answers[seen].weeklySeconds !== null && (
        <Button
          type="primary"
          onClick={() => choose(seen)}
        >{say`Use ${SCHOOL_WORDS[seen].toLowerCase()} for this station`}</Button>
      )}
      <NumberField
        label={say`Your own value`}
        unit={say`min a week`}
        decimal
        most={10_080}
        value={
          noted.overruled?.weeklySeconds === undefined
            ? null
            : Math.round(noted.overruled.weeklySeconds / 6) / 10
        }
        empty={say`none`}
        commit={(value) =>
          overrule('weeklySeconds', value === null ? null : Math.round(value * 60))
        }
      />
      {noted.cups && !cupResult(noted.cups) && (
        <p className="fault">{say`All the cups at this station were empty.`}</p>
      )}
      {year && (
        <Disclosure className="site-more" summary={say`Water balance by month`}>
          {() => (
            <>
              <Scroll label={say`Water balance as a table`}>
                <table className="year-table data numbers">
                  <thead>
                    <tr>
                      <th>{say`Month`}</th>
                      <th>{say`ETo, ${unitWords(units, 'depth')} a day`}</th>
                      <th>{say`Plants use, a week`}</th>
                      <th>{say`Rain that counts, a week`}</th>
                      <th>{say`Net need, a week`}</th>
                      <th>{say`Minutes a week`}</th>
                    </tr>
                  </thead>
                  <tbody>
                    {year.map((balance) => (
                      <tr key={balance.month}>
                        <th scope="row">{monthName(balance.month)}</th>
                        <td>{shownIn(units, 'depth', balance.etoMmPerDay)}</td>
                        <td>{shownIn(units, 'depth', balance.plantMmPerWeek)}</td>
                        <td>{shownIn(units, 'depth', balance.rainMmPerWeek)}</td>
                        <td>{shownIn(units, 'depth', balance.netMmPerWeek)}</td>
                        <td>{Math.round(balance.weeklySeconds / 60)}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </Scroll>
              <p className="soft">
                {say`ETo and rain come from the weather town. To change them, copy its weather.`}{' '}
                <Link to="/library/climates">{say`Weather library`}</Link>
              </p>
            </>
          )}
        </Disclosure>
      )}
      <div className="tiles fill of-150">
        <NumberField
          label={say`Waterings a week`}
          least={1}
          most={14}
          value={noted.waterings ?? null}
          empty={say`3, default`}
          commit={(waterings) =>
            commitWords(editor, { type: 'note-station', station: number, fields: { waterings } })
          }
        />
        <NumberField
          label={say`Fewest days a week`}
          least={1}
          most={7}
          value={noted.days?.least ?? null}
          empty={say`any`}
          commit={(least) =>
            commitWords(editor, {
              type: 'note-station',
              station: number,
              fields: {
                days:
                  least === null ? null : { least, most: Math.max(least, noted.days?.most ?? 7) },
              },
            })
          }
        />
        <NumberField
          label={say`Most days a week`}
          least={1}
          most={7}
          value={noted.days?.most ?? null}
          empty={say`any`}
          commit={(most) =>
            commitWords(editor, {
              type: 'note-station',
              station: number,
              fields: {
                days:
                  most === null ? null : { least: Math.min(most, noted.days?.least ?? 1), most },
              },
            })
          }
        />
        <label className="labelled">
          {say`Group`}
          <Input
            key={noted.group ?? ''}
            placeholder={say`lawn, beds, pots`}
            maxLength={80}
            defaultValue={noted.group ?? ''}
            onBlur={({ target: { value } }) => {
              const group = value.trim() === '' ? null : value.trim();
              if (group !== (noted.group ?? null))
                editor.commit({ type: 'note-station', station: number, fields: { group } });
            }}
          />
        </label>
      </div>
      <Often number={number} often={noted.oftenADay} editor={editor} today={today} />
      <p className="soft">
        {longestRun &&
          (Number.isFinite(longestRun.value)
            ? longestRun.source === 'table' && intake && allowance
              ? say`Longest cycle ${lengthWords(Math.floor(longestRun.value))}: ${quantityWords(units, 'depth', allowance.value)} can pond, and the soil absorbs ${quantityWords(units, 'rate', intake.value)} (${SOURCE_WORDS[longestRun.source]}). `
              : say`Longest cycle ${lengthWords(Math.floor(longestRun.value))} (${SOURCE_WORDS[longestRun.source]}). `
            : `${say`The soil absorbs water as fast as it is applied.`} `)}
        {soakSeconds &&
          say`Soak ${lengthWords(soakSeconds.value)} (${SOURCE_WORDS[soakSeconds.source]}). `}
        {longest !== null &&
          say`In midsummer the plants can go ${longest.toFixed(1)} days without water.`}
      </p>
    </div>
  );
}
