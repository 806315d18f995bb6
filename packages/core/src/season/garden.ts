/** The garden document, version 1: what a season of weather needs to know of a garden (season.md). Read with `readGarden`. */
import type { DateText } from '../time/calendar.ts';

export const GARDEN_FORMAT = 'water-clock-garden';
export const GARDEN_VERSION = 1;

export interface GardenStation {
  readonly number: number;
  readonly areaM2?: number;
  /** Share of the reference evapotranspiration that the plants use, surroundings included. */
  readonly plantFactor: number;
  readonly rootDepthMm: number;
  /** Millimetres of water in a metre of soil that plants can use. */
  readonly availableWater: number;
  /** Share of the available water that may be missing at 5 mm a day; 0.5 where not given. */
  readonly allowedDepletion?: number;
  /** Millimetres an hour. */
  readonly precipitationRate: number;
  /** What the driest quarter gets, as a share of the mean; 1 where not given. */
  readonly uniformity?: number;
  /** Millimetres an hour that go into the soil; absent: all of it. */
  readonly intakeRate?: number;
  /** Millimetres that stand on the surface before water runs off; 0 where not given. */
  readonly surfaceStorage?: number;
  /** True where not given. */
  readonly obeysRain?: boolean;
}

export interface WeatherDay {
  readonly date: DateText;
  /** Reference evapotranspiration, millimetres. */
  readonly eto: number;
  /** Millimetres. */
  readonly rain: number;
}

export interface RainSensor {
  /** Millimetres on one date from which it stops the timer. */
  readonly stopsAt: number;
  /** Dates after that one on which it still does. */
  readonly dryDays: number;
}

export interface Garden {
  readonly format: typeof GARDEN_FORMAT;
  readonly version: typeof GARDEN_VERSION;
  readonly stations: readonly GardenStation[];
  /** Consecutive dates. */
  readonly weather: readonly WeatherDay[];
  /** Share of the available water that is missing on the first morning; 0 where not given. */
  readonly start?: number;
  readonly rainSensor?: RainSensor;
}
