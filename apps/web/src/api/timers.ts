import { useQuery } from '@tanstack/react-query';
import type {
  Closing,
  OthersChange,
  Plan,
  RecordChange,
  Survey,
  TimerRecord,
} from '@water-clock/core';
import { request } from './request.ts';
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
/** A change, or the end of the visit. */
export const sendWrite = (timerId: string, write: Write) => {
  const { id, baseVersion, madeOn, way, change, closing } = write;
  const known = { id, baseVersion, ...(madeOn === undefined ? {} : { madeOn }) };
  return closing
    ? request<{ version: number }>('POST', `${path(timerId)}/visits`, { ...known, ...closing })
    : request<{ version: number }>('POST', `${path(timerId)}/changes`, { ...known, way, change });
};
export const exportPath = (id: string) => `${path(id)}/export`;

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
