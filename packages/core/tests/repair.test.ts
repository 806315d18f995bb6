/** Repairs: seeded broken plans, none of which needs more settings than it took to break it; and cases from practice. */
import { describe, expect, test } from '@jest/globals';
import {
  applyChange,
  epochDayOf,
  repair,
  repairChange,
  repairReport,
  samePlan,
  settingChanges,
  waterChanges,
  WEEKDAYS,
  workOut,
  type Brief,
  type Plan,
  type Weekday,
} from '@water-clock/core';
import { meanWeeklySeconds } from '../src/engine/weeklyWater.ts';
import { fewCases } from './cases.ts';
import { chanceFrom, plantedFrom } from './plantedPlans.ts';
import { briefOf, type BriefFields } from './plannerBriefs.ts';
import { referenceOverlaps } from './referenceCycles.ts';

const ON = epochDayOf({ year: 2027, month: 3, day: 1 });

function planOf(brief: Brief): Plan {
  const { plan } = workOut(brief);
  if (!plan) throw new Error('no plan');
  return plan;
}

/** A plan with one setting changed as by mistake: a start, the days, a run time or the delay. */
function spoiled(plan: Plan, chance: (below: number) => number): Plan {
  const at = chance(plan.programs.length);
  const step = plan.timer.startStepMinutes;
  const time = (minutes: number) =>
    `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
  const what = chance(4);
  if (what === 3)
    return { ...plan, settings: { ...plan.settings, stationDelaySeconds: 60 * (1 + chance(8)) } };
  return {
    ...plan,
    programs: plan.programs.map((program, i) => {
      if (i !== at) return program;
      if (what === 0) {
        const moved = chance(program.starts.length);
        const start = time(step * chance(1440 / step));
        if (program.starts.includes(start)) return program;
        return {
          ...program,
          starts: program.starts.map((own, j) => (j === moved ? start : own)).sort(),
        };
      }
      if (what === 1)
        return {
          ...program,
          days: { rule: 'weekdays', weekdays: WEEKDAYS.filter(() => chance(2) === 0) },
        };
      const run = chance(program.runs.length);
      return {
        ...program,
        runs: program.runs.map((own, j) =>
          j === run ? { ...own, seconds: own.seconds + 60 * (5 + chance(60)) } : own,
        ),
      };
    }),
  };
}

test('no broken plan needs more settings than it took to break it', () => {
  let repaired = 0;
  const most = fewCases(40);
  for (let seed = 1; repaired < most && seed < 20 * most; seed++) {
    const planted = plantedFrom(seed);
    if (!planted) continue;
    const { brief, plan: good } = planted;
    if (repair(good, brief, ON).cost?.some((part) => part > 0)) continue;
    const chance = chanceFrom(seed);
    let broken = good;
    for (let n = 0; n <= chance(3); n++) broken = spoiled(broken, chance);
    const spoiledSettings = settingChanges(good, broken).length;
    if (spoiledSettings === 0 || broken.programs.some(({ days }) => days === null)) continue;
    const { plan, changes, cost } = repair(broken, brief, ON);
    if (!plan || !cost) throw new Error(`seed ${seed}: no repair`);
    expect([seed, changes.length <= spoiledSettings]).toEqual([seed, true]);
    // The changes are those between the plans, and the current settings do not overlap.
    expect(settingChanges(broken, plan)).toEqual(changes);
    const made = applyChange(broken, repairChange(broken, plan));
    expect(made.ok && samePlan(made.value.plan, plan)).toBe(true);
    expect(referenceOverlaps(plan, ON, 35)).toEqual([]);
    repaired++;
  }
  expect(repaired).toBe(most);
});

/** Two lawns before sunrise, on Monday, Wednesday and Friday. */
const garden = (fields: BriefFields = {}) =>
  briefOf([{ weeklySeconds: 3600 }, { weeklySeconds: 3600 }], {
    wish: { headroomPercent: 130 },
    ...fields,
  });
const MWF: Plan = {
  ...planOf(garden()),
  programs: [
    {
      letter: 'A',
      starts: ['05:00'],
      runs: [
        { station: 1, seconds: 1200 },
        { station: 2, seconds: 1200 },
      ],
      days: { rule: 'weekdays', weekdays: ['mon', 'wed', 'fri'] },
    },
  ],
};

test('the same water means within a step of each run', () => {
  const [a] = MWF.programs;
  if (!a) throw new Error('no program');
  const with_ = (days: readonly Weekday[], seconds: number): Plan => ({
    ...MWF,
    programs: [
      {
        ...a,
        days: { rule: 'weekdays', weekdays: days },
        runs: a.runs.map((run) => (run.station === 2 ? { ...run, seconds } : run)),
      },
    ],
  });
  expect(MWF.timer.runStepSeconds).toBe(60);
  // 3 × 20 min against 2 × 30, 2 × 31 and 2 × 32; station 1 keeps its 20 min.
  const changed = (seconds: number) =>
    waterChanges(MWF, with_(['tue', 'sat'], seconds)).filter(({ station }) => station === 2);
  expect(changed(1800)).toEqual([]);
  expect(changed(1860)).toEqual([]);
  expect(changed(1920)).toEqual([{ station: 2, before: 3600, after: 3840 }]);
  expect(waterChanges(MWF, with_(['tue', 'sat'], 1800))).toEqual([
    { station: 1, before: 3600, after: 2400 },
  ]);
});

describe('what technicians meet', () => {
  test('a plan that keeps its brief stays as it is', () => {
    const { plan, changes, cost } = repair(MWF, garden(), ON);
    expect([plan, changes, cost]).toEqual([MWF, [], [0, 0, 0, 0, 0]]);
  });

  test('a day that is forbidden from now on: one setting, and the same water', () => {
    const brief = garden({ rules: { weekdays: ['mon', 'wed', 'sat', 'sun'] } });
    const { plan, changes } = repair(MWF, brief, ON);
    expect(changes).toHaveLength(1);
    expect(changes[0]).toMatchObject({ program: 'A', field: 'days' });
    expect(plan && meanWeeklySeconds(plan)).toEqual(meanWeeklySeconds(MWF));
    expect(repairReport(repair(MWF, brief, ON), ON).report.message).toBe(
      '1 setting changes. This can be done by phone.',
    );
  });

  test('an hour that is forbidden: the start moves no further than it must', () => {
    const brief = garden({ rules: { noWaterWindows: [{ from: '05:00', to: '18:00' }] } });
    expect(repair(MWF, brief, ON).changes).toEqual([
      { program: 'A', field: 'start', from: '05:00', to: '04:20' },
    ]);
  });

  test('fewer days a week: the runs grow, so that nobody goes short', () => {
    const brief = garden({ rules: { mostDaysPerWeek: 2 } });
    const single = { ...MWF, timer: { ...MWF.timer, startsPerProgram: 1 } };
    const { plan, changes, cost } = repair(single, brief, ON);
    expect(cost?.[1]).toBe(0);
    expect(changes.map(({ field }) => field)).toEqual(['days', 'run', 'run']);
    expect(plan?.programs[0]?.runs.map(({ seconds }) => seconds)).toEqual([1800, 1800]);
  });

  test('rules that come are kept too if that can be; those in half a year do not count', () => {
    const coming = [{ from: '2027-05-01', rules: { weekdays: ['tue', 'thu', 'sun'] as const } }];
    const { plan, cost, coming: kept } = repair(MWF, garden({ coming }), ON);
    expect(plan?.programs[0]?.days).toEqual({ rule: 'weekdays', weekdays: ['tue', 'thu', 'sun'] });
    expect([cost?.[0], kept]).toEqual([0, [{ from: '2027-05-01', keeps: true }]]);
    const later = garden({ coming: [{ from: '2027-09-01', rules: { weekdays: ['tue'] } }] });
    expect(repair(MWF, later, ON).changes).toEqual([]);
  });

  test('where the rules in force and those to come cannot be kept together, the rules in force are', () => {
    const brief = garden({
      rules: { weekdays: ['mon', 'wed', 'fri'] },
      coming: [{ from: '2027-05-01', rules: { weekdays: ['tue', 'thu', 'sun'] } }],
    });
    const { changes, cost, coming } = repair(MWF, brief, ON);
    expect([changes, cost?.[0], coming]).toEqual([[], 1, [{ from: '2027-05-01', keeps: false }]]);
  });

  test('where watering is banned there is no repair', () => {
    const { plan, cost } = repair(MWF, garden({ rules: { weekdays: [] } }), ON);
    expect([plan, cost]).toEqual([null, null]);
  });

  test('what was not right before, and is no error, is left as it is', () => {
    // Station 1 is new seed that waters once, and Friday is a mowing day: both warnings existed before.
    const brief = briefOf(
      [
        { weeklySeconds: 3600, oftenADay: { times: 4, from: '08:00', to: '17:00' } },
        { weeklySeconds: 3600 },
      ],
      { mowing: { weekdays: ['fri'] }, rules: { weekdays: ['wed', 'thu', 'fri', 'sat', 'sun'] } },
    );
    const { plan, changes } = repair(MWF, brief, ON);
    expect(changes).toHaveLength(1);
    expect(changes[0]).toMatchObject({ program: 'A', field: 'days' });
    expect(plan?.programs[0]?.starts).toEqual(MWF.programs[0]?.starts);
    // A plan that kept the mowing day continues to keep it.
    const [a] = MWF.programs;
    const dry: Plan = {
      ...MWF,
      programs: a ? [{ ...a, days: { rule: 'weekdays', weekdays: ['mon', 'wed', 'sat'] } }] : [],
    };
    expect(repair(dry, brief, ON).plan?.programs[0]?.days).not.toMatchObject({
      weekdays: expect.arrayContaining(['fri']),
    });
  });
});
