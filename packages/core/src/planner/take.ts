/** Using a plan: its programs, and on a timer that splits runs by station, the stations' own values; one step. */
import type { PlanChange } from '../plan/change.ts';
import type { Plan } from '../plan/plan.ts';

/** Longest possible run of a station in a plan at any percent of the timer, seconds. */
function longestRun({ programs, timer: { seasonal } }: Plan, number: number): number {
  const percent = seasonal.scope === 'none' ? 100 : Math.max(100, seasonal.highestPercent);
  const runs = programs.flatMap(({ runs }) => runs.filter(({ station }) => station === number));
  return (Math.max(0, ...runs.map(({ seconds }) => seconds)) * percent) / 100;
}

/**
 * The change that replaces a timer's programs with a plan's. A longest cycle above anything a station can run has no effect, so it is left
 * unchanged.
 */
export function takePlanChange(present: Plan, taken: Plan): PlanChange {
  const changes: PlanChange[] = present.programs.map(({ letter }) => ({
    type: 'remove-program',
    program: letter,
  }));
  if (present.timer.cycleSoak === 'station')
    for (const { number, cycleSeconds, soakSeconds } of taken.stations) {
      const now = present.stations.find((station) => station.number === number);
      if (!now || (now.cycleSeconds === cycleSeconds && now.soakSeconds === soakSeconds)) continue;
      const longest = longestRun(taken, number);
      const splits = (cycle = Infinity) => cycle < longest;
      if (!splits(now.cycleSeconds) && !splits(cycleSeconds)) continue;
      changes.push({
        type: 'set-station',
        station: number,
        fields: { cycleSeconds: cycleSeconds ?? null, soakSeconds: soakSeconds ?? null },
      });
    }
  for (const program of taken.programs) changes.push({ type: 'add-program', program });
  return { type: 'several', changes };
}
