import { useMemo, useState } from 'react';
import { Button, Input } from 'antd';
import {
  attempt,
  costOfYear,
  dateWords,
  faultSentence,
  waterUsage,
  type Plan,
  type Survey,
  type Tariff,
  type UnitSystem,
  type Usage,
  say,
} from '@water-clock/core';
import { Bars } from '../../shared/charts/Bars.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { Scroll } from '../../app/platform/Scroll.tsx';

const LITRES_PER_GALLON = 3.785411784;

/** Litres or US gallons, rounded to a number of digits. */
function volumeWords(litres: number, units: UnitSystem, precision = 3): string {
  const value = units === 'us' ? litres / LITRES_PER_GALLON : litres;
  const digits = value === 0 ? 0 : Math.max(0, Math.floor(Math.log10(value)) - precision + 1);
  const rounded = Math.round(value / 10 ** digits) * 10 ** digits;
  return `${rounded.toLocaleString('en')} ${units === 'us' ? say`gal` : 'L'}`;
}

/** A year's water, as far as flows are known; null: none is known. */
function rangeWords(
  { litresAYear, uncertainLitres, unknown }: Usage,
  units: UnitSystem,
): string | null {
  if (unknown.length > 0 && litresAYear === 0) return null;
  const volume = (litres: number) => volumeWords(litres, units, 2);
  const low = volume(Math.max(0, litresAYear - uncertainLitres));
  const high = volume(litresAYear + uncertainLitres);
  if (unknown.length > 0) return say`at least ${low}`;
  return low === high ? say`about ${low}` : say`${low} to ${high}`;
}

/** Two digits: the litres are no more exact. */
function moneyWords(cost: number | null, { currency }: Tariff): string {
  if (cost === null) return say`not known`;
  const unit = 10 ** Math.max(0, Math.floor(Math.log10(Math.max(1, cost))) - 1);
  return say`about ${currency} ${(Math.round(cost / unit) * unit).toLocaleString('en')}`;
}

interface Row {
  readonly name: string;
  readonly usage: Usage;
}

/** Tariff steps as typed: one a line, `up to litres: price a cubic metre`, the last without a limit. */
const stepsText = ({ steps }: Tariff) =>
  steps
    .map(({ upToLitres, perCubicMetre }) =>
      upToLitres === undefined ? `${perCubicMetre}` : `${upToLitres}: ${perCubicMetre}`,
    )
    .join('\n');

function stepsOf(text: string): Tariff['steps'] | null {
  const lines = text.split('\n').filter((line) => line.trim() !== '');
  const steps = lines.map((line) => {
    const match = /^(?:(\d+(?:\.\d+)?)\s*:\s*)?(\d+(?:\.\d+)?)$/.exec(line.trim());
    if (!match) return null;
    return {
      ...(match[1] === undefined ? {} : { upToLitres: Number(match[1]) }),
      perCubicMetre: Number(match[2]),
    };
  });
  return steps.length > 0 && steps.every((one) => one !== null) ? steps : null;
}

function TariffForm({
  tariff,
  commit,
  done,
}: {
  readonly tariff: Tariff | undefined;
  readonly commit: (tariff: Tariff | null) => string | null;
  readonly done: () => void;
}) {
  const [currency, setCurrency] = useState(tariff?.currency ?? '');
  const [days, setDays] = useState(String(tariff?.periodDays ?? 91));
  const [house, setHouse] = useState(String(tariff?.houseLitres ?? ''));
  const [steps, setSteps] = useState(tariff ? stepsText(tariff) : '');
  const [fault, setFault] = useState<string | null>(null);
  return (
    <form
      className="sighting-fields row at-foot"
      aria-label={say`Water price`}
      onSubmit={(event) => {
        event.preventDefault();
        const read = stepsOf(steps);
        if (!read) {
          setFault(
            say`One tier per line: “50000: 2.10” means 2.10 up to 50,000 L. The last line is just the price, “3.40”.`,
          );
          return;
        }
        const refused = commit({
          currency: currency.trim(),
          periodDays: Number(days),
          steps: read,
          ...(house.trim() === '' ? {} : { houseLitres: Number(house) }),
        });
        setFault(refused);
        if (refused === null) done();
      }}
    >
      <label className="labelled">
        {say`Currency`}
        <Input value={currency} onChange={({ target }) => setCurrency(target.value)} />
      </label>
      <label className="labelled">
        {say`Billing period, days`}
        <Input value={days} onChange={({ target }) => setDays(target.value)} />
      </label>
      <label className="labelled">
        {say`Household use, litres per bill`}
        <Input value={house} onChange={({ target }) => setHouse(target.value)} />
      </label>
      <label className="labelled">
        {say`Price tiers: up to litres: price per cubic metre`}
        <Input.TextArea
          rows={3}
          value={steps}
          placeholder={'50000: 2.10\n3.40'}
          onChange={({ target }) => setSteps(target.value)}
        />
      </label>
      <Button htmlType="submit" type="primary">{say`Save`}</Button>
      {tariff && <Button onClick={() => (commit(null), done())}>{say`Delete`}</Button>}
      {fault && <span className="fault">{fault}</span>}
    </form>
  );
}

