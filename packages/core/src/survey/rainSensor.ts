/** A timer's rain sensor as one fact, from the noted device and its switch. */
import type { Settings } from '../plan/plan.ts';
import type { FittedTimer, SensorKind } from './survey.ts';

/** What stops watering when it is wet. */
export const RAIN_SENSORS = ['rain', 'soil'] as const satisfies readonly SensorKind[];

export type RainSensor =
  | { readonly state: 'unknown' }
  | { readonly state: 'none' }
  | {
      readonly state: 'fitted';
      /** Null: type not noted. */
      readonly kind: (typeof RAIN_SENSORS)[number] | null;
      readonly bypassed: boolean;
    };

/** A sensor no one saw is unknown, not present. */
export function rainSensorOf(
  { sensor }: Pick<Settings, 'sensor'>,
  { sensors }: Pick<FittedTimer, 'sensors'> = {},
): RainSensor {
  if (sensor === 'none') return { state: 'none' };
  const kind = RAIN_SENSORS.find((one) => sensors?.some((each) => each.kind === one)) ?? null;
  const isBypassed = sensor === 'bypass';
  if (kind !== null || isBypassed) return { state: 'fitted', kind, bypassed: isBypassed };
  return { state: sensors ? 'none' : 'unknown' };
}
