import { useState } from 'react';
import { Button, Tag } from 'antd';
import {
  factoryPlan,
  formatMoment,
  NIGHT_BEGINS_SECOND,
  parseSecond,
  parseTime,
  percentSteps,
  pressWords,
  programsByLetter,
  SECONDS_PER_DAY,
  timeWords,
  type EpochDay,
  type Plan,
  type Press,
  say,
} from '@water-clock/core';
import { LabelledTime } from '../../shared/fields/LabelledTime.tsx';
import { stopsAtUnread } from '../../shared/fields/unread.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { useKind } from '../timerKind/useKind.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { WhatIf, WhatIfAct } from '../../data/workers/timerQuestion.ts';

const DEEDS = [
  ['power', say`The power fails`],
  ['rain', say`It rains`],
  ['station', say`Someone runs a station`],
  ['program', say`Someone runs a program`],
  ['all', say`Someone runs every station`],
  ['stop', say`Someone stops the watering`],
  ['off', say`Someone switches it off`],
  ['delay', say`Someone sets a rain delay`],
  ['percent', say`Someone changes the percent`],
] as const;
type Deed = (typeof DEEDS)[number][0];

/** Events that end by themselves or are ended. */
const HAS_END: Partial<Record<Deed, readonly [begin: Press, end: Press]>> = {
  power: [{ do: 'powerOff' }, { do: 'powerOn' }],
  rain: [{ do: 'wet' }, { do: 'dry' }],
};
const DAY_HOURS = 24;
const HAND_MINUTES = 10;

interface Props {
  readonly plan: Plan;
  /** The night on the strip, by the date of its afternoon. */
  readonly day: EpochDay;
  readonly today: EpochDay;
  readonly whatIf: WhatIf;
  readonly set: (whatIf: WhatIf) => void;
}

/** Adds what-if events from people, weather or power to the night shown; nothing is saved. */
export default function WhatIfActs({ plan, day, today, whatIf, set }: Props) {
  const { clock, order } = usePreferences();
  const kind = useKind(plan);
  const steps = percentSteps(plan.timer).filter((one) => one > 0);
  const [deed, setDeed] = useState<Deed>('power');
  const [at, setAt] = useState<string | null>(null);
  const [until, setUntil] = useState<string | null>(null);
  const [station, setStation] = useState(plan.stations[0]?.number ?? 1);
  const [program, setProgram] = useState(programsByLetter(plan)[0]?.letter ?? 'A');
  const [minutes, setMinutes] = useState(HAND_MINUTES);
  const [hours, setHours] = useState(DAY_HOURS);
  const [percent, setPercent] = useState(steps.at(-1) ?? 100);
  const speech = { plan, on: today, clock, order };

  /** A time of day in the night shown. */
  const momentOf = (time: string | null) => {
    const second = time === null ? null : parseTime(time);
    if (second === null) return null;
    return (second < NIGHT_BEGINS_SECOND ? day + 1 : day) * SECONDS_PER_DAY + second;
  };
  const begins = momentOf(at);
  const ends = momentOf(until);
  const pressOf: Record<Exclude<Deed, 'power' | 'rain'>, Press> = {
    station: { do: 'manual', station, seconds: minutes * 60 },
    program: { do: 'manual', program },
    all: { do: 'manual', seconds: minutes * 60 },
    stop: { do: 'stop' },
    off: { do: 'mode', to: 'off' },
    delay: { do: 'rainDelay', hours },
    percent: { do: 'percent', to: percent },
  };
  const act = (): WhatIfAct | null => {
    if (begins === null) return null;
    if (deed !== 'power' && deed !== 'rain')
      return [{ ...pressOf[deed], at: formatMoment(begins) }];
    const [first, last] = HAS_END[deed] ?? [];
    if (!first || !last || ends === null || ends <= begins) return null;
    return [
      { ...first, at: formatMoment(begins) },
      { ...last, at: formatMoment(ends) },
    ];
  };
  const made = act();
  const isBackwards = HAS_END[deed] && begins !== null && ends !== null && ends <= begins;
  const needsFactory = deed === 'power' && plan.timer.powerLoss?.settings === 'factory';
  const factory = factoryPlan(plan, kind);
  const timeProps = (value: string | null, put: (time: string | null) => void) => ({
    value,
    placeholder: '3:15a',
    draft: (typed: string | null) => {
      if (typed !== null) put(typed);
    },
    commit: (time: string) => put(time),
    clear: () => put(null),
  });
  const put = (acts: readonly WhatIfAct[]) => set({ ...whatIf, acts, factory });
  return (
    <form
      className="panel stack near"
      aria-label={say`What if`}
      onSubmit={(event) => {
        event.preventDefault();
        if (!stopsAtUnread(event.currentTarget) && made) put([...whatIf.acts, made]);
      }}
    >
      <div className="row at-foot">
        <SelectField label={say`What if`} value={deed} options={DEEDS} pick={setDeed} />
        {deed === 'station' && (
          <SelectField
            label={say`Station`}
            value={station}
            options={plan.stations.map(
              ({ number, name }) => [number, `${number} ${name ?? ''}`] as const,
            )}
            pick={setStation}
          />
        )}
        {deed === 'program' && (
          <SelectField
            label={say`Program`}
            value={program}
            options={programsByLetter(plan).map(({ letter }) => [letter, letter] as const)}
            pick={setProgram}
          />
        )}
        {(deed === 'station' || deed === 'all') && (
          <NumberField
            label={say`Length, min`}
            least={1}
            most={1440}
            value={minutes}
            commit={(value) => {
              setMinutes(value ?? HAND_MINUTES);
              return null;
            }}
          />
        )}
        {deed === 'delay' && (
          <NumberField
            label={say`Length, hours`}
            least={1}
            most={4800}
            value={hours}
            commit={(value) => {
              setHours(value ?? DAY_HOURS);
              return null;
            }}
          />
        )}
        {deed === 'percent' && (
          <SelectField
            label={say`To`}
            value={percent}
            options={steps.map((step) => [step, `${step} %`] as const)}
            pick={setPercent}
          />
        )}
        <LabelledTime label={HAS_END[deed] ? say`From` : say`At`} {...timeProps(at, setAt)} />
        {HAS_END[deed] && <LabelledTime label={say`Until`} {...timeProps(until, setUntil)} />}
        <Button htmlType="submit" type="primary" disabled={!made}>{say`Show on strip`}</Button>
      </div>
      {isBackwards && (
        <p className="fault">{say`The end is before the start. A night runs from 3 pm to 3 pm.`}</p>
      )}
      {needsFactory && !factory && (
        <p className="aside">{say`Without power this timer returns to its factory settings, which are not in the library. The strip continues with the current settings.`}</p>
      )}
      {whatIf.acts.length > 0 && (
        <div className="row near">
          {whatIf.acts.map((one, i) => (
            <Tag
              key={one.map(({ at }) => at).join()}
              closable
              style={{ whiteSpace: 'normal' }}
              onClose={() => put(whatIf.acts.filter((_, k) => k !== i))}
            >
              {one
                .map((press) => {
                  const moment = parseSecond(press.at) ?? 0;
                  return `${timeWords(moment % SECONDS_PER_DAY, clock)}: ${pressWords(press, speech)}`;
                })
                .join('; ')}
            </Tag>
          ))}
          <Button size="small" onClick={() => put([])}>{say`As it is`}</Button>
          <span className="soft">{say`What if only. Nothing is saved.`}</span>
        </div>
      )}
    </form>
  );
}
