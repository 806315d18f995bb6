/** Almanac: suncalc, good to about a minute in middle latitudes. */
import { epochDayOf, formatTime, SECONDS_PER_DAY } from '@water-clock/core';
import { getTimes } from 'suncalc';

interface Place {
  readonly timeZone: string;
  readonly latitude: number | null;
  readonly longitude: number | null;
}

/** Local time some minutes before sunrise in the middle of a month; null if the location is not known or the sun does not rise. */
export function beforeSunrise(
  { timeZone, latitude, longitude }: Place,
  year: number,
  month: number,
  minutes: number,
): string | null {
  if (latitude === null || longitude === null) return null;
  const noon = epochDayOf({ year, month, day: 15 }) + 0.5 - longitude / 360;
  const { sunrise } = getTimes(new Date(noon * SECONDS_PER_DAY * 1000), latitude, longitude);
  if (!sunrise || Number.isNaN(sunrise.getTime())) return null;
  const [hour = 0, minute = 0] = new Intl.DateTimeFormat('en-GB', {
    ...{ timeZone, hour: 'numeric', minute: 'numeric', hourCycle: 'h23' },
  })
    .format(sunrise)
    .split(':')
    .map(Number);
  const at = (hour * 60 + minute - minutes) * 60;
  return formatTime((at + SECONDS_PER_DAY) % SECONDS_PER_DAY);
}
