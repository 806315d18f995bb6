import { useQuery } from '@tanstack/react-query';
import type {
  Closing,
  OthersChange,
  Plan,
  RecordChange,
  Survey,
  TimerRecord,
} from '@water-clock/core';
import { request, type RefusedError } from './request.ts';
import type { Site } from './sites.ts';

export interface TimerView {
  readonly id: string;
  /** Name at the site; empty if it goes by its kind. */
  readonly name: string;
  readonly version: number;
  readonly site: Site;
  readonly plan: Plan;
  readonly survey: Survey;
  readonly history: readonly {
    readonly way: Way;
    readonly change: RecordChange;
    readonly inverse: RecordChange;
  }[];
  /** The last change of the settings, if it was rebased on others'. */
  readonly merging: Merging | null;
}

export interface Merging {
  readonly by: string;
  readonly at: string;
  readonly over: readonly string[];
}

const path = (id: string) => `/api/timers/${encodeURIComponent(id)}`;

export const timerKeys = {
  one: (id: string) => ['timers', id] as const,
};

export const loadTimer = (id: string) => request<TimerView>('GET', path(id));

const known = ({ id, baseVersion, madeOn }: Write) => ({
  ...{ id, baseVersion },
  ...(madeOn === undefined ? {} : { madeOn }),
});
/** What the server takes of a write; the rest stays on the device. */
export const changeBody = (write: Write) => ({
  ...known(write),
  ...{ way: write.way, change: write.change },
});
const changesOf = (timerId: string) => `${path(timerId)}/changes`;

/** Path and body of a write: a change, or the end of the visit. */
export const savingOf = (timerId: string, write: Write) =>
  write.closing
    ? { to: `${path(timerId)}/visits`, body: { ...known(write), ...write.closing } }
    : { to: changesOf(timerId), body: changeBody(write) };
export const sendWrite = (timerId: string, write: Write) => {
  const { to, body } = savingOf(timerId, write);
  return request<{ version: number }>('POST', to, body);
};
export const exportPath = (id: string) => `${path(id)}/export`;

/** Answer to several changes: the versions up to the first refused one. */
export interface SavedSeveral {
  readonly versions: readonly number[];
  readonly refusal: { readonly status: number; readonly body: RefusedError['body'] } | null;
}
/** Path and body of several changes in one request, each saved by itself. */
export const savingOfSeveral = (timerId: string, writes: readonly Write[]) => ({
  to: `${changesOf(timerId)}/several`,
  body: { writes: writes.map(changeBody) },
});
export function sendWrites(timerId: string, writes: readonly Write[]): Promise<SavedSeveral> {
  const { to, body } = savingOfSeveral(timerId, writes);
  return request<SavedSeveral>('POST', to, body);
}

/** The saved timer when the page opens. Afterwards the editor is ahead of it, so it is not refetched. */
export const useTimer = (id: string, enabled = true) =>
  useQuery({
    enabled,
    queryKey: timerKeys.one(id),
    queryFn: () => loadTimer(id),
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  });

export type Way = 'do' | 'undo' | 'redo';

/** A write as it waits on the device and goes to the server. */
export interface Write {
  readonly id: string;
  readonly baseVersion: number;
  /** Version on which it was made, if it was rebased since. */
  readonly madeOn?: number;
  readonly way: Way;
  readonly change: RecordChange;
  /** Set if it closes the visit; `change` is then the closing. */
  readonly closing?: Closing;
  /** Device time when it was made, ISO. */
  readonly at: string;
}
export interface Step {
  readonly change: RecordChange;
  readonly inverse: RecordChange;
}

export interface Saved extends TimerRecord {
  readonly version: number;
  readonly merging?: Merging | null;
}

/** Waiting writes, and what was saved when the first was made. */
export interface Queue {
  readonly base: Saved;
  readonly writes: readonly Write[];
}

/** What someone else saved, in the answer to a stale write. */
export interface Theirs extends Saved {
  readonly by: string | null;
  readonly at: string | null;
  /** Changes after the write's version, oldest first; absent: not known. */
  readonly since?: readonly OthersChange[];
}
