import { useQuery } from '@tanstack/react-query';
import type { Plan, RecordChange, Survey, TimerRecord } from '@water-clock/core';
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
}

const path = (id: string) => `/api/timers/${encodeURIComponent(id)}`;

export const timerKeys = {
  one: (id: string) => ['timers', id] as const,
};

export const loadTimer = (id: string) => request<TimerView>('GET', path(id));
export const sendChange = (id: string, write: Write) =>
  request<{ version: number }>('POST', `${path(id)}/changes`, write);
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
/** A write, as it goes to the server. */

export interface Write {
  readonly id: string;
  readonly baseVersion: number;
  readonly way: Way;
  readonly change: RecordChange;
}
export interface Step {
  readonly change: RecordChange;
  readonly inverse: RecordChange;
}

export interface Saved extends TimerRecord {
  readonly version: number;
}
