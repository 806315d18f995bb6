/** Wishes, reasons, the season, and plans in which not everything fits. */
import { describe, expect, test } from '@jest/globals';
import {
  alternativesOf,
  applyChange,
  parseTime,
  planReport,
  seasonOf,
  takePlanChange,
  workOut,
  type Brief,
  type Plan,
  type Weekday,
} from '@water-clock/core';
import { costOf } from '../src/planner/cost.ts';
import { isLikedBetter, offMidnight } from '../src/planner/likes.ts';
import { barePlan } from '../src/planner/needs.ts';
import { searchPlan } from '../src/planner/searchPlan.ts';
import { breachOf } from '../src/planner/verify.ts';
import { briefOf, PLAIN_TIMER, type BriefFields } from './plannerBriefs.ts';

const planOf = (brief: Brief): Plan => {
  const { found } = searchPlan(brief);
  if (!found) throw new Error('no plan');
  expect(breachOf(brief, found.plan)).toBeNull();
  return found.plan;
};
const hours = (count: number) => count * 3600;

describe('a wish is kept by the plan, and a plan without it is refused', () => {
  const soaking = [
    { weeklySeconds: 3600, cycleSeconds: 600, soakSeconds: 1200, days: { least: 2, most: 2 } },
    { weeklySeconds: 1800 },
  ];

  test('one start', () => {
    const brief = briefOf([{ weeklySeconds: 3600 }], { wish: { starts: 'one' } });
    const plan = planOf(brief);
    expect(plan.programs.map(({ starts }) => starts.length)).toEqual([1]);
    const [program] = plan.programs;
    const twice = { ...plan, programs: [{ ...program, starts: ['01:00', '05:00'] }] };
    expect(breachOf(brief, twice as Plan)?.code).toBe('wish');
  });

  test('by need: groups keep apart as far as there are programs, and only where that costs no water', () => {
    const groups = ['lawn', 'beds', 'lawn', 'drip', undefined];
    const stations = groups.map((group) => ({ weeklySeconds: 1800, ...(group ? { group } : {}) }));
    const groupsOf = (programCount: number, programs: 'by-need' | 'any' = 'by-need') => {
      const brief = briefOf(stations, { wish: { programs }, timer: { programCount } });
      const { found } = searchPlan(brief);
      if (!found) throw new Error('no plan');
      expect(breachOf(brief, found.plan)).toBeNull();
      const together = found.plan.programs.map(
        ({ runs }) => new Set(runs.map(({ station }) => groups[station - 1])).size,
      );
      expect(found.cost[2]).toBe(
        programs === 'any' ? 0 : together.reduce((sum, count) => sum + count - 1, 0),
      );
      return together.sort();
    };
    expect(groupsOf(6)).toEqual([1, 1, 1, 1]);
    expect(groupsOf(3)).toEqual([1, 1, 2]);
    expect(groupsOf(1)).toEqual([4]);
    expect(groupsOf(6, 'any')).toEqual([4]);
  });

  test('by need with more groups than could ever be divided in all ways still has an answer', () => {
    const stations = Array.from({ length: 12 }, (_, i) => ({ weeklySeconds: 900, group: `g${i}` }));
    const brief = briefOf(stations, {
      wish: { programs: 'by-need' },
      timer: { stationCount: 18, programCount: 6 },
    });
    // Twelve groups in six programs: at least six share one.
    expect(searchPlan(brief).found?.cost[2]).toBeGreaterThanOrEqual(6);
  });

  test('days are counted as they fall: even dates on two weekdays are too few, and too far apart', () => {
    const brief = briefOf([{ weeklySeconds: 3600, days: { least: 2, most: 3 } }], {
      timer: { dayRules: ['even', 'weekdays'] },
    });
    const plan = planOf(brief);
    const [program] = plan.programs;
    const blockedWeekdays = ['mon', 'tue', 'thu', 'fri', 'sun'];
    const even = { ...plan, programs: [{ ...program, days: { rule: 'even', blockedWeekdays } }] };
    expect(breachOf(brief, even as Plan)?.code).toBe('days');
    const together = { rule: 'weekdays', weekdays: ['mon', 'tue'] };
    expect(
      breachOf(brief, { ...plan, programs: [{ ...program, days: together }] } as Plan),
    ).toBeNull();
  });

  test('the timer does the soaking, by station or by program', () => {
    for (const cycleSoak of ['station', 'program'] as const) {
      const brief = briefOf(soaking, { wish: { starts: 'timer-soak' }, timer: { cycleSoak } });
      const plan = planOf(brief);
      expect(plan.programs.every(({ starts }) => starts.length === 1)).toBe(true);
      const splits =
        cycleSoak === 'station'
          ? plan.stations[0]?.cycleSeconds
          : plan.programs.find(({ runs }) => runs[0]?.station === 1)?.cycleSeconds;
      expect(splits).toBe(600);
      const repeated = {
        ...plan,
        programs: plan.programs.map((program) => ({ ...program, starts: ['01:00', '05:00'] })),
      };
      expect(breachOf(brief, repeated)?.code).toBe('wish');
    }
  });

  test('repeated starts do the soaking: the timer splits nothing', () => {
    for (const cycleSoak of ['station', 'program'] as const) {
      const brief = briefOf(soaking, { wish: { starts: 'repeated' }, timer: { cycleSoak } });
      const plan = planOf(brief);
      const own = plan.programs.find(({ runs }) => runs.some(({ station }) => station === 1));
      const run = own?.runs.find(({ station }) => station === 1)?.seconds ?? 0;
      expect(own?.starts.length).toBeGreaterThan(1);
      expect(run).toBeLessThanOrEqual(600);
      const long = {
        ...plan,
        programs: plan.programs.map((program) => ({
          ...program,
          ...(cycleSoak === 'program' ? { cycleSeconds: 600, soakSeconds: 1200 } : {}),
          runs: program.runs.map((run) => ({ ...run, seconds: 1200 })),
        })),
      };
      expect(breachOf(brief, long)?.code).toBe('wish');
    }
  });

  test('days by one rule', () => {
    for (const days of ['weekdays', 'interval'] as const) {
      const brief = briefOf([{ weeklySeconds: 3600 }], { wish: { days } });
      expect(planOf(brief).programs[0]?.days?.rule).toBe(days);
    }
  });

  test('one program, and more programs than a timer has', () => {
    const stations = [
      { weeklySeconds: 1800, days: { least: 2, most: 2 } },
      { weeklySeconds: 1800, days: { least: 4, most: 4 } },
    ];
    const two = planOf(briefOf(stations));
    expect(two.programs).toHaveLength(2);
    expect(breachOf(briefOf(stations, { wish: { programs: 'one' } }), two)?.code).toBe('wish');
    expect(breachOf(briefOf(stations, { timer: { programCount: 1 } }), two)?.code).toBe(
      'not-on-timer',
    );
  });

  test('an overlap counts at 100 percent, too, where the timer has no such step', () => {
    const brief = briefOf([{ weeklySeconds: 12_000, days: { least: 2, most: 2 } }], {
      wish: { headroomPercent: 100 },
      timer: {
        seasonal: { ...PLAIN_TIMER.seasonal, scope: 'timer', lowestPercent: 80, stepPercent: 15 },
      },
    });
    const plan = planOf(brief);
    const twice = (second: string): Plan => ({
      ...plan,
      programs: plan.programs.map((program) => ({ ...program, starts: ['01:00', second] })),
    });
    expect(plan.programs[0]?.runs[0]?.seconds).toBe(6000);
    // 95 minutes at 95 percent, 100 at 100.
    expect(breachOf(brief, twice('02:35'))).toEqual({ code: 'overlap', percent: 100 });
    expect(breachOf(brief, twice('02:40'))?.code).not.toBe('overlap');
  });

  test('what waters often a day does so between its hours; the rest keeps to the wished ones', () => {
    const brief = briefOf([
      { weeklySeconds: 5040, oftenADay: { times: 3, from: '09:00', to: '16:00' } },
      { weeklySeconds: 1800 },
    ]);
    const plan = planOf(brief);
    const own = plan.programs.find(({ runs }) => runs.some(({ station }) => station === 1));
    expect(own?.starts).toHaveLength(3);
    expect(own?.starts.every((start) => start >= '09:00' && start < '16:00')).toBe(true);
  });
});

