/**
 * A climate in the library: an open document, `water-clock-climate`, file extension `.climate.json`. Twelve monthly averages, from which
 * reference evapotranspiration follows by the best method the numbers allow.
 */
import type { Fault, Outcome } from '../document/fault.ts';
import { foreignDocument, readJson } from '../document/openDocument.ts';
import {
  decimal,
  list,
  object,
  oneOf,
  optional,
  required,
  readLine,
  readNote,
} from '../document/reader.ts';
import {
  dayOfSun,
  hargreaves,
  penmanMonteith,
  radiationFromSunshine,
  saturationPressureKpa,
} from './evapotranspiration.ts';
import type { Climate } from './need.ts';

export const CLIMATE_FORMAT = 'water-clock-climate';
export const CLIMATE_VERSION = 1;

/** Measurements of a day, or averages of a month; rain is the sum of either. */
export interface WeatherFigures {
  readonly highestCelsius: number;
  readonly lowestCelsius: number;
  readonly rainMm: number;
  /** Mean relative humidity. */
  readonly humidityPercent?: number;
  /** At 2 m. */
  readonly windMetresPerSecond?: number;
  readonly sunshineHours?: number;
  /** Reference evapotranspiration, if already calculated. */
  readonly etoMmPerDay?: number;
}

export interface ClimateDocument {
  readonly format: typeof CLIMATE_FORMAT;
  readonly version: typeof CLIMATE_VERSION;
  readonly name: string;
  readonly source: string;
  readonly latitude: number;
  readonly longitude?: number;
  readonly altitudeMetres?: number;
  /** January first. */
  readonly months: readonly WeatherFigures[];
}

/** How a month's reference evapotranspiration was found, best first (water-need.md section 1). */
export type EtoWay = 'entered' | 'penman-monteith' | 'hargreaves';

/** Latitude up to which the sun rises and sets every day, degrees. */
const MOST_LATITUDE = 66;

const readWeatherFigures = {
  highestCelsius: required(decimal(-80, 70), 'degrees Celsius'),
  lowestCelsius: required(decimal(-80, 70), 'degrees Celsius'),
  rainMm: required(decimal(0, 5000), 'mm'),
  humidityPercent: optional(decimal(0, 100)),
  windMetresPerSecond: optional(decimal(0, 60)),
  sunshineHours: optional(decimal(0, 24)),
  etoMmPerDay: optional(decimal(0, 30)),
};

const shape = object<ClimateDocument>({
  format: required(oneOf([CLIMATE_FORMAT]), `"${CLIMATE_FORMAT}"`),
  version: required(oneOf([CLIMATE_VERSION]), `${CLIMATE_VERSION}`),
  name: required(readLine, 'the name of the place'),
  source: required(readNote, 'where the numbers come from'),
  latitude: required(decimal(-MOST_LATITUDE, MOST_LATITUDE), 'degrees, south below 0'),
  longitude: optional(decimal(-180, 180)),
  altitudeMetres: optional(decimal(-500, 9000)),
  months: required(
    list(object<WeatherFigures>(readWeatherFigures), { least: 12, most: 12 }),
    '12 months, January first',
  ),
});

/** Reads a climate from a JSON value. Strict; a month's lowest temperature may not exceed its highest. */
export function readClimate(value: unknown): Outcome<ClimateDocument> {
  const faults: Fault[] = [];
  const other = foreignDocument(value, CLIMATE_FORMAT, CLIMATE_VERSION);
  if (other) return { ok: false, faults: [other] };
  const climate = shape(value, [], faults);
  if (climate === undefined) return { ok: false, faults };
  climate.months.forEach(({ highestCelsius, lowestCelsius }, i) => {
    if (lowestCelsius > highestCelsius)
      faults.push({
        code: 'out-of-range',
        path: ['months', i, 'lowestCelsius'],
        least: -80,
        most: highestCelsius,
        actual: lowestCelsius,
      });
  });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, value: climate };
}

export const readClimateText = (json: string): Outcome<ClimateDocument> =>
  readJson(json, readClimate);

/** Day of the year in the middle of each month (FAO-56 appendix 2, table 2.5: J = 30.4 month − 15). */
export const middleOfMonth = (month: number): number => Math.floor(30.4 * month - 15);

/** Reference evapotranspiration of a day or a month's mean day, by the best method its numbers allow. */
export function etoOf(
  figures: WeatherFigures,
  place: Pick<ClimateDocument, 'latitude' | 'altitudeMetres'>,
  dayOfYear: number,
): { readonly mmPerDay: number; readonly way: EtoWay } {
  const { highestCelsius, lowestCelsius, humidityPercent, sunshineHours, etoMmPerDay } = figures;
  if (etoMmPerDay !== undefined) return { mmPerDay: etoMmPerDay, way: 'entered' };
  const sun = dayOfSun(place.latitude, dayOfYear);
  const { windMetresPerSecond } = figures;
  if (
    humidityPercent === undefined ||
    sunshineHours === undefined ||
    windMetresPerSecond === undefined
  )
    return { mmPerDay: hargreaves(sun, highestCelsius, lowestCelsius), way: 'hargreaves' };
  const saturation =
    (saturationPressureKpa(highestCelsius) + saturationPressureKpa(lowestCelsius)) / 2;
  return {
    mmPerDay: penmanMonteith({
      highestCelsius,
      lowestCelsius,
      // Equation 19: from the mean humidity.
      vapourPressureKpa: (humidityPercent / 100) * saturation,
      windAtTwoMetres: windMetresPerSecond,
      radiationMj: radiationFromSunshine(sun, Math.min(sunshineHours, sun.daylightHours)),
      altitudeMetres: place.altitudeMetres ?? 0,
      sun,
    }),
    way: 'penman-monteith',
  };
}

/** The climate for calculations, and how each month's evapotranspiration was found. */
export function climateOf(
  document: ClimateDocument,
): Climate & { readonly ways: readonly EtoWay[] } {
  const eto = document.months.map((month, i) => etoOf(month, document, middleOfMonth(i + 1)));
  return {
    etoMmPerDay: eto.map(({ mmPerDay }) => mmPerDay),
    rainMm: document.months.map(({ rainMm }) => rainMm),
    ways: eto.map(({ way }) => way),
  };
}

/** A day of weather. */
export interface WeatherDay extends WeatherFigures {
  /** `YYYY-MM-DD`. */
  readonly date: string;
}

const OPTIONAL = [
  'humidityPercent',
  'windMetresPerSecond',
  'sunshineHours',
  'etoMmPerDay',
] as const;
const mean = (values: readonly number[]) =>
  values.reduce((sum, one) => sum + one, 0) / values.length;

/**
 * Monthly averages of days, January first; months without a day are null. Rain is the daily average times the days of the month, so that
 * gaps do no harm. A figure missing on some days is averaged over the others.
 */
export function monthsOfDays(days: readonly WeatherDay[]): (WeatherFigures | null)[] {
  const lengths = [31, 28.25, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];
  return lengths.map((length, i) => {
    const own = days.filter(({ date }) => Number(date.slice(5, 7)) === i + 1);
    if (own.length === 0) return null;
    const more = OPTIONAL.flatMap((key) => {
      const values = own.flatMap((day) => (day[key] === undefined ? [] : [day[key]]));
      return values.length === 0 ? [] : [[key, mean(values)] as const];
    });
    return {
      highestCelsius: mean(own.map((day) => day.highestCelsius)),
      lowestCelsius: mean(own.map((day) => day.lowestCelsius)),
      rainMm: mean(own.map((day) => day.rainMm)) * length,
      ...Object.fromEntries(more),
    };
  });
}
