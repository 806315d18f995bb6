/** What a kind can do, in one line for a list. */
import { listed } from '../words/words.ts';
import type { TimerKind } from './kind.ts';
import type { Timer } from './plan.ts';
import { plural, say } from '../language/say.ts';

/** Day rules in a list's words. */
const RULES: Readonly<Record<Timer['dayRules'][number], () => string>> = {
  daily: () => say`every day`,
  weekdays: () => say`weekdays`,
  interval: () => say`every few days`,
  odd: () => say`odd dates`,
  even: () => say`even dates`,
  hours: () => say`every few hours`,
};

/** `2 stations, 2 programs, 4 starts each; weekdays, every few days; percent by month`. */
export function kindLine({ timer }: Pick<TimerKind, 'timer'>): string {
  const { scope, byMonth } = timer.seasonal;
  return [
    [
      plural(timer.stationCount, '# station', '# stations'),
      plural(timer.programCount, '# program', '# programs'),
      plural(timer.startsPerProgram, '# start each', '# starts each'),
    ].join(', '),
    listed(timer.dayRules.map((rule) => RULES[rule]())),
    scope === 'none'
      ? say`no percent`
      : byMonth
        ? say`percent by month`
        : scope === 'timer'
          ? say`one percent for all programs`
          : say`percent by program`,
  ].join('; ');
}
