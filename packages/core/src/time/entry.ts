/** Parses typed times of day and run times. */
import { say } from '../language/say.ts';
import { formatTime, type TimeText } from './calendar.ts';

/** Allowed input, for the message next to the field. */
export const timeEntryHelp = () => say`Type a time such as 5, 5:30, 530, 5p or 17:30.`;
export const runEntryHelp = () => say`Type minutes such as 12, 12:30 or 1h20; at most 24 hours.`;

/**
 * A time of day as typed: `5`, `5:30`, `530`, `5p`, `5.30 pm`, `17:30`, `1730`, `0` (midnight), `12a`. Without a or p, hours are on a
 * 24-hour clock.
 *
 * @returns null if it cannot be read as a time
 */
export function parseTimeEntry(typed: string): TimeText | null {
  const text = typed.trim().toLowerCase().replaceAll(/\s+/g, '');
  const match =
    /^(?<hour>\d{1,2})(?:[:.h](?<minute>\d{2})?)?(?<half>[ap]\.?m?\.?)?$/.exec(text) ??
    /^(?<hour>\d{1,2})(?<minute>\d{2})(?<half>[ap]\.?m?\.?)?$/.exec(text);
  if (!match?.groups) return null;
  const { hour: hourText, minute: minuteText, half } = match.groups;
  let hour = Number(hourText);
  const minute = Number(minuteText ?? 0);
  if (half) {
    if (hour < 1 || hour > 12) return null;
    hour = (hour % 12) + (half.startsWith('p') ? 12 : 0);
  }
  if (hour > 23 || minute > 59) return null;
  return formatTime(hour * 3600 + minute * 60);
}

const MOST_RUN_SECONDS = 86_400;

/**
 * A run time as typed: minutes (`12`, `7.5`, `12m`), minutes and seconds (`12:30`), hours (`1h`, `1h20`), seconds (`90s`). Empty, `-` and
 * `off` mean none.
 *
 * @returns seconds, 0 to 86,400; null if it cannot be read as a run time
 */
export function parseRunEntry(typed: string): number | null {
  const text = typed.trim().toLowerCase().replace(',', '.').replaceAll(/\s+/g, '');
  if (text === '' || text === '-' || text === 'off') return 0;
  let match: RegExpExecArray | null;
  let seconds: number;
  if ((match = /^(\d{1,4}(?:\.\d+)?)(?:m|min|')?$/.exec(text))) seconds = Number(match[1]) * 60;
  else if ((match = /^(\d{1,4}):([0-5]\d)$/.exec(text)))
    seconds = Number(match[1]) * 60 + Number(match[2]);
  else if ((match = /^(\d{1,2})h(?:([0-5]?\d)(?:m|min)?)?$/.exec(text)))
    seconds = Number(match[1]) * 3600 + Number(match[2] ?? 0) * 60;
  else if ((match = /^(\d{1,5})s$/.exec(text))) seconds = Number(match[1]);
  else return null;
  const whole = Math.round(seconds);
  return whole <= MOST_RUN_SECONDS ? whole : null;
}

/** Run time in a cell: `12`, `12:30`; empty for none. */
export function runEntryText(seconds: number): string {
  if (seconds === 0) return '';
  const minutes = Math.floor(seconds / 60);
  const rest = seconds % 60;
  return rest === 0 ? String(minutes) : `${minutes}:${String(rest).padStart(2, '0')}`;
}

/** A value one step up or down, onto multiples of the step, within the bounds. */
export function stepped(
  value: number,
  direction: 1 | -1,
  step: number,
  least: number,
  most: number,
): number {
  const next =
    direction > 0 ? (Math.floor(value / step) + 1) * step : (Math.ceil(value / step) - 1) * step;
  return Math.min(most, Math.max(least, next));
}

/** A start moved by one step of the timer, wrapping at midnight. */
export function steppedStart(secondOfDay: number, direction: 1 | -1, stepMinutes: number): number {
  const step = stepMinutes * 60;
  const next = stepped(secondOfDay, direction, step, -step, 86_400);
  return ((next % 86_400) + 86_400) % 86_400;
}
