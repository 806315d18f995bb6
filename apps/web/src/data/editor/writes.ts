/** Writes of a timer that are on their way: what they make of a record, and what goes in one request. */
import {
  applyRecordChange,
  type Plan,
  type Rebased,
  type RecordChange,
  type TimerRecord,
} from '@water-clock/core';
import type { Write } from '../api/timers.ts';

/** A write that is not known to be saved. */
export interface Pending extends Write {
  /** It may have reached the server, so it is sent again word for word. Until then its base is a guess. */
  readonly wasSent: boolean;
}

/** As many as the office takes at once, and the letters that they may have together: a body that is too large would be refused as a whole. */
const MOST_AT_ONCE = 50;
const MOST_LETTERS = 100_000;

/** A record with a write made; null: it does not fit. */
export function withWrite(
  record: TimerRecord,
  { change }: Pick<Write, 'change'>,
): TimerRecord | null {
  const applied = applyRecordChange(record, change);
  return applied.ok ? applied.value.record : null;
}

/** One start of a program at another time of day; null: there is no such start. */
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

/** The next write, and changes behind it that go with it: each based on the version that the one before makes. @param takesSeveral whether the server takes more than one at once */
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

/** Writes that were put on another version: no word of them has been saved. */
export function anew({ writes }: Rebased<Pending>, madeOn: number): Pending[] {
  return writes.map((write) => ({ ...write, wasSent: false, madeOn: write.madeOn ?? madeOn }));
}
