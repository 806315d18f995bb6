/** What a homeowner is told about rain, from the site's choice (field guide, Schools) and known equipment. */
import { rainDelayWords } from '../plan/kindWords.ts';
import type { RainDelayOfKind } from '../plan/kind.ts';
import type { RainSensor } from '../survey/rainSensor.ts';
import type { RainWay } from '../survey/survey.ts';
import { say } from '../language/say.ts';

interface Facts {
  /** What was agreed for the site; absent: nothing. */
  readonly way: RainWay | undefined;
  readonly sensor: RainSensor;
  /** Absent: the kind has none, or it is not known. */
  readonly delay: RainDelayOfKind | undefined;
}

const switchOff = () => [
  say`When it rains, switch the timer off. Switch it on again when the ground has dried.`,
  say`It does not start again by itself, so remember to switch it on.`,
];

function delayLines(delay: Facts['delay']): string[] {
  return [
    delay
      ? say`When it rains, set the rain delay: ${rainDelayWords(delay)}. Watering starts again by itself afterwards.`
      : say`When it rains, set the rain delay to a day or more. Watering starts again by itself afterwards.`,
    say`To start sooner, set the rain delay to off.`,
  ];
}

/** A sensor is mentioned only if one was seen. */
export function rainAdvice({ way, sensor, delay }: Facts): readonly string[] {
  const byHand = way === 'switch-off' ? switchOff() : delayLines(delay);
  if (sensor.state !== 'fitted') {
    const none = sensor.state === 'none' ? say`This timer has no rain sensor.` : null;
    return [...(none === null ? [] : [none]), ...byHand];
  }
  const name = sensor.kind === 'soil' ? say`soil sensor` : say`rain sensor`;
  if (sensor.bypassed)
    return [say`The ${name} is bypassed at the timer, so it waters in the rain.`, ...byHand];
  if (way === 'delay' || way === 'switch-off') return byHand;
  return [
    say`There is nothing to do. The ${name} stops watering and allows it again when it has dried.`,
    say`If it waters in the rain, check the sensor switch. It should be on active, not on bypass.`,
  ];
}
