import { useRef, useState } from 'react';
import { Button, Input, type InputRef } from 'antd';
import {
  cupResult,
  MOST_CUPS,
  quantityWords,
  schedulingMultiplier,
  type NotedCups,
  type SurveyStation,
  say,
} from '@water-clock/core';
import { CupMap } from '../../shared/charts/CupMap.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { saveCsv } from '../../app/platform/csv.ts';
import { Scroll } from '../../app/platform/Scroll.tsx';

/** Defaults: cups of about ten centimetres, ten minutes, four cups across. */
const USUAL = { mouthSquareCentimetres: 78.5, minutes: 10, across: 4 };

const percent = (share: number) => `${Math.round(share * 100)} %`;

/** A uniformity as text. */
function meaning(uniformity: number): string {
  if (uniformity >= 0.75) return say`Even. Head spacing is good.`;
  if (uniformity >= 0.6) return say`Typical for sprays. Better heads or spacing would save water.`;
  if (uniformity >= 0.45)
    return say`Uneven. Check the heads nearest the dry cups before adding minutes.`;
  return say`Very uneven. Repair the heads first; more minutes will not help.`;
}

interface Props {
  readonly number: number;
  readonly noted: SurveyStation;
  readonly editor: TimerEditor;
}

/** The cups as a table with header, each at its place. */
const cupRows = (volumes: readonly number[], across: number): readonly string[][] => [
  ['row', 'cup', 'ml'],
  ...volumes.map((caught, i) => [
    String(Math.floor(i / across) + 1),
    String((i % across) + 1),
    String(caught),
  ]),
];

/** Catch cups: how fast and evenly a station waters, and which head to check. */
export function CupTest({ number, noted, editor }: Props) {
  const { units } = usePreferences();
  const { cups } = noted;
  const [setup, setSetup] = useState(USUAL);
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  const input = useRef<InputRef>(null);
  const { mouthSquareCentimetres, minutes, across } = cups ?? setup;
  const save = (next: NotedCups | null) =>
    commitWords(editor, { type: 'note-station', station: number, fields: { cups: next } });
  const set = (more: Partial<typeof USUAL>) => {
    setSetup({ ...setup, ...more });
    return cups ? save({ ...cups, ...more }) : null;
  };
  const volumes = cups?.millilitres ?? [];
  /** One or several volumes, separated by anything but digits. */
  const take = () => {
    const parts = typed
      .trim()
      .split(/[\s;/]+/)
      .filter(Boolean);
    if (parts.length === 0) return;
    const values = parts.map((one) => Number(one.replace(',', '.')));
    const bad = parts.find((_, i) => !(Number.isFinite(values[i]) && (values[i] ?? -1) >= 0));
    if (bad !== undefined) {
      setFault(say`“${bad}” is not a volume. Enter millilitres, 0 or more.`);
      return;
    }
    const next =
      chosen === null
        ? [...volumes, ...values]
        : volumes.map((one, i) => (i === chosen ? (values[0] ?? one) : one));
    if (next.length > MOST_CUPS) {
      setFault(say`The limit is ${MOST_CUPS} cups.`);
      return;
    }
    setFault(save({ mouthSquareCentimetres, minutes, across, millilitres: next }));
    setTyped('');
    setChosen(null);
  };
  const takeOut = () => {
    const next = volumes.filter((_, i) => i !== chosen);
    save(cups && next.length > 0 ? { ...cups, millilitres: next } : null);
    setChosen(null);
  };
  const result = cups && cupResult(cups);
  return (
    <section className="tool aside accent stack" aria-label={say`Catch cups`}>
      <h2>{say`Catch cups`}</h2>
      <div className="tiles fill of-150">
        <NumberField
          label={say`Cup diameter`}
          unit={say`cm`}
          decimal
          least={1}
          most={100}
          value={Math.round(Math.sqrt((4 * mouthSquareCentimetres) / Math.PI) * 10) / 10}
          commit={(value) => set({ mouthSquareCentimetres: (Math.PI * (value ?? 10) ** 2) / 4 })}
        />
        <NumberField
          label={say`Run time`}
          unit={say`minutes`}
          decimal
          least={0.5}
          most={1440}
          value={minutes}
          commit={(value) => set({ minutes: value ?? USUAL.minutes })}
        />
        <NumberField
          label={say`Cups per row`}
          least={1}
          most={MOST_CUPS}
          value={across}
          commit={(value) => set({ across: value ?? USUAL.across })}
        />
      </div>
      <div className="cup-entry row at-foot">
        <label className="labelled">
          {chosen === null
            ? say`Cup ${volumes.length + 1} (ml)`
            : say`Re-enter cup ${chosen + 1} (ml)`}
          <Input
            ref={input}
            inputMode="decimal"
            value={typed}
            aria-invalid={fault !== null}
            onChange={(event) => setTyped(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') take();
            }}
            onBlur={take}
            status={fault !== null ? 'error' : ''}
          />
        </label>
        {chosen !== null && <Button onClick={takeOut}>{say`Delete this cup`}</Button>}
      </div>
      {fault && <p className="fault">{fault}</p>}
      {volumes.length > 0 && (
        <CupMap
          millilitres={volumes}
          across={across}
          low={result?.lowQuarter ?? []}
          chosen={chosen}
          choose={(cup) => {
            setChosen(cup === chosen ? null : cup);
            input.current?.focus();
          }}
        />
      )}
      {volumes.length > 0 && (
        <Disclosure summary={say`Show as table`}>
          {() => (
            <div className="stack">
              <Scroll label={say`Cups as a table`}>
                <table className="data numbers">
                  <tbody>
                    {cupRows(volumes, across).map(([row = '', cup = '', caught = '']) => (
                      <tr key={`${row} ${cup}`}>
                        {[row, cup, caught].map((cell, i) =>
                          row === 'row' ? <th key={i}>{cell}</th> : <td key={i}>{cell}</td>,
                        )}
                      </tr>
                    ))}
                  </tbody>
                </table>
              </Scroll>
              <Button
                onClick={() => saveCsv(say`station ${number} cups.csv`, cupRows(volumes, across))}
              >{say`Save as CSV`}</Button>
            </div>
          )}
        </Disclosure>
      )}
      {cups && !result && (
        <p className="fault">{say`Every cup is empty, so there is no result.`}</p>
      )}
      {result && (
        <div role="status" className="tool-answer bold">
          <p>
            {say`${quantityWords(units, 'rate', result.rate)}, uniformity ${percent(result.uniformity)}. Runs ${Math.round((schedulingMultiplier(result.uniformity) - 1) * 100)} % longer for the dry spots.`}
          </p>
          <p>{meaning(result.uniformity)}</p>
          <p>
            {say`Driest:`}{' '}
            {result.lowQuarter
              .map((cup) => say`row ${Math.floor(cup / across) + 1}, cup ${(cup % across) + 1}`)
              .join('; ')}
            . {say`Check the nearest heads.`}
          </p>
        </div>
      )}
    </section>
  );
}
