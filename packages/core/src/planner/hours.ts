/** Whether what counts fits into the wished hours. */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, wishOf } from '../brief/brief.ts';
import { countsForTimes } from '../brief/wanted.ts';
import { shapeAt } from '../engine/cycle.ts';
import { cycleModel } from '../engine/cycleModel.ts';
import { Effort } from '../engine/effort.ts';
import { atPercent } from '../engine/night.ts';
import type { Plan } from '../plan/plan.ts';
import { startsOf } from '../plan/starts.ts';
import { parseTime, SECONDS_PER_DAY } from '../time/calendar.ts';
import { modulo } from '../time/dayRules.ts';

/** Start and end of a cycle's counted water, seconds of its start's day; only cycles that have any. */
function counted(brief: Brief, plan: Plan, percent: number) {
  const numbers = new Set(
    brief.stations.filter((station) => countsForTimes(brief, station)).map(({ number }) => number),
  );
  const then = atPercent(plan, percent);
  return then.programs.flatMap((program) => {
    const { runs } = shapeAt(cycleModel(then, program), percent, new Effort());
    const own = runs.filter(({ station }) => numbers.has(station));
    const [first] = own;
    if (!first) return [];
    const end = Math.max(...own.map(({ off }) => off));
    return startsOf(then, program).map(({ secondOfDay }) => ({
      from: secondOfDay + first.on,
      to: secondOfDay + end,
    }));
  });
}

/** Seconds from a time of day to the nearest occurrence of another, within half a day; negative if that is earlier. */
const nearest = (second: number, other: number) =>
  modulo(second - other + SECONDS_PER_DAY / 2, SECONDS_PER_DAY) - SECONDS_PER_DAY / 2;

/** Seconds by which the last counted cycle ends after the wished finish, at a percent. */
export function lateAt(brief: Brief, plan: Plan, percent: number): number {
  const finish = assertDefined(
    parseTime(wishOf(brief).finishBy),
    'parseTime(wishOf(brief).finishBy)',
  );
  return Math.max(0, ...counted(brief, plan, percent).map(({ to }) => nearest(to, finish)));
}
