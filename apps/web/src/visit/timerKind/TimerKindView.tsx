import { useState, type ReactNode } from 'react';
import { Button, Checkbox, Input } from 'antd';
import {
  CHANGER_WORDS,
  CHANGERS,
  delayForSlowValve,
  isTwoWire,
  listed,
  parseDate,
  POWER_WORDS,
  powerOf,
  POWERS,
  rainSensorOf,
  SENSOR_WORDS,
  type FittedTimer,
  say,
} from '@water-clock/core';
import { useLibrary } from '../../data/api/library.ts';
import { commitWords } from '../../data/editor/commitWords.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { TimerAbilities } from './TimerAbilities.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { KindCard } from './KindCard.tsx';
import { KindNotes } from './KindNotes.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { DateField } from '../../shared/fields/DateField.tsx';
import { RainSensorFields } from './RainSensorFields.tsx';

const OTHER_SENSORS = ['freeze', 'flow'] as const;

interface TextProps {
  readonly label: string;
  readonly value: string;
  readonly example: string;
  readonly commit: (text: string | null) => void;
}

function TextField({ label, value, example, commit }: TextProps) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <label className="labelled">
      {label}
      <Input
        value={typed ?? value}
        placeholder={example}
        maxLength={200}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => {
          if (typed !== null && typed.trim() !== value)
            commit(typed.trim() === '' ? null : typed.trim());
          setTyped(null);
        }}
      />
    </label>
  );
}

/** A group of facts; closed, it shows the main one. */
function Group({
  name,
  summary,
  openAtFirst,
  children,
}: {
  readonly name: string;
  readonly summary: string;
  readonly openAtFirst: boolean;
  readonly children: () => ReactNode;
}) {
  return (
    <Disclosure
      className="device-group"
      openAtFirst={openAtFirst}
      summary={
        <>
          <strong>{name}</strong> <span className="soft">{summary}</span>
        </>
      }
    >
      {() => <div className="device tiles fill">{children()}</div>}
    </Disclosure>
  );
}

const pumpWords = ({ pump, masterValve }: FittedTimer): string =>
  [pump ?? say`no pump recorded`, ...(masterValve ? [say`a master valve`] : [])].join(', ');

const changerWords = ({ changers, note }: FittedTimer): string =>
  [
    changers === undefined
      ? say`not recorded`
      : changers.length === 0
        ? say`nobody else`
        : listed(changers.map((one) => CHANGER_WORDS[one])),
    ...(note ? [note] : []),
  ].join('; ');

