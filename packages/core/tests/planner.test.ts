/** The planner: against plain enumeration, against the slow timer model, and on briefs that ask for too much. */
import { describe, expect, test } from '@jest/globals';
import {
  alternativesOf,
  parseDate,
  planReport,
  seasonOf,
  takePlanChange,
  applyChange,
  withPresentWater,
  workOut,
  type Brief,
  type Plan,
  type Timer,
} from '@water-clock/core';
import { barePlan } from '../src/planner/needs.ts';
import { breachOf, hardPercents } from '../src/planner/verify.ts';
import { compareCosts } from '../src/planner/cost.ts';
import { conflictsOf } from '../src/planner/conflicts.ts';
import { readBrief } from '../src/brief/readBrief.ts';
import { searchPlan } from '../src/planner/searchPlan.ts';
import { plainPlan, smallBrief } from '../bench/plainPlanner.mjs';
import { fewCases, isLong, someOf } from './cases.ts';
import { realisticBrief } from './plannerBriefs.ts';
import { forbiddenSeconds } from './forbidden.ts';
import { referenceOverlaps } from './referenceCycles.ts';

const ON = parseDate('2027-01-01') ?? 0;

function sound(brief: Brief): Brief {
  const read = readBrief(brief);
  if (!read.ok) throw new Error(JSON.stringify(read.faults));
  return read.value;
}

const BASE = sound(realisticBrief(1, 6));
const plain = (stations: Brief['stations'], more: Partial<Brief> = {}): Brief =>
  sound({
    format: 'water-clock-brief',
    version: 1,
    timer: { ...BASE.timer, dayRules: ['weekdays', 'interval'], cycleSoak: 'none' },
    stations,
    ...more,
  });

// Seeds whose plans can all be listed quickly; the benchmark tries some hundreds. Every other one of the first ten uses programs by need.
test.each(someOf([1, 15, 3, 16, 4, 224, 14, 187, 42, 198, 91, 112]))(
  'no plan of a small brief is cheaper than the one found, seed %i',
  (seed) => {
    const brief = sound(smallBrief(seed));
    const { found, proof } = searchPlan(brief);
    const best = plainPlan(brief, barePlan(brief), 4000);
    if (best === 'unfinished') throw new Error('choose another seed');
    expect(found === null).toBe(best === null);
    if (!found || !best) return;
    expect(breachOf(brief, found.plan)).toBeNull();
    expect(compareCosts(found.cost, best.cost)).toBeLessThanOrEqual(0);
    expect(compareCosts(proof.bound, best.cost)).toBeLessThanOrEqual(0);
  },
);

test.each(Array.from({ length: fewCases(6) }, (_, i) => [i, [6, 12, 24][i % 3] ?? 6] as const))(
  'by the slow model nothing overlaps and nothing is wet when it must not be, at any percent, seed %i, %i stations',
  (seed, count) => {
    const brief = sound(realisticBrief(seed, count));
    const { found } = searchPlan(brief);
    if (!found) {
      // Then it says what prevents a plan, and each change helps.
      for (const { change } of conflictsOf(brief))
        if (change) expect(searchPlan(change.brief).found).not.toBeNull();
      return;
    }
    for (const percent of hardPercents(brief)) {
      expect(referenceOverlaps(found.plan, ON, 35, percent)).toEqual([]);
      expect(forbiddenSeconds(brief, found.plan, percent, ON)).toBe(0);
    }
    // The same brief, the same plan.
    expect(searchPlan(brief).found?.plan).toEqual(found.plan);
  },
);

