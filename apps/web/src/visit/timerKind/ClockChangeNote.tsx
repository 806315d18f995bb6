import {
  dateWords,
  startsMovedBy,
  startWords,
  timeWords,
  type ClockChange,
  type ClockStyle,
  type EpochDay,
  type Plan,
  say,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';

interface Props {
  readonly plan: Plan;
  readonly change: ClockChange;
  readonly today: EpochDay;
  readonly clock: ClockStyle;
}

/** Most moved starts listed. */
const MOST_STARTS = 12;

/** What a clock change at the site does to this timer (timing-rules.md section 8). */
export function ClockChangeNote({ plan, change, today, clock }: Props) {
  const { order } = usePreferences();
  const when = say`On ${dateWords(change.day, today, order)}, clocks change from ${timeWords(change.from, clock)} to ${timeWords(change.to, clock)}.`;
  const list = startsMovedBy(plan, change)
    .slice(0, MOST_STARTS)
    .map(
      ({ letter, start, at }) =>
        say`${letter} ${startWords(start, clock)} waters at ${timeWords(at, clock)}`,
    )
    .join(', ');
  if (!plan.timer.followsDaylightSaving)
    return (
      <p>
        {when} <strong>{say`This timer does not adjust itself. Reset its clock then.`}</strong>{' '}
        {list && say`Until someone does, by local time ${list}.`}
      </p>
    );
  const met =
    list === ''
      ? say`No start time falls in the hour that changes.`
      : change.to > change.from
        ? say`That hour is skipped, so then ${list}.`
        : say`That hour comes twice; ${list} the first time only.`;
  return <p>{say`${when} This timer adjusts itself. ${met}`}</p>;
}
