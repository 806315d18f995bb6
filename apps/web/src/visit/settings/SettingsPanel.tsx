import { useState } from 'react';
import { Button } from 'antd';
import {
  listed,
  momentWords,
  parseMoment,
  latestRainDelayEnd,
  rainDelayEnds,
  rainDelayWords,
  SECONDS_PER_DAY,
  type ClockSecond,
  type Plan,
  type RainDelayOfKind,
  type Survey,
  plural,
  say,
} from '@water-clock/core';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { RainSensorFields } from '../timerKind/RainSensorFields.tsx';
import { useKind } from '../timerKind/useKind.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { AdjustedTable } from './AdjustedTable.tsx';
import { HoursGrid } from './HoursGrid.tsx';
import { PercentOfTimer } from './PercentOfTimer.tsx';
import type { SetSettings } from './setSettings.ts';
import { WindowsEditor } from '../../shared/fields/WindowsEditor.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { DateField } from '../../shared/fields/DateField.tsx';
import './settings.css';

interface Props {
  readonly plan: Plan;
  readonly survey: Survey;
  readonly editor: TimerEditor;
  /** The current second at the site. */
  readonly now: ClockSecond;
}

const DRIVERS = [
  ['person', say`someone at the timer`],
  ['sensor', say`a weather sensor`],
  ['service', say`an online service`],
] as const;

function OffDays({ plan, set }: { readonly plan: Plan; readonly set: SetSettings }) {
  const off = plan.settings.offDaysOfMonth ?? [];
  const toggle = (day: number) => {
    const next = off.includes(day)
      ? off.filter((one) => one !== day)
      : [...off, day].sort((a, b) => a - b);
    set({ offDaysOfMonth: next.length > 0 ? next : null });
  };
  return (
    <div className="days" role="group" aria-label={say`Off days of the month`}>
      {Array.from({ length: 31 }, (_, i) => i + 1).map((day) => (
        <Button
          className="day day-never"
          key={day}
          aria-pressed={off.includes(day)}
          onClick={() => toggle(day)}
        >
          {day}
        </Button>
      ))}
    </div>
  );
}

/** Common lengths, if the kind's own are not known. */
const USUAL_DELAY: RainDelayOfKind = { unit: 'days', allowed: [1, 2, 3, 7], ends: 'midnight' };
/** Longer lists become a select. */
const MOST_BUTTONS = 4;

function RainDelay({
  plan,
  set,
  now,
}: Pick<Props, 'plan' | 'now'> & { readonly set: SetSettings }) {
  const { clock, order } = usePreferences();
  const kind = useKind(plan)?.rainDelay;
  const { unit, allowed = [] } = kind ?? USUAL_DELAY;
  const today = Math.floor(now / SECONDS_PER_DAY);
  const resumes = plan.settings.wateringResumes;
  const moment = resumes === undefined ? null : parseMoment(resumes);
  const words = (count: number) =>
    unit === 'hours' ? plural(count, '# hour', '# hours') : plural(count, '# day', '# days');
  const latest = latestRainDelayEnd({ today, secondOfDay: now - today * SECONDS_PER_DAY }, kind);
  const [isTooLong, setTooLong] = useState(false);
  const choose = (count: number) => {
    setTooLong(false);
    set({
      wateringResumes: rainDelayEnds(
        { kind: 'rain-delay', unit, count },
        { today, secondOfDay: now - today * SECONDS_PER_DAY },
        kind,
      ),
    });
  };
  return (
    <div className="row at-foot">
      {allowed.length <= MOST_BUTTONS ? (
        allowed.map((count) => (
          <Button key={count} onClick={() => choose(count)}>
            {words(count)}
          </Button>
        ))
      ) : (
        <SelectField
          label={say`Set to`}
          value={0}
          options={[
            [0, say`choose …`] as const,
            ...allowed.map((count) => [count, words(count)] as const),
          ]}
          pick={(count) => count > 0 && choose(count)}
        />
      )}
      <DateField
        label={say`No watering before`}
        value={resumes?.slice(0, 10) ?? ''}
        commit={(date) => {
          const isBeyond = latest !== null && date > latest.slice(0, 10);
          setTooLong(isBeyond);
          if (!isBeyond) set({ wateringResumes: date || null });
        }}
      />
      <Button
        disabled={resumes === undefined}
        onClick={() => set({ wateringResumes: null })}
      >{say`No delay`}</Button>
      {isTooLong && latest !== null && (
        <p
          className="fault"
          role="alert"
        >{say`This timer cannot be delayed that long. Its longest rain delay ends ${momentWords(parseMoment(latest) ?? now, { on: today, clock, order })}.`}</p>
      )}
      {moment !== null && moment > now && (
        <p className="soft">{say`Watering resumes ${momentWords(moment, { on: today, clock, order })}.`}</p>
      )}
      {kind && <p className="soft">{say`This timer can be set to ${rainDelayWords(kind)}.`}</p>}
    </div>
  );
}

