/** Stations as spreadsheet rows: reading reports each bad cell and refuses nothing else; writing uses the same columns. */
import {
  faultsOfCell,
  nameCell,
  numberCell,
  yesNoCell,
  type CellFault,
} from '../document/cells.ts';
import type { Fault } from '../document/fault.ts';
import { readTable } from '../document/table.ts';
import { linkStationChange } from '../plan/change.ts';
import type { Plan, Station } from '../plan/plan.ts';
import { MOST_NOTE_LENGTH, type FieldsToSet } from '../document/reader.ts';
import { HEADS, PLANT_FACTORS, SOILS, SURROUNDINGS } from '../water/tables.ts';
import type { RecordChange, TimerRecord } from './record.ts';
import { surveyOf, type SurveyStation, type SurveyStationFields } from '../survey/survey.ts';
import { say } from '../language/say.ts';

/** A row's values, with types ensured by the column readers. */
interface Set {
  readonly plan: Record<string, unknown>;
  readonly survey: Record<string, unknown>;
  weeklySeconds?: number;
}
type Value = string | number | boolean | Fault;

interface Column {
  readonly heading: string;
  readonly read: (cell: string) => Value;
  readonly put: (into: Set, value: string | number | boolean) => void;
  readonly write: (station: Station, noted: SurveyStation) => string | number | boolean | undefined;
}

const keys = <T extends object>(table: T) => Object.keys(table) as (keyof T & string)[];
const textCell =
  (most: number) =>
  (cell: string): Value =>
    cell.length <= most
      ? cell
      : {
          code: 'wrong-length',
          path: [],
          expected: say`at most ${most} characters`,
          actual: cell.length,
        };

const surveyColumn = (
  heading: string,
  key: keyof SurveyStationFields & keyof SurveyStation,
  read: (cell: string) => Value,
): Column => ({
  heading,
  read,
  put: ({ survey }, value) => {
    survey[key] = value;
  },
  write: (_station, noted) => {
    const value = noted[key];
    return typeof value === 'object' ? undefined : value;
  },
});

const minutesColumn = (
  heading: string,
  key: 'cycleSeconds' | 'soakSeconds',
  least: number,
): Column => ({
  heading,
  read: (cell) => numberCell(cell, least, 1440),
  put: ({ plan }, value) => {
    plan[key] = Math.round(Number(value) * 60);
  },
  write: (station) => {
    const seconds = station[key];
    return seconds === undefined ? undefined : seconds / 60;
  },
});

const flag = (
  heading: string,
  key: 'underCover' | 'needsPump' | 'overhead',
  usual: boolean,
): Column => ({
  heading,
  read: yesNoCell,
  put: ({ plan }, value) => {
    plan[key] = value === usual ? null : value;
  },
  write: (station) => ((station[key] ?? usual) ? 'yes' : 'no'),
});

const COLUMNS: readonly Column[] = [
  {
    heading: 'name',
    read: textCell(80),
    put: ({ plan }, value) => {
      plan['name'] = value;
    },
    write: ({ name }) => name,
  },
  surveyColumn('group', 'group', textCell(200)),
  surveyColumn('head', 'head', (cell) => nameCell(cell, keys(HEADS))),
  surveyColumn('plants', 'plants', (cell) => nameCell(cell, keys(PLANT_FACTORS))),
  surveyColumn('sun', 'surroundings', (cell) => nameCell(cell, keys(SURROUNDINGS))),
  surveyColumn('soil', 'soil', (cell) => nameCell(cell, keys(SOILS))),
  surveyColumn('slope_percent', 'slopePercent', (cell) => numberCell(cell, 0, 100)),
  surveyColumn('area_m2', 'areaSquareMetres', (cell) => numberCell(cell, 0.1, 1_000_000)),
  surveyColumn('heads', 'headCount', (cell) => numberCell(cell, 1, 1000, true)),
  {
    heading: 'flow_l_min',
    read: (cell) => numberCell(cell, 0, 100_000),
    put: ({ plan }, value) => {
      plan['flowLpm'] = value;
    },
    write: ({ flowLpm }) => flowLpm,
  },
  minutesColumn('run_off_min', 'cycleSeconds', 0.1),
  minutesColumn('soak_min', 'soakSeconds', 0),
  {
    heading: 'week_min',
    read: (cell) => numberCell(cell, 0, 10_080),
    put: (into, value) => {
      into.weeklySeconds = Math.round(Number(value) * 60);
    },
    write: (_station, { overruled }) =>
      overruled?.weeklySeconds === undefined ? undefined : overruled.weeklySeconds / 60,
  },
  flag('overhead', 'overhead', true),
  flag('under_cover', 'underCover', false),
  flag('needs_pump', 'needsPump', false),
  {
    heading: 'linked_to',
    read: (cell) => numberCell(cell, 1, 99, true),
    put: ({ plan }, value) => {
      plan['linkedTo'] = value;
    },
    write: ({ linkedTo }) => linkedTo,
  },
  surveyColumn('decoder', 'decoder', textCell(200)),
  {
    heading: 'master_valve',
    read: yesNoCell,
    put: ({ survey }, value) => {
      survey['masterValve'] = value === true ? null : value;
    },
    write: (_station, { masterValve = true }) => (masterValve ? 'yes' : 'no'),
  },
  surveyColumn('note', 'note', textCell(MOST_NOTE_LENGTH)),
];

