/** Overlaps, headroom and blocked times against the slow reference model, on random plans. Failures print their seed. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  blockedStarts,
  check,
  epochDayOf,
  formatTime,
  LAST_DAY,
  notCovered,
  readPlan,
  type Check,
  type Plan,
} from '@water-clock/core';
import { randomPlan } from './randomPlans.ts';
import { referenceHeadroom, referenceOverlaps, referencePairsBySecond } from './reference.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });
const lines = ({ overlaps }: Check) =>
  overlaps
    .map(({ first: a, second: b, sharedSeconds }) => {
      return `${a.letter}${a.start}@${a.day} ${b.letter}${b.start}@${b.day} ${sharedSeconds}`;
    })
    .sort();

const uniform = (plan: Plan): Plan => {
  const { monthlyPercent: _dropped, ...settings } = plan.settings;
  return { ...plan, settings };
};

describe('overlaps are found on the dates on which a date-by-date search finds them', () => {
  test('with one percent all year: everything shows within five weeks', () => {
    let withOverlap = 0;
    fc.assert(
      fc.property(randomPlan, (random) => {
        const plan = uniform(random);
        const found = check(plan, ON);
        expect(lines(found)).toEqual(referenceOverlaps(plan, ON, 35));
        if (found.overlaps.length > 0) withOverlap++;
      }),
      { seed: 20270601, numRuns: 2000 },
    );
    // Neither answer may be the only one that was tried.
    expect(withOverlap).toBeGreaterThan(400);
    expect(withOverlap).toBeLessThan(1900);
  });

  test('and living through every second of two weeks finds the same pairs', () => {
    let found = 0;
    fc.assert(
      fc.property(randomPlan, (random) => {
        const { wateringResumes: _dropped, ...settings } = uniform(random).settings;
        const plan = { ...random, settings };
        const pairs = check(plan, ON).overlaps.map(({ first, second }) =>
          [first, second]
            .map(({ letter, start }) => `${letter}${start}`)
            .sort()
            .join(' '),
        );
        expect(pairs.sort()).toEqual(referencePairsBySecond(plan, ON, 14));
        found += pairs.length;
      }),
      { seed: 3600, numRuns: 30 },
    );
    expect(found).toBe(15);
  });

  test('with a percent for each month: everything shows within forty years', () => {
    let withOverlap = 0;
    fc.assert(
      fc.property(randomPlan, fc.integer({ min: 0, max: 400 }), (random, later) => {
        const timer = {
          ...random.timer,
          seasonal: { ...random.timer.seasonal, scope: 'timer', byMonth: true },
        } as const;
        const plan: Plan = { ...random, timer };
        fc.pre(plan.settings.monthlyPercent !== undefined);
        const found = check(plan, ON + later);
        expect(lines(found)).toEqual(referenceOverlaps(plan, ON + later, 14_700));
        if (found.overlaps.length > 0) withOverlap++;
      }),
      { seed: 7, numRuns: 24 },
    );
    expect(withOverlap).toBeGreaterThan(5);
  });

  test('in the last days of the calendar only dates that are left count', () => {
    fc.assert(
      fc.property(randomPlan, fc.integer({ min: 0, max: 9 }), (plan, left) => {
        const on = LAST_DAY - left;
        const found = check(plan, on);
        expect(lines(found)).toEqual(referenceOverlaps(plan, on, 35));
        expect(found.headroomPercent).toBe(referenceHeadroom(plan, on, 35));
      }),
      { seed: 9999, numRuns: 150 },
    );
  });
});

test('headroom is the last step before a date-by-date search finds an overlap', () => {
  const answers = new Set<number | null>();
  fc.assert(
    fc.property(randomPlan, (random) => {
      const plan = uniform(random);
      const { headroomPercent } = check(plan, ON);
      expect(headroomPercent).toBe(referenceHeadroom(plan, ON, 35));
      answers.add(headroomPercent);
    }),
    { seed: 140, numRuns: 120 },
  );
  expect(answers).toContain(null);
  expect(answers.size).toBeGreaterThan(8);
});

test('the times to which a start may not be moved are those at which a check then finds it overlapping', () => {
  const answers = { blocked: 0, free: 0 };
  fc.assert(
    fc.property(randomPlan, fc.nat({ max: 287 }), (random, fives) => {
      const plan = { ...random, timer: { ...random.timer, startStepMinutes: 5 as const } };
      const [first] = plan.programs;
      const [start, ...others] = first?.starts ?? [];
      fc.pre(first !== undefined && start !== undefined);
      const to = formatTime(fives * 300);
      const moved = { ...first, starts: [to, ...others] };
      const after = check({ ...plan, programs: [moved, ...plan.programs.slice(1)] }, ON);
      const overlaps = after.overlaps.some(({ first: a, second: b }) =>
        [a, b].some((one) => one.letter === first.letter && one.start === to),
      );
      const blocked = blockedStarts(plan, first.letter, start, ON).includes(fives * 300);
      expect([to, blocked]).toEqual([to, overlaps]);
      answers[overlaps ? 'blocked' : 'free']++;
    }),
    { seed: 288, numRuns: 600 },
  );
  expect(Math.min(answers.blocked, answers.free)).toBeGreaterThan(60);
});

test('random plans are sound and covered, so that the comparisons above compare something', () => {
  fc.assert(
    fc.property(randomPlan, (plan) => {
      expect(readPlan(plan)).toEqual({ ok: true, value: plan });
      expect(notCovered(plan)).toEqual([]);
    }),
    { seed: 1, numRuns: 300 },
  );
});
