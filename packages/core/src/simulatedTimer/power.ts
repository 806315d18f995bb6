/** Effects of power cuts and rain delays on a timer's clock and settings. */
import { assertDefined } from '../document/assertDefined.ts';
import type { Plan } from '../plan/plan.ts';
import { resumesAt } from '../plan/starts.ts';
import { formatMoment, parseMoment, type ClockSecond } from '../time/calendar.ts';
import type { SimulatedTimerState } from './timerState.ts';

/** What a clock shows after a reset by default. */
export const CLOCK_AFTER_RESET = '2020-01-01T00:00';

/** The plan's rain delay, by the timer's clock; null: none. */
export function resumesOf(plan: Plan): ClockSecond | null {
  const resumes = resumesAt(plan);
  return resumes === -Infinity ? null : resumes;
}

/**
 * Change for a rain delay. The plan holds its end to the minute, as settings do; the second is what counts.
 *
 * @param clock time on the timer's clock
 * @param hours 0: ends it
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

/**
 * Change when power returns.
 *
 * @param stoodAt time on the clock when it failed
 */
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
