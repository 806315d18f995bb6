/** Changing a timer's kind, and as many stations as are in use. */
import type { TimerKind } from '../plan/kind.ts';
import { removeStationChange } from '../plan/change.ts';
import type { RecordChange, TimerRecord } from './record.ts';

/**
 * The change to another kind in one step. Stations above the number in use go, with their runs; missing ones are added. What was noted of the
 * power goes if the kind knows it.
 *
 * @param inUse stations in use, at most what the kind has
 */
export function kindChange(
  { plan, survey }: TimerRecord,
  { timer, power }: TimerKind,
  inUse: number,
): RecordChange {
  const { power: noted, ...device } = survey.device ?? {};
  const isThere = new Set(plan.stations.map(({ number }) => number));
  const missing = Array.from({ length: inUse }, (_, i) => i + 1).filter((one) => !isThere.has(one));
  return {
    type: 'together',
    changes: [
      ...plan.stations
        .filter(({ number }) => number > inUse)
        .map(({ number }) => removeStationChange(plan, number)),
      { type: 'set-timer', timer },
      ...missing.map((number) => ({ type: 'add-station', station: { number } }) as const),
      ...(power === undefined || noted === undefined
        ? []
        : [{ type: 'note', fields: { device } } as const]),
    ],
  };
}
