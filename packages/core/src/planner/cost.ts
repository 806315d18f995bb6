/** Cost of a plan against a brief (planning.md section 3, Cost), computed from the plan alone with the engine. */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, wishOf } from '../brief/brief.ts';
import { parseTime, SECONDS_PER_DAY } from '../time/calendar.ts';
import { shapeAt } from '../engine/cycle.ts';
import { cycleModel } from '../engine/cycleModel.ts';
import { modulo } from '../time/dayRules.ts';
import { startsOf } from '../plan/starts.ts';
import { Effort } from '../engine/effort.ts';
import { meanDatesOf, meanWeeklySeconds } from '../engine/weeklyWater.ts';
import { Meetings } from '../time/meetings.ts';
import type { Plan, Run } from '../plan/plan.ts';
import { wateringStations } from '../plan/linked.ts';
import { missingOf } from '../plan/program.ts';
import { outsideSpan, spanOf } from '../brief/span.ts';
import { countsForTimes, highPercent, NEED_TOLERANCE } from '../brief/wanted.ts';

/**
 * The seven parts in order: steps of five points by which stations are off their need, minutes outside the span, groups sharing a program,
 * programs, starts, thousandths, minutes to spare.
 */
export type Cost = readonly [number, number, number, number, number, number, number];

/** Compares two costs: negative if the first is smaller. */
export function compareCosts(a: Cost, b: Cost): number {
  for (const [i, part] of a.entries()) {
    const other = assertDefined(b[i], 'b[i]');
    if (Math.abs(part - other) > 1e-6) return part - other;
  }
  return 0;
}

/** Number of groups among the stations of some runs; no group counts as one. */
function groupsIn(brief: Brief, runs: readonly Run[]): number {
  const watered = new Set(runs.flatMap(({ station, seconds }) => (seconds > 0 ? [station] : [])));
  const groups = brief.stations.flatMap(({ number, group = null }) =>
    watered.has(number) ? [group] : [],
  );
  return Math.max(1, new Set(groups).size);
}

/** Percentage points beyond the tolerance in one step of cost part 1. */
const STEP = 0.05;

/**
 * Steps begun by which a station is off its need.
 *
 * @param off |given − wanted| ÷ wanted
 */
export const stepsOff = (off: number): number =>
  Math.max(0, Math.ceil((off - NEED_TOLERANCE) / STEP - 1e-6));

const toThousandth = (value: number) => Math.round(value * 1000) / 1000;

/**
 * Cost of a plan. Where the specification is silent: minutes are reported to a thousandth; a cycle that ends after `finishBy` has nothing
 * to spare; if no cycle counts, the last part is 0; a start of an `hours` rule counts once for each time of day.
 *
 * @throws TooMuchWork
 */
export function costOf(brief: Brief, plan: Plan): Cost {
  const effort = new Effort();
  const meetings = new Meetings(effort);
  const wish = wishOf(brief);
  const span = spanOf(wish.notBefore, wish.finishBy);
  const finish = assertDefined(parseTime(wish.finishBy), 'parseTime(wish.finishBy)');
  const given = meanWeeklySeconds(plan, meetings);
  const counted = new Map(
    brief.stations.map((station) => [station.number, countsForTimes(brief, station)]),
  );
  const percent = highPercent(brief);
  let offNeed = 0;
  let share = 0;
  for (const { number, weeklySeconds } of brief.stations) {
    if (weeklySeconds === 0) continue;
    const off = Math.abs((given.get(number) ?? 0) - weeklySeconds) / weeklySeconds;
    offNeed += stepsOff(off);
    share += off;
  }
  const watering = wateringStations(plan);
  let outside = 0;
  let mixed = 0;
  let programs = 0;
  let starts = 0;
  let spare = Infinity;
  for (const program of plan.programs) {
    if (missingOf(program, watering).length > 0) continue;
    programs++;
    mixed += groupsIn(brief, program.runs) - 1;
    const { runs } = shapeAt(cycleModel(plan, program), percent, effort);
    for (const { secondOfDay, times, days } of startsOf(plan, program)) {
      starts += times;
      const dates = meanDatesOf(days, meetings) * times;
      let end: number | null = null;
      for (const { station, on, off } of runs) {
        if (!counted.get(station)) continue;
        outside += outsideSpan(span, secondOfDay + on, secondOfDay + off) * dates;
        end = Math.max(end ?? 0, secondOfDay + off);
      }
      if (end === null) continue;
      // The first `finishBy` after the start.
      const by = secondOfDay + (modulo(finish - secondOfDay, SECONDS_PER_DAY) || SECONDS_PER_DAY);
      spare = Math.min(spare, Math.max(0, by - end));
    }
  }
  return [
    offNeed,
    toThousandth(outside / 60),
    wish.programs === 'by-need' ? mixed : 0,
    programs,
    starts,
    Math.round(share * 1000 - 1e-9),
    spare === Infinity ? 0 : toThousandth(spare / 60),
  ];
}
