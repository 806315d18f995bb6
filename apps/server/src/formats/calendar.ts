import ICAL from 'ical.js';
import { oneLine } from './one-line.ts';

export interface CalendarEvent {
  readonly id: string;
  readonly summary: string;
  /** `YYYY-MM-DD` for whole days, else `YYYY-MM-DDTHH:MM:SS` by the clock of the place. */
  readonly start: string;
  /** Not in it any more. */
  readonly end: string;
  /** How it comes again (RFC 5545, 3.3.10). */
  readonly rule?: Readonly<Record<string, string | number | readonly (string | number)[]>>;
}

/**
 * An iCalendar (RFC 5545). Names are one line each, whatever they hold.
 *
 * @param product of ours that made it
 * @param made when, as an ISO instant
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
