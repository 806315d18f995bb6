/**
 * Steps of work the engine takes, so that it cannot grow unnoticed. Steps are counted, not timed, so the numbers are the same on every
 * machine. A change that moves one by more than a tenth, up or down, updates the number here and gives the reason in its commit.
 */
import { expect, jest, test } from '@jest/globals';
import { epochDayOf, nightsFrom, type Plan } from '@water-clock/core';
import { Effort } from '../src/engine/effort.ts';
import { prove, verdictOf, type Proven } from '../src/engine/verdict.ts';
import { yearFrom } from '../src/engine/year.ts';
import { findingsOf } from '../src/findings/findings.ts';
import { realisticPlan, worstPlan } from '../bench/plans.mjs';
import { isLong } from './cases.ts';

const ON = epochDayOf({ year: 2027, month: 3, day: 1 });

/** Thousands of steps over all questions asked in the meantime. */
function thousandsOf(question: () => unknown): number {
  let steps = 0;
  const spend = jest.spyOn(Effort.prototype, 'spend').mockImplementation((more) => {
    steps += more;
  });
  try {
    question();
  } finally {
    spend.mockRestore();
  }
  return steps / 1000;
}

/** Steps of the verdict, and of adding headroom and findings; of fourteen nights and of a year. */
function workOf(plan: Plan) {
  let proven: Proven | null = null;
  const verdict = thousandsOf(() => verdictOf(plan, ON));
  const whole = thousandsOf(() => (proven = prove(plan, ON)));
  const findings = thousandsOf(() => proven && findingsOf(plan, proven, null));
  return [
    verdict,
    whole - verdict,
    findings,
    thousandsOf(() => nightsFrom(plan, ON, 14)),
    thousandsOf(() => yearFrom(plan, ON, 365)),
  ];
}

/** Thousands of steps: verdict, headroom, findings, fourteen nights, a year. */
const PLANS: readonly (readonly [string, () => Plan, readonly number[]])[] = [
  ['6 stations, 2 × 2 starts', () => realisticPlan(6, 2, 2), [0.258, 5.65, 0.398, 1.45, 6.13]],
  [
    '6 stations, 3 × 1 start, full nights',
    () => realisticPlan(6, 3, 1, 0.9),
    [0.25, 1.49, 0.364, 0.964, 4.61],
  ],
  ['12 stations, 3 × 2 starts', () => realisticPlan(12, 3, 2), [0.448, 10.8, 0.776, 2.71, 9.26]],
  ['24 stations, 4 × 4 starts', () => realisticPlan(24, 4, 4), [0.812, 23.6, 1.86, 9.3, 24.5]],
  [
    '24 stations, 4 × 4 starts, overlapping',
    () => realisticPlan(24, 4, 4, 1.6),
    [0.94, 30.8, 1.86, 9.4, 24.5],
  ],
  ['48 stations, 8 × 8 starts', () => realisticPlan(48, 8, 8), [0.484, 25.1, 2.99, 26.8, 95.8]],
  ['96 stations, 16 × 4 starts', () => realisticPlan(96, 16, 4), [0.532, 50.3, 3.86, 27.7, 95.8]],
  ['the worst, windows pause', () => worstPlan(1, 'pause'), [399, 309, 1750, 189, 910]],
  ['the worst, half of it by hours', () => worstPlan(1, 'pause', true), [708, 531, 2360, 127, 850]],
  ['the worst, windows ignored', () => worstPlan(1, 'ignore'), [91.2, 398, 189, 187, 910]],
];

/** The worst plans take ten seconds each; `bin/test` runs one of them. */
const FEW = PLANS.slice(0, -2);

test.each(isLong ? PLANS : FEW)('%s', (_, plan, wanted) => {
  const work = workOf(plan()).map((thousands) => Number(thousands.toPrecision(3)));
  const isNear = work.every((thousands, i) => {
    const known = wanted[i] ?? 0;
    return Math.abs(thousands - known) <= known / 10;
  });
  // Numbers that are close enough need not be equal; others are shown next to the old ones.
  expect(isNear ? wanted : work).toEqual(wanted);
});
