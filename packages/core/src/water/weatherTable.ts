/** Weather as spreadsheet rows: days or months, with each bad cell reported; written in the same columns. */
import { parseDate } from '../time/calendar.ts';
import { faultsOfCell, numberCell, type CellFault } from '../document/cells.ts';
import { monthsOfDays, type WeatherDay, type WeatherFigures } from './climate.ts';
import { say } from '../language/say.ts';

/** Columns by heading, in writing order. */
const COLUMNS = [
  ['highest_c', 'highestCelsius', -80, 70],
  ['lowest_c', 'lowestCelsius', -80, 70],
  ['rain_mm', 'rainMm', 0, 5000],
  ['humidity_percent', 'humidityPercent', 0, 100],
  ['wind_m_s', 'windMetresPerSecond', 0, 60],
  ['sunshine_h', 'sunshineHours', 0, 24],
  ['eto_mm', 'etoMmPerDay', 0, 30],
] as const;
const NEEDED = ['highest_c', 'lowest_c', 'rain_mm'] as const;

/** Thirty years of days, and the header. */
export const MOST_WEATHER_ROWS = 11_000;

export interface WeatherTable {
  readonly kind: 'days' | 'months';
  /** January first; null for a month without usable values. */
  readonly months: readonly (WeatherFigures | null)[];
  /** Number of rows used. */
  readonly used: number;
  readonly faults: readonly CellFault[];
}

function figuresOf(
  row: readonly string[],
  places: ReadonlyMap<string, number>,
  line: number,
  faults: CellFault[],
): WeatherFigures | null {
  const found: Record<string, number> = {};
  let sound = true;
  for (const [heading, key, least, most] of COLUMNS) {
    const place = places.get(heading);
    const cell = place === undefined ? '' : (row[place] ?? '').trim();
    if (cell === '') {
      if (!NEEDED.some((one) => one === heading)) continue;
      faults.push({
        line,
        column: heading,
        fault: { code: 'missing-field', path: [], expected: say`a number, ${least} to ${most}` },
      });
      sound = false;
      continue;
    }
    const value = numberCell(cell, least, most);
    if (typeof value === 'number') found[key] = value;
    else {
      faults.push(faultsOfCell(line, heading, value));
      sound = false;
    }
  }
  if (!sound) return null;
  // Safe cast: the three required ones were found and the rest is optional.
  const figures = found as unknown as WeatherFigures;
  if (figures.lowestCelsius <= figures.highestCelsius) return figures;
  faults.push(
    faultsOfCell(line, 'lowest_c', {
      code: 'out-of-range',
      path: [],
      least: -80,
      most: figures.highestCelsius,
      actual: figures.lowestCelsius,
    }),
  );
  return null;
}

/** Reads days (first column `date`) or months (`month`, 1 to 12) from CSV rows, header first. Rows with a bad cell are skipped and reported. */
export function readWeatherTable(rows: readonly (readonly string[])[]): WeatherTable {
  const faults: CellFault[] = [];
  const headings = (rows[0] ?? []).map((one) => one.trim().toLowerCase());
  const places = new Map(headings.map((heading, i) => [heading, i]));
  const kind = places.has('date') ? 'days' : 'months';
  const first = kind === 'days' ? 'date' : 'month';
  const none = { kind, months: new Array<null>(12).fill(null), used: 0 } as const;
  for (const heading of [first, ...NEEDED])
    if (!places.has(heading))
      faults.push({
        line: 1,
        column: heading,
        fault: {
          code: 'missing-field',
          path: [],
          expected:
            heading === 'month' ? say`a column "month" or "date"` : say`a column "${heading}"`,
        },
      });
  if (faults.length > 0) return { ...none, faults };
  if (rows.length > MOST_WEATHER_ROWS + 1)
    return {
      ...none,
      faults: [
        faultsOfCell(1, first, {
          code: 'wrong-length',
          path: [],
          expected: say`at most ${MOST_WEATHER_ROWS} rows`,
          actual: rows.length - 1,
        }),
      ],
    };
  const days: WeatherDay[] = [];
  const months: (WeatherFigures | null)[] = new Array<WeatherFigures | null>(12).fill(null);
  let used = 0;
  rows.slice(1).forEach((row, i) => {
    if (row.every((cell) => cell.trim() === '')) return;
    const line = i + 2;
    const cell = (row[places.get(first) ?? 0] ?? '').trim();
    const figures = figuresOf(row, places, line, faults);
    if (kind === 'days') {
      if (parseDate(cell) === null)
        faults.push(
          faultsOfCell(line, 'date', {
            code: 'malformed',
            path: [],
            expected: say`a date "YYYY-MM-DD"`,
            actual: `"${cell}"`,
          }),
        );
      else if (figures) days.push({ date: cell, ...figures });
      return;
    }
    const month = numberCell(cell, 1, 12, true);
    if (typeof month !== 'number') faults.push(faultsOfCell(line, 'month', month));
    else if (months[month - 1])
      faults.push(faultsOfCell(line, 'month', { code: 'repeated', path: [], actual: cell }));
    else if (figures) {
      months[month - 1] = figures;
      used++;
    }
  });
  if (kind === 'months') return { kind, months, used, faults };
  return { kind, months: monthsOfDays(days), used: days.length, faults };
}

const cellsOf = (figures: WeatherFigures) =>
  COLUMNS.map(([, key]) => {
    const value = figures[key];
    return value === undefined ? '' : String(Math.round(value * 100) / 100);
  });

/** Days as rows, header first; `readWeatherTable` reads them back. */
export const weatherDayRows = (days: readonly WeatherDay[]): string[][] => [
  ['date', ...COLUMNS.map(([heading]) => heading)],
  ...days.map((day) => [day.date, ...cellsOf(day)]),
];

/** Months as rows, header first. */
export const weatherMonthRows = (months: readonly WeatherFigures[]): string[][] => [
  ['month', ...COLUMNS.map(([heading]) => heading)],
  ...months.map((month, i) => [String(i + 1), ...cellsOf(month)]),
];
