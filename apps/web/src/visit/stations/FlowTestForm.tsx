import { useState } from 'react';
import { Button, Input } from 'antd';
import {
  canRunAtOnce,
  figuresOf,
  quantityWords,
  shownIn,
  surveyOf,
  typedIn,
  unitWords,
  type FlowTest,
  type Plan,
  type Survey,
  say,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { QuantityField } from '../../shared/fields/QuantityField.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';

type Way = FlowTest['by'];
type Unit = 'volume' | 'flow' | 'minutes' | 'seconds';

/** Text for each method; numbers in the site's units. */
type Typed = Readonly<Record<string, string>>;

const WAYS: readonly (readonly [Way, string])[] = [
  ['meter', say`water meter`],
  ['bucket', 'bucket'],
  ['timer', say`read from the timer`],
];

const FIELDS: Record<Way, readonly (readonly [key: string, label: string, unit: Unit])[]> = {
  meter: [
    ['before', say`Meter before`, 'volume'],
    ['after', say`Meter after`, 'volume'],
    ['minutes', say`Run time`, 'minutes'],
  ],
  bucket: [
    ['litres', say`Bucket`, 'volume'],
    ['seconds', say`Filled in`, 'seconds'],
  ],
  timer: [['litresPerMinute', say`Flow shown`, 'flow']],
};

interface Props {
  readonly number: number;
  readonly plan: Plan;
  readonly survey: Survey;
  readonly editor: TimerEditor;
}

/** A station's flow, and whether another can run at the same time. */
export function FlowTestForm({ number, plan, survey, editor }: Props) {
  const { units } = usePreferences();
  const noted = surveyOf(survey, number);
  const [way, setWay] = useState<Way>(noted.flow?.by ?? 'meter');
  const shownOf = (key: string, unit: Unit): string => {
    const value = (noted.flow as Readonly<Record<string, unknown>> | undefined)?.[key];
    if (typeof value !== 'number') return '';
    return unit === 'volume' || unit === 'flow' ? shownIn(units, unit, value) : String(value);
  };
  const [typed, setTyped] = useState<Typed>({});
  const [fault, setFault] = useState<string | null>(null);
  const [other, setOther] = useState<number | null>(null);
  const textOf = (key: string, unit: Unit) => typed[key] ?? shownOf(key, unit);
  const save = () => {
    const fields = FIELDS[way].map(([key, label, unit]) => {
      const text = textOf(key, unit).trim().replace(',', '.');
      const value = text === '' ? NaN : Number(text);
      return {
        key,
        label,
        empty: text === '',
        value: unit === 'volume' || unit === 'flow' ? typedIn(units, unit, value) : value,
      };
    });
    if (fields.some(({ empty }) => empty)) return;
    const bad = fields.find(({ value }) => !Number.isFinite(value) || value < 0);
    if (bad) {
      setFault(say`${bad.label}: a number, 0 or more.`);
      return;
    }
    const of = Object.fromEntries(fields.map(({ key, value }) => [key, value]));
    const at = (key: string) => of[key] ?? 0;
    if (way === 'meter' && at('after') <= at('before')) {
      setFault(say`No flow. The second meter reading must be higher than the first.`);
      return;
    }
    const flow: FlowTest =
      way === 'meter'
        ? { by: way, before: at('before'), after: at('after'), minutes: at('minutes') }
        : way === 'bucket'
          ? { by: way, litres: at('litres'), seconds: at('seconds') }
          : { by: way, litresPerMinute: at('litresPerMinute') };
    const refused = commitWords(editor, {
      type: 'note-station',
      station: number,
      fields: { flow },
    });
    setFault(refused);
    if (refused === null) setTyped({});
  };
  const flowOf = (one: number) => {
    const station = plan.stations.find((each) => each.number === one);
    return station ? figuresOf(surveyOf(survey, one), station).flow : null;
  };
  const flow = flowOf(number);
  const theirs = other === null ? null : flowOf(other);
  const supply = plan.settings.flowLimitLpm;
  return (
    <section className="tool aside accent stack" aria-label={say`Flow`}>
      <h2>{say`Flow`}</h2>
      <div className="row near" role="group" aria-label={say`Measured by`}>
        {WAYS.map(([one, words]) => (
          <Button
            className="chip"
            key={one}
            aria-pressed={one === way}
            onClick={() => {
              setWay(one);
              setFault(null);
            }}
          >
            {words}
          </Button>
        ))}
      </div>
      <div className="tiles fill of-150">
        {FIELDS[way].map(([key, label, unit]) => (
          <label key={key} className="labelled">
            {label} ({unit === 'volume' || unit === 'flow' ? unitWords(units, unit) : unit})
            <Input
              inputMode="decimal"
              value={textOf(key, unit)}
              onChange={(event) => setTyped({ ...typed, [key]: event.target.value })}
              onBlur={save}
              onKeyDown={(event) => event.key === 'Enter' && save()}
            />
          </label>
        ))}
      </div>
      {fault && <p className="fault">{fault}</p>}
      {flow && (
        <p role="status" className="tool-answer bold">
          {quantityWords(units, 'flow', flow.value)}
          {noted.areaSquareMetres !== undefined &&
            say` on ${quantityWords(units, 'area', noted.areaSquareMetres)}: ${quantityWords(units, 'rate', (60 * flow.value) / noted.areaSquareMetres)}`}
          .
        </p>
      )}
      <div className="tiles fill of-150">
        <QuantityField
          label={say`Supply flow`}
          quantity="flow"
          value={supply ?? null}
          empty={say`not known`}
          commit={(flowLimitLpm) =>
            commitWords(editor, { type: 'set-settings', settings: { flowLimitLpm } })
          }
        />
        <SelectField
          label={say`Could it run together with`}
          value={other ?? ''}
          options={[
            ['', say`choose a station`] as const,
            ...plan.stations
              .filter((station) => station.number !== number)
              .map(
                (station) => [station.number, `${station.number} ${station.name ?? ''}`] as const,
              ),
          ]}
          pick={(value) => setOther(value === '' ? null : Number(value))}
        />
      </div>
      {other !== null && (
        <p role="status" className="tool-answer bold">
          {!flow || !theirs
            ? flow
              ? say`The flow of station ${other} is not known yet.`
              : say`The flow of this station is not known yet.`
            : supply === undefined
              ? say`Enter the supply flow.`
              : canRunAtOnce(flow.value, theirs.value, supply)
                ? say`Yes. Both use ${quantityWords(units, 'flow', flow.value + theirs.value)} of ${quantityWords(units, 'flow', supply)}.`
                : say`No. Both use ${quantityWords(units, 'flow', flow.value + theirs.value)}, more than the supply of ${quantityWords(units, 'flow', supply)}.`}
        </p>
      )}
      <p className="caution">{say`Never run a pump against closed valves.`}</p>
    </section>
  );
}
