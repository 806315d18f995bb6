/** What a timer can do, as messages. */
import type { OnOverlap, Seasonal, Timer } from '@water-clock/core';
import { say } from '@water-clock/core';

export const RULE_WORDS: Record<Timer['dayRules'][number], string> = {
  daily: say`every day`,
  weekdays: say`weekdays`,
  interval: say`every few days`,
  odd: say`odd dates`,
  even: say`even dates`,
  hours: say`every few hours`,
};

export const WINDOW_WORDS: Record<Timer['inWindow'], string> = {
  ignore: say`none; watering continues`,
  cut: say`watering inside them is cut off or lost`,
  pause: say`watering pauses and resumes after them`,
};

export const SOAK_WORDS: Record<Timer['cycleSoak'], string> = {
  none: say`not at all`,
  station: say`by station`,
  program: say`by program`,
};

export const SCOPE_WORDS: Record<Timer['seasonal']['scope'], string> = {
  none: say`none`,
  timer: say`one for the whole timer`,
  program: say`one for each program`,
};

export const ROUNDING_WORDS: Record<Seasonal['rounding'], string> = {
  nearest: say`to the nearest`,
  down: say`down`,
  up: 'up',
};

export const UNIT_WORDS = { seconds: say`seconds`, minutes: say`minutes` };
export const OVERLAP_WORDS: Record<OnOverlap, string> = {
  queue: say`the second cycle waits for the first to end`,
  drop: say`the second start is lost`,
  cut: say`the first cycle is cut off`,
  together: say`both run at once`,
  share: say`both run, within its limit of open stations`,
};

export const BY_HAND_WORDS: Record<NonNullable<Timer['manualDuring']>, string> = {
  replace: say`the cycle ends`,
  refuse: say`nothing happens`,
};

export const RAIN_SENSOR_WORDS: Record<NonNullable<Timer['onRain']>, string> = {
  'dry-run': say`cycles go on, with no valve open`,
  lose: say`cycles are lost`,
};

type PowerLoss = Required<NonNullable<Timer['powerLoss']>>;

export const OUTAGE_WORDS: Record<PowerLoss['clock'], string> = {
  kept: say`stays right`,
  stops: say`continues from where it stopped`,
  resets: say`restarts at a fixed date`,
};

export const MEMORY_WORDS: Record<PowerLoss['settings'], string> = {
  kept: say`are kept`,
  factory: say`return to factory settings`,
};