describe('where there is no plan', () => {
  test('the demands that cannot be had together, each with the least change that helps', () => {
    const brief = plain(
      [
        { number: 1, name: 'Lawn', weeklySeconds: 3600, days: { least: 3, most: 3 } },
        { number: 2, weeklySeconds: 1800 },
      ],
      { rules: { mostDaysPerWeek: 2 } },
    );
    const { plan, report } = planReport(brief, workOut(brief));
    expect(plan).toBeNull();
    expect(report.conflicts?.map(({ apply: _apply, ...rest }) => rest)).toEqual([
      {
        path: 'rules.mostDaysPerWeek',
        demand: 'At most 2 days a week are allowed here.',
        change: 'Ask whether 3 days a week can be allowed.',
      },
      {
        path: 'stations[0].days',
        demand: 'Lawn (1) needs 3 days a week.',
        change: 'Let Lawn (1) have 2 to 3 days a week.',
      },
    ]);
    expect(report.conflicts?.map(({ apply }) => apply)).toEqual([
      [{ path: 'rules.mostDaysPerWeek', value: 3 }],
      [{ path: 'stations[0].days', value: { least: 2, most: 3 } }],
    ]);
    for (const { change } of conflictsOf(brief))
      expect(change && searchPlan(change.brief).found).toBeTruthy();
  });

  test('one more program is offered where that is the least', () => {
    const brief = plain(
      [
        { number: 1, weeklySeconds: 1800, days: { least: 1, most: 1 } },
        { number: 2, weeklySeconds: 1800, days: { least: 4, most: 5 } },
      ],
      { timer: { ...BASE.timer, dayRules: ['weekdays'], programCount: 1 } },
    );
    const changes = planReport(brief, workOut(brief)).report.conflicts ?? [];
    expect(changes.map(({ path }) => path)).toContain('timer.programCount');
    expect(changes.map(({ change }) => change)).toContain('A timer with 2 programs would work.');
  });

  const slow: readonly (readonly [string, Brief, boolean])[] = [
    [
      'a week of water in a week',
      plain([
        { number: 1, weeklySeconds: 604_800 },
        { number: 2, weeklySeconds: 600 },
      ]),
      true,
    ],
  ];
  test.each<readonly [string, Brief, boolean]>([
    ['nothing to water', plain([]), true],
    ...(isLong ? slow : []),
    [
      'one minute a day',
      plain(realisticBrief(2, 6).stations, {
        rules: { noWaterWindows: [{ from: '00:00', to: '23:59' }] },
      }),
      false,
    ],
    [
      'ninety-nine stations, one program, one start, one day',
      plain(realisticBrief(3, 99).stations, {
        timer: { ...BASE.timer, stationCount: 99, programCount: 1, startsPerProgram: 1 },
        rules: { weekdays: ['mon'] },
      }),
      false,
    ],
  ])('%s gets an answer', (_, brief, isPossible) => {
    const worked = workOut(brief);
    expect(worked.plan !== null).toBe(isPossible);
    if (worked.plan) expect(breachOf(brief, worked.plan)).toBeNull();
    else expect(worked.conflicts.length).toBeGreaterThan(0);
  });
});

test('what is kept stays, and the rest is worked out around it', () => {
  const brief = plain(
    realisticBrief(5, 6).stations.map((station) => ({ ...station, weeklySeconds: 2400 })),
  );
  const pins = {
    stations: [{ station: 2, program: 'C' }],
    starts: [{ program: 'C', start: '04:00' }],
    days: [{ program: 'C', days: { rule: 'weekdays', weekdays: ['tue', 'sat'] } as const }],
    runs: [{ station: 3, seconds: 660 }],
  };
  const plan = searchPlan(brief, { pins }).found?.plan;
  const kept = plan?.programs.find(({ letter }) => letter === 'C');
  expect(kept?.starts).toContain('04:00');
  expect(kept?.days).toEqual({ rule: 'weekdays', weekdays: ['tue', 'sat'] });
  expect(kept?.runs.map(({ station }) => station)).toContain(2);
  expect(plan?.programs.flatMap(({ runs }) => runs)).toContainEqual({ station: 3, seconds: 660 });
});

test('each reason names where it comes from, and each number of the plan has one', () => {
  const brief = plain([
    {
      number: 1,
      weeklySeconds: 3600,
      cycleSeconds: 600,
      soakSeconds: 1200,
      days: { least: 2, most: 3 },
    },
    { number: 2, weeklySeconds: 1800 },
  ]);
  const { plan, report } = planReport(brief, workOut(brief));
  const about = (kind: string) => report.reasons.filter((one) => one.about === kind);
  expect(about('run').map(({ from }) => from.path)).toEqual([
    'stations[0].weeklySeconds',
    'stations[1].weeklySeconds',
  ]);
  expect(about('start')).toHaveLength(plan?.programs[0]?.starts.length ?? 0);
  expect(about('starts')[0]?.from.path).toBe('stations[0].cycleSeconds');
  expect(about('days')[0]?.message).toMatch(/station 1 needs 2 to 3 days a week/);
});

