/** Taking a plan of the planner over: programs, and where the timer splits runs by station, the stations' own values; one step. */
import type { PlanChange } from '../plan/change.ts';
import type { Plan } from '../plan/plan.ts';

/** The longest that a station of a plan can run at any percent the timer has, seconds. */
function longestRun({ programs, timer: { seasonal } }: Plan, number: number): number {
  const percent = seasonal.scope === 'none' ? 100 : Math.max(100, seasonal.highestPercent);
  const runs = programs.flatMap(({ runs }) => runs.filter(({ station }) => station === number));
  return (Math.max(0, ...runs.map(({ seconds }) => seconds)) * percent) / 100;
}

/**
 * The change that puts the programs of a plan on a timer in place of the present ones. A longest cycle above anything that its station can run changes
 * nothing, so it is left as it is.
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
