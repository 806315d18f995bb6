/** What a timer does over a span of days while things are done to it (timing-rules.md section 9). */
import type { Outcome } from '../document/fault.ts';
import { attempt, Effort } from '../engine/effort.ts';
import type { Plan } from '../plan/plan.ts';
import {
  formatMoment,
  SECONDS_PER_DAY,
  type ClockSecond,
  type EpochDay,
} from '../time/calendar.ts';
import { LiveDevice } from './device.ts';
import type { DeviceCycle, DeviceRun } from './deviceState.ts';
import { eventFaults, momentOf, type Events } from './events.ts';

export interface DeviceSimulation {
  /** In the order due, letter, start, began. */
  readonly cycles: readonly DeviceCycle[];
  /** In the order on, station, letter, off. */
  readonly runs: readonly DeviceRun[];
}

/** Null comes first. */
const compare = (x: string | number | null, y: string | number | null) =>
  x === y ? 0 : x === null || (y !== null && x < y) ? -1 : 1;

/**
 * The timer is idle at 00:00 true time of `from`; every start that comes within `days` days is served, and runs to its end even past the last day.
 *
 * @returns the faults of events that cannot be simulated so, or of a plan that asks too much.
 */
export function simulateEvents(
  plan: Plan,
  from: EpochDay,
  days: number,
  events: Events,
): Outcome<DeviceSimulation> {
  const faults = eventFaults(events, plan, from, days);
  if (faults.length > 0) return { ok: false, faults };
  return attempt(() => {
    const cycles: DeviceCycle[] = [];
    const runs: DeviceRun[] = [];
    const listener = {
      cycle: (cycle: DeviceCycle) => cycles.push(cycle),
      run: (run: DeviceRun) => runs.push(run),
    };
    const ahead = events.clockAheadSeconds ?? 0;
    const device = LiveDevice.idle(plan, from * SECONDS_PER_DAY, ahead, listener, new Effort());
    for (const event of events.events) {
      device.advance(momentOf(event));
      device.press(event);
    }
    device.advance((from + days) * SECONDS_PER_DAY);
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
  });
}

/** What `water-clock simulate --events` prints (plan-format.md). */
export function eventsReport(from: string, days: number, { cycles, runs }: DeviceSimulation) {
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
