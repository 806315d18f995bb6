/** What a homeowner is told about rain, by the way in which a house goes (field guide, Schools). */
import type { RainWay } from '../survey/survey.ts';

export const RAIN_ADVICE: Readonly<Record<RainWay, readonly string[]>> = {
  sensor: [
    'Nothing: the rain sensor stops it and lets it go on when it has dried.',
    'If it waters in the rain, its switch may stand on bypass: put it back on active.',
  ],
  delay: [
    'Set the rain delay to a day or more; it goes on by itself afterwards.',
    'To start again sooner, set the delay back to off.',
  ],
  'switch-off': [
    'Switch it off, and on again when the ground has dried.',
    'It does not go on by itself: do not forget it.',
  ],
};
