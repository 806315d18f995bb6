import { useState } from 'react';
import { Alert, Button, Table } from 'antd';
import { Link } from 'react-router';
import { formatDate, monthName, SECONDS_PER_DAY, say } from '@water-clock/core';
import { useReport, type ReportRow } from '../../data/api/reports.ts';
import { Bars } from '../../shared/charts/Bars.tsx';
import { Patterns } from '../../shared/charts/patterns.tsx';
import { DateField } from '../../shared/fields/DateField.tsx';
import { saveCsv } from '../../app/platform/csv.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Scroll } from '../../app/platform/Scroll.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useCivilNow } from '../../app/platform/useCivilNow.ts';
import { deviceZone } from '../../app/platform/zone.ts';

const YEAR = 365;
const LITRES_OF_A_GALLON = 3.785_411_784;

const whole = (value: number) => Math.round(value).toLocaleString();
const monthWords = (month: string) => `${monthName(Number(month.slice(5)))} ${month.slice(0, 4)}`;

/** Columns beside the name. */
const COLUMNS = [
  ['visits', say`Visits`],
  ['minutes', say`Minutes`],
  ['overlapsFound', say`Overlaps found`],
  ['overlapsCured', say`Overlaps fixed`],
  ['hoursSaved', say`Watering hours saved a year`],
  ['litresSaved', say`Water saved a year`],
  ['repeatCalls', say`Callbacks within 30 days`],
] as const satisfies readonly (readonly [keyof ReportRow, string])[];

interface PartProps<R extends ReportRow> {
  readonly title: string;
  /** Heading of the first column. */
  readonly first: string;
  readonly file: string;
  readonly rows: readonly R[];
  readonly nameOf: (row: R) => string;
  readonly linkOf?: (row: R) => string;
}

function Part<R extends ReportRow>({ title, first, file, rows, nameOf, linkOf }: PartProps<R>) {
  const { units } = usePreferences();
  const gallons = units === 'us';
  const valueOf = (row: R, name: (typeof COLUMNS)[number][0]) =>
    whole(name === 'litresSaved' && gallons ? row.litresSaved / LITRES_OF_A_GALLON : row[name]);
  const titles = COLUMNS.map(([name, words]) =>
    name === 'litresSaved' ? `${words} (${gallons ? say`gal` : 'l'})` : words,
  );
  return (
    <section className="stack near">
      <div className="row near">
        <h2>{title}</h2>
        <Button
          size="small"
          onClick={() =>
            saveCsv(file, [
              [first, ...titles],
              ...rows.map((row) => [nameOf(row), ...COLUMNS.map(([name]) => valueOf(row, name))]),
            ])
          }
        >{say`Save as CSV`}</Button>
      </div>
      <Scroll label={title}>
        <Table<R>
          size="small"
          rowKey={nameOf}
          pagination={{ pageSize: 12, hideOnSinglePage: true, showSizeChanger: false }}
          dataSource={[...rows]}
          locale={{ emptyText: say`No visits were closed in this period.` }}
          columns={[
            {
              title: first,
              render: (_, row) =>
                linkOf ? <Link to={linkOf(row)}>{nameOf(row)}</Link> : nameOf(row),
            },
            ...COLUMNS.map(([name], i) => ({
              title: titles[i],
              align: 'right' as const,
              render: (_: unknown, row: R) => valueOf(row, name),
            })),
          ]}
        />
      </Scroll>
    </section>
  );
}

/** Totals of the visits of a period. */
export function Reports() {
  const today = Math.floor(useCivilNow(deviceZone()) / SECONDS_PER_DAY);
  const [from, setFrom] = useState(() => formatDate(today - YEAR));
  const [to, setTo] = useState(() => formatDate(today));
  const report = useReport(from, to);
  if (report.isPending) return <Loading what={say`the report`} />;
  if (report.isError)
    return (
      <Failed what={say`The report`} error={report.error} retry={() => void report.refetch()} />
    );
  const { months, people, houses, waiting } = report.data;
  return (
    <div className="stack far">
      <Patterns />
      <div className="row near at-foot">
        <DateField label={say`From`} value={from} required commit={setFrom} />
        <DateField label={say`To`} value={to} required commit={setTo} />
      </div>
      {waiting > 0 && (
        <Alert
          type="info"
          title={say`${waiting} visits are still being calculated and are not in the savings yet.`}
        />
      )}
      {months.length > 0 && (
        <Bars
          label={say`Overlaps by month`}
          unit={say`visits`}
          series={[say`found`, say`fixed`]}
          bars={months.map(({ month, overlapsFound, overlapsCured }) => ({
            name: monthWords(month),
            values: [overlapsFound, overlapsCured],
          }))}
          words={whole}
          file="overlaps"
        />
      )}
      {months.length > 0 && (
        <Bars
          label={say`Watering hours saved a year, by month of visit`}
          unit={say`hours`}
          series={[say`saved`]}
          bars={months.map(({ month, hoursSaved }) => ({
            name: monthWords(month),
            values: [Math.max(0, hoursSaved)],
          }))}
          words={whole}
          file="hours-saved"
        />
      )}
      <Part
        title={say`By month`}
        first={say`Month`}
        file="months"
        rows={months}
        nameOf={({ month }) => monthWords(month)}
      />
      <Part
        title={say`By person`}
        first={say`Person`}
        file="people"
        rows={people}
        nameOf={({ person }) => person}
      />
      <Part
        title={say`By site`}
        first={say`House`}
        file="houses"
        rows={houses}
        nameOf={({ site }) => site}
        linkOf={({ siteId }) => `/sites/${siteId}`}
      />
    </div>
  );
}
