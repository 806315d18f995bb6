import { useState } from 'react';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Button } from 'antd';
import {
  dateWords,
  formatDate,
  formatTime,
  parseTime,
  SECONDS_PER_DAY,
  type DateOrder,
  type EpochDay,
  type Plan,
  type Sighting,
  say,
} from '@water-clock/core';
import { LabelledTime } from '../../shared/fields/LabelledTime.tsx';
import { Chips } from '../../shared/fields/Chips.tsx';
import { stopsAtUnread } from '../../shared/fields/unread.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';

const DAYS_BACK = 14;
const NOON = 43_200;
const KINDS = [
  ['ran-at', say`It ran at`],
  ['ran-between', say`It ran between`],
  ['ran-in', say`It ran that night`],
  ['dry', say`It did not run that night`],
  ['spell', say`It has not run for days`],
] as const;
type Kind = (typeof KINDS)[number][0];

interface Props {
  readonly plan: Plan;
  readonly today: EpochDay;
  readonly add: (sighting: Sighting) => void;
}

const momentOf = (day: EpochDay, seconds: number) => `${formatDate(day)}T${formatTime(seconds)}`;

/** A sighting: when, what, how long. A night runs from noon to noon. */
export function SightingForm({ plan, today, add }: Props) {
  const { order } = usePreferences();
  const [kind, setKind] = useState<Kind>('ran-at');
  const [day, setDay] = useState(today - 1);
  const [time, setTime] = useState<string | null>(null);
  /** Null: not yet. */
  const [endDay, setEndDay] = useState<EpochDay | null>(null);
  const [endTime, setEndTime] = useState<string | null>(null);
  const [isFaulty, setFaulty] = useState(false);
  const [station, setStation] = useState<number | null>(null);
  const [minutes, setMinutes] = useState<number | null>(null);
  const [times, setTimes] = useState<number | null>(null);
  const at = time === null ? null : parseTime(time);
  const end = endTime === null ? null : parseTime(endTime);
  const timeProps = (value: string | null, set: (time: string | null) => void) => ({
    value,
    placeholder: '3:15p',
    draft: (typed: string | null) => {
      if (typed !== null) set(typed);
    },
    commit: set,
    clear: () => set(null),
    faulty: setFaulty,
  });
  const where = station === null ? {} : { station };
  const long = minutes === null ? {} : { minutes };
  const night = { from: momentOf(day, NOON), to: momentOf(day + 1, NOON) };
  /** Why it cannot be added, unless that is obvious. */
  const fault = faultOf(kind, day, at, endDay, end, today);

  const sighting = (): Sighting | null => {
    if (fault !== null || isFaulty) return null;
    switch (kind) {
      case 'ran-at':
        return at === null ? null : { saw: 'ran', from: momentOf(day, at), ...where, ...long };
      case 'ran-between':
        if (at === null || end === null) return null;
        return {
          saw: 'ran',
          from: momentOf(day, at),
          // Past midnight.
          to: momentOf(end > at ? day : day + 1, end),
          ...where,
          ...long,
        };
      case 'ran-in':
        return { saw: 'ran', ...night, ...where, ...(times === null ? {} : { times }) };
      case 'dry':
        return { saw: 'dry', ...night, ...where };
      case 'spell':
        return {
          saw: 'dry',
          from: momentOf(day, at ?? NOON),
          to: endDay === null ? momentOf(today, 0) : momentOf(endDay, end ?? 0),
          ...where,
          ...(at === null ? {} : { ranBefore: true }),
          ...(endDay === null || end === null ? {} : { ranAfter: true }),
        };
    }
  };
  const made = sighting();
  return (
    <form
      className="sighting stack"
      aria-label={say`Sightings`}
      onSubmit={(event) => {
        event.preventDefault();
        if (stopsAtUnread(event.currentTarget) || !made) return;
        add(made);
        setTime(null);
        setEndTime(null);
        setEndDay(null);
        setMinutes(null);
        setTimes(null);
      }}
    >
      <Chips
        label={say`What was seen`}
        options={KINDS}
        value={kind}
        pick={(one) => setKind(one ?? kind)}
      />
      <div className="sighting-fields row at-foot">
        <SelectField
          label={
            kind === 'spell'
              ? say`Last ran`
              : kind.startsWith('ran-') && kind !== 'ran-in'
                ? say`Day`
                : say`Night of`
          }
          value={day}
          options={daysBack(today, order)}
          pick={setDay}
        />
        {(kind === 'ran-at' || kind === 'ran-between') && (
          <LabelledTime
            label={kind === 'ran-at' ? say`Time` : say`From`}
            {...timeProps(time, setTime)}
          />
        )}
        {kind === 'ran-between' && (
          <LabelledTime label={say`To`} {...timeProps(endTime, setEndTime)} />
        )}
        {kind === 'spell' && (
          <>
            <LabelledTime label={say`Ended about (optional)`} {...timeProps(time, setTime)} />
            <SelectField<EpochDay | ''>
              label={say`It ran again`}
              value={endDay ?? ''}
              options={[['', say`not yet`], ...daysBack(today, order)]}
              pick={(chosen) => setEndDay(chosen === '' ? null : chosen)}
            />
            {endDay !== null && (
              <LabelledTime
                label={say`Started about (optional)`}
                {...timeProps(endTime, setEndTime)}
              />
            )}
          </>
        )}
        <SelectField<string | number>
          label={say`Where`}
          value={station ?? ''}
          options={[
            ['', kind === 'dry' || kind === 'spell' ? say`no station` : say`some station`] as const,
            ...plan.stations.map(
              ({ number, name }) => [number, `${number} ${name ?? ''}`] as const,
            ),
          ]}
          pick={(value) => setStation(value === '' ? null : Number(value))}
        />
        {(kind === 'ran-at' || kind === 'ran-between') && (
          <NumberField
            label={say`Length, min`}
            least={1}
            most={1440}
            value={minutes}
            empty={say`not known`}
            commit={(value) => {
              setMinutes(value);
              return null;
            }}
          />
        )}
        {kind === 'ran-in' && (
          <NumberField
            label={say`How often`}
            least={1}
            most={20}
            value={times}
            empty={say`not known`}
            commit={(value) => {
              setTimes(value);
              return null;
            }}
          />
        )}
        <Button
          htmlType="submit"
          type="primary"
          size="large"
          disabled={!made}
        >{say`Add sighting`}</Button>
      </div>
      {fault && <p className="fault">{fault}</p>}
    </form>
  );
}

/** A contradiction in the entry; null: none. */
function faultOf(
  kind: Kind,
  day: EpochDay,
  at: number | null,
  endDay: EpochDay | null,
  end: number | null,
  today: EpochDay,
): string | null {
  if (kind === 'ran-between' && at !== null && at === end)
    return say`From and to are the same time: choose “It ran at”.`;
  if (kind !== 'spell') return null;
  const from = day * SECONDS_PER_DAY + (at ?? NOON);
  const to = endDay === null ? today * SECONDS_PER_DAY : endDay * SECONDS_PER_DAY + (end ?? 0);
  if (to > from) return null;
  return endDay === null
    ? say`It ran last today: nothing is missing yet. Choose an earlier day.`
    : say`It ran again before it ran last. Choose a later day or time.`;
}

/** Days that people still remember, today first. */
const daysBack = (today: EpochDay, order: DateOrder): (readonly [EpochDay, string])[] =>
  Array.from({ length: DAYS_BACK + 1 }, (_, i) => {
    const day = today - i;
    const near = i === 0 ? 'Today, ' : i === 1 ? 'Yesterday, ' : '';
    return [day, `${near}${dateWords(day, today, order)}`];
  });
