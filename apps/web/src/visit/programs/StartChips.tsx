import { memo, useState } from 'react';
import { Button } from 'antd';
import { CloseOutlined } from '@ant-design/icons';
import {
  SECONDS_PER_DAY,
  startWords,
  timeWords,
  type ClockStyle,
  type NextCycle,
  say,
} from '@water-clock/core';
import { CheckMark } from '../checks/CheckMark.tsx';
import { TimeField } from '../../shared/fields/TimeField.tsx';

export interface StartChipsProps {
  readonly letter: string;
  readonly starts: readonly string[];
  /** With what is being typed or dragged. */
  readonly shownStarts: readonly string[];
  /** The next cycle of each start. */
  readonly next: readonly NextCycle[];
  readonly stepMinutes: number;
  readonly mostStarts: number;
  readonly clock: ClockStyle;
  /** Shows changed starts without making them; null ends that. */
  readonly draft: (starts: readonly string[] | null) => void;
  readonly commit: (starts: readonly string[]) => void;
}

/** End of a start's cycle, and its beginning if no-water hours delay it. */
function outcomeWords({ due, cycle }: NextCycle, clock: ClockStyle): string {
  if (!cycle) return say`no water`;
  const time = (moment: number) => timeWords(moment % SECONDS_PER_DAY, clock);
  const ends = say`ends ${time(cycle.ends)}`;
  return cycle.begins === due ? ends : say`waits until ${time(cycle.begins)}, ${ends}`;
}

/** A program's starts, each with the end of its cycle. */
export const StartChips = memo(function StartChips(props: StartChipsProps) {
  const { letter, starts, shownStarts, next, stepMinutes, mostStarts, clock } = props;
  const { draft, commit } = props;
  const inPlace = shownStarts.length === starts.length;
  const [fault, setFault] = useState<string | null>(null);
  const replaced = (i: number, time: string) => starts.map((one, k) => (k === i ? time : one));
  const outcome = (start: string) => {
    const found = next.find((nextCycle) => nextCycle.start === start);
    return found ? outcomeWords(found, clock) : '';
  };
  return (
    <div className="starts">
      <ul className="list row near at-head" aria-label={say`Start times of ${letter}`}>
        {starts.map((start, i) => (
          <li key={i} className="start-chip">
            <TimeField
              label={say`Start time ${i + 1} of ${letter}`}
              value={start}
              shownValue={inPlace ? shownStarts[i] : start}
              className="start-field"
              stepMinutes={stepMinutes}
              draft={(time) => draft(time === null ? null : replaced(i, time))}
              commit={(time) => commit(replaced(i, time))}
              tell={setFault}
            />
            <Button
              className="start-remove"
              type="text"
              icon={<CloseOutlined />}
              aria-label={say`Delete start time ${startWords(start, clock)} of ${letter}`}
              onClick={() => commit(starts.filter((_, k) => k !== i))}
            />
            <span className="start-end row near small in-line soft">
              <CheckMark program={letter} start={start} />
              {outcome(inPlace ? (shownStarts[i] ?? start) : start)}
            </span>
          </li>
        ))}
        {starts.length < mostStarts && (
          <li key="new" className="start-chip start-new">
            <TimeField
              label={say`Add a start time to ${letter}`}
              field={`new-start-${letter}`}
              value={null}
              placeholder={say`+ start`}
              className="start-field"
              stepMinutes={stepMinutes}
              draft={(time) => draft(time === null ? null : [...starts, time])}
              commit={(time) => commit([...starts, time])}
              tell={setFault}
            />
          </li>
        )}
      </ul>
      {fault !== null && (
        <p role="alert" className="fault">
          {fault}
        </p>
      )}
    </div>
  );
});
