/**
 * Shipped weather: invented towns whose days come from a seeded generator, so that every day of every year is the same everywhere. Stands
 * in for a real service behind the same interface.
 */
import { civilOf, epochDayOf, formatDate, type EpochDay } from '../time/calendar.ts';
import {
  CLIMATE_FORMAT,
  CLIMATE_VERSION,
  monthsOfDays,
  type ClimateDocument,
  type WeatherDay,
} from './climate.ts';
import { dayOfSun } from './evapotranspiration.ts';
import { say } from '../language/say.ts';

/** A town with weather. */
export interface WeatherTown {
  readonly id: string;
  readonly name: string;
  readonly region: string;
  /** IANA. */
  readonly timeZone: string;
  readonly latitude: number;
  readonly longitude: number;
  readonly altitudeMetres: number;
}

/** A town and the character of its weather. */
export interface SimulatedTown extends WeatherTown {
  readonly seed: number;
  /** Annual mean, °C, and how far the warmest month is above it. */
  readonly meanCelsius: number;
  readonly swingCelsius: number;
  /** Difference between day and night, °C. */
  readonly dailyRange: number;
  /** Share of wet days in the wettest and driest season, and mm on a wet day. */
  readonly wetShare: readonly [number, number];
  readonly rainPerWetDay: number;
  /** True: rain falls in winter. */
  readonly winterRain: boolean;
  readonly humidityPercent: number;
  readonly windMetresPerSecond: number;
}

/** Time zones are real, so that clocks change realistically; the towns are invented. */
export const SIMULATED_TOWNS: readonly SimulatedTown[] = [
  {
    id: 'ostrelle',
    name: 'Ostrelle',
    region: 'southern coast',
    timeZone: 'Australia/Adelaide',
    latitude: -34.21,
    longitude: 139.86,
    altitudeMetres: 40,
    seed: 11,
    meanCelsius: 17.5,
    swingCelsius: 6,
    dailyRange: 11,
    wetShare: [0.42, 0.1],
    rainPerWetDay: 4.6,
    winterRain: true,
    humidityPercent: 58,
    windMetresPerSecond: 2.6,
  },
  {
    id: 'quarrimead',
    name: 'Quarrimead',
    region: 'dry inland plain',
    timeZone: 'Australia/Adelaide',
    latitude: -31.6,
    longitude: 117.9,
    altitudeMetres: 280,
    seed: 23,
    meanCelsius: 18.4,
    swingCelsius: 8,
    dailyRange: 15,
    wetShare: [0.3, 0.05],
    rainPerWetDay: 4.2,
    winterRain: true,
    humidityPercent: 45,
    windMetresPerSecond: 2.9,
  },
  {
    id: 'tallowmere',
    name: 'Tallowmere',
    region: 'cool highland',
    timeZone: 'Pacific/Auckland',
    latitude: -39.4,
    longitude: 176.1,
    altitudeMetres: 620,
    seed: 37,
    meanCelsius: 11.2,
    swingCelsius: 5.5,
    dailyRange: 9.5,
    wetShare: [0.5, 0.34],
    rainPerWetDay: 6.5,
    winterRain: true,
    humidityPercent: 74,
    windMetresPerSecond: 2.8,
  },
  {
    id: 'sandorra',
    name: 'Sandorra',
    region: 'hot desert edge',
    timeZone: 'America/Phoenix',
    latitude: 33.1,
    longitude: -111.4,
    altitudeMetres: 380,
    seed: 41,
    meanCelsius: 22.6,
    swingCelsius: 10.5,
    dailyRange: 15.5,
    wetShare: [0.12, 0.04],
    rainPerWetDay: 5.2,
    winterRain: true,
    humidityPercent: 32,
    windMetresPerSecond: 2.2,
  },
  {
    id: 'marrowby',
    name: 'Marrowby',
    region: 'mild lowland',
    timeZone: 'Europe/London',
    latitude: 51.9,
    longitude: 0.6,
    altitudeMetres: 30,
    seed: 53,
    meanCelsius: 10.6,
    swingCelsius: 7,
    dailyRange: 8,
    wetShare: [0.42, 0.33],
    rainPerWetDay: 4.1,
    winterRain: true,
    humidityPercent: 79,
    windMetresPerSecond: 3.2,
  },
  {
    id: 'palomeira',
    name: 'Palomeira',
    region: 'warm hills above the sea',
    timeZone: 'Europe/Lisbon',
    latitude: 38.3,
    longitude: -8.4,
    altitudeMetres: 190,
    seed: 67,
    meanCelsius: 16.8,
    swingCelsius: 6.5,
    dailyRange: 10,
    wetShare: [0.4, 0.04],
    rainPerWetDay: 6.4,
    winterRain: true,
    humidityPercent: 66,
    windMetresPerSecond: 2.7,
  },
  {
    id: 'lowfern',
    name: 'Lowfern',
    region: 'humid lowland, wet summers',
    timeZone: 'America/New_York',
    latitude: 29.2,
    longitude: -82.3,
    altitudeMetres: 25,
    seed: 71,
    meanCelsius: 21.4,
    swingCelsius: 7,
    dailyRange: 11.5,
    wetShare: [0.5, 0.22],
    rainPerWetDay: 9.4,
    winterRain: false,
    humidityPercent: 76,
    windMetresPerSecond: 2.1,
  },
  {
    id: 'hexholm',
    name: 'Hexholm',
    region: 'high plain, hot summers',
    timeZone: 'America/Denver',
    latitude: 40.2,
    longitude: -104.6,
    altitudeMetres: 1540,
    seed: 83,
    meanCelsius: 10.2,
    swingCelsius: 12.5,
    dailyRange: 15,
    wetShare: [0.28, 0.14],
    rainPerWetDay: 4.4,
    winterRain: false,
    humidityPercent: 52,
    windMetresPerSecond: 3.1,
  },
];

