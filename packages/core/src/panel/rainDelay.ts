/** Conversion of a rain delay between its end, as in the plan, and the count on a display. */
import type { RainDelayOfKind } from '../plan/kind.ts';
import {
  formatDate,
  formatMoment,
  parseMoment,
  SECONDS_PER_DAY,
  type ClockSecond,
} from '../time/calendar.ts';
import type { PanelNow } from './line.ts';
import type { PanelValue } from './value.ts';

type RainDelay = Extract<PanelValue, { kind: 'rain-delay' }>;
const SECONDS_PER_HOUR = 3600;

const rainDelayOff: RainDelay = { kind: 'rain-delay', unit: 'off', count: 0 };

const momentOf = ({ today, secondOfDay }: Pick<PanelNow, 'today' | 'secondOfDay'>): ClockSecond =>
  today * SECONDS_PER_DAY + secondOfDay;

/**
 * What the display shows of a delay.
 *
 * @param resumes `settings.wateringResumes`
 */
export function rainDelayShown(resumes: string | undefined, now: PanelNow): RainDelay {
  const ends = resumes === undefined ? null : parseMoment(resumes);
  const present = momentOf(now);
  if (ends === null || ends <= present) return rainDelayOff;
  const day = Math.floor(ends / SECONDS_PER_DAY);
  switch (now.style.rainDelay?.unit) {
    case 'hours':
      return {
        kind: 'rain-delay',
        unit: 'hours',
        count: Math.ceil((ends - present) / SECONDS_PER_HOUR),
      };
    case 'days':
      return {
        kind: 'rain-delay',
        unit: 'days',
        count:
          now.style.rainDelay.ends === 'midnight'
            ? day - now.today
            : Math.ceil((ends - present) / SECONDS_PER_DAY),
      };
    case 'date':
    case undefined:
      return { kind: 'rain-delay', unit: 'date', count: day };
  }
}

/**
 * The latest end of a delay that this timer can be set to now.
 *
 * @returns a value for `settings.wateringResumes`; null: any date, or the kind's delays are not known
 */
export function latestRainDelayEnd(
  now: Pick<PanelNow, 'today' | 'secondOfDay'>,
  kind: RainDelayOfKind | undefined,
): string | null {
  const longest = kind?.allowed?.at(-1);
  if (!kind || kind.unit === 'date' || longest === undefined) return null;
  return rainDelayEnds({ kind: 'rain-delay', unit: kind.unit, count: longest }, now, kind);
}

/**
 * End of a delay of some length from now: hours count from the minute, days until a midnight, unless the kind says otherwise.
 *
 * @returns a value for `settings.wateringResumes`; null: off
 */
export function rainDelayEnds(
  { unit, count }: RainDelay,
  now: Pick<PanelNow, 'today' | 'secondOfDay'>,
  kind: RainDelayOfKind | undefined,
): string | null {
  if (unit === 'off') return null;
  if (unit === 'date') return formatDate(count);
  const days = unit === 'hours' ? count / 24 : count;
  const ends = kind?.ends ?? (unit === 'hours' ? 'minute' : 'midnight');
  if (ends === 'midnight') return formatDate(now.today + Math.ceil(days));
  const minute = Math.floor(momentOf(now) / 60) * 60;
  return formatMoment(minute + Math.round(days * SECONDS_PER_DAY)).slice(0, 16);
}