const STATION_HEADINGS: readonly string[] = ['number', ...COLUMNS.map(({ heading }) => heading)];

/** The largest timer's stations, and some spare lines. */
export const MOST_STATION_ROWS = 200;

interface StationEntry {
  readonly line: number;
  readonly number: number;
  /** Fields of the plan's and the survey's station that have a usable cell. */
  readonly plan: Readonly<Record<string, unknown>>;
  readonly survey: Readonly<Record<string, unknown>>;
  readonly weeklySeconds?: number;
}

export interface StationTable {
  readonly entries: readonly StationEntry[];
  readonly faults: readonly CellFault[];
}

/**
 * Reads stations from CSV rows, header first, columns in any order. An empty or bad cell leaves the current value, and a bad one is
 * reported. A row without a usable number is skipped.
 */
export function readStationTable(rows: readonly (readonly string[])[], plan: Plan): StationTable {
  const table = readTable(rows, {
    key: 'number',
    headings: STATION_HEADINGS,
    most: MOST_STATION_ROWS,
  });
  const faults: CellFault[] = [...table.faults];
  const seen = new Set<number>();
  const entries: StationEntry[] = [];
  table.rows.forEach(({ line, cell: cellOf }) => {
    const number = numberCell(cellOf('number'), 1, plan.timer.stationCount, true);
    if (typeof number !== 'number') {
      faults.push(faultsOfCell(line, 'number', number));
      return;
    }
    if (seen.has(number)) {
      faults.push(
        faultsOfCell(line, 'number', { code: 'repeated', path: [], actual: String(number) }),
      );
      return;
    }
    seen.add(number);
    const set: Set = { plan: {}, survey: {} };
    for (const { heading, read, put } of COLUMNS) {
      const cell = cellOf(heading);
      if (cell === '') continue;
      const value = read(cell);
      if (typeof value === 'object') faults.push(faultsOfCell(line, heading, value));
      else put(set, value);
    }
    entries.push({ line, number, ...set });
  });
  return { entries, faults };
}

/** The change for importing the entries, in one step. */
export function stationTableChange(
  { plan, survey }: TimerRecord,
  { entries }: StationTable,
): RecordChange {
  return {
    type: 'together',
    changes: entries.flatMap(({ number, plan: set, survey: facts, weeklySeconds }) => {
      const there = plan.stations.some((station) => station.number === number);
      const fields: FieldsToSet<SurveyStationFields> = {
        ...facts,
        ...(weeklySeconds === undefined
          ? {}
          : { overruled: { ...surveyOf(survey, number).overruled, weeklySeconds } }),
      };
      return [
        ...(there ? [] : [{ type: 'add-station', station: { number } } as const]),
        ...(typeof set['linkedTo'] === 'number'
          ? [linkStationChange(plan, number, set['linkedTo'])]
          : []),
        ...(Object.keys(set).length > 0
          ? [{ type: 'set-station', station: number, fields: set } as const]
          : []),
        ...(Object.keys(fields).length > 0
          ? [{ type: 'note-station', station: number, fields } as const]
          : []),
      ];
    }),
  };
}

/** Stations as rows, header first; reading them back changes nothing. */
export const stationRows = ({ plan, survey }: TimerRecord): string[][] => [
  [...STATION_HEADINGS],
  ...plan.stations.map((station) => [
    String(station.number),
    ...COLUMNS.map(({ write }) => {
      const value = write(station, surveyOf(survey, station.number));
      return value === undefined ? '' : String(value);
    }),
  ]),
];
