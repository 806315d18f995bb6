/** What a homeowner is told about rain, by how the house handles it (field guide, Schools). */
import type { RainWay } from '../survey/survey.ts';

export const RAIN_ADVICE: Readonly<Record<RainWay, readonly string[]>> = {
  sensor: [
    'You need do nothing: the rain sensor stops watering and allows it again when it has dried.',
    'If it waters in the rain, check the sensor switch: it must be on active, not on bypass.',
  ],
  delay: [
    'Set the rain delay to a day or more. Watering starts again by itself afterwards.',
    'To start sooner, set the delay to off.',
  ],
  'switch-off': [
    'Switch it off. When the ground has dried, switch it on again.',
    'It does not start again by itself, so do not forget it.',
  ],
};
