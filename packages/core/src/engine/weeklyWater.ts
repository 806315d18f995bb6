/** How much water a plan's programs give in an average week. */
import { EVERY_WEEKDAY, type DaySet } from '../time/dayRules.ts';
import { startsOf } from '../plan/starts.ts';
import { Effort } from './effort.ts';
import { DAYS_PER_400_YEARS, EVERY_MONTH, Meetings } from '../time/meetings.ts';
import type { Plan } from '../plan/plan.ts';
import { runsWithLinked, wateringStations } from '../plan/linked.ts';
import { adjustedSeconds, enabledStations, missingOf } from '../plan/program.ts';

/** Average dates a week of a set of days, exact over 400 years. */
export function meanDatesOf(set: DaySet, meetings: Meetings): number {
  const all = meetings.classOf(set, EVERY_WEEKDAY, EVERY_MONTH);
  return (meetings.inFourCenturies(all, all, 0) * 7) / DAYS_PER_400_YEARS;
}

/** Average seconds a week that the programs give each station at 100 percent, by number; ignores windows and overlaps. */
export function meanWeeklySeconds(
  plan: Plan,
  meetings = new Meetings(new Effort()),
): Map<number, number> {
  const enabled = enabledStations(plan);
  const watering = wateringStations(plan);
  const given = new Map(plan.stations.map(({ number }) => [number, 0]));
  for (const program of plan.programs) {
    if (missingOf(program, watering).length > 0) continue;
    let dates = 0;
    for (const { days, times } of startsOf(plan, program))
      dates += meanDatesOf(days, meetings) * times;
    for (const { station, seconds } of runsWithLinked(plan, program))
      if (enabled.has(station))
        given.set(
          station,
          (given.get(station) ?? 0) + adjustedSeconds(seconds, 100, plan.timer.seasonal) * dates,
        );
  }
  return given;
}

/** Average runs a week of each station, by number; ignores windows and overlaps. */
export function meanWeeklyRuns(plan: Plan, meetings: Meetings): Map<number, number> {
  const runs = new Map<number, number>();
  for (const program of plan.programs) {
    const starts = startsOf(plan, program).reduce(
      (sum, { days, times }) => sum + meanDatesOf(days, meetings) * times,
      0,
    );
    for (const { station, seconds } of runsWithLinked(plan, program))
      if (seconds > 0) runs.set(station, (runs.get(station) ?? 0) + starts);
  }
  return runs;
}
