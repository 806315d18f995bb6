/** Nights in which people, weather and power do something to the timer: what it then really runs, beside what was intended. */
import type { Effort } from '../engine/effort.ts';
import type { Night } from '../engine/night.ts';
import { SECONDS_PER_DAY } from '../time/calendar.ts';
import type { TimerCycle } from './timerState.ts';
import type { TimedPress } from './events.ts';
import { pressedFrom, type Box } from './simulateEvents.ts';

/** What waits of the days before has been served by then. */
const DAYS_BEFORE = 8;

/**
 * The same nights as the timer runs them where this is done to it. What was intended stays as it was.
 *
 * @param nights one after another, of the same plan and error of the clock.
 * @param presses in order, true time.
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

/** What becomes of the starts that were due; one at whose moment the clock showed something else is lost, and runs when it comes there. */
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
