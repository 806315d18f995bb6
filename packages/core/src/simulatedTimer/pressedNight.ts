/** Nights with actions by people, weather and power: what the timer really runs, next to what was intended. */
import type { Effort } from '../engine/effort.ts';
import type { Night } from '../engine/night.ts';
import { SECONDS_PER_DAY } from '../time/calendar.ts';
import type { TimerCycle } from './timerState.ts';
import type { TimedPress } from './events.ts';
import { pressedFrom, type Box } from './simulateEvents.ts';

/** Days before the night, enough to serve whatever waits. */
const DAYS_BEFORE = 8;

/**
 * The same nights as the timer runs them with these actions. What was intended is unchanged.
 *
 * @param nights consecutive, for one plan and clock error
 * @param presses in order, true time
 * @throws TooMuchWork
 */
export function pressedNights(
  nights: readonly Night[],
  box: Box,
  presses: readonly TimedPress[],
  effort?: Effort,
): Night[] {
  const [first, last] = [nights[0], nights.at(-1)];
  if (!first || !last || presses.length === 0) return [...nights];
  const from = first.from - DAYS_BEFORE * SECONDS_PER_DAY;
  const { cycles, runs } = pressedFrom(box, { from, to: last.to, presses }, effort);
  return nights.map((night) => ({
    ...night,
    runs: runs.filter(({ on, off }) => on < night.to && off > night.from),
    served: served(night, cycles, box.ahead),
    isPressed: true,
  }));
}

/** Outcome of the due starts. A start at whose time the clock showed something else is lost, and runs when the clock reaches it. */
function served(night: Night, cycles: readonly TimerCycle[], ahead: number): Night['served'] {
  const left = [...cycles];
  return night.served.map((one) => {
    const at = left.findIndex(
      ({ letter, start, due }) =>
        letter === one.letter && start === one.start && due - ahead === one.due,
    );
    const [cycle] = at < 0 ? [] : left.splice(at, 1);
    return cycle
      ? { ...one, outcome: cycle.outcome, began: cycle.began, ended: cycle.ended }
      : { ...one, outcome: 'lost' as const, began: null, ended: null };
  });
}