describe('where not all has room', () => {
  test('watering goes on beyond the wished hours before anything goes short, and says for how long', () => {
    const brief = briefOf([{ weeklySeconds: hours(12), days: { least: 2, most: 2 } }], {
      wish: { notBefore: '03:00', finishBy: '06:00', headroomPercent: 100 },
      rules: { weekdays: ['mon', 'thu'] },
    });
    const { found } = searchPlan(brief);
    expect(found?.cost[0]).toBe(0);
    expect(found?.cost[1]).toBeGreaterThan(0);
    const { report } = planReport(brief, workOut(brief));
    const told = (about: string) =>
      report.reasons.filter((reason) => reason.about === about).map(({ message }) => message);
    expect(told('outside')[0]).toMatch(
      /^At \d+ %, \d+ h \d+ min a week falls outside 3:00 to 6:00\. None of the plans we tried fits inside those hours\.$/,
    );
    expect(told('starts')[0]).toMatch(/^A has \d start times\.$/);
    expect(told('days')[0]).toMatch(/: station 1 needs 2 days a week and only Mon Thu are allowed/);
  });

  test('some go short where a day has no room for all', () => {
    const brief = briefOf(
      [1, 2, 3].map(() => ({ weeklySeconds: hours(12), days: { least: 1, most: 1 } })),
      { rules: { weekdays: ['mon'] }, timer: { longestRunSeconds: hours(12) } },
    );
    const { found, proof } = searchPlan(brief);
    expect(found?.cost[0]).toBeGreaterThan(0);
    expect(proof.optimal).toBe(false);
    expect(found && breachOf(brief, found.plan)).toBeNull();
  });

  test('hours that a clock change touches are left out, unless all would have to be watered by day', () => {
    const avoid = [{ from: hours(1), to: hours(3) }];
    const seconds = (plan: Plan | undefined) =>
      plan?.programs.flatMap(({ starts }) => starts.map((start) => parseTime(start) ?? 0)) ?? [];
    const roomy = briefOf([{ weeklySeconds: 3600, days: { least: 2, most: 2 } }]);
    const touched = (second: number) => second >= hours(1) && second < hours(3);
    expect(seconds(searchPlan(roomy, { avoid }).found?.plan).some(touched)).toBe(false);
    const tight = briefOf([{ weeklySeconds: 3600, days: { least: 2, most: 2 } }], {
      wish: { notBefore: '01:00', finishBy: '03:00' },
    });
    const { found } = searchPlan(tight, { avoid });
    expect(found?.cost[1]).toBe(0);
    expect(seconds(found?.plan).every(touched)).toBe(true);
  });
});