test('plans of other kinds are what they say', () => {
  const stations = [
    {
      number: 1,
      weeklySeconds: 3600,
      cycleSeconds: 600,
      soakSeconds: 1200,
      days: { least: 2, most: 2 },
    },
    { number: 2, weeklySeconds: 1800, days: { least: 4, most: 4 } },
  ];
  const brief = plain(stations, {
    timer: { ...BASE.timer, cycleSoak: 'station', dayRules: ['weekdays'], programCount: 3 },
  });
  const plans = new Map(
    alternativesOf(brief, '06:00').map(({ kind, brief: other }) => [
      kind,
      searchPlan(other).found?.plan,
    ]),
  );
  expect(plans.get('as-wished')?.programs).toHaveLength(2);
  expect(plans.get('one-program')?.programs).toHaveLength(1);
  expect(plans.get('timer-soak')?.programs.every(({ starts }) => starts.length === 1)).toBe(true);
  expect(plans.get('repeated-starts')?.programs[0]?.starts.length).toBeGreaterThan(1);
});

test('where the need is not known, the present programs are gone by', () => {
  const present = {
    ...barePlan(BASE),
    programs: [
      {
        letter: 'A',
        starts: ['04:00'],
        runs: [{ station: 1, seconds: 600 }],
        days: { rule: 'interval' as const, everyDays: 2, firstDate: '2027-01-01' },
      },
    ],
  };
  const stations = BASE.stations.map(({ days: _days, ...one }) => one);
  const ruled = { ...BASE, stations, rules: { mostDaysPerWeek: 3 } };
  const [one, two] = withPresentWater(ruled, present, [1]).stations;
  expect(one).toMatchObject({ weeklySeconds: 2100, days: { least: 1, most: 3 } });
  expect(two).toBe(stations[1]);
});

test('a plan is taken as one step', () => {
  const plan = searchPlan(BASE).found?.plan;
  if (!plan) throw new Error('no plan');
  const present = { ...barePlan(BASE), programs: plan.programs.slice(0, 1) };
  const applied = applyChange(present, takePlanChange(present, plan));
  expect(applied.ok && applied.value.plan.programs).toEqual(plan.programs);
  expect(applied.ok && applyChange(applied.value.plan, applied.value.inverse)).toMatchObject({
    value: { plan: { programs: present.programs } },
  });
});

test('a longest cycle that no run can reach is not a setting to change', () => {
  const seasonal = { ...BASE.timer.seasonal, highestPercent: 200 };
  const timer: Timer = { ...BASE.timer, cycleSoak: 'station', seasonal };
  const taken = (cycleSeconds: number, now?: number) => {
    const plan: Plan = {
      ...barePlan({ ...BASE, timer }),
      stations: [{ number: 1, cycleSeconds, soakSeconds: 900 }],
      programs: [{ letter: 'A', starts: [], runs: [{ station: 1, seconds: 300 }], days: null }],
    };
    const present = {
      ...plan,
      stations: [
        { number: 1, ...(now === undefined ? {} : { cycleSeconds: now, soakSeconds: 60 }) },
      ],
    };
    const applied = applyChange(present, takePlanChange(present, plan));
    return applied.ok && applied.value.plan.stations[0]?.cycleSeconds;
  };
  // The timer goes up to 200 %, so five minutes become ten.
  expect(taken(599)).toBe(599);
  expect(taken(600)).toBeUndefined();
  expect(taken(2520)).toBeUndefined();
  expect(taken(2520, 700)).toBe(700);
  expect(taken(2520, 120)).toBe(2520);
});

test('the season: one set of programs where a percent serves, other programs where one station goes its own way', () => {
  const brief = plain([
    { number: 1, weeklySeconds: 7200 },
    { number: 2, weeklySeconds: 7200 },
  ]);
  const plan = searchPlan(brief).found?.plan;
  if (!plan) throw new Error('no plan');
  const month = (at: number, one: number, two: number) => ({
    month: at,
    shares: new Map([
      [1, one],
      [2, two],
    ]),
    finishBy: null,
  });
  const months = seasonOf(
    brief,
    plan,
    [month(1, 1, 1), month(4, 0.5, 0.5), month(6, 1, 0.4), month(7, 0, 0)],
    'percent',
  );
  expect(months.map(({ percent, serves }) => [percent, serves])).toEqual([
    [100, true],
    [50, true],
    [70, false],
    [null, true],
  ]);
  expect(months[2]?.off).toEqual([1, 2]);
  expect(months[2]?.plan).not.toBeNull();
});
