/**
 * A timer while it is edited: what is saved, what is on its way, what is being typed; undo, redo, and what happens when
 * somebody else was faster. No interface code: the server, the tab's storage and the timers are handed in.
 *
 * Changes are shown at once and sent one after another. Each carries an id and the version that it was based on, so that
 * sending it again is harmless and one that comes too late is refused, never mixed in unseen.
 */
import {
  applyRecordChange,
  type Fault,
  type Plan,
  type RecordChange,
  type Survey,
  type TimerRecord,
} from '@water-clock/core';
import { RefusedError, UnreachableError } from '../api/request.ts';
import type { Write, Saved, Step, Way } from '../api/timers.ts';

/** A write that is not known to be saved, with the change that takes it back. */
interface Pending extends Write {
  readonly inverse: RecordChange;
  /** It may have reached the server, so it is sent again word for word. Until then its base is a guess. */
  readonly wasSent: boolean;
}

/** Both sides where another tab or person saved first. */
export interface Conflict {
  /** What both began with. */
  readonly base: TimerRecord;
  readonly mine: TimerRecord;
  readonly theirs: Saved & { readonly by: string | null; readonly at: string | null };
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
  load(): Promise<Saved>;
}

export interface Surroundings {
  readonly transport: Transport;
  readonly newId: () => string;
  /** Keeps what is not saved through a reload of this tab. */
  readonly keep: (pending: readonly Write[]) => void;
  readonly later: (work: () => void, milliseconds: number) => void;
}

const RETRY_MILLISECONDS = 2000;

/** Refusals that say nothing about the write itself: it waits. */
const LATER = ['too-many-tries', 'failed'];

/** Folds a record of changes into what can be undone and redone now. */
export function stacksOf(history: readonly (Step & { readonly way: Way })[]): {
  undo: Step[];
  redo: Step[];
} {
  let undo: Step[] = [];
  let redo: Step[] = [];
  for (const { way, change, inverse } of history) {
    if (way === 'do') {
      undo.push({ change, inverse });
      redo = [];
    } else if (way === 'undo') {
      undo = undo.slice(0, -1);
      redo.push({ change: inverse, inverse: change });
    } else {
      redo = redo.slice(0, -1);
      undo.push({ change, inverse });
    }
  }
  return { undo, redo };
}

export class TimerEditor {
  private saved: Saved;
  private pending: readonly Pending[] = [];
  /** The record with what is pending, and what it was made of. */
  private made: { saved: Saved; pending: readonly Pending[]; record: TimerRecord } | null = null;
  private draft: RecordChange | null = null;
  private undoSteps: Step[];
  private redoSteps: Step[];
  private status: Status = 'saved';
  private conflict: Conflict | null = null;
  private refusal: string | null = null;
  private news: Snapshot['news'] = null;
  private sending = false;
  /** What is saved may be ahead of the writes under way, so it is fetched again once they are through. */
  private resuming = false;
  private current: Snapshot;
  private readonly listeners = new Set<() => void>();
  private readonly surroundings: Surroundings;

  constructor(
    initial: Saved,
    history: readonly (Step & { readonly way: Way })[],
    surroundings: Surroundings,
  ) {
    this.saved = initial;
    this.surroundings = surroundings;
    const { undo, redo } = stacksOf(history);
    this.undoSteps = undo;
    this.redoSteps = redo;
    this.current = this.take();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): Snapshot => this.current;

  /** Shows a change without making it, while it is being typed or dragged; null ends that. */
  setDraft(change: RecordChange | null): void {
    this.draft = change;
    this.tell();
  }

  /** Makes a change and sends it on its way; the faults where core does not accept it, else none. */
  commit(change: RecordChange): readonly Fault[] {
    this.draft = null;
    const faults = this.make(change, 'do');
    if (faults.length === 0) this.redoSteps = [];
    this.tell();
    return faults;
  }

