/** Differences on the panel between two plans of one timer, a setting a line, as the planner and the office list them. */
import type { Difference } from '../plan/difference.ts';
import type { Plan } from '../plan/plan.ts';
import { say } from '../language/say.ts';
import { lengthWords, timeWords, weekdaysWords } from '../words/words.ts';
import { settingsToChange } from './keyIn.ts';
import type { PanelNow } from './line.ts';
import { panelText, type PanelStyle, type PanelValue } from './value.ts';

/** A value as people say it, if the display writes it differently. */
function valueWords(value: PanelValue, style: PanelStyle): string {
  switch (value.kind) {
    case 'time':
      return value.second === null ? say`off` : timeWords(value.second, style.clock);
    case 'run':
    case 'length':
      return value.seconds === 0 ? say`off` : lengthWords(value.seconds);
    case 'days':
      return value.rule === 'weekdays' && value.weekdays.length > 0
        ? weekdaysWords(value.weekdays)
        : panelText(value, style).toLowerCase();
    case 'switch':
    case 'rain-delay':
    case 'sensor':
      return panelText(value, style).toLowerCase();
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
