/** No plan costs more than the planted one, and claims made beside it are true when the brief is solved again. */
import { expect, test } from '@jest/globals';
import { workOut, type Brief } from '@water-clock/core';
import { meanWeeklySeconds } from '../src/engine/weeklyWater.ts';
import type { BriefChange } from '../src/planner/briefChanges.ts';
import { compareCosts } from '../src/planner/cost.ts';
import { searchPlan } from '../src/planner/searchPlan.ts';
import { fewCases } from './cases.ts';
import { plantedFrom } from './plantedPlans.ts';

/** A brief with values set by path. */
function withApplied(brief: Brief, apply: readonly BriefChange[]): Brief {
  const copy = structuredClone(brief) as unknown as Record<string, unknown>;
  for (const { path, value } of apply) {
    const parts = path.split(/[.[\]]+/u).filter((part) => part !== '');
    const last = parts.pop() ?? '';
    let at = copy;
    for (const part of parts) at = (at[part] ??= {}) as Record<string, unknown>;
    if (value === null) Reflect.deleteProperty(at, last);
    else at[last] = value;
  }
  return copy as unknown as Brief;
}

test('no plan is worse than the planted one', () => {
  const most = fewCases(40);
  let compared = 0;
  for (let seed = 1; compared < most; seed++) {
    const planted = plantedFrom(seed);
    if (!planted) continue;
    const { found } = searchPlan(planted.brief);
    const isNoWorse = found !== null && compareCosts(found.cost, planted.cost) <= 0;
    expect([seed, isNoWorse, found?.cost]).toEqual([seed, true, found?.cost]);
    compared++;
  }
});

test('what is said to help a short station does, when the brief is solved again with just that', () => {
  let tried = 0;
  const most = fewCases(6);
  for (let seed = 1; tried < most; seed++) {
    const planted = plantedFrom(seed);
    if (!planted || planted.brief.stations.length > 6 || planted.cost[0] === 0) continue;
    const { short } = workOut(planted.brief);
    for (const { station, given, wanted, relief } of short)
      for (const one of relief) {
        const { found } = searchPlan(withApplied(planted.brief, one.apply));
        const then = found ? (meanWeeklySeconds(found.plan).get(station) ?? 0) : 0;
        expect([seed, station, Math.round(then)]).toEqual([seed, station, one.given]);
        expect(Math.abs(wanted - then)).toBeLessThan(Math.abs(wanted - given));
      }
    if (short.some(({ relief }) => relief.length > 0)) tried++;
  }
});
