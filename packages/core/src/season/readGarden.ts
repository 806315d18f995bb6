/** Reader of the garden document (season.md), as strict as that of the plan. */
import type { Fault, Outcome } from '../document/fault.ts';
import { foreignDocument, readJson } from '../document/openDocument.ts';
import {
  boolean,
  decimal,
  integer,
  list,
  object,
  oneOf,
  optional,
  required,
  type Reader,
} from '../document/reader.ts';
import { say } from '../language/say.ts';
import { formatDate, parseDate } from '../time/calendar.ts';
import { readDate } from '../time/timeReaders.ts';
import {
  GARDEN_FORMAT,
  GARDEN_VERSION,
  type Garden,
  type GardenStation,
  type RainSensor,
  type WeatherDay,
} from './garden.ts';

/** Dates of weather: at least two, and over fifty years at most. */
const DATES = { least: 2, most: 20_000 };

const station = object<GardenStation>({
  number: required(integer(1, 99), '1 to 99'),
  areaM2: optional(decimal(0, null, true)),
  plantFactor: required(decimal(0.05, 2), '0.05 to 2'),
  rootDepthMm: required(decimal(50, 3000), '50 to 3000'),
  availableWater: required(decimal(10, 400), '10 to 400'),
  allowedDepletion: optional(decimal(0.1, 0.8)),
  precipitationRate: required(decimal(0, null, true), say`above 0`),
  uniformity: optional(decimal(0.2, 1)),
  intakeRate: optional(decimal(0, null, true)),
  surfaceStorage: optional(decimal(0, 50)),
  obeysRain: optional(boolean),
});

const weatherDay = object<WeatherDay>({
  date: required(readDate, 'a date'),
  eto: required(decimal(0, 25), '0 to 25'),
  rain: required(decimal(0, 500), '0 to 500'),
});

const shape: Reader<Garden> = object<Garden>({
  format: required(oneOf([GARDEN_FORMAT]), `"${GARDEN_FORMAT}"`),
  version: required(oneOf([GARDEN_VERSION]), `${GARDEN_VERSION}`),
  stations: required(list(station), 'a list of stations'),
  weather: required(list(weatherDay, DATES), 'a list of days'),
  start: optional(decimal(0, 1)),
  rainSensor: optional(
    object<RainSensor>({
      stopsAt: required(decimal(0, null, true), say`above 0`),
      dryDays: required(integer(0, 14), '0 to 14'),
    }),
  ),
});

/** Rules between fields. */
function crossFaults({ stations, weather }: Garden): Fault[] {
  const faults: Fault[] = [];
  const numbers = new Set<number>();
  stations.forEach(({ number, surfaceStorage, intakeRate }, i) => {
    if (numbers.has(number))
      faults.push({ code: 'repeated', path: ['stations', i, 'number'], actual: String(number) });
    numbers.add(number);
    if (surfaceStorage !== undefined && intakeRate === undefined)
      faults.push({
        code: 'missing-field',
        path: ['stations', i, 'intakeRate'],
        expected: say`the intake rate, which is needed with surface storage`,
      });
  });
  const first = parseDate(weather[0]?.date ?? '') ?? 0;
  const gap = weather.findIndex(({ date }, i) => parseDate(date) !== first + i);
  if (gap > 0)
    faults.push({
      code: 'malformed',
      path: ['weather', gap, 'date'],
      expected: say`${formatDate(first + gap)}, the date after the one before`,
      actual: `"${weather[gap]?.date ?? ''}"`,
    });
  return faults;
}

/** Reads a garden from a JSON value, as strictly as `readPlan`. */
export function readGarden(value: unknown): Outcome<Garden> {
  const other = foreignDocument(value, GARDEN_FORMAT, GARDEN_VERSION);
  if (other) return { ok: false, faults: [other] };
  const faults: Fault[] = [];
  const garden = shape(value, [], faults);
  if (garden === undefined) return { ok: false, faults };
  const between = crossFaults(garden);
  return between.length > 0 ? { ok: false, faults: between } : { ok: true, value: garden };
}

/** Reads a garden from a file's text; a byte order mark is allowed. */
export const readGardenText = (json: string): Outcome<Garden> => readJson(json, readGarden);
