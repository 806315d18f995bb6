import { useState } from 'react';
import { Button, Checkbox, Input } from 'antd';
import {
  isTwoWire,
  rainSensorOf,
  removeStationChange,
  runsWithLinked,
  surveyOf,
  type Plan,
  type PlanChange,
  type Station,
  type Survey,
  say,
  lengthWords,
} from '@water-clock/core';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { useKind } from '../timerKind/useKind.ts';
import { DecoderField, LinkField } from './StationFacts.tsx';

type Fields = Extract<PlanChange, { type: 'set-station' }>['fields'];
type Set = (fields: Fields) => string | null;

/** Switches of a station: field, default, label. */
const SWITCHES = [
  ['enabled', true, say`enabled`],
  ['pump', true, say`uses the pump`],
  ['needsPump', false, say`needs the pump`],
  ['obeysRainSensor', true, say`uses the rain sensor`],
  ['underCover', false, say`under cover`],
  ['flowSensor', false, say`on a flow sensor`],
  ['overhead', true, say`sprays overhead (not drip)`],
] as const;

type Switch = (typeof SWITCHES)[number][0];

/** Switches that mean nothing here, without a pump or sensor. A changed switch always shows. */
function isIdle(one: Switch, station: Station, { plan, survey }: Props): boolean {
  const { device = {} } = survey;
  const hasPump =
    device.pump !== undefined || plan.stations.some(({ needsPump }) => needsPump === true);
  if (station[one] !== undefined) return false;
  if (one === 'pump') return !hasPump;
  if (one === 'obeysRainSensor') return rainSensorOf(plan.settings, device).state === 'none';
  return false;
}

const minutes = (seconds: number | undefined) => (seconds === undefined ? null : seconds / 60);

interface Props {
  readonly plan: Plan;
  readonly survey: Survey;
  readonly editor: TimerEditor;
}

function StationFields({
  station,
  set,
  ...props
}: Props & {
  readonly station: Station;
  readonly set: Set;
}) {
  const { plan, survey, editor } = props;
  const { number } = station;
  const isTwoWireTimer = isTwoWire(survey, useKind(plan));
  const seconds = (value: number | null) => (value === null ? null : Math.round(value * 60));
  return (
    <div className="stack">
      <div className="tiles of-150 at-foot">
        <NumberField
          label={say`Longest cycle before run-off`}
          unit={say`minutes`}
          decimal
          value={minutes(station.cycleSeconds)}
          least={0.1}
          most={1440}
          empty={say`not split`}
          commit={(value) => set({ cycleSeconds: seconds(value) })}
        />
        <NumberField
          label={say`Shortest soak`}
          unit={say`minutes`}
          decimal
          value={minutes(station.soakSeconds)}
          most={1440}
          empty={say`not split`}
          commit={(value) => set({ soakSeconds: seconds(value) })}
        />
        <NumberField
          label={say`Flow`}
          unit={say`litres a minute`}
          decimal
          value={station.flowLpm ?? null}
          empty={say`not known`}
          commit={(flowLpm) => set({ flowLpm })}
        />
        <LinkField number={number} plan={plan} editor={editor} />
        {isTwoWireTimer && <DecoderField {...props} number={number} />}
      </div>
      {plan.timer.cycleSoak !== 'station' && (
        <p className="soft">{say`This timer has no cycle and soak by station. These values are recorded but not used.`}</p>
      )}
      <div
        className="tiles near"
        role="group"
        aria-label={say`Switches for station ${station.number}`}
      >
        {SWITCHES.filter(([name]) => !isIdle(name, station, props)).map(([name, usual, words]) => (
          <Checkbox
            className="check"
            key={name}
            checked={station[name] ?? usual}
            onChange={(event) => {
              const { checked } = event.target;
              set({ [name]: checked === usual ? null : checked });
            }}
          >
            {words}
          </Checkbox>
        ))}
        {survey.device?.masterValve === true && (
          <Checkbox
            className="check"
            checked={surveyOf(survey, number).masterValve ?? true}
            onChange={({ target }) =>
              editor.commit({
                type: 'note-station',
                station: number,
                fields: { masterValve: target.checked ? null : false },
              })
            }
          >{say`opens the master valve`}</Checkbox>
        )}
      </div>
    </div>
  );
}

/** What is unusual about a station, in a few words. */
function stationWords(station: Station): string {
  const split =
    station.cycleSeconds !== undefined && station.soakSeconds !== undefined
      ? [say`${lengthWords(station.cycleSeconds)}, soak ${lengthWords(station.soakSeconds)}`]
      : [];
  const off = station.enabled === false ? [say`disabled`] : [];
  const linked = station.linkedTo === undefined ? [] : [say`same as station ${station.linkedTo}`];
  return [...off, ...linked, ...split].join(', ');
}

function StationRow({ station, ...props }: Props & { readonly station: Station }) {
  const { plan, editor } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const set: Set = (fields) =>
    commitWords(editor, { type: 'set-station', station: station.number, fields });
  const finish = () => {
    if (typed === null) return;
    setTyped(null);
    const name = typed.trim() === '' ? null : typed.trim();
    if (name !== (station.name ?? null)) set({ name });
  };
  const programs = plan.programs
    .filter((program) =>
      runsWithLinked(plan, program).some(
        (run) => run.station === station.number && run.seconds > 0,
      ),
    )
    .map(({ letter }) => letter);
  return (
    <li>
      <div className="row">
        <b className="large">{station.number}</b>
        <Input
          aria-label={say`Name of station ${station.number}`}
          placeholder={say`what it waters`}
          maxLength={80}
          value={typed ?? station.name ?? ''}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={finish}
          onKeyDown={(event) => {
            if (event.key === 'Enter') finish();
            if (event.key === 'Escape') setTyped(null);
          }}
        />
        <span className="soft push-others">
          {programs.length > 0 ? say`in ${programs.join(', ')}` : say`in no program`}
          {stationWords(station) && ` · ${stationWords(station)}`}
        </span>
        <span className="row near in-line">
          <Button
            aria-expanded={open}
            aria-label={
              open
                ? say`Close station ${station.number}`
                : say`Soak, flow, switches of station ${station.number}`
            }
            onClick={() => setOpen(!open)}
          >
            {open ? say`Close` : say`Soak, flow, switches`}
          </Button>
          <Button
            aria-label={say`Delete station ${station.number}`}
            onClick={() => editor.commit(removeStationChange(plan, station.number))}
          >{say`Delete`}</Button>
        </span>
      </div>
      {open && <StationFields {...props} station={station} set={set} />}
    </li>
  );
}

/** Stations by terminal number, with what they water. */
export function StationList(props: Props) {
  const { plan, editor } = props;
  const free = Array.from({ length: plan.timer.stationCount }, (_, i) => i + 1).find(
    (number) => !plan.stations.some((station) => station.number === number),
  );
  return (
    <div className="stack">
      <ul className="list">
        {plan.stations.map((station) => (
          <StationRow key={station.number} {...props} station={station} />
        ))}
      </ul>
      <Button
        disabled={free === undefined}
        onClick={() =>
          free !== undefined && editor.commit({ type: 'add-station', station: { number: free } })
        }
      >
        {free === undefined
          ? say`All ${plan.timer.stationCount} stations are added`
          : say`Add station ${free}`}
      </Button>
    </div>
  );
}
