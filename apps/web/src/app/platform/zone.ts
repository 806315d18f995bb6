/** Conversion between UTC and local time at a site. Only this file deals with time zones. */
import { epochDayOf, SECONDS_PER_DAY, type ClockSecond } from '@water-clock/core';

const formats = new Map<string, Intl.DateTimeFormat>();

function formatOf(timeZone: string): Intl.DateTimeFormat {
  let format = formats.get(timeZone);
  if (!format) {
    format = new Intl.DateTimeFormat('en-GB', {
      timeZone,
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
      second: 'numeric',
      hourCycle: 'h23',
    });
    formats.set(timeZone, format);
  }
  return format;
}

/**
 * Local date and time at a place, as a clock second.
 *
 * @param timeZone IANA name
 */
export function civilSecond(instant: Date, timeZone: string): ClockSecond {
  const part: Record<string, number> = {};
  for (const { type, value } of formatOf(timeZone).formatToParts(instant))
    part[type] = Number(value);
  const { year = 1970, month = 1, day = 1, hour = 0, minute = 0, second = 0 } = part;
  return epochDayOf({ year, month, day }) * SECONDS_PER_DAY + hour * 3600 + minute * 60 + second;
}

/** The device's time zone. */
export const deviceZone = (): string => new Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Whether the browser knows a time zone, under any of its names. */
export function isZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

/** Time zones to choose from; a few other names are accepted too. */
export const knownZones = (): readonly string[] => Intl.supportedValuesOf('timeZone');
