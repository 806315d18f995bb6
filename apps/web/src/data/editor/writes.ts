/** Writes of a timer under way: what they make of a record, and what goes in one request. */
import {
  applyRecordChange,
  type Plan,
  type Rebased,
  type RecordChange,
  type TimerRecord,
} from '@water-clock/core';
import type { Write } from '../api/timers.ts';

/** A write not known to be saved. */
export interface Pending extends Write {
  /** It may have reached the server, so it must be sent again unchanged. Until then its base is a guess. */
  readonly wasSent: boolean;
}

/** Most writes in one request, and most characters: a body that is too large would be refused as a whole. */
const MOST_AT_ONCE = 50;
const MOST_LETTERS = 100_000;

/** A record with a write applied; null if it does not fit. */
export function withWrite(
  record: TimerRecord,
  { change }: Pick<Write, 'change'>,
): TimerRecord | null {
  const applied = applyRecordChange(record, change);
  return applied.ok ? applied.value.record : null;
}

/** A start time of a program moved to another time; null if there is no such start. */
export function startMoved(
  { programs }: Plan,
  letter: string,
  start: string,
  to: string,
): RecordChange | null {
  const starts = programs.find((program) => program.letter === letter)?.starts ?? [];
  const at = starts.indexOf(start);
  if (at < 0) return null;
  return {
    type: 'set-starts',
    program: letter,
    starts: starts.map((one, i) => (i === at ? to : one)),
  };
}

/**
 * The next write and the changes behind it that go in one request, each based on the version of the one before.
 *
 * @param takesSeveral whether the server takes several at once
 */
export function chunkOf(
  next: Pending,
  rest: readonly Pending[],
  savedVersion: number,
  takesSeveral: boolean,
): Write[] {
  const first = next.wasSent ? next.baseVersion : savedVersion;
  const ends = rest.findIndex(({ closing }) => closing !== undefined);
  const most = takesSeveral && !next.closing ? MOST_AT_ONCE : 1;
  const changes = [next, ...(ends < 0 ? rest : rest.slice(0, ends))].slice(0, most);
  const chunk: Write[] = [];
  let letters = 0;
  for (const { wasSent: _wasSent, ...write } of changes) {
    letters += JSON.stringify(write).length;
    if (letters > MOST_LETTERS && chunk.length > 0) break;
    chunk.push({ ...write, baseVersion: first + chunk.length });
  }
  return chunk;
}

/** Writes rebased on another version, none of which has been saved. */
export function anew({ writes }: Rebased<Pending>, madeOn: number): Pending[] {
  return writes.map((write) => ({ ...write, wasSent: false, madeOn: write.madeOn ?? madeOn }));
}
