/** Stations that get more or less water after a change. */
import type { Plan } from '../plan/plan.ts';
import { Meetings } from '../time/meetings.ts';
import { Effort } from './effort.ts';
import { meanWeeklyRuns, meanWeeklySeconds } from './weeklyWater.ts';

export interface WaterChange {
  readonly station: number;
  /** Seconds in an average week. */
  readonly before: number;
  readonly after: number;
}

/**
 * Stations whose average week changes by more than one step for each of their runs.
 *
 * @throws TooMuchWork
 */
export function waterChanges(before: Plan, after: Plan): WaterChange[] {
  const meetings = new Meetings(new Effort());
  const [was, is] = [meanWeeklySeconds(before, meetings), meanWeeklySeconds(after, meetings)];
  const runs = meanWeeklyRuns(after, meetings);
  return [...new Set([...was.keys(), ...is.keys()])]
    .sort((a, b) => a - b)
    .flatMap((station) => {
      const change = { station, before: was.get(station) ?? 0, after: is.get(station) ?? 0 };
      const step = after.timer.runStepSeconds * (runs.get(station) ?? 0);
      return Math.abs(change.after - change.before) <= step + 1e-6 ? [] : [change];
    });
}
