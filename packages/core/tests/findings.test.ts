/** Findings: when each appears, what fixes it, and how one is accepted. */
import { describe, expect, test } from '@jest/globals';
import {
  aboutOf,
  applyChange,
  canBeAccepted,
  check,
  fixOf,
  judged,
  parseDate,
  TIMER_KINDS,
  type Brief,
  type Finding,
  type Plan,
  type Program,
  type Station,
} from '@water-clock/core';

const kind = TIMER_KINDS[2];
if (!kind) throw new Error('no kinds');
const ON = parseDate('2027-06-07') ?? 0;

const A: Program = {
  letter: 'A',
  starts: ['04:00'],
  runs: [{ station: 1, seconds: 1200 }],
  days: { rule: 'weekdays', weekdays: ['mon', 'thu'] },
};

const B: Program = { ...A, letter: 'B', starts: ['05:00'], runs: [{ station: 2, seconds: 600 }] };
const plan = (
  programs: readonly Program[] = [A, B],
  stations: readonly Partial<Station>[] = [],
  more: Partial<Plan> = {},
): Plan => ({
  format: 'water-clock-plan',
  version: 1,
  timer: { ...kind, programCount: 3, startsPerProgram: 4, oddDaysSkip31: false },
  settings: {},
  stations: [1, 2].map((number) => ({ number, ...stations[number - 1] })),
  programs,
  ...more,
});
const brief = (more: Partial<Brief> = {}, stations: readonly object[] = []): Brief => ({
  format: 'water-clock-brief',
  version: 1,
  timer: kind,
  stations: [
    { number: 1, weeklySeconds: 2400, ...stations[0] },
    { number: 2, weeklySeconds: 1200, ...stations[1] },
  ],
  ...more,
});
const found = (given: Plan, wanted: Brief | null = null) =>
  check(given, ON, { brief: wanted }).findings;

test('a plan as it should be has none', () => {
  expect(found(plan(), brief())).toEqual([]);
});

interface Case {
  readonly code: Finding['code'];
  readonly of: Plan;
  readonly wanted?: Brief;
  readonly where?: object;
  /** Whether one press fixes it. */
  readonly fixed: boolean;
}

const split = { ...A, starts: ['04:00', '04:10', '04:20'] };
const twice = { ...A, starts: ['03:00', '04:00'] };