/** A number from 0 to below 1 for a seed, a day and a purpose: an integer hash with good mixing (after Murmur's finaliser). */
function chance(seed: number, day: number, purpose: number): number {
  let h =
    (Math.imul(seed, 0x9e3779b1) ^ Math.imul(day, 0x85ebca6b) ^ Math.imul(purpose, 0xc2b2ae35)) | 0;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  h ^= h >>> 16;
  return (h >>> 0) / 4_294_967_296;
}

/** Roughly normal, mean 0 and deviation 1, and correlated with the days before: weather lasts for some days. */
function drift(seed: number, day: number, purpose: number): number {
  const weights = [0.62, 0.49, 0.39, 0.31, 0.25, 0.2];
  const norm = Math.sqrt(weights.reduce((sum, w) => sum + w * w, 0));
  const sum = weights.reduce((all, w, back) => {
    const normal =
      chance(seed, day - back, purpose) +
      chance(seed, day - back, purpose + 1) +
      chance(seed, day - back, purpose + 2) -
      1.5;
    return all + w * normal * 2;
  }, 0);
  return sum / norm;
}

const clamp = (value: number, least: number, most: number) =>
  Math.min(most, Math.max(least, value));
const tenth = (value: number) => Math.round(value * 10) / 10;

/** The weather of one day. */
export function simulatedDay(town: SimulatedTown, day: EpochDay): WeatherDay {
  const { year, month, day: ofMonth } = civilOf(day);
  const dayOfYear = day - epochDayOf({ year, month: 1, day: 1 }) + 1;
  // 1 in the middle of the warm season, −1 in the middle of the cold one; air temperature lags the sun by four weeks.
  const warmest = town.latitude < 0 ? 18 : 200;
  const season = Math.cos((2 * Math.PI * (dayOfYear - warmest)) / 365.25);
  const wetness = (1 + (town.winterRain ? -season : season)) / 2;
  const [wettest, driest] = town.wetShare;
  const wetShare = driest + (wettest - driest) * wetness;
  const spell = chance(town.seed, Math.floor(day / 3), 40);
  const wet = 0.6 * chance(town.seed, day, 41) + 0.4 * spell < wetShare;
  const rainMm = wet
    ? tenth(Math.max(0.2, -Math.log(1 - chance(town.seed, day, 42)) * town.rainPerWetDay))
    : 0;
  const mean = town.meanCelsius + town.swingCelsius * season + 2.2 * drift(town.seed, day, 10);
  const range =
    town.dailyRange * clamp((wet ? 0.7 : 1.06) + 0.1 * drift(town.seed, day, 20), 0.4, 1.5);
  const { daylightHours } = dayOfSun(town.latitude, dayOfYear);
  const cloud = clamp((wet ? 0.7 : 0.25) + 0.15 * drift(town.seed, day, 30), 0, 1);
  return {
    date: formatDate(epochDayOf({ year, month, day: ofMonth })),
    highestCelsius: tenth(mean + range / 2),
    lowestCelsius: tenth(mean - range / 2),
    rainMm,
    humidityPercent: Math.round(
      clamp(
        town.humidityPercent + (wet ? 12 : -3) - 6 * season + 4 * drift(town.seed, day, 50),
        8,
        100,
      ),
    ),
    windMetresPerSecond: tenth(
      clamp(town.windMetresPerSecond * (1 + 0.3 * drift(town.seed, day, 60)), 0.3, 12),
    ),
    sunshineHours: tenth(daylightHours * (1 - cloud) * 0.95),
  };
}

/** A number of days from a date on. */
export const simulatedDays = (town: SimulatedTown, from: EpochDay, count: number): WeatherDay[] =>
  Array.from({ length: count }, (_, i) => simulatedDay(town, from + i));

export const SIMULATED_FROM: EpochDay = epochDayOf({ year: 2016, month: 1, day: 1 });
/** Ten years of days. */
export const SIMULATED_COUNT = epochDayOf({ year: 2026, month: 1, day: 1 }) - SIMULATED_FROM;

/** Monthly normals of a town: the averages of its ten years of days. */
export function simulatedNormals(town: SimulatedTown): ClimateDocument {
  const rounded = (value: number) => Math.round(value * 100) / 100;
  const months = monthsOfDays(simulatedDays(town, SIMULATED_FROM, SIMULATED_COUNT)).flatMap(
    (month) =>
      month
        ? [
            {
              highestCelsius: rounded(month.highestCelsius),
              lowestCelsius: rounded(month.lowestCelsius),
              rainMm: rounded(month.rainMm),
              humidityPercent: rounded(month.humidityPercent ?? town.humidityPercent),
              windMetresPerSecond: rounded(month.windMetresPerSecond ?? town.windMetresPerSecond),
              sunshineHours: rounded(month.sunshineHours ?? 0),
            },
          ]
        : [],
  );
  return {
    format: CLIMATE_FORMAT,
    version: CLIMATE_VERSION,
    name: town.name,
    source: say`simulated weather that ships with Water Clock, means of 2016 to 2025; the town is invented`,
    latitude: town.latitude,
    longitude: town.longitude,
    altitudeMetres: town.altitudeMetres,
    months,
  };
}
