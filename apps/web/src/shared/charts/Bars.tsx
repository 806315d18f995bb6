import { Button } from 'antd';
import { scaleLinear } from 'd3-scale';
import { saveCsv } from '../../app/platform/csv.ts';
import { Disclosure } from '../fields/Disclosure.tsx';
import { DRY_FILL } from './patterns.tsx';
import { Scroll } from '../../app/platform/Scroll.tsx';
import './bars.css';
import { say } from '@water-clock/core';

interface Bar {
  readonly name: string;
  /** One value for each series; null: not known. */
  readonly values: readonly (number | null)[];
}

interface Props {
  readonly label: string;
  readonly unit: string;
  readonly series: readonly string[];
  readonly bars: readonly Bar[];
  /** Label of a value beside its bar. */
  readonly words: (value: number) => string;
  /** File name of the spreadsheet, without extension. */
  readonly file: string;
}

const percent = (share: number) => `${share * 100}%`;
const numberText = (value: number | null) => (value === null ? '' : String(value));

/** Series 1 is plain, series 2 hatched, so that they differ without colour. */
function fillsOf(series: number): readonly string[] {
  return series === 0 ? ['var(--accent)'] : ['var(--strip-night)', DRY_FILL];
}

/** Quantities as bars, with a table and a spreadsheet of the same values. */
export function Bars({ label, unit, series, bars, words, file }: Props) {
  const most = Math.max(0, ...bars.flatMap(({ values }) => values.map((value) => value ?? 0)));
  const length = scaleLinear([0, Math.max(most, Number.MIN_VALUE)], [0, 1]);
  return (
    <figure className="bars column">
      <figcaption>
        <strong>{label}</strong> <span className="soft">{unit}</span>
        {series.length > 1 &&
          series.map((name, i) => (
            <span key={name}>
              {' '}
              <svg width="18" height="12" aria-hidden>
                {fillsOf(i).map((fill) => (
                  <rect key={fill} width="18" height="12" fill={fill} />
                ))}
              </svg>{' '}
              {name}
            </span>
          ))}
      </figcaption>
      <ol className="list">
        {bars.map(({ name, values }) => (
          <li key={name}>
            <span className="bars-name">{name}</span>
            <span className="stack near">
              {values.map((value, i) => (
                <span key={series[i]} className="bars-line small">
                  <svg height="14" aria-hidden>
                    {value !== null &&
                      fillsOf(i).map((fill) => (
                        <rect key={fill} width={percent(length(value))} height="14" fill={fill} />
                      ))}
                  </svg>
                  <span>{value === null ? say`not known` : words(value)}</span>
                </span>
              ))}
            </span>
          </li>
        ))}
      </ol>
      <Disclosure className="more" summary={say`Show as table`}>
        {() => (
          <>
            <Scroll label={say`${label} as a table`}>
              <table className="year-table data numbers">
                <thead>
                  <tr>
                    <th>{unit}</th>
                    {series.map((name) => (
                      <th key={name}>{name}</th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {bars.map(({ name, values }) => (
                    <tr key={name}>
                      <th scope="row">{name}</th>
                      {values.map((value, i) => (
                        <td key={series[i]}>{value === null ? '–' : words(value)}</td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </Scroll>
            <Button
              onClick={() =>
                saveCsv(`${file}.csv`, [
                  [unit, ...series],
                  ...bars.map(({ name, values }) => [name, ...values.map(numberText)]),
                ])
              }
            >{say`Save as CSV`}</Button>
          </>
        )}
      </Disclosure>
    </figure>
  );
}
