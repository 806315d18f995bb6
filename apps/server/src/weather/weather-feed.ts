import type { ClimateDocument, WeatherDay, WeatherTown } from '@water-clock/core';

/** Source of weather. A real service can replace the simulated one here. */
export abstract class WeatherFeed {
  abstract towns(): Promise<readonly WeatherTown[]>;

  /** Means of the twelve months; null for an unknown town. */
  abstract normals(townId: string): Promise<ClimateDocument | null>;

  /** Days from one date to another, inclusive; null for an unknown town. */
  abstract days(townId: string, from: string, to: string): Promise<readonly WeatherDay[] | null>;

  /** First and last date with data. */
  abstract span(): { readonly from: string; readonly to: string };
}
