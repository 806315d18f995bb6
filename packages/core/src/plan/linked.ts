/** Linked stations, which use another one's run times (timing-rules.md section 3, Linked stations). */
import type { Plan, Program, Run, Station } from './plan.ts';
import { enabledStations } from './program.ts';

/** A program's runs, including those of linked stations. */
export function runsWithLinked(
  { stations }: Plan,
  { runs }: Pick<Program, 'runs'>,
): readonly Run[] {
  const linked = stations.flatMap(({ number, linkedTo }): Run[] => {
    if (linkedTo === undefined) return [];
    const run = runs.find(({ station }) => station === linkedTo);
    return run ? [{ station: number, seconds: run.seconds }] : [];
  });
  return linked.length > 0 ? [...runs, ...linked] : runs;
}

/** The station whose `cycleSeconds` and `soakSeconds` apply: the one it is linked to, or itself. */
export const splitBy = ({ stations }: Plan, station: Station): Station =>
  station.linkedTo === undefined
    ? station
    : (stations.find(({ number }) => number === station.linkedTo) ?? station);

/** Stations whose runs make a program water: enabled ones, and those an enabled one is linked to. */
export function wateringStations(plan: Plan): ReadonlySet<number> {
  const enabled = enabledStations(plan);
  const leading = plan.stations.flatMap(({ number, linkedTo }) =>
    linkedTo !== undefined && enabled.has(number) ? [linkedTo] : [],
  );
  return leading.length > 0 ? new Set([...enabled, ...leading]) : enabled;
}
