/**
 * A table of minutes in the library (field guide, Schools): by rule of thumb for a watering, and for a week in the hottest month, with
 * adjustments for sun, soil, plants and number of heads. An open document, `water-clock-minutes`, file extension `.minutes.json`.
 */
import type { Fault, Outcome } from '../document/fault.ts';
import { foreignDocument, readJson } from '../document/openDocument.ts';
import {
  decimal,
  integer,
  list,
  object,
  oneOf,
  optional,
  required,
  type Fields,
  type Reader,
  readLine,
  readNote,
} from '../document/reader.ts';
import {
  HEADS,
  PLANT_FACTORS,
  SOILS,
  SURROUNDINGS,
  type HeadType,
  type Plants,
  type SoilType,
  type Surroundings,
} from './tables.ts';
import { say } from '../language/say.ts';

const MINUTES_FORMAT = 'water-clock-minutes';
const MINUTES_VERSION = 1;

/** A table's entry for a head. */
export interface HeadMinutes {
  /** A rule-of-thumb watering. */
  readonly watering: number;
  /** A week of lawn in full sun in the hottest month. */
  readonly week: number;
  /** Usual number of heads in a hundred square metres; absent if heads are not counted. */
  readonly headsPerHundred?: number;
}

export interface MinutesTable {
  readonly format: typeof MINUTES_FORMAT;
  readonly version: typeof MINUTES_VERSION;
  readonly name: string;
  readonly region: string;
  readonly source: string;
  readonly heads: Readonly<Record<HeadType, HeadMinutes>>;
  /** Factors that adjust minutes; a lawn in full sun on loam is 1. */
  readonly plants: Readonly<Record<Plants, number>>;
  readonly surroundings: Readonly<Record<Surroundings, number>>;
  readonly soils: Readonly<Record<SoilType, number>>;
  /** Percent of the hottest month, January first. */
  readonly months: readonly number[];
}

/** The shipped table: middle values of common practice, for a place with summer from December to February. */
export const SHIPPED_MINUTES_ID = '5d1e0000-7a3c-4c1e-8e5a-0000000000f1';
export const SHIPPED_MINUTES: MinutesTable = {
  format: MINUTES_FORMAT,
  version: MINUTES_VERSION,
  name: 'Starting values',
  region: 'southern, warm and dry summers',
  source: 'middle values of common practice; replace them with your own region',
  heads: {
    'fixed-spray': { watering: 15, week: 60, headsPerHundred: 10 },
    'rotating-stream': { watering: 40, week: 160, headsPerHundred: 4 },
    'gear-rotor': { watering: 35, week: 140, headsPerHundred: 2 },
    'impact-rotor': { watering: 35, week: 140, headsPerHundred: 2 },
    bubbler: { watering: 5, week: 15 },
    drip: { watering: 45, week: 120 },
    'micro-spray': { watering: 15, week: 60, headsPerHundred: 25 },
  },
  plants: {
    'cool-season-lawn': 1,
    'warm-season-lawn': 0.75,
    'annual-flowers': 1,
    'trees-and-shrubs': 0.6,
    'trees-and-shrubs-wet': 0.85,
    'desert-adapted': 0.4,
    'vegetables-and-fruit': 1.2,
    'new-seed-or-turf': 1.2,
  },
  surroundings: { 'deep-shade': 0.5, 'part-shade': 0.75, 'full-sun': 1, 'hot-wall': 1.4 },
  soils: { sand: 1.1, 'sandy-loam': 1, loam: 1, 'clay-loam': 1, clay: 0.9 },
  months: [100, 95, 75, 50, 30, 20, 20, 30, 45, 65, 80, 95],
};

const factor = decimal(0, 10, true);

/** A value for each name of a table. */
function each<K extends string, T>(names: Readonly<Record<K, unknown>>, read: Reader<T>) {
  const fields = Object.fromEntries(
    Object.keys(names).map((name) => [name, required(read, say`a value`)]),
  );
  // Safe cast: the fields are exactly the table's names.
  return object<Readonly<Record<K, T>>>(fields as unknown as Fields<Readonly<Record<K, T>>>);
}

const shape = object<MinutesTable>({
  format: required(oneOf([MINUTES_FORMAT]), `"${MINUTES_FORMAT}"`),
  version: required(oneOf([MINUTES_VERSION]), `${MINUTES_VERSION}`),
  name: required(readLine, 'a name'),
  region: required(readLine, 'the region'),
  source: required(readNote, 'where it comes from'),
  heads: required(
    each(
      HEADS,
      object<HeadMinutes>({
        watering: required(decimal(0, 1440, true), 'minutes, above 0'),
        week: required(decimal(0, 10_080, true), 'minutes, above 0'),
        headsPerHundred: optional(decimal(0, 1000, true)),
      }),
    ),
    'minutes of each head',
  ),
  plants: required(each(PLANT_FACTORS, factor), 'a factor of each'),
  surroundings: required(each(SURROUNDINGS, factor), 'a factor of each'),
  soils: required(each(SOILS, factor), 'a factor of each'),
  months: required(list(integer(0, 500), { least: 12, most: 12 }), '12 percents, January first'),
});

/** Reads a table of minutes from a JSON value. Strict. */
export function readMinutesTable(value: unknown): Outcome<MinutesTable> {
  const faults: Fault[] = [];
  const other = foreignDocument(value, MINUTES_FORMAT, MINUTES_VERSION);
  if (other) return { ok: false, faults: [other] };
  const table = shape(value, [], faults);
  return table === undefined ? { ok: false, faults } : { ok: true, value: table };
}

export const readMinutesTableText = (json: string): Outcome<MinutesTable> =>
  readJson(json, readMinutesTable);
