/** Differences on the panel between two plans of one timer, a setting a line, as the planner and the office list them. */
import type { Difference } from '../plan/difference.ts';
import type { Plan } from '../plan/plan.ts';
import { say, wordsOf } from '../language/say.ts';
import { lengthWords, timeWords, weekdaysWords } from '../words/words.ts';
import { settingsToChange } from './keyIn.ts';
import type { PanelNow } from './line.ts';
import { panelText, type PanelStyle, type PanelValue } from './value.ts';

const RULE_WORDS = wordsOf({
  daily: 'every day',
  interval: 'interval',
  hours: 'every few hours',
  odd: 'odd dates',
  even: 'even dates',
  none: 'no day',
});
const SENSOR_WORDS = wordsOf({ active: 'active', bypass: 'bypassed', none: 'none fitted' });

function daysWords({ rule, weekdays }: Extract<PanelValue, { kind: 'days' }>): string {
  const days = weekdaysWords(weekdays);
  if (rule === 'weekdays') return days || RULE_WORDS.none;
  return days ? say`${RULE_WORDS[rule]}, not ${days}` : RULE_WORDS[rule];
}

/** A value as people say it, if the display writes it differently. */
function valueWords(value: PanelValue, style: PanelStyle): string {
  switch (value.kind) {
    case 'time':
      return value.second === null ? say`off` : timeWords(value.second, style.clock);
    case 'run':
    case 'length':
      return value.seconds === 0 ? say`off` : lengthWords(value.seconds);
    case 'days':
      return daysWords(value);
    case 'switch':
      return value.on ? say`on` : say`off`;
    case 'sensor':
      return SENSOR_WORDS[value.state];
    case 'rain-delay':
      return value.unit === 'off' ? say`off` : panelText(value, style).toLowerCase();
    default:
      return panelText(value, style);
  }
}

/** Every panel setting that differs, programs in order; the clock is not a setting. */
export const changedSettings = (before: Plan, after: Plan, now: PanelNow): Difference[] =>
  settingsToChange(after, before, now).map(({ name, was, value }) => ({
    what: name,
    before: was === null ? '' : valueWords(was, now.style),
    after: valueWords(value, now.style),
  }));
