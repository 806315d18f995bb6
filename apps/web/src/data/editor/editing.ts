/** State and options of a timer's editor. */
import type { Choices, Clash, Plan, rebase, Survey, TimerRecord } from '@water-clock/core';
import type { Merging, Queue, Saved, SavedSeveral, Theirs, Write } from '../api/timers.ts';

/** Both sides, when another tab or person saved first and changed the same facts. */
export interface Conflict {
  /** The common base. */
  readonly base: TimerRecord;
  readonly mine: TimerRecord;
  /** Device time of my last change, ISO. */
  readonly mineAt: string;
  readonly theirs: Theirs;
  /** Facts to ask about; everything else is merged. */
  readonly open: readonly Clash[];
  /** Questions asked before, whose answers raised new ones. */
  readonly chosen: Choices;
}

export type Status = 'saved' | 'saving' | 'offline' | 'signed-out';

export interface Snapshot {
  /** As on screen: saved, pending and being typed. */
  readonly plan: Plan;
  /** As on screen without what is being typed or dragged; entries are compared with it. */
  readonly settled: Plan;
  /** The survey as on screen. */
  readonly survey: Survey;
  /** Saved version. */
  readonly version: number;
  readonly status: Status;
  /** Changes not known to be saved. */
  readonly unsaved: number;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  readonly conflict: Conflict | null;
  /** The server refused a change, which was reverted. */
  readonly refusal: string | null;
  /** Several people changed the settings separately, and the changes were merged. */
  readonly merging: Merging | null;
  /** Someone else's saved change that was adopted, both sides. */
  readonly news: {
    readonly before: TimerRecord;
    readonly after: TimerRecord;
    readonly by: string | null;
  } | null;
}

export interface Transport {
  /** Saves a write; resolves to the version it made. */
  send(write: Write): Promise<{ readonly version: number }>;
  /** Saves several in one request, each by itself, up to the first refused; absent: one after another. */
  sendSeveral?(writes: readonly Write[]): Promise<SavedSeveral>;
  load(): Promise<Saved>;
}

export interface Merges {
  readonly rebase: typeof rebase;
}

export interface Surroundings {
  readonly transport: Transport;
  readonly newId: () => string;
  /** Keeps unsaved writes through a reload. */
  readonly keep: (queues: readonly Queue[]) => void;
  readonly later: (work: () => void, milliseconds: number) => void;
  /** Rebases writes on what someone else saved; loaded when needed. */
  readonly merging: () => Promise<Merges>;
  /** The device's clock. */
  readonly now?: () => Date;
  /** The person was removed from the company: nothing of theirs can be saved any more. */
  readonly takenOut?: () => void;
  /** A write was saved. */
  readonly saved?: (write: Write) => void;
}
