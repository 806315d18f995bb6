import {
  parseSecond,
  pressWords,
  type ClockSecond,
  type Plan,
  type TimedPress,
} from '@water-clock/core';
import type { Mark } from './stripLayers.tsx';

/** Events on a timer in a period, as marks on the strip. */
export const marksOf = (
  presses: readonly TimedPress[],
  plan: Plan,
  from: ClockSecond,
  to: ClockSecond,
): Mark[] =>
  presses.flatMap((press) => {
    const at = parseSecond(press.at);
    const on = Math.floor(from / 86_400);
    return at === null || at < from || at >= to
      ? []
      : [{ at, words: pressWords(press, { plan, on, clock: '24' }) }];
  });
