import { memo, useState, type KeyboardEvent } from 'react';
import { Button, Input } from 'antd';
import {
  formatTime,
  parseTime,
  parseTimeEntry,
  SECONDS_PER_DAY,
  startWords,
  steppedStart,
  TIME_ENTRY_HELP,
  timeWords,
  type ClockStyle,
  type NextCycle,
} from '@water-clock/core';

export interface StartChipsProps {
  readonly letter: string;
  readonly starts: readonly string[];
  /** The same with what is being typed or dragged. */
  readonly shownStarts: readonly string[];
  /** The next cycle of each start. */
  readonly next: readonly NextCycle[];
  readonly stepMinutes: number;
  readonly mostStarts: number;
  readonly clock: ClockStyle;
  /** Shows other starts without making them; null ends that. */
  readonly draft: (starts: readonly string[] | null) => void;
  readonly commit: (starts: readonly string[]) => void;
}

interface TimeFieldProps {
  readonly label: string;
  /** As it is set; null where it is still to be added. */
  readonly value: string | null;
  /** As it is being dragged elsewhere. */
  readonly shownValue?: string | undefined;
  readonly clock: ClockStyle;
  readonly stepMinutes: number;
  readonly draft: (time: string | null) => void;
  readonly commit: (time: string) => void;
  readonly invalid: (typed: string | null) => void;
}

/** A time of day, typed freely or stepped with the arrow keys. */
function TimeField(props: TimeFieldProps) {
  const { label, value, shownValue, clock, stepMinutes, draft, commit, invalid } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const standing = shownValue ?? value;
  const shown = typed ?? (standing === null ? '' : startWords(standing, clock));
  const time = typed === null ? value : parseTimeEntry(typed);
  const wrong = typed !== null && typed.trim() !== '' && time === null;

  const change = (text: string) => {
    setTyped(text);
    invalid(null);
    draft(parseTimeEntry(text));
  };
  const finish = () => {
    if (typed === null) return;
    if (wrong) {
      invalid(typed);
      draft(null);
      return;
    }
    setTyped(null);
    if (time !== null && time !== value) commit(time);
    else draft(null);
  };
  const drop = () => {
    setTyped(null);
    invalid(null);
    draft(null);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const direction = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : null;
    if (direction !== null && time !== null) {
      event.preventDefault();
      const next = formatTime(steppedStart(parseTime(time) ?? 0, direction, stepMinutes));
      change(startWords(next, clock));
    } else if (event.key === 'Enter') {
      event.preventDefault();
      finish();
    } else if (event.key === 'Escape') drop();
    else if (event.key === 'z' && (event.ctrlKey || event.metaKey) && typed !== null) {
      event.preventDefault();
      event.stopPropagation();
      drop();
    }
  };
  return (
    <Input
      className="start-field"
      aria-label={label}
      aria-invalid={wrong}
      placeholder={value === null ? 'add start' : undefined}
      value={shown}
      inputMode="text"
      autoComplete="off"
      spellCheck={false}
      onFocus={(event) => event.target.select()}
      onChange={(event) => change(event.target.value)}
      onBlur={finish}
      onKeyDown={onKeyDown}
      status={wrong ? 'error' : ''}
    />
  );
}

/** When a start's cycle ends, and when it begins where hours without water delay it. */
function outcomeWords({ due, cycle }: NextCycle, clock: ClockStyle): string {
  if (!cycle) return 'no water';
  const time = (moment: number) => timeWords(moment % SECONDS_PER_DAY, clock);
  const ends = `ends ${time(cycle.ends)}`;
  return cycle.begins === due ? ends : `waits until ${time(cycle.begins)}, ${ends}`;
}

/** A program's starts, each with the time at which its cycle ends. */
export const StartChips = memo(function StartChips(props: StartChipsProps) {
  const { letter, starts, shownStarts, next, stepMinutes, mostStarts, clock } = props;
  const { draft, commit } = props;
  const inPlace = shownStarts.length === starts.length;
  const [wrong, setWrong] = useState<string | null>(null);
  const replaced = (i: number, time: string) => starts.map((one, k) => (k === i ? time : one));
  const outcome = (start: string) => {
    const found = next.find((nextCycle) => nextCycle.start === start);
    return found ? outcomeWords(found, clock) : '';
  };
  return (
    <div className="starts">
      <ul className="start-list" aria-label={`Starts of ${letter}`}>
        {starts.map((start, i) => (
          <li key={i} className="start-chip">
            <TimeField
              label={`Start ${i + 1} of ${letter}`}
              value={start}
              shownValue={inPlace ? shownStarts[i] : start}
              clock={clock}
              stepMinutes={stepMinutes}
              draft={(time) => draft(time === null ? null : replaced(i, time))}
              commit={(time) => commit(replaced(i, time))}
              invalid={setWrong}
            />
            <Button
              className="start-remove"
              aria-label={`Take out the start ${startWords(start, clock)} of ${letter}`}
              onClick={() => commit(starts.filter((_, k) => k !== i))}
            >
              ×
            </Button>
            <span className="start-end soft">
              {outcome(inPlace ? (shownStarts[i] ?? start) : start)}
            </span>
          </li>
        ))}
        {starts.length < mostStarts && (
          // A new key after each addition, so that the field is empty again.
          <li key={`new-${starts.length}`} className="start-chip start-new">
            <TimeField
              label={`Add a start to ${letter}`}
              value={null}
              clock={clock}
              stepMinutes={stepMinutes}
              draft={(time) => draft(time === null ? null : [...starts, time])}
              commit={(time) => commit([...starts, time])}
              invalid={setWrong}
            />
          </li>
        )}
      </ul>
      {wrong !== null && (
        <p role="alert" className="fault">
          "{wrong}" is not a time. {TIME_ENTRY_HELP}
        </p>
      )}
    </div>
  );
});
