/** Taking a plan of the planner over: programs, and where the timer splits runs by station, the stations' own values; one step. */
import type { PlanChange } from '../plan/change.ts';
import type { Plan } from '../plan/plan.ts';

/** The change that puts the programs of a plan on a timer in place of the present ones. */
export function takePlanChange(present: Plan, taken: Plan): PlanChange {
  const changes: PlanChange[] = present.programs.map(({ letter }) => ({
    type: 'remove-program',
    program: letter,
  }));
  if (present.timer.cycleSoak === 'station')
    for (const { number, cycleSeconds, soakSeconds } of taken.stations) {
      const now = present.stations.find((station) => station.number === number);
      if (!now || (now.cycleSeconds === cycleSeconds && now.soakSeconds === soakSeconds)) continue;
      changes.push({
        type: 'set-station',
        station: number,
        fields: { cycleSeconds: cycleSeconds ?? null, soakSeconds: soakSeconds ?? null },
      });
    }
  for (const program of taken.programs) changes.push({ type: 'add-program', program });
  return { type: 'several', changes };
}
