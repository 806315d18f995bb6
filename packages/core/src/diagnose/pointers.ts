/** What a sighting suggests: moments at which a run can have begun, positions of stations in a cycle, percents that give a length. */
import { cycleShape } from '../engine/cycle.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { effectivePercent, percentSteps } from '../plan/program.ts';
import { AROUND_DRY, type Seen } from './timeline.ts';

/** Seconds from a start to each station's first run, at a month's percent. */
export function offsetsOf(
  plan: Plan,
  program: Program,
  month: number,
): ReadonlyMap<number, number> {
  const offsets = new Map<number, number>();
  const percent = effectivePercent(plan, program, month);
  for (const { station, on } of cycleShape(plan, program, percent).runs)
    if (!offsets.has(station)) offsets.set(station, on);
  return offsets;
}

/** Percents that match a length that was seen, in the timer's steps. */
export function percentsSeen(plan: Plan, seen: readonly Seen[]): number[] {
  const steps = percentSteps(plan.timer).filter((one) => one > 0);
  const told = seen.flatMap(({ station, seconds }) =>
    station === null || seconds === null
      ? []
      : plan.programs.flatMap(({ runs }) =>
          runs
            .filter((run) => run.station === station && run.seconds > 0)
            .map((run) => (seconds * 100) / run.seconds),
        ),
  );
  return told.flatMap((percent) =>
    [...steps].sort((a, b) => Math.abs(a - percent) - Math.abs(b - percent)).slice(0, 2),
  );
}

/** When a run that was seen can have begun; for "twice in the night", every hour of the night. */
export function momentsOf({ saw, from, to, times, ranBefore, ranAfter }: Seen): number[] {
  if (saw === 'dry')
    return [
      ...(ranBefore ? [from - AROUND_DRY / 3] : []),
      ...(ranAfter ? [(to ?? from) + AROUND_DRY / 3] : []),
    ];
  if (to === null) return [from];
  const hours = Math.min(24, Math.floor((to - from) / 3600));
  return times === null ? [] : Array.from({ length: hours }, (_, i) => from + i * 3600);
}