const CASES: readonly Case[] = [
  { code: 'starts-taken-for-stations', of: plan([split, B]), where: { program: 'A' }, fixed: true },
  { code: 'leftover-start', of: plan([twice, B]), where: { program: 'A' }, fixed: true },
  {
    code: 'leftover-program',
    of: plan([{ ...A, runs: [...A.runs, ...B.runs] }, B]),
    where: { program: 'B' },
    fixed: true,
  },
  { code: 'station-in-none', of: plan([A]), where: { station: 2 }, fixed: false },
  {
    code: 'runs-off',
    of: plan([A, B], [{ cycleSeconds: 900, soakSeconds: 600 }], {
      timer: { ...kind, cycleSoak: 'none' },
    }),
    where: { station: 1, program: 'A', start: '04:00', date: ON },
    fixed: true,
  },
  {
    code: 'soak-too-short',
    of: plan(
      [{ ...A, starts: ['03:00', '03:30'] }, B],
      [{ cycleSeconds: 1200, soakSeconds: 1800 }],
      {
        timer: { ...kind, cycleSoak: 'none' },
      },
    ),
    where: { station: 1, program: 'A', start: '03:30', date: ON },
    fixed: false,
  },
  {
    code: 'afternoon-start',
    of: plan([{ ...A, starts: ['13:00'] }, B]),
    where: { program: 'A', start: '13:00' },
    fixed: true,
  },
  {
    code: 'odd-then-odd',
    of: plan([{ ...A, days: { rule: 'odd' } }, B]),
    where: { program: 'A' },
    fixed: true,
  },
  {
    code: 'pump-off',
    of: plan([A, B], [{ needsPump: true, pump: false }]),
    where: { station: 1 },
    fixed: true,
  },
  {
    code: 'under-cover-obeys-sensor',
    of: plan([A, B], [{ underCover: true }]),
    where: { station: 1 },
    fixed: true,
  },
  {
    code: 'open-ignores-sensor',
    of: plan([A, B], [{ obeysRainSensor: false }]),
    where: { station: 1 },
    fixed: true,
  },
  {
    code: 'past-midnight',
    of: plan([{ ...A, starts: ['23:50'] }, B]),
    where: { program: 'A', start: '23:50', date: ON + 1 },
    fixed: false,
  },
  {
    code: 'percent-not-100',
    of: plan([A, B], [], { settings: { seasonalPercent: 80 } }),
    where: { field: 'settings.seasonalPercent' },
    fixed: true,
  },
  {
    code: 'sensor-bypassed',
    of: plan([A, B], [], { settings: { sensor: 'bypass' } }),
    where: { field: 'settings.sensor' },
    fixed: true,
  },
  {
    code: 'timer-off',
    of: plan([A, B], [], { settings: { mode: 'off' } }),
    where: { field: 'settings.mode' },
    fixed: true,
  },
  {
    code: 'disabled-station',
    of: plan([{ ...A, runs: [...A.runs, ...B.runs] }], [{}, { enabled: false }]),
    where: { station: 2 },
    fixed: true,
  },
  {
    code: 'forbidden-day',
    of: plan(),
    wanted: brief({ rules: { weekdays: ['mon', 'tue'] } }),
    where: { program: 'A', start: '04:00', station: 1, date: ON + 3 },
    // Without the day it would get less water; a repair keeps it.
    fixed: false,
  },
  {
    code: 'forbidden-hour',
    of: plan(),
    wanted: brief({ rules: { noWaterWindows: [{ from: '04:15', to: '04:45' }] } }),
    where: { program: 'A', start: '04:00', station: 1, date: ON },
    fixed: false,
  },
  {
    code: 'too-many-days',
    of: plan(),
    wanted: brief({ rules: { mostDaysPerWeek: 1 } }),
    where: { station: 1, date: ON },
    fixed: false,
  },
  {
    code: 'mowing-day',
    of: plan(),
    wanted: brief({ mowing: { weekdays: ['fri'], dayBefore: true } }),
    where: { program: 'A', start: '04:00', station: 1, date: ON + 3 },
    fixed: true,
  },
  {
    code: 'too-much',
    of: plan(),
    wanted: brief({}, [{ weeklySeconds: 1800 }]),
    where: { station: 1 },
    fixed: true,
  },
  {
    code: 'too-little',
    of: plan(),
    wanted: brief({}, [{ weeklySeconds: 3600 }]),
    where: { station: 1 },
    fixed: true,
  },
  {
    code: 'not-often-enough',
    of: plan([{ ...A, starts: ['06:00', '10:00'] }, B]),
    wanted: brief({}, [
      { weeklySeconds: 4800, oftenADay: { times: 3, from: '05:00', to: '20:00' } },
    ]),
    where: { station: 1, date: ON },
    fixed: false,
  },
  {
    code: 'late-finish',
    of: plan(),
    wanted: brief({ wish: { finishBy: '05:05' } }),
    where: { program: 'B', start: '05:00', station: 2, date: ON },
    fixed: false,
  },
];

test.each(CASES)('$code is told, with where it is', ({ code, of, wanted = null, where, fixed }) => {
  const finding = found(of, wanted).find((finding) => finding.code === code);
  expect(finding?.where).toEqual(where);
  if (!finding) return;
  const fix = fixOf(of, finding, ON, wanted);
  expect(fix !== null).toBe(fixed);
  if (!fix) return;
  const applied = applyChange(of, fix.change);
  if (!applied.ok) throw new Error(JSON.stringify(applied.faults));
  // The finding is gone, and nothing worse has appeared.
  const after = found(applied.value.plan, wanted);
  expect(
    after.filter(
      (finding) => finding.code === code && finding.where.program === where?.['program' as never],
    ),
  ).toEqual([]);
  expect(after.filter(({ severity }) => severity === 'error').length).toBeLessThanOrEqual(
    found(of, wanted).filter(({ severity }) => severity === 'error').length,
  );
});