test('a plan is taken with the soaks of its stations, where the timer splits by station', () => {
  const brief = briefOf(
    [
      {
        weeklySeconds: hours(3),
        cycleSeconds: 600,
        soakSeconds: 1200,
        days: { least: 2, most: 2 },
      },
      { weeklySeconds: 1800 },
    ],
    { timer: { cycleSoak: 'station' } },
  );
  const plan = planOf(brief);
  const bare = barePlan(brief);
  const present: Plan = {
    ...bare,
    stations: [
      { number: 1, name: 'Lawn' },
      { number: 2, cycleSeconds: 300, soakSeconds: 60 },
    ],
  };
  const taken = applyChange(present, takePlanChange(present, plan));
  expect(taken.ok && taken.value.plan.stations).toEqual([
    { number: 1, name: 'Lawn', cycleSeconds: 600, soakSeconds: 1200 },
    { number: 2 },
  ]);
  expect(taken.ok && taken.value.plan.programs).toEqual(plan.programs);
  expect(taken.ok && applyChange(taken.value.plan, taken.value.inverse)).toMatchObject({
    value: { plan: { stations: present.stations } },
  });
});

describe('the season', () => {
  const brief = briefOf([{ weeklySeconds: hours(4), days: { least: 4, most: 7 } }]);
  const plan = planOf(brief);
  const month = (at: number, share: number, finishBy: string | null = null) => ({
    month: at,
    shares: new Map([[1, share]]),
    finishBy,
  });

  test('by days: the minutes stay, and each month has as many days as it needs', () => {
    const runs = plan.programs.flatMap((program) => program.runs);
    const [spring, summer] = seasonOf(brief, plan, [month(4, 0.5), month(7, 1)], 'days');
    expect(spring?.percent).toBe(100);
    expect(spring?.plan?.programs.flatMap((program) => program.runs)).toEqual(runs);
    const days = spring?.plan?.programs[0]?.days;
    expect(days?.rule === 'weekdays' && days.weekdays.length).toBe(2);
    expect(summer).toMatchObject({ serves: true, plan: null });
  });

  test('a month in which it ends too late, or needs more than is clear, gets a plan of its own', () => {
    const [early, high] = seasonOf(brief, plan, [month(6, 1, '05:00'), month(8, 1.5)], 'percent');
    expect(early?.late).toBeGreaterThan(0);
    expect(early?.plan?.programs).toBeDefined();
    expect(high).toMatchObject({ percent: 150, tight: true, serves: false });
  });

  test('a timer without a percent is told what is off; a station nobody has a share of needs it whole', () => {
    const none = briefOf(
      [{ weeklySeconds: hours(4), days: { least: 4, most: 7 } }, { weeklySeconds: 1800 }],
      { timer: { seasonal: { ...PLAIN_TIMER.seasonal, scope: 'none' } } },
    );
    const [april, winter] = seasonOf(none, planOf(none), [month(4, 0.5), month(1, 0)], 'percent');
    expect(april).toMatchObject({ percent: 100, off: [1], serves: false });
    expect(winter).toMatchObject({ percent: 100, off: [1] });
  });
});

