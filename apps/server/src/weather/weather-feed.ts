import type { ClimateDocument, WeatherDay, WeatherTown } from '@water-clock/core';

/** Where weather comes from. A real service takes the simulated one's place behind this. */
export abstract class WeatherFeed {
  abstract towns(): Promise<readonly WeatherTown[]>;

  /** Means of the twelve months; null for an unknown town. */
  abstract normals(townId: string): Promise<ClimateDocument | null>;

  /** The days from one date to another, both included; null for an unknown town. */
  abstract days(townId: string, from: string, to: string): Promise<readonly WeatherDay[] | null>;

  /** The first and the last date of which there are days. */
  abstract span(): { readonly from: string; readonly to: string };
}
