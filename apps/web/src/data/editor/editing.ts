/** What an editor of a timer shows, and what is handed in to it. */
import type { Choices, Clash, Plan, rebase, Survey, TimerRecord } from '@water-clock/core';
import type { Merging, Queue, Saved, SavedSeveral, Theirs, Write } from '../api/timers.ts';

/** Both sides where another tab or person saved first, and changed the same facts. */
export interface Conflict {
  /** What both began with. */
  readonly base: TimerRecord;
  readonly mine: TimerRecord;
  /** When the last of mine was made, by this device's clock, ISO. */
  readonly mineAt: string;
  readonly theirs: Theirs;
  /** What has to be asked; all else is put together. */
  readonly open: readonly Clash[];
  /** What was asked before, and opened another question. */
  readonly chosen: Choices;
}

export type Status = 'saved' | 'saving' | 'offline' | 'signed-out';

export interface Snapshot {
  /** As on the screen: saved, pending and being typed. */
  readonly plan: Plan;
  /** The same without what is being typed or dragged: what an entry is compared with. */
  readonly settled: Plan;
  /** What was found out, as on the screen. */
  readonly survey: Survey;
  /** Of what is saved. */
  readonly version: number;
  readonly status: Status;
  /** Changes that are not known to be saved. */
  readonly unsaved: number;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  readonly conflict: Conflict | null;
  /** The server refused a change; it was taken back. */
  readonly refusal: string | null;
  /** The settings were changed by several apart from each other, and put together. */
  readonly merging: Merging | null;
  /** Somebody else's saved change that was taken over, both sides. */
  readonly news: {
    readonly before: TimerRecord;
    readonly after: TimerRecord;
    readonly by: string | null;
  } | null;
}

export interface Transport {
  /** Saves a write; resolves to the version that it made. */
  send(write: Write): Promise<{ readonly version: number }>;
  /** Several in one request, each saved by itself, up to the first that is refused; absent: one after another. */
  sendSeveral?(writes: readonly Write[]): Promise<SavedSeveral>;
  load(): Promise<Saved>;
}

export interface Merges {
  readonly rebase: typeof rebase;
}

export interface Surroundings {
  readonly transport: Transport;
  readonly newId: () => string;
  /** Keeps what is not saved through a reload. */
  readonly keep: (queues: readonly Queue[]) => void;
  readonly later: (work: () => void, milliseconds: number) => void;
  /** How writes are put on what somebody else saved: loaded when that happens. */
  readonly merging: () => Promise<Merges>;
  /** This device's clock. */
  readonly now?: () => Date;
  /** The person was taken out of the company: nothing of theirs is saved any more. */
  readonly takenOut?: () => void;
  /** A write was saved. */
  readonly saved?: (write: Write) => void;
}
