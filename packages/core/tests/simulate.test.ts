/** Simulation and nights against the slow reference model, on random plans. Failures print their seed. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { epochDayOf, nightsFrom, simulate, type Plan } from '@water-clock/core';
import { anyPlan, weeklyPlan } from './randomPlans.ts';
import { referenceSimulate } from './reference.ts';
import { referenceCycles } from './referenceCycles.ts';
import { cases, fewCases, isLong } from './cases.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });

/** Compares the two and counts the outcomes of the starts. */
function agree(plans: fc.Arbitrary<Plan>, seed: number, numRuns: number): Map<string, number> {
  const outcomes = new Map<string, number>();
  fc.assert(
    fc.property(plans, fc.integer({ min: 0, max: 40 }), (plan, later) => {
      const from = ON + later;
      const { cycles, runs } = simulate(plan, from, 3);
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
      ).toEqual(referenceSimulate(plan, from, 3));
      for (const { outcome } of cycles) {
        const { onOverlap, inWindow } = plan.timer;
        for (const key of [`${onOverlap} ${outcome}`, `${inWindow} ${outcome}`])
          outcomes.set(key, (outcomes.get(key) ?? 0) + 1);
      }
    }),
    { seed, numRuns },
  );
  return outcomes;
}

/** Each outcome occurred more than once; in a short run, most of them occurred. */
function expectToHave(outcomes: ReadonlyMap<string, number>, keys: readonly string[]): void {
  const missing = keys.filter((key) => (outcomes.get(key) ?? 0) < (isLong ? 2 : 1));
  if (isLong) expect(missing).toEqual([]);
  else expect(missing.length).toBeLessThanOrEqual(2);
}

test('simulation agrees with living through every second, for all five answers to an overlap', () => {
  const outcomes = agree(weeklyPlan, 5, cases(120));
  expectToHave(outcomes, ['queue ran', 'drop lost', 'cut cut', 'together ran', 'share ran']);
});

test('and so it does with every day rule, windows and several stations at once', () => {
  const outcomes = agree(anyPlan, 6, fewCases(90));
  expectToHave(outcomes, ['pause ran', 'pause lost', 'cut lost', 'cut cut', 'ignore ran']);
});

test('the nights show each cycle and each shared second of the plan, once for each night it touches', () => {
  fc.assert(
    fc.property(anyPlan, (random) => {
      // Neither is visible on a night that begins later; the reference would have to look back as far.
      const { wateringResumes: _resumes, ...settings } = random.settings;
      const plan = { ...random, settings };
      const nights = nightsFrom(plan, ON, 4);
      const cycles = referenceCycles(plan, ON - 8, 13).sort((a, b) => a.begins - b.begins);
      for (const night of nights) {
        const inside = (from: number, to: number) => from < night.to && to > night.from;
        const shown = night.intended.map((cycle) => `${cycle.letter}${cycle.begins}-${cycle.ends}`);
        const touching = cycles
          .filter((cycle) => inside(cycle.begins, cycle.ends))
          .map((cycle) => `${cycle.letter}${cycle.begins}-${cycle.ends}`);
        expect(shown.sort()).toEqual(touching.sort());
        const shared = new Set<number>();
        for (const { from, to } of night.overlaps)
          for (let s = from; s < to; s += 60) shared.add(s);
        const twice = [...shared].filter(
          (s) => cycles.filter((cycle) => cycle.begins <= s && s < cycle.ends).length > 1,
        );
        expect(twice.length).toBe(shared.size);
      }
    }),
    { seed: 21, numRuns: cases(30) },
  );
});