  /** Moves one start of a program to another time of day, shown only or made. */
  moveStart(letter: string, start: string, to: string, how: 'draft' | 'commit'): void {
    const program = this.withPending().plan.programs.find((program) => program.letter === letter);
    const at = program?.starts.indexOf(start) ?? -1;
    if (!program || at < 0) return;
    const change: RecordChange = {
      type: 'set-starts',
      program: letter,
      starts: program.starts.map((one, i) => (i === at ? to : one)),
    };
    if (how === 'draft') this.setDraft(change);
    else this.commit(change);
  }

  undo(): void {
    const step = this.undoSteps.at(-1);
    if (!step || this.conflict) return;
    this.undoSteps = this.undoSteps.slice(0, -1);
    this.redoSteps = [...this.redoSteps, step];
    this.make(step.inverse, 'undo');
    this.tell();
  }

  redo(): void {
    const step = this.redoSteps.at(-1);
    if (!step || this.conflict) return;
    this.redoSteps = this.redoSteps.slice(0, -1);
    this.undoSteps = [...this.undoSteps, step];
    this.make(step.change, 'redo');
    this.tell();
  }

  /** The server has a version of its own; takes it over where nothing here would be lost. */
  async noticeVersion(version: number, by: string | null): Promise<void> {
    const quiet = () => this.pending.length === 0 && this.draft === null && !this.conflict;
    if (version <= this.saved.version || !quiet()) return;
    const loaded = await this.surroundings.transport.load().catch(() => null);
    if (!loaded || loaded.version <= this.saved.version || !quiet()) return;
    this.news = { before: this.news?.before ?? this.saved, after: loaded, by };
    this.adopt(loaded);
  }

  /** Takes over what this very page has saved by another way, such as closing a visit. */
  async noticeOwn(): Promise<void> {
    const loaded = await this.surroundings.transport.load();
    if (this.pending.length === 0) this.adopt(loaded);
  }

  /** Ends a conflict: drops what was typed here, or makes it again on top of what the other side saved. */
  resolve(choice: 'theirs' | 'mine'): void {
    const { conflict, pending } = this;
    if (!conflict) return;
    this.conflict = null;
    this.pending = [];
    this.adopt(conflict.theirs);
    if (choice === 'mine')
      for (const { change } of pending) {
        const faults = this.make(change, 'do');
        if (faults.length > 0)
          this.refusal =
            'One of your changes no longer fits what was saved meanwhile; it was left out.';
      }
    this.tell();
  }

  /**
   * Sends what is left from before a reload. Some of it may be saved already, and others may have saved since: those
   * writes are answered as the first time, and what is saved now is fetched afterwards.
   */
  resume(writes: readonly Write[]): void {
    for (const write of writes) {
      const applied = applyRecordChange(this.shown(), write.change);
      const inverse = applied.ok ? applied.value.inverse : write.change;
      this.pending = [...this.pending, { ...write, inverse, wasSent: true }];
    }
    this.resuming = true;
    this.tell();
    void this.flush();
  }

  dismiss(): void {
    this.refusal = null;
    this.news = null;
    this.tell();
  }

  /** Tries again at once, after a sign-in or when the network is back. */
  retry(): void {
    void this.flush();
  }

  private make(change: RecordChange, way: Way): readonly Fault[] {
    const applied = applyRecordChange(this.withPending(), change);
    if (!applied.ok) return applied.faults;
    const { inverse } = applied.value;
    const baseVersion = this.saved.version + this.pending.length;
    const id = this.surroundings.newId();
    this.pending = [...this.pending, { id, baseVersion, way, change, inverse, wasSent: false }];
    if (way === 'do') this.undoSteps = [...this.undoSteps, { change, inverse }];
    this.refusal = null;
    void this.flush();
    return [];
  }

  /** The same object until something is saved or made. */
  private withPending(): TimerRecord {
    const { saved, pending } = this;
    if (this.made?.saved === saved && this.made.pending === pending) return this.made.record;
    let record: TimerRecord = { plan: saved.plan, survey: saved.survey };
    for (const { change } of pending) {
      const applied = applyRecordChange(record, change);
      if (applied.ok) ({ record } = applied.value);
    }
    this.made = { saved, pending, record };
    return record;
  }

