/** Stations that together take more than the supply gives, and a pump that runs against closed valves. */
import { describe, expect, test } from '@jest/globals';
import {
  check,
  parseDate,
  SECONDS_PER_DAY,
  TIMER_KINDS,
  type Plan,
  type SupplyNoted,
} from '@water-clock/core';

const [, , kind] = TIMER_KINDS;
if (!kind) throw new Error('no kinds');
/** Monday. */
const ON = parseDate('2027-06-07') ?? 0;
const FLOWS = new Map([
  [1, 16],
  [2, 18],
  [3, 20],
]);

const planOf = (
  more: Partial<Plan['settings']>,
  onOverlap: Plan['timer']['onOverlap'] = 'queue',
) => {
  const days = { rule: 'weekdays', weekdays: ['wed'] } as const;
  const plan: Plan = {
    format: 'water-clock-plan',
    version: 1,
    timer: { ...kind, stationCount: 4, programCount: 2, stationsAtOnce: 4, onOverlap },
    settings: { stationsAtOnce: 1, ...more },
    stations: [1, 2, 3, 4].map((number) => ({ number })),
    programs: [
      {
        letter: 'A',
        starts: ['04:00'],
        runs: [1, 2, 3].map((station) => ({ station, seconds: 600 })),
        days,
      },
      { letter: 'B', starts: ['04:25'], runs: [{ station: 4, seconds: 600 }], days },
    ],
  };
  return plan;
};
const found = (plan: Plan, noted: Partial<SupplyNoted>) =>
  check(plan, ON, {
    supply: { litresPerMinute: null, flows: FLOWS, pump: null, ...noted },
  }).findings.filter(({ code }) => code === 'supply' || code === 'pump-shut');

/** Moment of a time on Wednesday 9 June. */
const wednesday = (minutes: number) => (ON + 2) * SECONDS_PER_DAY + minutes * 60;

describe('what the supply gives', () => {
  test('is enough for one station after another, and too little for two at once', () => {
    expect(found(planOf({}), { litresPerMinute: 20 })).toEqual([]);
    expect(found(planOf({ stationsAtOnce: 2 }), { litresPerMinute: 33 })).toEqual([
      expect.objectContaining({
        code: 'supply',
        severity: 'error',
        stations: [1, 2],
        litresPerMinute: 34,
      }),
    ]);
    const [three] = found(planOf({ stationsAtOnce: 3 }), { litresPerMinute: 40 });
    expect(three).toEqual({
      code: 'supply',
      severity: 'error',
      at: wednesday(240),
      stations: [1, 2, 3],
      litresPerMinute: 54,
      unknown: [],
      supply: 40,
      where: { station: 1, date: ON + 2 },
    });
    expect(found(planOf({ stationsAtOnce: 3 }), { litresPerMinute: 54 })).toEqual([]);
  });

  test('is too little for one station alone', () => {
    expect(found(planOf({}), { litresPerMinute: 17 })).toEqual([
      expect.objectContaining({ stations: [2], litresPerMinute: 18, at: wednesday(250) }),
    ]);
  });

  test('may be too little where a flow is not known, and nothing is said of one that was not measured', () => {
    const flows = new Map([[1, 16]]);
    expect(found(planOf({ stationsAtOnce: 2 }), { litresPerMinute: 40, flows })).toEqual([
      expect.objectContaining({ severity: 'warning', stations: [1, 2], unknown: [2] }),
    ]);
    expect(found(planOf({}), { litresPerMinute: 40, flows: new Map() })).toEqual([]);
    expect(found(planOf({ stationsAtOnce: 4 }), { litresPerMinute: null })).toEqual([]);
  });

  test('is shared by two cycles that the timer runs at once, and not by one that waits', () => {
    const flows = new Map([...FLOWS, [4, 15]]);
    const noted = { litresPerMinute: 30, flows };
    // Station 3 from 4:20 and B's station 4 from 4:25.
    expect(found(planOf({}, 'together'), noted)).toEqual([
      expect.objectContaining({ stations: [3, 4], litresPerMinute: 35, at: wednesday(265) }),
    ]);
    expect(found(planOf({}, 'queue'), noted)).toEqual([]);
  });
});

describe('a pump', () => {
  const delayed = planOf({ stationDelaySeconds: 20 });

  test.each([
    ['that keeps running', true, [{ seconds: 20, times: 2, isSure: true }]],
    ['of which that is not known', null, [{ seconds: 20, times: 2, isSure: false }]],
    ['that stops', false, []],
  ] as const)('%s', (_, runsOn, want) => {
    expect(found(delayed, { pump: { runsOn } })).toEqual(
      want.map((one) =>
        expect.objectContaining({ code: 'pump-shut', severity: 'warning', ...one }),
      ),
    );
  });

  test('without a delay, and none at all, are fine', () => {
    expect(found(planOf({}), { pump: { runsOn: true } })).toEqual([]);
    expect(found(delayed, { pump: null })).toEqual([]);
  });
});
