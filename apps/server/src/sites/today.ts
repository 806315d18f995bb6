import { parseDate, type EpochDay } from '@water-clock/core';

/** Cached by zone; creating one is by far the slowest part. */
const formats = new Map<string, Intl.DateTimeFormat>();

function formatOf(timeZone: string): Intl.DateTimeFormat {
  const known = formats.get(timeZone);
  if (known) return known;
  // The Swedish locale writes dates as YYYY-MM-DD.
  const made = new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short' });
  formats.set(timeZone, made);
  return made;
}

/**
 * Today's date at a place, as an epoch day.
 *
 * @param timeZone IANA name
 */
export function todayIn(timeZone: string, now: Date): EpochDay {
  return parseDate(formatOf(timeZone).format(now)) ?? Math.floor(now.getTime() / 86_400_000);
}
