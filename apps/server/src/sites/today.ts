import { parseDate, type EpochDay } from '@water-clock/core';

/** The date at a place, as an epoch day. @param timeZone IANA name. */
export function todayIn(timeZone: string, now: Date): EpochDay {
  // The Swedish locale writes dates as YYYY-MM-DD.
  const text = new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short' }).format(now);
  return parseDate(text) ?? Math.floor(now.getTime() / 86_400_000);
}
