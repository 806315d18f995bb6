/** What technicians prefer between plans that cost the same. */
import type { Brief } from '../brief/brief.ts';
import { meanWeeklyRuns } from '../engine/weeklyWater.ts';
import { Effort } from '../engine/effort.ts';
import type { Plan } from '../plan/plan.ts';
import { datesOfProgram } from '../plan/starts.ts';
import { formatTime, SECONDS_PER_DAY } from '../time/calendar.ts';
import { Meetings } from '../time/meetings.ts';
import { compareCosts, costOf, type Cost } from './cost.ts';
import type { PlannerOptions } from './options.ts';
import { breachOf } from './verify.ts';

/** Fewer watering dates, then fewer runs a week, then fewer different day rules; smaller is better. */
function likesOf(plan: Plan): readonly number[] {
  const dates = plan.programs.reduce((sum, one) => sum + datesOfProgram(plan, one).mean, 0);
  const runs = [...meanWeeklyRuns(plan, new Meetings(new Effort())).values()];
  return [
    dates,
    runs.reduce((sum, count) => sum + count, 0),
    new Set(plan.programs.map(({ days }) => JSON.stringify(days))).size,
  ];
}

/** Whether technicians prefer a plan over another of the same cost. */
export function isLikedBetter(plan: Plan, other: Plan): boolean {
  const [a, b] = [likesOf(plan), likesOf(other)];
  const at = a.findIndex((part, i) => Math.abs(part - (b[i] ?? 0)) > 1e-9);
  return at >= 0 && (a[at] ?? 0) < (b[at] ?? 0);
}

const MIDNIGHT = '00:00';
/** Most steps of the timer by which a start is moved from midnight. */
const MOST_STEPS = 12;

interface Costed {
  readonly plan: Plan;
  readonly cost: Cost;
}

/** Moves drip away from midnight if another time costs the same: on a display, midnight looks like a start no one set. */
export function offMidnight(brief: Brief, found: Costed, { pins }: PlannerOptions): Costed {
  if (pins?.starts?.some(({ start }) => start === MIDNIGHT)) return found;
  const drip = new Set(
    brief.stations.filter(({ overhead }) => overhead === false).map(({ number }) => number),
  );
  const step = brief.timer.startStepMinutes * 60;
  let { plan } = found;
  for (const { letter, starts, runs } of found.plan.programs) {
    if (!starts.includes(MIDNIGHT) || !runs.every(({ station }) => drip.has(station))) continue;
    for (let n = 2; n < 2 + 2 * MOST_STEPS; n++) {
      // One step later, one earlier, two later and so on.
      const by = (n % 2 === 0 ? 1 : -1) * Math.floor(n / 2) * step;
      const time = formatTime((by + SECONDS_PER_DAY) % SECONDS_PER_DAY);
      const moved: Plan = {
        ...plan,
        programs: plan.programs.map((one) =>
          one.letter === letter
            ? { ...one, starts: starts.map((own) => (own === MIDNIGHT ? time : own)).sort() }
            : one,
        ),
      };
      if (starts.includes(time) || breachOf(brief, moved) !== null) continue;
      if (compareCosts(costOf(brief, moved), found.cost) > 0) continue;
      plan = moved;
      break;
    }
  }
  return plan === found.plan ? found : { plan, cost: costOf(brief, plan) };
}