/** Facts of this timer, and what its kind can do. */
export default function TimerKindView(props: StepProps) {
  const { plan, survey, editor, today } = props;
  const device: FittedTimer = survey.device ?? {};
  const kinds = useLibrary('kinds');
  const kind = kinds.data?.find(
    ({ document }) => document.timer.name === plan.timer.name,
  )?.document;
  /** Sets facts; those without a value are removed. */
  const set = (more: { readonly [K in keyof FittedTimer]?: FittedTimer[K] | null | undefined }):
    string | null => {
    const next = Object.fromEntries(
      Object.entries({ ...device, ...more }).filter(
        ([, value]) => value !== null && value !== undefined,
      ),
    );
    return commitWords(editor, { type: 'note', fields: { device: next } });
  };
  const setBackup = (more: { kind?: string | null; date?: string | null }) => {
    const next = Object.fromEntries(
      Object.entries({ ...device.backup, ...more }).filter(([, value]) => value !== null),
    );
    return set({ backup: Object.keys(next).length > 0 ? next : null });
  };
  const power = powerOf(survey, kind ?? null);
  const isBattery = power === 'battery';
  const live = device.liveTerminals ?? [];
  const slow = device.slowValveSeconds;
  const sensor = rainSensorOf(plan.settings, device);
  const sensorWords =
    sensor.state === 'fitted'
      ? sensor.kind
        ? SENSOR_WORDS[sensor.kind]
        : say`a rain sensor`
      : sensor.state === 'none'
        ? say`no rain sensor`
        : say`not checked yet`;
  const usesPump = device.pump !== undefined || plan.stations.some(({ needsPump }) => needsPump);
  return (
    <div className="survey-view stack page-column">
      <KindCard timer={plan.timer} kind={kind} />
      <h2>{say`This timer`}</h2>
      <Group
        name={say`Power`}
        summary={power ? POWER_WORDS[power] : say`not recorded`}
        openAtFirst={power === null || (isBattery && device.batteryDate === undefined)}
      >
        {() => (
          <>
            <SelectField
              label={say`Power`}
              value={power ?? ''}
              options={[
                ['', say`not recorded`] as const,
                ...POWERS.map((one) => [one, POWER_WORDS[one]] as const),
              ]}
              pick={(value) => set({ power: POWERS.find((one) => one === value) ?? null })}
            />
            {power === 'mains' && (
              <p className="caution">{say`Mains voltage inside. Isolate before opening the wiring compartment. Mains work is for a licensed electrician.`}</p>
            )}
            {isBattery ? (
              <>
                <TextField
                  label={say`Battery`}
                  value={device.batteryKind ?? ''}
                  example="9 V"
                  commit={(batteryKind) => set({ batteryKind })}
                />
                <DateField
                  label={say`Battery installed`}
                  value={device.batteryDate ?? ''}
                  commit={(date) => set({ batteryDate: parseDate(date) === null ? null : date })}
                />
              </>
            ) : (
              <>
                <TextField
                  label={say`Backup battery`}
                  value={device.backup?.kind ?? ''}
                  example={say`coin cell`}
                  commit={(kind) => setBackup({ kind })}
                />
                <DateField
                  label={say`Backup battery installed`}
                  value={device.backup?.date ?? ''}
                  commit={(date) => setBackup({ date: parseDate(date) === null ? null : date })}
                />
              </>
            )}
            {!isBattery && (
              <>
                <TextField
                  label={say`Transformer`}
                  value={device.transformer ?? ''}
                  example="24 V, 1 A"
                  commit={(transformer) => set({ transformer })}
                />
                <TextField
                  label={say`Modules`}
                  value={device.modules ?? ''}
                  example={say`for example, two of four stations`}
                  commit={(modules) => set({ modules })}
                />
              </>
            )}
            {kind?.inletScreen && (
              <p className="soft">{say`Clean the inlet screen on every visit: close the tap, unscrew the timer and rinse the screen.`}</p>
            )}
          </>
        )}
      </Group>
      {!isBattery && (
        <>
          <Group
            name={say`Pump and valves`}
            summary={pumpWords(device)}
            openAtFirst={usesPump || device.masterValve === true}
          >
            {() => (
              <>
                <TextField
                  label={say`Pump`}
                  value={device.pump ?? ''}
                  example={say`for example, bore pump on the pump terminal`}
                  commit={(pump) => set({ pump })}
                />
                {usesPump && (
                  <SelectField
                    label={say`Between stations the pump`}
                    value={device.pumpRunsOn === undefined ? '' : String(device.pumpRunsOn)}
                    options={[
                      ['', say`not known`],
                      ['false', say`stops`],
                      ['true', say`keeps running`],
                    ]}
                    pick={(picked) => set({ pumpRunsOn: picked === '' ? null : picked === 'true' })}
                  />
                )}
                <NumberField
                  label={say`Tank refill time`}
                  unit={say`minutes`}
                  least={1}
                  most={1440}
                  value={device.tankRefillMinutes ?? null}
                  empty={say`no tank`}
                  commit={(tankRefillMinutes) => set({ tankRefillMinutes })}
                />
                <div>
                  <NumberField
                    label={say`Slowest valve closing time`}
                    unit={say`seconds`}
                    least={1}
                    most={600}
                    value={slow ?? null}
                    empty={say`not recorded`}
                    commit={(slowValveSeconds) => set({ slowValveSeconds })}
                  />
                  {slow !== undefined &&
                    delayForSlowValve(slow) !== plan.settings.stationDelaySeconds &&
                    delayForSlowValve(slow) <= plan.timer.longestStationDelaySeconds && (
                      <Button
                        onClick={() =>
                          editor.commit({
                            type: 'set-settings',
                            settings: { stationDelaySeconds: delayForSlowValve(slow) },
                          })
                        }
                      >{say`Set a station delay of ${delayForSlowValve(slow)} s`}</Button>
                    )}
                </div>
                <Checkbox
                  className="check"
                  checked={device.masterValve ?? false}
                  onChange={(event) => set({ masterValve: event.target.checked ? true : null })}
                >{say`a master valve`}</Checkbox>
                {usesPump && (
                  <p className="caution whole">{say`Never run a pump against closed valves. During a station delay it must stop or be protected.`}</p>
                )}
              </>
            )}
          </Group>
          <Group
            name={say`Wiring`}
            summary={live.length > 0 ? say`wires on ${listed(live)}` : say`not recorded`}
            openAtFirst={isTwoWire(survey, kind ?? null)}
          >
            {() => (
              <>
                <Checkbox
                  className="check"
                  checked={isTwoWire(survey, kind ?? null)}
                  onChange={(event) => set({ twoWire: event.target.checked })}
                >{say`two-wire with decoders`}</Checkbox>
                <div className="labelled whole">
                  {say`Wired terminals`}
                  <div className="days" role="group" aria-label={say`Live terminals`}>
                    {Array.from({ length: plan.timer.stationCount }, (_, i) => i + 1).map(
                      (number) => (
                        <Button
                          className="day"
                          key={number}
                          aria-pressed={live.includes(number)}
                          onClick={() => {
                            const next = live.includes(number)
                              ? live.filter((one) => one !== number)
                              : [...live, number].sort((a, b) => a - b);
                            set({ liveTerminals: next.length > 0 ? next : null });
                          }}
                        >
                          {number}
                        </Button>
                      ),
                    )}
                  </div>
                </div>
              </>
            )}
          </Group>
        </>
      )}
      <Group name={say`Sensors`} summary={sensorWords} openAtFirst={sensor.state === 'unknown'}>
        {() => (
          <>
            <RainSensorFields plan={plan} survey={survey} editor={editor} />
            <div className="labelled whole" role="group" aria-label={say`Other sensors`}>
              {say`Other sensors`}
              <div className="tiles near">
                {OTHER_SENSORS.map((kind) => (
                  <Checkbox
                    className="check"
                    key={kind}
                    checked={device.sensors?.some((sensor) => sensor.kind === kind) ?? false}
                    onChange={({ target }) => {
                      const others = (device.sensors ?? []).filter(
                        (sensor) => sensor.kind !== kind,
                      );
                      const next = target.checked ? [...others, { kind }] : others;
                      // An empty list would mean that there is no rain sensor, which no one has said here.
                      const isKnown = rainSensorOf(plan.settings, device).state !== 'unknown';
                      set({ sensors: next.length > 0 || isKnown ? next : null });
                    }}
                  >
                    {SENSOR_WORDS[kind]}
                  </Checkbox>
                ))}
              </div>
              <span className="soft">{say`Water on paths freezes. Do not water below about 3 °C, with or without a sensor.`}</span>
            </div>
          </>
        )}
      </Group>
      <Group
        name={say`Other people and notes`}
        summary={changerWords(device)}
        openAtFirst={device.changers === undefined}
      >
        {() => (
          <>
            <div className="labelled whole" role="group" aria-label={say`Who else can change it`}>
              {say`Who else can change it`}
              <div className="tiles near">
                {CHANGERS.map((one) => (
                  <Checkbox
                    className="check"
                    key={one}
                    checked={device.changers?.includes(one) ?? false}
                    onChange={(event) =>
                      set({
                        changers: CHANGERS.filter((each) =>
                          each === one ? event.target.checked : device.changers?.includes(each),
                        ),
                      })
                    }
                  >
                    {CHANGER_WORDS[one]}
                  </Checkbox>
                ))}
                {device.changers === undefined && (
                  <Button onClick={() => set({ changers: [] })}>{say`Nobody`}</Button>
                )}
              </div>
            </div>
            <TextField
              label={say`Timer note`}
              value={device.note ?? ''}
              example={say`for example, in the laundry, behind the door`}
              commit={(note) => set({ note })}
            />
          </>
        )}
      </Group>
      {kind && <KindNotes kind={kind} />}
      <Disclosure className="site-more" summary={say`Edit capabilities`}>
        {() => <TimerAbilities survey={survey} plan={plan} editor={editor} today={today} />}
      </Disclosure>
    </div>
  );
}
