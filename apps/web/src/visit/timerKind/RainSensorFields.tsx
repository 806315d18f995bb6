import {
  RAIN_SENSORS,
  rainSensorOf,
  SENSOR_WORDS,
  type TimerSensor,
  type Plan,
  type Survey,
  say,
} from '@water-clock/core';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';

type Fitted = (typeof RAIN_SENSORS)[number];
type Choice = 'unknown' | 'none' | 'some' | Fitted;

const isFitted = (choice: Choice): choice is Fitted => RAIN_SENSORS.some((one) => one === choice);

/** The rain sensor as one fact, and its switch if there is one. */
export function RainSensorFields({
  plan,
  survey,
  editor,
}: {
  readonly plan: Plan;
  readonly survey: Survey;
  readonly editor: Pick<TimerEditor, 'commit'>;
}) {
  const { device = {} } = survey;
  const sensor = rainSensorOf(plan.settings, device);
  const value: Choice = sensor.state === 'fitted' ? (sensor.kind ?? 'some') : sensor.state;
  const pick = (choice: Choice) => {
    const others = (device.sensors ?? []).filter(
      ({ kind }) => !RAIN_SENSORS.some((one) => one === kind),
    );
    const sensors: readonly TimerSensor[] = isFitted(choice)
      ? [{ kind: choice }, ...others]
      : others;
    const { sensors: _before, ...rest } = device;
    const isKnown = choice !== 'unknown' || others.length > 0;
    editor.commit({
      type: 'together',
      changes: [
        { type: 'set-settings', settings: { sensor: choice === 'none' ? 'none' : null } },
        { type: 'note', fields: { device: isKnown ? { ...rest, sensors } : rest } },
      ],
    });
  };
  return (
    <>
      <SelectField<Choice>
        label={say`Rain sensor`}
        value={value}
        options={[
          ['unknown', say`not checked yet`],
          ['none', 'none'],
          ...RAIN_SENSORS.map((one) => [one, SENSOR_WORDS[one]] as const),
          ...(value === 'some' ? [['some', say`fitted, type unknown`] as const] : []),
        ]}
        pick={pick}
      />
      {sensor.state === 'fitted' && (
        <SelectField
          label={say`Sensor switch`}
          value={sensor.bypassed ? 'bypass' : 'active'}
          options={[
            ['active', say`active`],
            ['bypass', say`bypassed: waters in the rain`],
          ]}
          pick={(next) =>
            editor.commit({
              type: 'set-settings',
              settings: { sensor: next === 'bypass' ? 'bypass' : null },
            })
          }
        />
      )}
    </>
  );
}
