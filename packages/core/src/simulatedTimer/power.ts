/** What a power cut and a rain delay leave of a timer's clock and settings. */
import { assertDefined } from '../document/assertDefined.ts';
import type { Plan } from '../plan/plan.ts';
import { resumesAt } from '../plan/starts.ts';
import { formatMoment, parseMoment, type ClockSecond } from '../time/calendar.ts';
import type { SimulatedTimerState } from './timerState.ts';

/** What a clock shows after a reset where its kind says nothing else. */
export const CLOCK_AFTER_RESET = '2020-01-01T00:00';

/** The rain delay of a plan, by the timer's clock; null: none. */
export function resumesOf(plan: Plan): ClockSecond | null {
  const resumes = resumesAt(plan);
  return resumes === -Infinity ? null : resumes;
}

/**
 * What a rain delay changes. The plan says its end to the minute, as its settings do; what counts is the second.
 *
 * @param clock what the timer's clock shows
 * @param hours 0: none any more
 */
export function delayed(
  plan: Plan,
  clock: ClockSecond,
  hours: number,
): Pick<SimulatedTimerState, 'plan' | 'resumes'> {
  const { wateringResumes: _before, ...settings } = plan.settings;
  if (hours === 0) return { resumes: null, plan: { ...plan, settings } };
  const resumes = clock + hours * 3600;
  const wateringResumes = formatMoment(Math.ceil(resumes / 60) * 60).slice(0, 16);
  return { resumes, plan: { ...plan, settings: { ...settings, wateringResumes } } };
}

/** What changes as the power comes back. @param stoodAt what the clock showed when it went */
export function poweredOn(
  { now, ahead, plan, factory }: Pick<SimulatedTimerState, 'now' | 'ahead' | 'plan' | 'factory'>,
  stoodAt: ClockSecond,
): Partial<SimulatedTimerState> {
  const { powerLoss, clockAfterReset } = plan.timer;
  const clocks = {
    kept: () => now + ahead,
    stops: () => stoodAt,
    resets: () => assertDefined(parseMoment(clockAfterReset ?? CLOCK_AFTER_RESET), 'a moment'),
  };
  const power = { outSince: null, ahead: clocks[powerLoss?.clock ?? 'kept']() - now };
  return powerLoss?.settings === 'factory' && factory
    ? { ...power, plan: factory, resumes: resumesOf(factory) }
    : power;
}
