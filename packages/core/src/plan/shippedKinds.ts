/**
 * The shipped timer kinds: generic, named by what is seen on the wall, each a document in `kinds/`, read like a user's import. A company
 * that changes one saves its own under the same id; deleting that restores the shipped one.
 */
import { assert } from '../document/fault.ts';
import { readTimerKind, type TimerKind } from './kind.ts';
import { PLAN_FORMAT, PLAN_VERSION, type Plan, type Timer } from './plan.ts';
import twoStationBatteryTimer from './kinds/two-station-battery-timer.kind.json' with { type: 'json' };
import fourStationWallTimer from './kinds/four-station-wall-timer.kind.json' with { type: 'json' };
import eightStationWallTimer from './kinds/eight-station-wall-timer.kind.json' with { type: 'json' };
import twelveStationModularTimer from './kinds/twelve-station-modular-timer.kind.json' with { type: 'json' };
import twentyFourStationTwoWireTimer from './kinds/twenty-four-station-two-wire-timer.kind.json' with { type: 'json' };
import oneOutletTapTimer from './kinds/one-outlet-tap-timer.kind.json' with { type: 'json' };
import sixStationKeypadTimer from './kinds/six-station-keypad-timer.kind.json' with { type: 'json' };
import sixStationWallTimerWithSoak from './kinds/six-station-wall-timer-with-soak.kind.json' with { type: 'json' };
import nineStationWallTimerWithDryHours from './kinds/nine-station-wall-timer-with-dry-hours.kind.json' with { type: 'json' };
import fortyEightStationTwoWireTimer from './kinds/forty-eight-station-two-wire-timer-four-valves-at-once.kind.json' with { type: 'json' };
import oneOutletTapTimerWithWeekdays from './kinds/one-outlet-tap-timer-with-weekdays.kind.json' with { type: 'json' };
import twoOutletTapTimer from './kinds/two-outlet-tap-timer.kind.json' with { type: 'json' };

export interface ShippedKind {
  readonly id: string;
  readonly kind: TimerKind;
}

const DOCUMENTS: readonly (readonly [id: string, document: unknown])[] = [
  ['5d1e0000-7a3c-4c1e-8e5a-000000000001', twoStationBatteryTimer],
  ['5d1e0000-7a3c-4c1e-8e5a-000000000002', fourStationWallTimer],
  ['5d1e0000-7a3c-4c1e-8e5a-000000000003', eightStationWallTimer],
  ['5d1e0000-7a3c-4c1e-8e5a-000000000004', twelveStationModularTimer],
  ['5d1e0000-7a3c-4c1e-8e5a-000000000005', twentyFourStationTwoWireTimer],
  ['5d1e0000-7a3c-4c1e-8e5a-000000000006', oneOutletTapTimer],
  ['5d1e0000-7a3c-4c1e-8e5a-000000000007', sixStationKeypadTimer],
  ['5d1e0000-7a3c-4c1e-8e5a-000000000008', sixStationWallTimerWithSoak],
  ['5d1e0000-7a3c-4c1e-8e5a-000000000009', nineStationWallTimerWithDryHours],
  ['5d1e0000-7a3c-4c1e-8e5a-00000000000a', fortyEightStationTwoWireTimer],
  ['5d1e0000-7a3c-4c1e-8e5a-00000000000b', oneOutletTapTimerWithWeekdays],
  ['5d1e0000-7a3c-4c1e-8e5a-00000000000c', twoOutletTapTimer],
];

export const SHIPPED_KINDS: readonly ShippedKind[] = DOCUMENTS.map(([id, document]) => {
  const read = readTimerKind(document);
  assert(read.ok, `the shipped kind ${id} is sound`);
  return { id, kind: read.value };
});

/** Abilities of the shipped kinds. */
export const TIMER_KINDS: readonly Timer[] = SHIPPED_KINDS.map(({ kind }) => kind.timer);

/**
 * An empty plan: stations without a name, and one empty program.
 *
 * @param inUse stations, at most what the timer has
 */
export function emptyPlan(timer: Timer, inUse: number = timer.stationCount): Plan {
  return {
    format: PLAN_FORMAT,
    version: PLAN_VERSION,
    timer,
    settings: {},
    stations: Array.from({ length: inUse }, (_, i) => ({ number: i + 1 })),
    programs: [{ letter: 'A', starts: [], runs: [], days: null }],
  };
}
