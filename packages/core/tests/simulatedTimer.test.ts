/** The simulated timer against the slow reference with events, on random plans. Failures print their seed. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  SimulatedTimer,
  epochDayOf,
  formatMoment,
  SECONDS_PER_DAY,
  simulate,
  simulateEvents,
  type TimerCycle,
  type TimerRun,
  type SimulatedTimerState,
  type Plan,
  type Press,
  type TimedPress,
} from '@water-clock/core';
import { cases, fewCases, isLong } from './cases.ts';
import { anyPlan, weeklyPlan } from './randomPlans.ts';
import { referenceSimulate } from './reference.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });
const BEGIN = ON * SECONDS_PER_DAY;
const DAYS = 2;

const abilities = fc.record({
  manualDuring: fc.constantFrom('replace' as const, 'refuse' as const),
  onRain: fc.constantFrom('dry-run' as const, 'lose' as const),
  powerLoss: fc.record({
    clock: fc.constantFrom('kept' as const, 'stops' as const, 'resets' as const),
  }),
  clockAfterReset: fc.constantFrom('2020-01-01T00:00', '2027-06-05T04:59'),
});

/** Moments with activity: mornings, mostly on whole minutes. */
const moment = fc
  .tuple(
    fc.integer({ min: 0, max: DAYS - 1 }),
    fc.integer({ min: 5 * 60, max: 8 * 60 }),
    fc.constantFrom(0, 0, 0, 1, 37),
  )
  .map(([day, minute, second]) => BEGIN + day * SECONDS_PER_DAY + minute * 60 + second);

const press: fc.Arbitrary<Press> = fc.oneof(
  fc.record({
    do: fc.constant('manual' as const),
    station: fc.integer({ min: 1, max: 4 }),
    seconds: fc.integer({ min: 0, max: 2000 }),
  }),
  fc.record({ do: fc.constant('manual' as const), program: fc.constantFrom('A', 'B', 'C', 'D') }),
  fc.record({ do: fc.constant('manual' as const), seconds: fc.integer({ min: 0, max: 900 }) }),
  fc.record({
    do: fc.constantFrom(
      'wet' as const,
      'dry' as const,
      'powerOff' as const,
      'powerOn' as const,
      'stop' as const,
    ),
  }),
  fc.record({ do: fc.constantFrom('wet' as const, 'dry' as const, 'powerOn' as const) }),
  fc.record({
    do: fc.constant('mode' as const),
    to: fc.constantFrom('run' as const, 'run' as const, 'off' as const),
  }),
  fc.record({ do: fc.constant('rainDelay' as const), hours: fc.constantFrom(0, 1, 24) }),
  fc.record({ do: fc.constant('percent' as const), to: fc.constantFrom(0, 50, 130, 300) }),
  fc.record({
    do: fc.constant('sensor' as const),
    to: fc.constantFrom('active' as const, 'active' as const, 'bypass' as const),
  }),
  fc
    .record({ do: fc.constant('clock' as const), to: fc.integer({ min: -7200, max: 7200 }) })
    .chain(({ do: kind, to }) =>
      moment.map((at) => ({ do: kind, to: formatMoment(at + to - (to % 300)) })),
    ),
);

const eventsOf = fc
  .array(fc.tuple(moment, press), { minLength: 2, maxLength: 12 })
  .map((all): TimedPress[] =>
    all.sort(([a], [b]) => a - b).map(([at, press]) => ({ ...press, at: formatMoment(at) })),
  );

const withAbilities = (plans: fc.Arbitrary<Plan>): fc.Arbitrary<Plan> =>
  fc
    .tuple(
      plans,
      abilities,
      fc.subarray([1, 2, 3]),
      fc.constantFrom(undefined, 'active' as const, 'bypass' as const, 'none' as const),
    )
    .map(([plan, some, deaf, sensor]) => ({
      ...plan,
      timer: { ...plan.timer, ...some },
      settings: { ...plan.settings, ...(sensor ? { sensor } : {}) },
      stations: plan.stations.map((one) =>
        deaf.includes(one.number) ? { ...one, obeysRainSensor: false } : one,
      ),
    }));

/** Has something for the events to affect. */
const isBusy = (plan: Plan) => simulate(plan, ON, DAYS).cycles.length > 1;

const ahead = fc.constantFrom(0, 0, 3600, -43_200, 61);

/** A cycle and its water as a line; the reference keeps runs with their cycles, the simulated timer does not. */
const cycleLine = ({ due, outcome, began, ended, letter, start }: Omit<TimerCycle, 'percent'>) =>
  [formatMoment(due), letter ?? '-', start ?? '-', outcome, began, ended].join(' ');
const runLine = ({ station, letter, on, off }: TimerRun) =>
  [on, station, letter ?? '-', off].join(' ');