  private shown(): TimerRecord {
    const record = this.withPending();
    if (!this.draft) return record;
    const applied = applyRecordChange(record, this.draft);
    return applied.ok ? applied.value.record : record;
  }

  /** Sends what is pending, one after another, until all is saved or something stands in the way. */
  private async flush(): Promise<void> {
    if (this.sending || this.conflict) return;
    this.sending = true;
    let isInTheWay = false;
    while (!isInTheWay && (this.pending.length > 0 || this.resuming)) {
      this.setStatus('saving');
      try {
        await this.sendNext();
      } catch (error) {
        isInTheWay = await this.failed(error);
      }
    }
    this.sending = false;
    if (!isInTheWay) this.setStatus('saved');
  }

  private async sendNext(): Promise<void> {
    const [next, ...rest] = this.pending;
    if (!next) {
      const loaded = await this.surroundings.transport.load();
      this.resuming = false;
      this.adopt(loaded);
      return;
    }
    const { inverse, wasSent, ...rough } = next;
    const write = wasSent ? rough : { ...rough, baseVersion: this.saved.version };
    this.pending = [{ ...write, inverse, wasSent: true }, ...rest];
    this.tell();
    const { version } = await this.surroundings.transport.send(write);
    // A write makes the next version, also when it is repeated; another answer says nothing of it.
    if (version !== write.baseVersion + 1)
      throw new UnreachableError('the answer is not that of this write');
    // A write that had arrived before a reload is in what was loaded already.
    if (version > this.saved.version) {
      const applied = applyRecordChange(this.saved, next.change);
      const { plan, survey } = applied.ok ? applied.value.record : this.saved;
      this.saved = { version, plan, survey };
    }
    this.pending = this.pending.slice(1);
    this.tell();
  }

  /** Says what went wrong; whether it stands in the way of what else is pending. */
  private async failed(error: unknown): Promise<boolean> {
    if (!(error instanceof RefusedError) || LATER.includes(error.code)) {
      this.setStatus('offline');
      this.surroundings.later(() => void this.flush(), RETRY_MILLISECONDS);
      return true;
    }
    if (error.code === 'not-signed-in' || error.code === 'another-person') {
      this.setStatus('signed-out');
      return true;
    }
    if (error.code === 'stale-version') {
      // The cast trusts our own server: a stale write is answered with the present state.
      const theirs = error.body['current'] as Conflict['theirs'];
      this.conflict = { base: this.saved, mine: this.withPending(), theirs };
      this.setStatus('saved');
      return true;
    }
    const refusal = `Not saved: ${error.message}`;
    this.pending = [];
    this.refusal = refusal;
    const loaded = await this.surroundings.transport.load().catch(() => null);
    // A change made in the meantime does not clear this sentence.
    this.refusal = refusal;
    if (loaded) this.adopt(loaded);
    return false;
  }

  /** Continues from another saved state; what could be undone before no longer fits it. */
  private adopt(saved: Saved): void {
    this.saved = { version: saved.version, plan: saved.plan, survey: saved.survey };
    this.undoSteps = [];
    this.redoSteps = [];
    this.tell();
  }

  private setStatus(status: Status): void {
    this.status = status;
    this.tell();
  }

  private take(): Snapshot {
    const { plan, survey } = this.shown();
    return {
      plan,
      survey,
      settled: this.withPending().plan,
      version: this.saved.version,
      status: this.status,
      unsaved: this.pending.length,
      canUndo: this.undoSteps.length > 0,
      canRedo: this.redoSteps.length > 0,
      conflict: this.conflict,
      refusal: this.refusal,
      news: this.news,
    };
  }

  private tell(): void {
    this.surroundings.keep(
      this.pending.map(({ inverse: _inverse, wasSent: _wasSent, ...write }) => write),
    );
    this.current = this.take();
    for (const listener of this.listeners) listener();
  }
}
