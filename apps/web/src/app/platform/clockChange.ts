/** Coming clock changes at a place, from its time zone. */
import { SECONDS_PER_DAY, type ClockChange } from '@water-clock/core';
import { civilSecond } from './zone.ts';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAYS_TO_LOOK = 366;

/** Offset of local time from UTC at an instant, in seconds. */
const offsetAt = (instant: number, timeZone: string) =>
  civilSecond(new Date(instant), timeZone) - Math.floor(instant / 1000);

/** The next clock change after an instant, to the minute; null if none within a year. */
function nextInstant(after: number, timeZone: string): number | null {
  const from = Math.floor(after / MINUTE) * MINUTE;
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
  while (high - low > MINUTE) {
    const middle = Math.floor((low + high) / 2 / MINUTE) * MINUTE;
    if (offsetAt(middle, timeZone) === before) low = middle;
    else high = middle;
  }
  return high;
}

/** Clock changes within a year after an instant, in order. */
export function clockChangesAfter(after: Date, timeZone: string): ClockChange[] {
  const end = after.getTime() + DAYS_TO_LOOK * 24 * HOUR;
  const changes: ClockChange[] = [];
  let instant = nextInstant(after.getTime(), timeZone);
  while (instant !== null && instant <= end) {
    // The old clock shows this local second at the change; the new one shows a later or earlier one.
    const second = Math.floor(instant / 1000);
    const old = second + offsetAt(instant - MINUTE, timeZone);
    const now = second + offsetAt(instant, timeZone);
    const day = Math.floor(old / SECONDS_PER_DAY);
    changes.push({ day, from: old - day * SECONDS_PER_DAY, to: now - day * SECONDS_PER_DAY });
    instant = nextInstant(instant, timeZone);
  }
  return changes;
}
