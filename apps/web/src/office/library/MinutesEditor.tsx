import { Input } from 'antd';
import {
  HEAD_WORDS,
  monthName,
  PLANT_WORDS,
  SOIL_WORDS,
  SUN_WORDS,
  type HeadType,
  type MinutesTable,
  say,
} from '@water-clock/core';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { Scroll } from '../../app/platform/Scroll.tsx';

interface Props {
  readonly document: MinutesTable;
  readonly change: (document: MinutesTable) => void;
}

const TEXTS = [
  ['name', say`Name of the table`],
  ['region', say`Region`],
  ['source', say`Source`],
] as const;

const FACTORS = [
  ['plants', say`Plants`, PLANT_WORDS],
  ['surroundings', say`Sun`, SUN_WORDS],
  ['soils', say`Soil`, SOIL_WORDS],
] as const;

/** The company's minutes by head, and how they are adjusted. */
export function MinutesEditor({ document, change }: Props) {
  const setHead = (head: HeadType, more: object) =>
    change({
      ...document,
      heads: { ...document.heads, [head]: { ...document.heads[head], ...more } },
    });
  return (
    <div className="library-form stack column">
      {TEXTS.map(([key, label]) => (
        <label key={key} className="labelled">
          {label}
          <Input
            maxLength={200}
            value={document[key]}
            onChange={({ target: { value } }) => change({ ...document, [key]: value })}
          />
        </label>
      ))}
      <h2>{say`Minutes by head`}</h2>
      <Scroll label={say`Minutes as a table`}>
        <table className="data">
          <thead>
            <tr>
              <th>{say`Head`}</th>
              <th>{say`Per watering`}</th>
              <th>{say`Per week in midsummer`}</th>
              <th>{say`Heads per 100 m²`}</th>
            </tr>
          </thead>
          <tbody>
            {(Object.keys(HEAD_WORDS) as HeadType[]).map((head) => {
              const row = document.heads[head];
              return (
                <tr key={head}>
                  <th scope="row">{HEAD_WORDS[head]}</th>
                  {(['watering', 'week'] as const).map((key) => (
                    <td key={key}>
                      <NumberField
                        className="needs"
                        label={
                          key === 'watering'
                            ? say`${HEAD_WORDS[head]}, minutes per watering`
                            : say`${HEAD_WORDS[head]}, minutes per week`
                        }
                        decimal
                        least={0.5}
                        most={key === 'watering' ? 1440 : 10_080}
                        value={row[key]}
                        commit={(value) => {
                          setHead(head, { [key]: value ?? row[key] });
                          return null;
                        }}
                      />
                    </td>
                  ))}
                  <td>
                    <NumberField
                      className="needs"
                      label={say`${HEAD_WORDS[head]}, heads per 100 square metres`}
                      decimal
                      least={0.1}
                      most={1000}
                      value={row.headsPerHundred ?? null}
                      empty={say`not counted`}
                      commit={(value) => {
                        const { headsPerHundred: _before, ...rest } = row;
                        change({
                          ...document,
                          heads: {
                            ...document.heads,
                            [head]: value === null ? rest : { ...rest, headsPerHundred: value },
                          },
                        });
                        return null;
                      }}
                    />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Scroll>
      <h2>{say`Adjustments`}</h2>
      {FACTORS.map(([key, label, words]) => (
        <fieldset key={key} className="aside stack">
          <legend>{label}, ×</legend>
          <div className="tiles fill of-150">
            {Object.entries(words).map(([name, shown]) => (
              <NumberField
                key={name}
                label={shown}
                decimal
                least={0.05}
                most={10}
                value={(document[key] as Readonly<Record<string, number>>)[name] ?? 1}
                commit={(value) => {
                  change({ ...document, [key]: { ...document[key], [name]: value ?? 1 } });
                  return null;
                }}
              />
            ))}
          </div>
        </fieldset>
      ))}
      <fieldset className="aside stack">
        <legend>{say`Percent of midsummer, by month`}</legend>
        <div className="tiles fill of-150">
          {document.months.map((percent, i) => (
            <NumberField
              key={i}
              label={monthName(i + 1)}
              most={500}
              value={percent}
              commit={(value) => {
                change({
                  ...document,
                  months: document.months.map((one, at) => (at === i ? (value ?? one) : one)),
                });
                return null;
              }}
            />
          ))}
        </div>
      </fieldset>
    </div>
  );
}
