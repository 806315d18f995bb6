import { useState } from 'react';
import { Button } from 'antd';
import {
  dateWords,
  formatDate,
  formatTime,
  parseTime,
  parseTimeEntry,
  TIME_ENTRY_HELP,
  type EpochDay,
  type Plan,
  type Sighting,
} from '@water-clock/core';
import { Chips } from '../survey/Chips.tsx';
import { NumberField } from '../timers/NumberField.tsx';

const DAYS_BACK = 14;
const KINDS = [
  ['ran-at', 'It ran at'],
  ['ran-in', 'It ran in that night'],
  ['dry', 'It did not run that night'],
  ['never', 'Never since'],
] as const;
type Kind = (typeof KINDS)[number][0];

interface Props {
  readonly plan: Plan;
  readonly today: EpochDay;
  readonly add: (sighting: Sighting) => void;
}

/** What somebody saw: when, what, how long. A night is from noon to noon. */
export function SightingForm({ plan, today, add }: Props) {
  const [kind, setKind] = useState<Kind>('ran-at');
  const [day, setDay] = useState(today - 1);
  const [time, setTime] = useState('');
  const [station, setStation] = useState<number | null>(null);
  const [minutes, setMinutes] = useState<number | null>(null);
  const [times, setTimes] = useState<number | null>(null);
  const at = parseTimeEntry(time);
  const noon = (date: number) => `${formatDate(date)}T12:00`;
  const where = station === null ? {} : { station };
  const sighting = (): Sighting | null => {
    switch (kind) {
      case 'ran-at':
        return at === null
          ? null
          : {
              saw: 'ran',
              from: `${formatDate(day)}T${formatTime(parseTime(at) ?? 0)}`,
              ...where,
              ...(minutes === null ? {} : { minutes }),
            };
      case 'ran-in':
        return {
          saw: 'ran',
          from: noon(day),
          to: noon(day + 1),
          ...where,
          ...(times === null ? {} : { times }),
        };
      case 'dry':
        return { saw: 'dry', from: noon(day), to: noon(day + 1), ...where };
      case 'never':
        return { saw: 'dry', from: noon(day), to: `${formatDate(today)}T00:00`, ...where };
    }
  };
  const made = sighting();
  return (
    <form
      className="sighting"
      aria-label="What was seen"
      onSubmit={(event) => {
        event.preventDefault();
        if (!made) return;
        add(made);
        setTime('');
        setMinutes(null);
        setTimes(null);
      }}
    >
      <Chips label="What" options={KINDS} value={kind} pick={(one) => setKind(one ?? kind)} />
      <div className="sighting-fields">
        <label className="labelled">
          {kind === 'never' ? 'Since' : kind === 'ran-at' ? 'Day' : 'Night that began on'}
          <select
            className="field"
            value={day}
            onChange={({ target }) => setDay(Number(target.value))}
          >
            {Array.from({ length: DAYS_BACK + 1 }, (_, i) => today - i).map((one) => (
              <option key={one} value={one}>
                {dateWords(one, today)}
                {one === today ? ', today' : one === today - 1 ? ', yesterday' : ''}
              </option>
            ))}
          </select>
        </label>
        {kind === 'ran-at' && (
          <label className="labelled">
            Time
            <input
              className="field"
              value={time}
              placeholder="3:15p"
              aria-invalid={time !== '' && at === null}
              onChange={({ target }) => setTime(target.value)}
            />
            {time !== '' && at === null && <span className="fault">{TIME_ENTRY_HELP}</span>}
          </label>
        )}
        <label className="labelled">
          Where
          <select
            className="field"
            value={station ?? ''}
            onChange={({ target }) => setStation(target.value === '' ? null : Number(target.value))}
          >
            <option value="">{kind === 'dry' || kind === 'never' ? 'nowhere' : 'somewhere'}</option>
            {plan.stations.map(({ number, name }) => (
              <option key={number} value={number}>
                {number} {name ?? ''}
              </option>
            ))}
          </select>
        </label>
        {kind === 'ran-at' && (
          <NumberField
            label="For about, min"
            least={1}
            most={1440}
            value={minutes}
            empty="not told"
            commit={(value) => {
              setMinutes(value);
              return null;
            }}
          />
        )}
        {kind === 'ran-in' && (
          <NumberField
            label="How often"
            least={1}
            most={20}
            value={times}
            empty="not told"
            commit={(value) => {
              setTimes(value);
              return null;
            }}
          />
        )}
        <Button htmlType="submit" type="primary" size="large" disabled={!made}>
          Add what was seen
        </Button>
      </div>
    </form>
  );
}
