/** The engine against the slow reference model, on thousands of random plans. Failures print their seed. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  check,
  dueCycles,
  epochDayOf,
  LAST_DAY,
  nightsFrom,
  notCovered,
  readPlan,
  simulate,
  type Check,
  type Plan,
} from '@water-clock/core';
import { randomPlan } from './randomPlans.ts';
import {
  referenceHeadroom,
  referenceOverlaps,
  referencePairsBySecond,
  referenceSimulate,
} from './reference.ts';

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

  test('and living through every second of three weeks finds the same pairs', () => {
    let found = 0;
    fc.assert(
      fc.property(randomPlan, (random) => {
        const plan = uniform(random);
        const pairs = check(plan, ON).overlaps.map(({ first, second }) =>
          [first, second]
            .map(({ letter, start }) => `${letter}${start}`)
            .sort()
            .join(' '),
        );
        // The rain delays of these plans are over within the first week.
        expect(pairs.sort()).toEqual(referencePairsBySecond(plan, ON, 21));
        found += pairs.length;
      }),
      { seed: 3600, numRuns: 80 },
    );
    expect(found).toBeGreaterThan(40);
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

test('simulation agrees with living through every second, for all four answers to an overlap', () => {
  const outcomes = new Map<string, number>();
  fc.assert(
    fc.property(randomPlan, fc.integer({ min: 0, max: 40 }), (plan, later) => {
      const from = ON + later;
      const { cycles, runs } = simulate(plan, from, 3);
      const reference = referenceSimulate(plan, from, 3);
      expect(
        cycles.map(({ due, outcome, began, ended }, i) => ({
          program: due.letter,
          start: due.start,
          due: due.due,
          outcome,
          began,
          ended,
          runs: runs
            .filter((run) => run.cycle === i)
            .map(({ station, on, off }) => ({ station, on, off })),
        })),
      ).toEqual(reference);
      for (const { outcome } of cycles) {
        const key = `${plan.timer.onOverlap} ${outcome}`;
        outcomes.set(key, (outcomes.get(key) ?? 0) + 1);
      }
    }),
    { seed: 5, numRuns: 160 },
  );
  for (const key of ['queue ran', 'drop lost', 'cut cut', 'together ran'])
    expect([key, (outcomes.get(key) ?? 0) > 20]).toEqual([key, true]);
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

test('the nights show each cycle and each shared second of the plan, once for each night it touches', () => {
  fc.assert(
    fc.property(randomPlan, (plan) => {
      const nights = nightsFrom(plan, ON, 8);
      const cycles = dueCycles(plan, ON - 20, 40);
      for (const night of nights) {
        const inside = (from: number, to: number) => from < night.to && to > night.from;
        expect(night.intended.map((one) => `${one.letter}${one.begins}-${one.ends}`)).toEqual(
          cycles
            .filter((one) => inside(one.due, one.due + one.shape.seconds))
            .map((one) => `${one.letter}${one.due}-${one.due + one.shape.seconds}`),
        );
        const shared = new Set<number>();
        for (const { from, to } of night.overlaps)
          for (let s = from; s < to; s += 60) shared.add(s);
        const twice = [...shared].filter(
          (s) => cycles.filter((one) => one.due <= s && s < one.due + one.shape.seconds).length > 1,
        );
        expect(twice.length).toBe(shared.size);
      }
    }),
    { seed: 21, numRuns: 60 },
  );
});