test('briefs for plans of other kinds are offered only where they are of another kind', () => {
  const kinds = (brief: Brief, sunrise: string | null) =>
    alternativesOf(brief, sunrise).map(({ kind }) => kind);
  const fixed = [{ weeklySeconds: 3600, days: { least: 2, most: 2 } }];
  expect(kinds(briefOf(fixed), null)).toEqual(['as-wished']);
  expect(kinds(briefOf(fixed), '07:00')).toEqual(['as-wished']);
  const soaked = [{ ...fixed[0], weeklySeconds: 3600, cycleSeconds: 600 }, { weeklySeconds: 600 }];
  const wish = { starts: 'timer-soak', programs: 'one' } as const;
  expect(kinds(briefOf(soaked, { wish, timer: { cycleSoak: 'station' } }), '05:30')).toEqual([
    'as-wished',
    'by-sunrise',
    'repeated-starts',
    'fewest-days',
  ]);
  const fewest = alternativesOf(briefOf(soaked), null).at(-1)?.brief.stations;
  expect(fewest?.map(({ days }) => days)).toEqual([
    { least: 2, most: 2 },
    { least: 1, most: 2 },
  ]);
});

describe('reasons', () => {
  const reasons = (brief: Brief) => planReport(brief, workOut(brief)).report.reasons;
  const told = (brief: Brief, about: string) =>
    reasons(brief)
      .filter((reason) => reason.about === about)
      .map(({ from, message }) => [from.path, message] as const);

  test('why there are several programs: days, groups, or room', () => {
    const byDays = briefOf([
      { weeklySeconds: 1800, days: { least: 2, most: 2 } },
      { weeklySeconds: 1800, days: { least: 4, most: 4 } },
      { weeklySeconds: 1800 },
    ]);
    expect(told(byDays, 'programs')[0]?.[0]).toBe('stations[0].days');
    const byGroup = briefOf(
      [
        { weeklySeconds: 1800, group: 'lawn' },
        { weeklySeconds: 1800, group: 'beds' },
      ],
      { wish: { apart: [['lawn', 'beds']] } },
    );
    expect(told(byGroup, 'programs')).toEqual([
      ['wish.apart', '2 programs: lawn and beds must not share a program.'],
    ]);
  });

  test('why a start is not a step later: the end, the next cycle, a rule, mowing, or nothing', () => {
    const early = { notBefore: '02:00', finishBy: '08:00' };
    const start = (fields: BriefFields, stations = [{ weeklySeconds: 3600 }]) =>
      told(briefOf(stations, fields), 'start')[0];
    expect(start({})?.[0]).toBe('wish.finishBy');
    expect(
      start({ wish: early, rules: { noWaterWindows: [{ from: '06:00', to: '23:00' }] } }),
    ).toEqual([
      'rules.noWaterWindows',
      expect.stringMatching(/One step later it would water when the rules do not allow it/),
    ]);
    // Done by half past twelve, but the lawn must be dry at midnight.
    expect(
      start({
        wish: { notBefore: '18:00', finishBy: '00:30', headroomPercent: 100 },
        mowing: { weekdays: ['tue', 'wed', 'thu', 'fri', 'sat', 'sun'] },
      }),
    ).toEqual(['mowing', expect.stringMatching(/ends at 0:00\. One step later /)]);
  });

  test('a station that is split says into what; one that waters often says how often', () => {
    const split = briefOf(
      [
        { weeklySeconds: 3600, cycleSeconds: 600, days: { least: 2, most: 2 } },
        { weeklySeconds: 900 },
      ],
      { timer: { cycleSoak: 'station' }, wish: { starts: 'timer-soak' } },
    );
    expect(told(split, 'split')[0]?.[1]).toMatch(
      /^Station 1 is split into 10 min \+ 10 min \+ 10 min with a 0 min soak /,
    );
    const often = briefOf([
      { weeklySeconds: 5040, oftenADay: { times: 3, from: '09:00', to: '16:00' } },
    ]);
    expect(told(often, 'starts')).toEqual([
      [
        'stations[0].oftenADay',
        'A has 3 start times, because station 1 needs that many runs on each of its days.',
      ],
    ]);
    const both = briefOf([
      { weeklySeconds: 7200, cycleSeconds: 600, soakSeconds: 1200, days: { least: 3, most: 3 } },
      { weeklySeconds: 3600, cycleSeconds: 900, soakSeconds: 1200, days: { least: 3, most: 3 } },
    ]);
    // The reason is the one with the most cycles.
    expect(told(both, 'starts')[0]?.[1]).toMatch(/station 1 can run 10 min before water runs off/);
  });

  test('days: what is allowed here, what drip is exempt from', () => {
    const rules = { weekdays: ['mon', 'thu'] as const, dripExempt: true };
    const lawn = briefOf([{ weeklySeconds: 3600 }], { rules, mowing: { weekdays: ['sat'] } });
    expect(told(lawn, 'days')).toEqual([
      ['rules.weekdays', expect.stringMatching(/only Mon Thu are allowed here/)],
    ]);
    const drip = briefOf([{ weeklySeconds: 3600, overhead: false }], {
      rules,
      mowing: { weekdays: ['sat'] },
    });
    expect(told(drip, 'days')[0]?.[0]).toBe('wish.days');
    expect(told(drip, 'days')[0]?.[1]).not.toMatch(/allowed|mowing/);
  });
});

