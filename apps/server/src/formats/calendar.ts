import ICAL from 'ical.js';
import { oneLine } from './one-line.ts';

export interface CalendarEvent {
  readonly id: string;
  readonly summary: string;
  /** `YYYY-MM-DD` for all-day events, otherwise `YYYY-MM-DDTHH:MM:SS` in local time. */
  readonly start: string;
  /** The first moment after it. */
  readonly end: string;
  /** Recurrence rule (RFC 5545, 3.3.10). */
  readonly rule?: Readonly<Record<string, string | number | readonly (string | number)[]>>;
}

/**
 * An iCalendar file (RFC 5545). Names become single lines.
 *
 * @param product identifier of the part of the product that made it
 * @param made time of creation, ISO instant
 */
export function calendarOf(
  name: string,
  product: string,
  made: string,
  events: readonly CalendarEvent[],
): string {
  const stamp = `${made.slice(0, 19)}Z`;
  return ICAL.stringify([
    'vcalendar',
    [
      ['version', {}, 'text', '2.0'],
      ['prodid', {}, 'text', `-//Water Clock//${product}//EN`],
      ['name', {}, 'text', oneLine(name)],
      ['x-wr-calname', {}, 'text', oneLine(name)],
    ],
    events.map(({ id, summary, start, end, rule }) => {
      const type = start.includes('T') ? 'date-time' : 'date';
      return [
        'vevent',
        [
          ['uid', {}, 'text', id],
          ['dtstamp', {}, 'date-time', stamp],
          ['dtstart', {}, type, start],
          ['dtend', {}, type, end],
          ['summary', {}, 'text', oneLine(summary)],
          ...(rule ? [['rrule', {}, 'recur', rule]] : []),
        ],
        [],
      ];
    }),
  ]);
}
