/** Sunset and sunrise of a night at a place. Almanac: suncalc, good to about a minute in middle latitudes. */
import { SECONDS_PER_DAY, type ClockSecond, type Night } from '@water-clock/core';
import { getTimes } from 'suncalc';
import { civilSecond } from '../../app/platform/zone.ts';

export interface Place {
  readonly timeZone: string;
  /** Degrees north and east; null: not known. */
  readonly latitude: number | null;
  readonly longitude: number | null;
}

export interface NightSun {
  /** Clock seconds in local time; null if the sun does not set or rise that night. */
  readonly sunset: ClockSecond | null;
  readonly sunrise: ClockSecond | null;
}

/** Null if the location is not known. */
export function sunOf(night: Pick<Night, 'day'>, place: Place): NightSun | null {
  const { latitude, longitude, timeZone } = place;
  if (latitude === null || longitude === null) return null;
  const timesOn = (day: number) => {
    // Solar noon at the longitude picks the solar day, whatever the time zone.
    const noon = (day + 0.5 - longitude / 360) * SECONDS_PER_DAY * 1000;
    return getTimes(new Date(noon), latitude, longitude);
  };
  const at = (date: Date | null) => (date ? civilSecond(date, timeZone) : null);
  return { sunset: at(timesOn(night.day).sunset), sunrise: at(timesOn(night.day + 1).sunrise) };
}