/** A year's water and money, as found and now. */
export function WaterView({
  plan,
  asFound,
  survey,
  editor,
  today,
}: {
  readonly plan: Plan;
  readonly asFound: Plan | null;
  readonly survey: Survey;
  readonly editor: TimerEditor;
  readonly today: number;
}) {
  const { units, order } = usePreferences();
  const [editing, setEditing] = useState(false);
  const worked = useMemo(
    () =>
      attempt(() => [
        ...(asFound ? [{ name: say`As found`, usage: waterUsage(asFound, survey, today) }] : []),
        { name: say`Now`, usage: waterUsage(plan, survey, today) },
      ]),
    [plan, asFound, survey, today],
  );
  if (!worked.ok) return <p className="fault">{worked.faults.map(faultSentence).join(' ')}</p>;
  const rows: readonly Row[] = worked.value;
  const { tariff } = survey;
  const unknown = rows.at(-1)?.usage.unknown ?? [];
  const isKnown = rows.every(({ usage }) => rangeWords(usage, units) !== null);
  const money = (usage: Usage) =>
    tariff && rangeWords(usage, units) !== null ? costOfYear(usage, tariff) : null;
  return (
    <section aria-label={say`Water and money`}>
      <h2>{say`Water and money`}</h2>
      <Scroll label={say`Water and money as a table`}>
        <table className="conflict-table data">
          <thead>
            <tr>
              <th>{say`State`}</th>
              <th>{say`Peak week`}</th>
              <th>{say`Year`}</th>
              {tariff && <th>{say`Costs a year`}</th>}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ name, usage }) => (
              <tr key={name}>
                <td>{name}</td>
                <td>
                  {usage.peakWeek
                    ? say`${volumeWords(usage.peakWeek.litres, units)}, week of ${dateWords(usage.peakWeek.monday, today, order)}`
                    : (rangeWords(usage, units) ?? say`not known`)}
                </td>
                <td>{rangeWords(usage, units) ?? say`not known`}</td>
                {tariff && <td>{moneyWords(money(usage), tariff)}</td>}
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
      {isKnown && (
        <Bars
          label={say`Water a year`}
          unit={units === 'us' ? say`gallons` : say`litres`}
          series={[say`a year`]}
          bars={rows.map(({ name, usage }) => ({ name, values: [usage.litresAYear] }))}
          words={(litres) => volumeWords(litres, units, 2)}
          file={say`water a year`}
        />
      )}
      {tariff && isKnown && (
        <Bars
          label={say`Cost`}
          unit={say`${tariff.currency} a year`}
          series={[say`a year`]}
          bars={rows.map(({ name, usage }) => ({ name, values: [money(usage)] }))}
          words={(cost) => moneyWords(cost, tariff)}
          file={say`cost of water a year`}
        />
      )}
      {unknown.length > 0 && (
        <p className="soft">
          {unknown.length === 1
            ? say`Station ${unknown.join(', ')} is not counted. No flow, or head and area, is recorded there.`
            : say`Stations ${unknown.join(', ')} are not counted. No flow, or head and area, is recorded there.`}
        </p>
      )}
      {editing ? (
        <TariffForm
          tariff={tariff}
          done={() => setEditing(false)}
          commit={(next) => commitWords(editor, { type: 'note', fields: { tariff: next } })}
        />
      ) : (
        <Button onClick={() => setEditing(true)}>
          {tariff ? say`Change water price` : say`Add water price`}
        </Button>
      )}
    </section>
  );
}
