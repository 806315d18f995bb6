/** Parts of a timer's panel, as text. */
import { rangesWords } from '../words/words.ts';
import type { PanelSetting, RainDelayOfKind } from './kind.ts';
import { say, wordsOf } from '../language/say.ts';

export const PANEL_WORDS: Record<PanelSetting, string> = wordsOf({
  clock: 'Date and time',
  percent: 'Seasonal percent',
  starts: 'Start times',
  runs: 'Run times',
  days: 'Watering days',
  soak: 'Soak',
  delay: 'Station delay',
  windows: 'No-water hours',
  pump: 'Pump',
  sensor: 'Sensor',
  mode: 'On and off',
});

/** Possible rain delays on this panel: `24, 48 or 72 hours`, `1 to 14, 99 or 180 days`, `a date`. */
export function rainDelayWords({ unit, allowed = [] }: RainDelayOfKind): string {
  if (unit === 'date') return say`the date on which watering resumes`;
  const lengths = rangesWords(allowed, 'or');
  const isOne = allowed.length === 1 && allowed[0] === 1;
  if (unit === 'hours') return isOne ? say`1 hour` : say`${lengths} hours`;
  return isOne ? say`1 day` : say`${lengths} days`;
}
