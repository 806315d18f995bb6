import { useState } from 'react';
import { Button, Input } from 'antd';
import {
  climateOf,
  faultSentence,
  MOST_WEATHER_ROWS,
  monthName,
  readWeatherTable,
  weatherMonthRows,
  type ClimateDocument,
  type WeatherFigures,
  type WeatherTable,
  say,
} from '@water-clock/core';
import { rowsOf, saveCsv } from '../../app/platform/csv.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { FileButton } from '../../shared/fields/FileButton.tsx';
import { Scroll } from '../../app/platform/Scroll.tsx';

const WAY_WORDS = {
  entered: say`as entered`,
  'penman-monteith': say`FAO Penman–Monteith`,
  hargreaves: say`Hargreaves`,
} as const;

/** Field, heading and allowed values; the first three columns are required. */
const COLUMNS = [
  ['highestCelsius', say`Highest, °C`, -80, 70],
  ['lowestCelsius', say`Lowest, °C`, -80, 70],
  ['rainMm', say`Rain, mm`, 0, 5000],
  ['humidityPercent', say`Humidity, %`, 0, 100],
  ['windMetresPerSecond', say`Wind, m/s`, 0, 60],
  ['sunshineHours', say`Sun, h`, 0, 24],
] as const;
const NEEDED: readonly string[] = ['highestCelsius', 'lowestCelsius', 'rainMm'];

interface Props {
  readonly document: ClimateDocument;
  readonly change: (document: ClimateDocument) => void;
}

/** A climate: twelve months, from a spreadsheet of days or months, or entered. */
export function ClimateEditor({ document, change }: Props) {
  const [read, setRead] = useState<WeatherTable | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const take = async (file: File) => {
    setFault(null);
    setRead(null);
    try {
      const table = readWeatherTable(await rowsOf(file, MOST_WEATHER_ROWS));
      setRead(table);
      const missing = table.months.flatMap((month, i) =>
        month === null ? [monthName(i + 1)] : [],
      );
      const months = table.months.filter((month) => month !== null);
      if (missing.length > 0) {
        setFault(
          table.used === 0
            ? say`Nothing was imported. No line of the file can be used.`
            : say`Nothing was imported: ${missing.join(', ')} is missing. All twelve months are needed.`,
        );
        return;
      }
      change({
        ...document,
        months,
        source: say`${table.used} ${table.kind} from ${file.name}`,
      });
    } catch (error) {
      setFault(say`${file.name} cannot be read: ${error instanceof Error ? error.message : ''}`);
    }
  };
  const climate = climateOf(document);
  const number = (key: 'latitude' | 'longitude' | 'altitudeMetres', label: string) => (
    <label className="labelled">
      {label}
      <Input
        key={document[key]}
        inputMode="decimal"
        defaultValue={document[key] ?? ''}
        onBlur={({ target: { value } }) => {
          const typed = Number(value.trim().replace(',', '.').replace('−', '-'));
          if (value.trim() !== '' && Number.isFinite(typed)) change({ ...document, [key]: typed });
        }}
      />
    </label>
  );
  return (
    <div className="library-form stack column">
      <label className="labelled">
        {say`Place name`}
        <Input
          maxLength={200}
          value={document.name}
          onChange={({ target: { value } }) => change({ ...document, name: value })}
        />
      </label>
      <div className="tiles fill of-150">
        {number('latitude', say`Latitude`)}
        {number('longitude', say`Longitude`)}
        {number('altitudeMetres', say`Altitude, m`)}
      </div>
      <label className="labelled">
        {say`Source of the data`}
        <Input
          maxLength={2000}
          value={document.source}
          onChange={({ target: { value } }) => change({ ...document, source: value })}
        />
      </label>
      <p>{say`A CSV file by day (column “date”) or month (column “month”) with highest_c, lowest_c and rain_mm. Optional: humidity_percent, wind_m_s, sunshine_h and eto_mm.`}</p>
      <FileButton
        label={say`Choose a CSV file`}
        accept=".csv,text/csv"
        take={([file]) => file && void take(file)}
      />
      {fault && (
        <p role="alert" className="fault">
          {fault}
        </p>
      )}
      {read && read.faults.length > 0 && (
        <ul className="cell-faults points">
          {read.faults.slice(0, 12).map((fault, i) => (
            <li key={i} className="fault">
              {say`Line ${fault.line}, ${fault.column}: ${faultSentence(fault.fault)}`}
            </li>
          ))}
          {read.faults.length > 12 && <li>{say`… and ${read.faults.length - 12} more.`}</li>}
        </ul>
      )}
      <Scroll label={say`Months as a table`}>
        <table className="year-table data numbers">
          <thead>
            <tr>
              <th>{say`Month`}</th>
              {COLUMNS.map(([key, label]) => (
                <th key={key}>{label}</th>
              ))}
              <th>{say`ETo, mm a day`}</th>
              <th>{say`method`}</th>
            </tr>
          </thead>
          <tbody>
            {document.months.map((month, i) => (
              <tr key={i}>
                <th scope="row">{monthName(i + 1)}</th>
                {COLUMNS.map(([key, label, least, most]) => (
                  <td key={key}>
                    <NumberField
                      className="needs"
                      label={`${label}, ${monthName(i + 1)}`}
                      decimal
                      least={least}
                      most={most}
                      value={month[key] === undefined ? null : Math.round(month[key] * 100) / 100}
                      {...(NEEDED.includes(key) ? {} : { empty: '–' })}
                      commit={(value) => {
                        const { [key]: _before, ...rest } = month;
                        // Safe cast: only optional fields are omitted.
                        const next = (
                          value === null ? rest : { ...rest, [key]: value }
                        ) as WeatherFigures;
                        change({
                          ...document,
                          months: document.months.map((weatherFigures, at) =>
                            at === i ? next : weatherFigures,
                          ),
                        });
                        return null;
                      }}
                    />
                  </td>
                ))}
                <td>
                  <NumberField
                    className="needs"
                    label={say`Reference evapotranspiration of ${monthName(i + 1)}`}
                    decimal
                    most={30}
                    value={Math.round((climate.etoMmPerDay[i] ?? 0) * 100) / 100}
                    empty={say`calculated`}
                    commit={(value) => {
                      const { etoMmPerDay: _before, ...rest } = month;
                      const next = value === null ? rest : { ...rest, etoMmPerDay: value };
                      change({
                        ...document,
                        months: document.months.map((weatherFigures, at) =>
                          at === i ? next : weatherFigures,
                        ),
                      });
                      return null;
                    }}
                  />
                </td>
                <td className="soft">{WAY_WORDS[climate.ways[i] ?? 'entered']}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
      <div>
        <Button
          onClick={() =>
            saveCsv(say`${document.name} months.csv`, weatherMonthRows(document.months))
          }
        >{say`Months as CSV`}</Button>
      </div>
    </div>
  );
}
