/** Simulation and nights against the slow reference model, on random plans. Failures print their seed. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { dueCycles, epochDayOf, nightsFrom, simulate } from '@water-clock/core';
import { randomPlan } from './randomPlans.ts';
import { referenceSimulate } from './reference.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });

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
