/** The planner with site facts besides the brief: linked stations, hours that are too short, months with a ban. */
import { describe, expect, test } from '@jest/globals';
import {
  applyChange,
  check,
  emptyPlan,
  epochDayOf,
  seasonOf,
  takePlanChange,
  workOut,
  type Brief,
  type Plan,
} from '@water-clock/core';
import { briefOf, PLAIN_TIMER } from './plannerBriefs.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });
const MINUTES = 60;

describe('linked stations', () => {
  const brief = briefOf([
    { weeklySeconds: 280 * MINUTES, days: { least: 7, most: 7 } },
    { weeklySeconds: 140 * MINUTES, days: { least: 7, most: 7 } },
  ]);
  const linked = [
    { number: 3, linkedTo: 1 },
    { number: 4, linkedTo: 2 },
  ];
  const timer = { ...brief.timer, stationCount: 4, linksStations: true };
  const present: Plan = {
    ...emptyPlan(timer),
    stations: [{ number: 1 }, { number: 2 }, ...linked],
  };
  const taken = (plan: Plan | null) => {
    if (!plan) throw new Error('no plan');
    const made = applyChange(present, takePlanChange(present, plan));
    if (!made.ok) throw new Error(JSON.stringify(made.faults));
    return check(made.value.plan, ON);
  };
  const asked: Brief = { ...brief, timer, wish: { programs: 'any', headroomPercent: 130 } };

  test('take their time in the plan, so what is taken over is clear up to the wished percent', () => {
    const { plan, cost } = workOut(asked, { linked });
    const { verdict, headroomPercent } = taken(plan);
    expect(verdict).toBe('clear');
    expect(headroomPercent ?? 0).toBeGreaterThanOrEqual(130);
    // They do not count as stations that need something.
    expect(cost?.[0]).toBe(0);
  });

  test('two programs that are apart without them would meet with them', () => {
    const apart: Brief = {
      ...asked,
      stations: asked.stations.map((station, i) => ({ ...station, group: i ? 'beds' : 'lawn' })),
      wish: { apart: [['lawn', 'beds']], headroomPercent: 130 },
    };
    expect(taken(workOut(apart, {}).plan).verdict).toBe('overlap');
    expect(taken(workOut(apart, { linked }).plan).verdict).toBe('clear');
  });
});

describe('hours that are too short', () => {
  // Eight hours a night must fit between 4:00 and 7:00.
  const brief: Brief = briefOf(
    [{ weeklySeconds: 7 * 480 * MINUTES, days: { least: 7, most: 7 } }],
    {
      wish: { notBefore: '04:00', finishBy: '07:00', starts: 'one' },
      timer: { longestRunSeconds: 86_400, seasonal: { ...PLAIN_TIMER.seasonal, scope: 'none' } },
    },
  );

  test('come with the hours that would do, each of which is enough', () => {
    const short = { ...brief, wish: { ...brief.wish, headroomPercent: 100 } };
    const { hours, cost } = workOut(short);
    expect(hours?.outside).toBe(cost?.[1]);
    expect(hours?.fits.length).toBe(2);
    for (const { apply } of hours?.fits ?? []) {
      const wish = Object.fromEntries(
        apply.map(({ path, value }) => [path.replace('wish.', ''), value]),
      );
      const again = workOut({ ...short, wish: { ...short.wish, ...wish } });
      expect([wish, again.cost?.[1]]).toEqual([wish, 0]);
    }
  });

  test('where all fits nothing is said', () => {
    expect(workOut(briefOf([{ weeklySeconds: 1800 }])).hours).toBeNull();
  });
});

describe('the year', () => {
  const brief = briefOf([{ weeklySeconds: 8 * MINUTES, days: { least: 4, most: 4 } }]);
  const { plan } = workOut(brief);
  if (!plan) throw new Error('no plan');
  const month = (at: number, share: number) => ({
    month: at,
    shares: new Map([[1, share]]),
    finishBy: null,
  });

  test('a month in which timers are banned has no percent; of a part of one it is said', () => {
    const at = (day: number) => epochDayOf({ year: 2027, month: 5, day });
    const whole = { month: 5, from: at(1), to: at(31), isWhole: true };
    const part = { ...whole, from: at(10), isWhole: false };
    const [banned, partly] = seasonOf(
      brief,
      plan,
      [
        { ...month(5, 1), ban: whole },
        { ...month(5, 1), ban: part },
      ],
      'percent',
    );
    expect(banned).toMatchObject({ percent: null, ban: whole, plan: null, serves: true });
    expect(partly).toMatchObject({ percent: 100, ban: part, serves: true });
  });

  test('a run that rounds by a minute is said, and nothing is to be keyed in', () => {
    // Four runs of two minutes; part of that in whole minutes is off by less than a minute a run.
    const months = Array.from({ length: 20 }, (_, i) => month(4, 0.05 * (i + 1)));
    const told = seasonOf(brief, plan, months, 'percent');
    expect(told.every(({ off, plan: other }) => off.length === 0 && other === null)).toBe(true);
    expect(told.some(({ rounded }) => rounded.length > 0)).toBe(true);
    for (const { rounded } of told)
      for (const { seconds } of rounded) expect(Math.abs(seconds)).toBeLessThanOrEqual(4 * 60 + 30);
  });
});