/** Settings of the whole timer: percent, delay, no-water hours and days, stations at once, on or off. */
export default function SettingsPanel({
  plan,
  survey,
  editor,
  now,
  month,
}: Props & { readonly month: number }) {
  const { settings, timer } = plan;
  const set: SetSettings = (changed) =>
    commitWords(editor, { type: 'set-settings', settings: changed });
  const range = settings.percentRange;
  const windows = settings.noWaterWindows ?? [];
  const offDays = settings.offDaysOfMonth ?? [];
  const [refused, setRefused] = useState<string | null>(null);
  const driven = (settings.percentDrivenBy ?? 'person') !== 'person';
  return (
    <div className="settings tiles fill of-400 far">
      <section className="stack near">
        <h2>{say`Seasonal percent`}</h2>
        <PercentOfTimer plan={plan} month={month} set={set} />
        <div className="row at-foot">
          <SelectField
            label={say`Changed by`}
            value={settings.percentDrivenBy ?? 'person'}
            options={DRIVERS.map(([name, words]) => [name, words] as const)}
            pick={(value) => {
              const by = DRIVERS.find(([name]) => name === value)?.[0];
              if (by === undefined) return;
              set(
                by === 'person'
                  ? { percentDrivenBy: null, percentRange: null }
                  : { percentDrivenBy: by, percentRange: range ?? { lowest: 20, highest: 130 } },
              );
            }}
          />
          {driven && range && (
            <>
              <NumberField
                label={say`Lowest`}
                unit="%"
                value={range.lowest}
                most={500}
                commit={(lowest) => set({ percentRange: { ...range, lowest: lowest ?? 0 } })}
              />
              <NumberField
                label={say`Highest`}
                unit="%"
                value={range.highest}
                most={500}
                commit={(highest) => set({ percentRange: { ...range, highest: highest ?? 100 } })}
              />
            </>
          )}
        </div>
        {driven && range && (
          <p className="soft">{say`The verdict then covers every percent between ${range.lowest} and ${range.highest}, even if it changes between cycles.`}</p>
        )}
        <AdjustedTable plan={plan} month={month} />
      </section>
      <section className="stack near">
        <h2>{say`Rain delay`}</h2>
        <RainDelay plan={plan} set={set} now={now} />
      </section>
      <section className="stack near">
        <h2>{say`Station delay`}</h2>
        <div className="row at-foot">
          <NumberField
            label={say`Station delay`}
            unit={say`seconds`}
            value={settings.stationDelaySeconds ?? 0}
            most={36_000}
            commit={(stationDelaySeconds) =>
              set({ stationDelaySeconds: stationDelaySeconds || null })
            }
          />
          {(timer.stationsAtOnce > 1 || settings.stationsAtOnce !== undefined) && (
            <NumberField
              label={say`Most stations at once`}
              value={settings.stationsAtOnce ?? null}
              least={1}
              most={99}
              empty={String(timer.stationsAtOnce)}
              commit={(stationsAtOnce) => set({ stationsAtOnce })}
            />
          )}
          {(timer.stationsAtOnce > 1 || settings.flowLimitLpm !== undefined) && (
            <NumberField
              label={say`Flow limit`}
              unit={say`litres a minute`}
              decimal
              value={settings.flowLimitLpm ?? null}
              least={0.001}
              empty={say`none`}
              commit={(flowLimitLpm) => set({ flowLimitLpm })}
            />
          )}
        </div>
      </section>
      <section className="stack near">
        <h2>{say`No-water hours`}</h2>
        {timer.inWindow === 'ignore' && (
          <p className="soft">{say`This timer has no such setting and waters through them. The checks warn you.`}</p>
        )}
        <HoursGrid
          plan={plan}
          today={Math.floor(now / SECONDS_PER_DAY)}
          windows={windows}
          commit={(noWaterWindows) => setRefused(set({ noWaterWindows }))}
        />
        {refused && (
          <p className="fault" role="alert">
            {refused}
          </p>
        )}
        <Disclosure className="more" summary={say`Type hours`}>
          {() => (
            <WindowsEditor
              label={say`No-water hours`}
              timer={timer}
              windows={windows}
              commit={(noWaterWindows) => set({ noWaterWindows })}
            />
          )}
        </Disclosure>
      </section>
      <section className="stack near">
        <Disclosure
          openAtFirst={offDays.length > 0}
          summary={
            offDays.length > 0
              ? say`Off days of the month: ${listed(offDays)}`
              : say`Off days of the month: none`
          }
        >
          {() => <OffDays plan={plan} set={set} />}
        </Disclosure>
      </section>
      <section className="stack near">
        <h2>{say`Switches`}</h2>
        <div className="row at-foot">
          <SelectField
            label={say`Timer`}
            value={settings.mode ?? 'run'}
            options={[['run', say`on`] as const, ['off', say`off: no watering`] as const]}
            pick={(value) => set({ mode: value === 'off' ? 'off' : null })}
          />
          <RainSensorFields plan={plan} survey={survey} editor={editor} />
        </div>
      </section>
    </div>
  );
}
