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
  /** As at its house; empty: it is called by its kind. */
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
  /** The last change of the settings, where it was put on top of what others had changed meanwhile. */
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
/** What the server takes of a change; the rest is the device's own. */
export const changeBody = (write: Write) => ({
  ...known(write),
  ...{ way: write.way, change: write.change },
});
const changesOf = (timerId: string) => `${path(timerId)}/changes`;

/** Where a write goes, a change or the end of the visit, and what is sent. */
export const savingOf = (timerId: string, write: Write) =>
  write.closing
    ? { to: `${path(timerId)}/visits`, body: { ...known(write), ...write.closing } }
    : { to: changesOf(timerId), body: changeBody(write) };
export const sendWrite = (timerId: string, write: Write) => {
  const { to, body } = savingOf(timerId, write);
  return request<{ version: number }>('POST', to, body);
};
export const exportPath = (id: string) => `${path(id)}/export`;

/** The answer to several changes: the versions up to the first that was refused. */
export interface SavedSeveral {
  readonly versions: readonly number[];
  readonly refusal: { readonly status: number; readonly body: RefusedError['body'] } | null;
}
/** Where several changes go in one request, each saved by itself. */
export const savingOfSeveral = (timerId: string, writes: readonly Write[]) => ({
  to: `${changesOf(timerId)}/several`,
  body: { writes: writes.map(changeBody) },
});
export function sendWrites(timerId: string, writes: readonly Write[]): Promise<SavedSeveral> {
  const { to, body } = savingOfSeveral(timerId, writes);
  return request<SavedSeveral>('POST', to, body);
}

/** The timer as saved when the page opens. Afterwards the editor is ahead of it, so it is not fetched again. */
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
  /** The version on which it was made, where it was put on another one since. */
  readonly madeOn?: number;
  readonly way: Way;
  readonly change: RecordChange;
  /** It ends the visit, which is what `change` does here. */
  readonly closing?: Closing;
  /** When it was made, by this device's clock, ISO. */
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

/** Writes that wait, and what was saved when the first of them was made. */
export interface Queue {
  readonly base: Saved;
  readonly writes: readonly Write[];
}

/** What somebody else saved, as a write that comes too late is answered. */
export interface Theirs extends Saved {
  readonly by: string | null;
  readonly at: string | null;
  /** Changes after the version of the write, the first first; absent: they are not told. */
  readonly since?: readonly OthersChange[];
}
