/** What a timer can do, in words. */
import type { OnOverlap, Seasonal, Timer } from '@water-clock/core';

export const RULE_WORDS: Record<Timer['dayRules'][number], string> = {
  daily: 'every day',
  weekdays: 'weekdays',
  interval: 'every so many days',
  odd: 'odd dates',
  even: 'even dates',
  hours: 'every so many hours',
};

export const WINDOW_WORDS: Record<Timer['inWindow'], string> = {
  ignore: 'it has none, and waters on',
  cut: 'what meets them is cut off or lost',
  pause: 'watering pauses and goes on after them',
};

export const SOAK_WORDS: Record<Timer['cycleSoak'], string> = {
  none: 'not at all',
  station: 'by station',
  program: 'by program',
};

export const SCOPE_WORDS: Record<Timer['seasonal']['scope'], string> = {
  none: 'it has none',
  timer: 'one for the whole timer',
  program: 'one for each program',
};

export const ROUNDING_WORDS: Record<Seasonal['rounding'], string> = {
  nearest: 'to the nearest',
  down: 'down',
  up: 'up',
};

export const UNIT_WORDS = { seconds: 'seconds', minutes: 'minutes' };
export const OVERLAP_WORDS: Record<OnOverlap, string> = {
  queue: 'the second cycle waits for the first to end',
  drop: 'the second start is lost',
  cut: 'the first cycle is cut off',
  together: 'both run at once',
  share: 'both run, with no more stations open than its limit',
};

export const BY_HAND_WORDS: Record<NonNullable<Timer['manualDuring']>, string> = {
  replace: 'the cycle ends',
  refuse: 'nothing happens',
};

export const RAIN_SENSOR_WORDS: Record<NonNullable<Timer['onRain']>, string> = {
  'dry-run': 'cycles go on, with no valve open',
  lose: 'cycles are lost',
};

type PowerLoss = Required<NonNullable<Timer['powerLoss']>>;

export const OUTAGE_WORDS: Record<PowerLoss['clock'], string> = {
  kept: 'is still right',
  stops: 'goes on from where it stood',
  resets: 'begins at a fixed date',
};

export const MEMORY_WORDS: Record<PowerLoss['settings'], string> = {
  kept: 'are still there',
  factory: 'are those of the factory',
};
