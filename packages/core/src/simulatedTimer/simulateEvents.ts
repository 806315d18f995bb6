/** What a timer does over some days with actions on it (timing-rules.md section 9). */
import type { Outcome } from '../document/fault.ts';
import { attempt, Effort } from '../engine/effort.ts';
import type { Plan } from '../plan/plan.ts';
import {
  formatMoment,
  SECONDS_PER_DAY,
  type ClockSecond,
  type EpochDay,
} from '../time/calendar.ts';
import { SimulatedTimer } from './simulatedTimer.ts';
import type { TimerCycle, TimerRun } from './timerState.ts';
import { eventFaults, momentOf, type Events, type TimedPress } from './events.ts';

export interface TimerSimulation {
  /** In order of due time, letter, start, began. */
  readonly cycles: readonly TimerCycle[];
  /** In order of on, station, letter, off. */
  readonly runs: readonly TimerRun[];
}

/** Null comes first. */
const compare = (x: string | number | null, y: string | number | null) =>
  x === y ? 0 : x === null || (y !== null && x < y) ? -1 : 1;

/** A timer with its default program after a power cut, and the seconds its clock is ahead. */
export interface Box {
  readonly plan: Plan;
  readonly factory?: Plan | null;
  readonly ahead: number;
}

/** From one moment to another, true time, with the actions between, in order. */
export interface PressedSpan {
  readonly from: ClockSecond;
  readonly to: ClockSecond;
  readonly presses: readonly TimedPress[];
}

/**
 * The timer is idle at the beginning; every start within the span is served and runs to its end, even past it.
 *
 * @throws TooMuchWork
 */
export function pressedFrom(
  { plan, factory, ahead }: Box,
  { from, to, presses }: PressedSpan,
  effort = new Effort(),
): TimerSimulation {
  const cycles: TimerCycle[] = [];
  const runs: TimerRun[] = [];
  const listener = {
    cycle: (cycle: TimerCycle) => cycles.push(cycle),
    run: (run: TimerRun) => runs.push(run),
  };
  const device = SimulatedTimer.idle(plan, from, ahead, listener, effort, factory);
  for (const press of presses) {
    const at = momentOf(press);
    if (at < from || at >= to) continue;
    device.advance(at);
    device.press(press);
  }
  device.advance(to);
  device.runOut();
  return {
    cycles: cycles.sort(
      (x, y) =>
        x.due - y.due ||
        compare(x.letter, y.letter) ||
        compare(x.start, y.start) ||
        compare(x.began, y.began),
    ),
    runs: runs.sort(
      (x, y) =>
        x.on - y.on || x.station - y.station || compare(x.letter, y.letter) || x.off - y.off,
    ),
  };
}

/**
 * The timer is idle at 00:00 true time of `from`; every start within `days` days is served and runs to its end, even past the last day.
 *
 * @returns faults of events that cannot be simulated, or of a plan that takes too much work
 */
export function simulateEvents(
  plan: Plan,
  from: EpochDay,
  days: number,
  events: Events,
): Outcome<TimerSimulation> {
  const faults = eventFaults(events, plan, from, days);
  if (faults.length > 0) return { ok: false, faults };
  const [begin, end] = [from * SECONDS_PER_DAY, (from + days) * SECONDS_PER_DAY];
  return attempt(() =>
    pressedFrom(
      { plan, ahead: events.clockAheadSeconds ?? 0 },
      { from: begin, to: end, presses: events.events },
    ),
  );
}

/** Output of `water-clock simulate --events` (plan-format.md). */
export function eventsReport(from: string, days: number, { cycles, runs }: TimerSimulation) {
  const moment = (at: ClockSecond | null) => (at === null ? null : formatMoment(at));
  return {
    from,
    days,
    cycles: cycles.map(({ letter, start, due, outcome, began, ended }) => ({
      ...{ program: letter, start, due: formatMoment(due) },
      ...{ outcome, began: moment(began), ended: moment(ended) },
    })),
    runs: runs.map(({ station, letter, on, off }) => ({
      ...{ station, program: letter },
      ...{ on: formatMoment(on), off: formatMoment(off) },
    })),
  };
}
