/** The timer's clock as someone read it. A reading belongs to its visit: an older one says nothing about the clock now. */
import type { Survey } from '../survey/survey.ts';
import { parseMoment, SECONDS_PER_DAY } from '../time/calendar.ts';
import { clockAhead } from '../time/clock.ts';

/** Smaller errors do not count as a wrong clock. */
export const CLOCK_SECONDS = 60;

export interface ClockReading {
  /** Seconds by which the timer's clock was ahead. */
  readonly ahead: number;
  /** The clock was keyed in after it was read. */
  readonly isSet: boolean;
}

/** The clock was keyed in in the open visit. */
export const isClockSet = ({ visit }: Survey): boolean =>
  visit?.keyIn?.ticked.includes('time') === true;

/** What was read in the open visit; null: no one has checked the clock in it, or no visit is open. */
export function clockReading(survey: Survey): ClockReading | null {
  const { visit, device = {} } = survey;
  const { clockShown = '', clockReally = '' } = device;
  const shown = parseMoment(clockShown);
  const really = parseMoment(clockReally);
  if (!visit || shown === null || really === null || clockReally < visit.began) return null;
  const day = Math.floor(shown / SECONDS_PER_DAY);
  const ahead = clockAhead({ day, secondOfDay: shown - day * SECONDS_PER_DAY }, really);
  return { ahead, isSet: isClockSet(survey) };
}