test.each<readonly [string, Finding['code'], Plan, Brief]>([
  [
    'repeated starts are wished',
    'leftover-start',
    plan([twice, B]),
    brief({ wish: { starts: 'repeated' } }),
  ],
  [
    'drip may run at any time',
    'late-finish',
    plan(),
    brief({ wish: { finishBy: '05:05', dripAnyTime: true } }, [{}, { overhead: false }]),
  ],
  [
    'the rules leave drip alone',
    'forbidden-day',
    plan([B], [{}, { overhead: false }]),
    brief({ rules: { weekdays: ['mon'], dripExempt: true } }, [{}, { overhead: false }]),
  ],
  [
    'the seed is sown no longer',
    'not-often-enough',
    plan(),
    brief({}, [{ oftenADay: { times: 3, from: '05:00', to: '20:00', until: '2027-06-06' } }]),
  ],
  ['it is within a tenth', 'too-little', plan(), brief({}, [{ weeklySeconds: 2650 }])],
])('where %s, %s is not told', (_, code, of, wanted) => {
  expect(found(of, wanted).map((finding) => finding.code)).not.toContain(code);
});

describe('a finding that is accepted', () => {
  const of = plan([{ ...A, starts: ['13:00'] }, B]);
  const finding = found(of).find(({ code }) => code === 'afternoon-start');
  if (!finding) throw new Error('no finding');
  const as = {
    code: finding.code,
    about: aboutOf(finding, of, null),
    reason: 'nursery, hand-held',
  };

  test('stands apart, until its last day is over or what it is about changes', () => {
    const open = (given: Plan, accepted: readonly (typeof as & { until?: string })[], on = ON) =>
      judged(check(given, on).findings, accepted, given, null, on).open.map(({ code }) => code);
    expect(open(of, [as])).not.toContain('afternoon-start');
    expect(open(of, [{ ...as, until: '2027-06-07' }])).not.toContain('afternoon-start');
    expect(open(of, [{ ...as, until: '2027-06-07' }], ON + 1)).toContain('afternoon-start');
    // Another program does not matter; its own runs do.
    const other = plan([
      { ...A, starts: ['13:00'] },
      { ...B, starts: ['05:30'] },
    ]);
    expect(open(other, [as])).not.toContain('afternoon-start');
    const longer = plan([{ ...A, starts: ['13:00'], runs: [{ station: 1, seconds: 1260 }] }, B]);
    expect(open(longer, [as])).toContain('afternoon-start');
  });

  test('is never an overlap', () => {
    const meeting = plan([A, { ...B, starts: ['04:10'] }]);
    const [overlap] = found(meeting);
    if (overlap?.code !== 'overlap') throw new Error('no overlap');
    expect(canBeAccepted(overlap)).toBe(false);
    const accepted = [
      { code: overlap.code, about: aboutOf(overlap, meeting, null), reason: 'so be it' },
    ];
    expect(judged([overlap], accepted, meeting, null, ON).open).toEqual([overlap]);
  });
});

describe('percents that differ from month to month', () => {
  const monthly = (percents: readonly number[], programs: readonly Program[], wanted: Brief) =>
    found(
      plan(programs, [], {
        timer: { ...kind, seasonal: { ...kind.seasonal, lowestPercent: 0, byMonth: true } },
        settings: { monthlyPercent: percents },
      }),
      wanted,
    );
  const halfYear = (first: number, second: number) =>
    Array.from({ length: 12 }, (_, month) => (month < 6 ? first : second));
  const often = brief({}, [{ oftenADay: { times: 3, from: '05:00', to: '19:00' } }]);
  const starts = ['06:00', '10:00', '14:00'];

  test('three runs a day are three, and two are two', () => {
    const codes = (given: readonly string[]) =>
      monthly(halfYear(100, 150), [{ ...A, starts: given }, B], often).filter(
        ({ code }) => code === 'not-often-enough',
      );
    expect(codes(starts)).toEqual([]);
    expect(codes(starts.slice(0, 2))).toMatchObject([{ times: 2, where: { station: 1 } }]);
  });

  test('a month at 0 percent has no wet days to count', () => {
    const daily: Program = { ...A, days: { rule: 'daily' } };
    const ruled = brief({ rules: { mostDaysPerWeek: 2 } });
    // Dry until the end of June: the first week with too many days begins on 28 June and has four in July.
    expect(
      monthly(halfYear(0, 100), [daily, B], ruled).filter(({ code }) => code === 'too-many-days'),
    ).toMatchObject([{ days: 4, where: { station: 1, date: parseDate('2027-06-28') } }]);
  });
});