describe('a plan that leaves too much of the garden short is not looked for', () => {
  const brief = briefOf(
    Array.from({ length: 12 }, () => ({
      weeklySeconds: hours(3),
      cycleSeconds: 300,
      days: { least: 2, most: 2 },
    })),
    {
      wish: { starts: 'repeated' },
      timer: { stationCount: 12, programCount: 6, startsPerProgram: 8 },
    },
  );
  const { found } = searchPlan(brief, { thoroughness: 0.1 });
  const steps = found?.cost[0] ?? 0;

  test('and what was not looked for is no proof that there is none', () => {
    expect(steps).toBeGreaterThan(12);
    expect(searchPlan(brief, { thoroughness: 0.1, mostShort: 0 })).toMatchObject({
      found: null,
      complete: false,
      proof: { optimal: false },
    });
    expect(searchPlan(brief, { thoroughness: 0.1, mostShort: steps }).found?.cost[0]).toBe(steps);
  });
});

describe('between plans of the same cost', () => {
  const BASE = briefOf([{ weeklySeconds: 3600 }, { weeklySeconds: 3600 }]);
  const on = (letter: string, station: number, weekdays: readonly Weekday[], starts: string[]) => ({
    letter,
    starts,
    runs: [{ station, seconds: 600 }],
    days: { rule: 'weekdays' as const, weekdays },
  });
  const planWith = (...programs: Plan['programs']): Plan => ({ ...barePlan(BASE), programs });

  test('fewer dates are liked better, then fewer runs, then the same days', () => {
    const twice = planWith(on('A', 1, ['mon', 'thu'], ['04:00', '05:00']));
    const fourDays = planWith(on('A', 1, ['mon', 'wed', 'fri', 'sun'], ['04:00']));
    const once = planWith(on('A', 1, ['mon', 'thu'], ['04:00']));
    const apart = planWith(
      on('A', 1, ['mon', 'thu'], ['04:00']),
      on('B', 2, ['tue', 'fri'], ['05:00']),
    );
    const together = planWith(
      on('A', 1, ['mon', 'thu'], ['04:00']),
      on('B', 2, ['mon', 'thu'], ['05:00']),
    );
    for (const [better, worse] of [
      [twice, fourDays],
      [once, twice],
      [together, apart],
    ] as const) {
      expect(isLikedBetter(better, worse)).toBe(true);
      expect(isLikedBetter(worse, better)).toBe(false);
    }
    expect(isLikedBetter(once, once)).toBe(false);
  });

  test('drip leaves midnight where that costs nothing, and stays where it was pinned', () => {
    const brief = briefOf([{ weeklySeconds: 3600 }, { weeklySeconds: 1200, overhead: false }], {
      wish: { dripAnyTime: true },
    });
    const plan: Plan = {
      ...barePlan(brief),
      programs: [
        { ...on('A', 1, ['mon', 'thu'], ['06:00']), runs: [{ station: 1, seconds: 1800 }] },
        on('B', 2, ['mon', 'thu'], ['00:00']),
      ],
    };
    const found = { plan, cost: costOf(brief, plan) };
    const moved = offMidnight(brief, found, {});
    expect(moved.plan.programs.map(({ starts }) => starts)).toEqual([['06:00'], ['00:05']]);
    expect(moved.cost).toEqual(found.cost);
    // If its hours matter it moves as well, as long as the lawn ends later.
    const inHours = { ...brief, wish: {} };
    const counted = { plan, cost: costOf(inHours, plan) };
    expect(offMidnight(inHours, counted, {}).plan.programs[1]?.starts).toEqual(['00:05']);
    const pins = { starts: [{ program: 'B', start: '00:00' }] };
    expect(offMidnight(brief, found, { pins })).toBe(found);
    // The lawn's own start is what the homeowner asked for.
    const lawn = { ...plan, programs: [on('A', 1, ['mon', 'thu'], ['00:00'])] };
    expect(offMidnight(brief, { ...found, plan: lawn }, {}).plan).toBe(lawn);
  });
});
