import { Injectable } from '@nestjs/common';
import {
  formatDate,
  parseDate,
  SIMULATED_COUNT,
  SIMULATED_FROM,
  SIMULATED_TOWNS,
  simulatedDays,
  simulatedNormals,
  type ClimateDocument,
  type SimulatedTown,
  type WeatherDay,
  type WeatherTown,
} from '@water-clock/core';
import { WeatherFeed } from './weather-feed.ts';

const LAST = SIMULATED_FROM + SIMULATED_COUNT - 1;

/** The weather that ships with the product: invented towns with the same days every time. */
@Injectable()
export class SimulatedWeather extends WeatherFeed {
  /** Ten years of days, calculated once for each town. */
  private readonly known = new Map<string, ClimateDocument>();

  towns(): Promise<readonly WeatherTown[]> {
    return Promise.resolve(
      SIMULATED_TOWNS.map(
        ({ id, name, region, timeZone, latitude, longitude, altitudeMetres }) => ({
          id,
          name,
          region,
          timeZone,
          latitude,
          longitude,
          altitudeMetres,
        }),
      ),
    );
  }

  normals(townId: string): Promise<ClimateDocument | null> {
    const town = this.town(townId);
    if (!town) return Promise.resolve(null);
    const normals = this.known.get(townId) ?? simulatedNormals(town);
    this.known.set(townId, normals);
    return Promise.resolve(normals);
  }

  days(townId: string, from: string, to: string): Promise<readonly WeatherDay[] | null> {
    const town = this.town(townId);
    if (!town) return Promise.resolve(null);
    const first = Math.max(SIMULATED_FROM, parseDate(from) ?? SIMULATED_FROM);
    const last = Math.min(LAST, parseDate(to) ?? LAST);
    return Promise.resolve(simulatedDays(town, first, Math.max(0, last - first + 1)));
  }

  span(): { readonly from: string; readonly to: string } {
    return { from: formatDate(SIMULATED_FROM), to: formatDate(LAST) };
  }

  private town(id: string): SimulatedTown | undefined {
    return SIMULATED_TOWNS.find((simulatedTown) => simulatedTown.id === id);
  }
}
