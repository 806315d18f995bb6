/** The next change of a place's clocks, found from its zone. */
import { SECONDS_PER_DAY, type ClockChange } from '@water-clock/core';
import { civilSecond } from './zone.ts';

const HOUR = 3_600_000;
const DAYS_TO_LOOK = 366;

/** Seconds by which civil time at a place is ahead of the world's, at an instant. */
const offsetAt = (instant: number, timeZone: string) =>
  civilSecond(new Date(instant), timeZone) - Math.floor(instant / 1000);

/** The next change after an instant; null where there is none within a year. */
export function nextClockChange(after: Date, timeZone: string): ClockChange | null {
  const from = Math.floor(after.getTime() / HOUR) * HOUR;
  const before = offsetAt(from, timeZone);
  let low = from;
  let high = from;
  for (let day = 1; day <= DAYS_TO_LOOK && low === high; day++) {
    const instant = from + day * 24 * HOUR;
    if (offsetAt(instant, timeZone) !== before) high = instant;
    else low = high = instant;
  }
  if (offsetAt(high, timeZone) === before) return null;
  low = high - 24 * HOUR;
  while (high - low > 60_000) {
    const middle = Math.floor((low + high) / 2 / 60_000) * 60_000;
    if (offsetAt(middle, timeZone) === before) low = middle;
    else high = middle;
  }
  // By the old clocks the change comes at this civil second; by the new ones it is then later or earlier.
  const old = Math.floor(high / 1000) + before;
  const now = Math.floor(high / 1000) + offsetAt(high, timeZone);
  const day = Math.floor(old / SECONDS_PER_DAY);
  return { day, from: old - day * SECONDS_PER_DAY, to: now - day * SECONDS_PER_DAY };
}
