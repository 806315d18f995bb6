/** Linked stations against the same plan written out in full, and cycles sharing one limit, calculated by hand. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  check,
  emptyPlan,
  epochDayOf,
  faultLine,
  readPlan,
  simulate,
  TIMER_KINDS,
  type Plan,
} from '@water-clock/core';
import { cases } from './cases.ts';
import { anyPlan } from './randomPlans.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });

/** Station 4 is linked to one of the three, in one plan by its field and in the other by its own runs. */
function bothWays(plan: Plan, leader: number, enabled: boolean): { linked: Plan; written: Plan } {
  const own = { number: 4, enabled, flowLpm: 7 };
  const timer = { ...plan.timer, stationCount: 4, linksStations: true };
  const led = plan.stations.find(({ number }) => number === leader);
  const { cycleSeconds, soakSeconds } = led ?? {};
  const split = {
    ...(cycleSeconds === undefined ? {} : { cycleSeconds }),
    ...(soakSeconds === undefined ? {} : { soakSeconds }),
  };
  return {
    linked: { ...plan, timer, stations: [...plan.stations, { ...own, linkedTo: leader }] },
    written: {
      ...plan,
      timer,
      stations: [...plan.stations, { ...own, ...split }],
      programs: plan.programs.map((program) => ({
        ...program,
        runs: [
          ...program.runs,
          ...program.runs.flatMap(({ station, seconds }) =>
            station === leader ? [{ station: 4, seconds }] : [],
          ),
        ],
      })),
    },
  };
}

test('a linked station does what it would do with the runs and the split of its own', () => {
  fc.assert(
    fc.property(anyPlan, fc.integer({ min: 1, max: 3 }), fc.boolean(), (plan, leader, enabled) => {
      const { linked, written } = bothWays(plan, leader, enabled);
      expect(readPlan(JSON.parse(JSON.stringify(linked)))).toEqual({ ok: true, value: linked });
      expect(simulate(linked, ON, 2).runs).toEqual(simulate(written, ON, 2).runs);
      const told = (given: Plan) => {
        const answer = check(given, ON);
        const findings = answer.findings.filter(({ code }) => code !== 'not-on-timer');
        return { ...answer, findings };
      };
      expect(told(linked)).toEqual(told(written));
    }),
    { seed: 31, numRuns: cases(40) },
  );
});

const [, kind] = TIMER_KINDS;
const small = (fields: Partial<Plan['timer']> = {}): Plan => {
  if (!kind) throw new Error('no kinds');
  return {
    ...emptyPlan({ ...kind, stationCount: 4, ...fields }),
    stations: [1, 2, 3, 4].map((number) => ({ number })),
  };
};
const program = (letter: string, runs: readonly (readonly [number, number])[], more = {}) => ({
  letter,
  starts: ['05:00'],
  days: { rule: 'daily' as const },
  runs: runs.map(([station, minutes]) => ({ station, seconds: minutes * 60 })),
  ...more,
});

test('a link leads to a listed station that is not linked itself, and takes the place of runs', () => {
  const faults = (stations: Plan['stations'], programs: Plan['programs'] = []) => {
    const read = readPlan({ ...small(), stations, programs });
    return read.ok ? [] : read.faults.map(faultLine);
  };
  expect(faults([{ number: 1 }, { number: 2, linkedTo: 3 }])).toEqual([
    'stations[1].linkedTo: station 3 is not in the list of stations; add it to the list, or remove it here',
  ]);
  expect(faults([{ number: 1, linkedTo: 1 }])[0]).toMatch(
    /^stations\[0\]\.linkedTo: station 1 can/,
  );
  expect(
    faults([{ number: 1 }, { number: 2, linkedTo: 1 }, { number: 3, linkedTo: 2 }])[0],
  ).toMatch(/^stations\[2\]\.linkedTo: station 2 cannot be linked to; choose a station/);
  expect(faults([{ number: 1 }, { number: 2, linkedTo: 1 }], [program('A', [[2, 5]])])[0]).toMatch(
    /^programs\[0\]\.runs\[0\]\.station: station 2 is linked to station 1/,
  );
  const { findings } = check(
    { ...small(), stations: [{ number: 1 }, { number: 2, linkedTo: 1 }] },
    ON,
  );
  expect(findings).toContainEqual({
    code: 'not-on-timer',
    severity: 'error',
    limit: { what: 'no-links' },
    where: { station: 2, field: 'stations[1].linkedTo' },
  });
});

test('programs that share a limit of two: the first opens both, the second has what is left', () => {
  const sharing = small({ onOverlap: 'share', stationsAtOnce: 2, cycleSoak: 'station' });
  const minutesOf = (programs: Plan['programs'], more: Partial<Plan> = {}) => {
    const { cycles, runs } = simulate({ ...sharing, ...more, programs }, ON, 1);
    const start = ON * 86_400 + 5 * 3600;
    const minute = (moment: number | null) => ((moment ?? 0) - start) / 60;
    return {
      cycles: cycles.map(({ due, began, ended }) => [due.letter, minute(began), minute(ended)]),
      runs: runs.map(({ station, on, off }) => [station, minute(on), minute(off)]),
    };
  };
  const B = program('B', [
    [3, 5],
    [4, 5],
  ]);
  expect(
    minutesOf([
      program('A', [
        [1, 10],
        [2, 10],
      ]),
      B,
    ]),
  ).toEqual({
    cycles: [
      ['A', 0, 10],
      ['B', 0, 15],
    ],
    runs: [
      [1, 0, 10],
      [2, 0, 10],
      [3, 10, 15],
      [4, 10, 15],
    ],
  });
  // One at a time within A leaves room for B; a station open in A is skipped in B.
  expect(
    minutesOf([
      program(
        'A',
        [
          [1, 10],
          [2, 10],
        ],
        { stationsAtOnce: 1 },
      ),
      program('B', [
        [1, 5],
        [4, 5],
      ]),
    ]).runs,
  ).toEqual([
    [1, 0, 10],
    [4, 0, 5],
    [1, 10, 15],
    [2, 10, 20],
  ]);
  // Their total flow stays within the limit; alone anything may flow.
  const flowing = {
    settings: { flowLimitLpm: 20 },
    stations: [12, 30, 8, 9].map((flowLpm, i) => ({ number: i + 1, flowLpm })),
  };
  expect(
    minutesOf(
      [
        program('A', [
          [1, 10],
          [2, 10],
        ]),
        B,
      ],
      flowing,
    ).runs,
  ).toEqual([
    [1, 0, 10],
    [3, 0, 5],
    [2, 10, 20],
    [4, 20, 25],
  ]);
});