function expected(plan: Plan, events: readonly TimedPress[], clockAhead: number) {
  const entries = referenceSimulate(plan, ON, DAYS, events, clockAhead);
  return {
    cycles: entries.map(({ program, ...one }) => cycleLine({ ...one, letter: program })).sort(),
    runs: entries
      .flatMap(({ program, runs }) => runs.map((run) => runLine({ ...run, letter: program })))
      .sort(),
  };
}

function given(plan: Plan, events: readonly TimedPress[], clockAheadSeconds: number) {
  const document = {
    format: 'water-clock-events' as const,
    version: 1 as const,
    clockAheadSeconds,
    events,
  };
  const simulated = simulateEvents(plan, ON, DAYS, document);
  if (!simulated.ok) throw new Error(JSON.stringify(simulated.faults));
  return simulated.value;
}

describe('the device', () => {
  test.each([
    ['weekly programs', weeklyPlan, 31, fewCases(45)],
    ['every rule, windows, several stations at once', anyPlan, 32, fewCases(45)],
  ])('with events agrees with living through every second: %s', (_, plans, seed, numRuns) => {
    const seen = new Map<string, number>();
    fc.assert(
      fc.property(
        withAbilities(plans.filter(isBusy)),
        eventsOf,
        ahead,
        (plan, events, clockAhead) => {
          const { cycles, runs } = given(plan, events, clockAhead);
          expect({ cycles: cycles.map(cycleLine).sort(), runs: runs.map(runLine).sort() }).toEqual(
            expected(plan, events, clockAhead),
          );
          for (const { outcome, start } of cycles) {
            const key = `${start === null ? 'by hand' : 'start'} ${outcome}`;
            seen.set(key, (seen.get(key) ?? 0) + 1);
          }
        },
      ),
      { seed, numRuns },
    );
    const all = ['by hand cut', 'by hand ran', 'start cut', 'start lost', 'start ran'];
    expect(all).toEqual(expect.arrayContaining([...seen.keys()]));
    // In a short run one of them may not occur.
    expect(seen.size).toBeGreaterThanOrEqual(isLong ? all.length : all.length - 1);
  });

  test('left alone does what the simulation says, to the letter', () => {
    fc.assert(
      fc.property(anyPlan, fc.integer({ min: 0, max: 40 }), (plan, later) => {
        const told: { cycles: TimerCycle[]; runs: TimerRun[] } = { cycles: [], runs: [] };
        const device = SimulatedTimer.idle(plan, (ON + later) * SECONDS_PER_DAY, 0, {
          cycle: (one) => told.cycles.push(one),
          run: (one) => told.runs.push(one),
        });
        device.advance((ON + later + 9) * SECONDS_PER_DAY);
        device.runOut();
        const { cycles, runs } = simulate(plan, ON + later, 9);
        expect(told.cycles.map(cycleLine).sort()).toEqual(
          cycles
            .map(({ due: { due, letter, start }, outcome, began, ended }) =>
              cycleLine({ due, letter, start, outcome, began, ended }),
            )
            .sort(),
        );
        expect(told.runs.map(runLine).sort()).toEqual(runs.map(runLine).sort());
      }),
      { seed: 33, numRuns: cases(300) },
    );
  });

  test('gives the same in one step and in many, and when it is written down and taken up in between', () => {
    fc.assert(
      fc.property(
        withAbilities(anyPlan),
        eventsOf,
        fc.array(fc.integer({ min: 0, max: DAYS * SECONDS_PER_DAY }), { maxLength: 40 }),
        (plan, events, stops) => {
          const told: { cycles: TimerCycle[]; runs: TimerRun[] } = { cycles: [], runs: [] };
          const listener = {
            cycle: (one: TimerCycle) => told.cycles.push(one),
            run: (one: TimerRun) => told.runs.push(one),
          };
          let device = SimulatedTimer.idle(plan, BEGIN, 0, listener);
          const moments = [
            ...events.map(({ at, ...press }) => ({ at, press })),
            ...stops.map((second) => ({ at: formatMoment(BEGIN + second), press: null })),
          ].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
          for (const { at, press } of moments) {
            device.advance(Date.parse(`${at}Z`) / 1000);
            device = SimulatedTimer.from(
              JSON.parse(JSON.stringify(device.snapshot())) as SimulatedTimerState,
              listener,
            );
            if (press) device.press(press);
          }
          device.advance((ON + DAYS) * SECONDS_PER_DAY);
          device.runOut();
          const { cycles, runs } = given(plan, events, 0);
          expect(told.cycles.map(cycleLine).sort()).toEqual(cycles.map(cycleLine).sort());
          expect(told.runs.map(runLine).sort()).toEqual(runs.map(runLine).sort());
        },
      ),
      { seed: 34, numRuns: cases(200) },
    );
  });
});
