/** What a homeowner is told about rain, by how this house handles it (field guide, Schools) and by what is known to be there. */
import { rainDelayWords } from '../plan/kindWords.ts';
import type { RainDelayOfKind } from '../plan/kind.ts';
import type { RainSensor } from '../survey/rainSensor.ts';
import type { RainWay } from '../survey/survey.ts';

interface Facts {
  /** What was agreed for the house; absent: nothing was. */
  readonly way: RainWay | undefined;
  readonly sensor: RainSensor;
  /** Absent: the kind has none, or nobody knows. */
  readonly delay: RainDelayOfKind | undefined;
}

const SWITCH_OFF = [
  'When it rains, switch the timer off. When the ground has dried, switch it on again.',
  'It does not start again by itself, so do not forget it.',
];

function delayLines(delay: Facts['delay']): string[] {
  return [
    delay
      ? `When it rains, set the rain delay: ${rainDelayWords(delay)}. Watering starts again by itself afterwards.`
      : 'When it rains, set the rain delay to a day or more. Watering starts again by itself afterwards.',
    'To start sooner, set the delay to off.',
  ];
}

/** A sensor is promised only where one was seen. */
export function rainAdvice({ way, sensor, delay }: Facts): readonly string[] {
  const byHand = way === 'switch-off' ? SWITCH_OFF : delayLines(delay);
  if (sensor.state !== 'fitted') {
    const none = sensor.state === 'none' ? 'This timer has no rain sensor.' : null;
    return [...(none === null ? [] : [none]), ...byHand];
  }
  const name = sensor.kind === 'soil' ? 'soil sensor' : 'rain sensor';
  if (sensor.bypassed)
    return [`The ${name} is switched off at the timer, so it waters in the rain.`, ...byHand];
  if (way === 'delay' || way === 'switch-off') return byHand;
  return [
    `You need do nothing: the ${name} stops watering and allows it again when it has dried.`,
    'If it waters in the rain, check the sensor switch: it must be on active, not on bypass.',
  ];
}
