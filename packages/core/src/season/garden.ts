/** The garden document, version 1: what a season of weather needs to know of a garden (season.md). Read with `readGarden`. */
import type { DateText } from '../time/calendar.ts';

export const GARDEN_FORMAT = 'water-clock-garden';
export const GARDEN_VERSION = 1;

export interface GardenStation {
  readonly number: number;
  readonly areaM2?: number;
  /** Crop coefficient: share of the reference evapotranspiration that the plants use, including surroundings. */
  readonly plantFactor: number;
  readonly rootDepthMm: number;
  /** Available water of the soil, mm a metre. */
  readonly availableWater: number;
  /** Depletion fraction at 5 mm a day; 0.5 by default. */
  readonly allowedDepletion?: number;
  /** mm an hour. */
  readonly precipitationRate: number;
  /** Water of the driest quarter as a share of the average; 1 by default. */
  readonly uniformity?: number;
  /** Infiltration, mm an hour; absent: unlimited. */
  readonly intakeRate?: number;
  /** Surface storage before water runs off, mm; 0 by default. */
  readonly surfaceStorage?: number;
  /** True by default. */
  readonly obeysRain?: boolean;
}

export interface WeatherDay {
  readonly date: DateText;
  /** Reference evapotranspiration, mm. */
  readonly eto: number;
  /** mm. */
  readonly rain: number;
}

export interface RainSensor {
  /** Rain on one date that makes it stop the timer, mm. */
  readonly stopsAt: number;
  /** Further dates on which it stops the timer. */
  readonly dryDays: number;
}

export interface Garden {
  readonly format: typeof GARDEN_FORMAT;
  readonly version: typeof GARDEN_VERSION;
  readonly stations: readonly GardenStation[];
  /** Consecutive dates. */
  readonly weather: readonly WeatherDay[];
  /** Depletion on the first morning, as a share of the available water; 0 by default. */
  readonly start?: number;
  readonly rainSensor?: RainSensor;
}
