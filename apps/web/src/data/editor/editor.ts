/**
 * Editor of one timer: saved state, writes under way, what is being typed, undo and redo, and merging with other people's changes. No
 * interface code; server, storage and clock are passed in. Changes show at once and are sent one after another. Each has an id and a base
 * version, so sending it again is harmless, and a stale one is refused, never merged silently.
 */
import {
  applyRecordChange,
  touchesPlan,
  type Choices,
  type Closing,
  type Fault,
  type RecordChange,
  type TimerRecord,
} from '@water-clock/core';
import { RefusedError, UnreachableError } from '../api/request.ts';
import type { Queue, Saved, Step, Theirs, Way, Write } from '../api/timers.ts';
import { refusalWords } from './commitWords.ts';
import { UndoStack } from './undoStack.ts';
import { anew, chunkOf, startMoved, withWrite, type Pending } from './writes.ts';
import type { Conflict, Merges, Snapshot, Status, Surroundings } from './editing.ts';

const RETRY_MILLISECONDS = 2000;
/** Refusals that are not about the write itself; it waits. */
const LATER = ['too-many-tries', 'failed'];

/** Refusals of the person, not of the write; it waits until the right person signs in. */
const NOT_THEIRS = ['not-signed-in', 'another-person', 'taken-out'];

export class TimerEditor {
  private saved: Saved;
  private pending: readonly Pending[] = [];
  /** The record with pending writes applied, and the inputs it was made from. */
  private made: { saved: Saved; pending: readonly Pending[]; record: TimerRecord } | null = null;
  private draft: RecordChange | null = null;
  private readonly undoStack: UndoStack;
  private status: Status = 'saved';
  private conflict: Conflict | null = null;
  private refusal: string | null = null;
  private news: Snapshot['news'] = null;
  private sending = false;
  /** The saved state may be ahead of the writes under way; fetch it again once they are through. */
  private resuming = false;
  /** Queues left by closed tabs, sent after this tab's own. */
  private leftBehind: readonly Queue[] = [];
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
    this.undoStack = new UndoStack(history);
    this.current = this.take();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): Snapshot => this.current;

  /** Shows a change while it is being typed or dragged, without making it; null ends that. */
  setDraft(change: RecordChange | null): void {
    this.draft = change;
    this.tell();
    if (change === null && this.leftBehind.length > 0) void this.flush();
  }

  /** Makes a change and queues it; returns core's faults, empty if accepted. */
  commit(change: RecordChange): readonly Fault[] {
    this.draft = null;
    const faults = this.make(change, 'do');
    this.tell();
    return faults;
  }

  /** Moves a start time of a program, as a preview or for real. */
  moveStart(letter: string, start: string, to: string, how: 'draft' | 'commit'): void {
    const change = startMoved(this.withPending().plan, letter, start, to);
    if (!change) return;
    if (how === 'draft') this.setDraft(change);
    else this.commit(change);
  }

  undo(): void {
    const step = this.conflict ? undefined : this.undoStack.undo();
    if (!step) return;
    this.make(step.inverse, 'undo');
    this.tell();
  }

  redo(): void {
    const step = this.conflict ? undefined : this.undoStack.redo();
    if (!step) return;
    this.make(step.change, 'redo');
    this.tell();
  }

  /** The server has another version; adopts it if nothing here would be lost. */
  async noticeVersion(version: number, by: string | null): Promise<void> {
    const quiet = () => this.pending.length === 0 && this.draft === null && !this.conflict;
    if (version <= this.saved.version || !quiet()) return;
    const loaded = await this.surroundings.transport.load().catch(() => null);
    if (!loaded || loaded.version <= this.saved.version || !quiet()) return;
    this.news = { before: this.news?.before ?? this.saved, after: loaded, by };
    this.adopt(loaded);
  }

  /** Adopts what this page saved by another route, such as closing a visit. */
  async noticeOwn(): Promise<void> {
    const loaded = await this.surroundings.transport.load();
    if (this.pending.length === 0) this.adopt(loaded);
  }

  /** Resolves a conflict: each fact that both changed takes the chosen side. */
  resolve(choice: 'theirs' | 'mine' | Choices): void {
    const { conflict } = this;
    if (!conflict) return;
    const made =
      typeof choice === 'string'
        ? conflict.open.map(({ at }) => [at, choice] as const)
        : [...choice];
    void this.surroundings.merging().then(
      (merges) => {
        if (this.conflict !== conflict) return;
        this.conflict = null;
        this.putTogether(merges, conflict.theirs, new Map([...conflict.chosen, ...made]));
        this.tell();
        void this.flush();
      },
      // The question stays until it can be answered.
      () => this.tell(),
    );
  }

  /**
   * Closes the visit; false if more is undone than was confirmed.
   *
   * @param change the closing change (core's `closingChange`); null if it cannot be closed
   */
  close(closing: Closing, change: RecordChange | null): boolean {
    if (!change || this.make(change, 'do', closing).length > 0) return false;
    // The logbook relies on the earlier changes.
    this.undoStack.clear();
    this.tell();
    return true;
  }

  /**
   * Sends what a reload left, on top of what was saved when it was made. Some of it may be saved already: the server repeats those answers,
   * and the saved state is fetched afterwards.
   */
  resume(queue: Queue): void {
    this.leftBehind = [...this.leftBehind, queue];
    this.tell();
    void this.flush();
  }

  dismiss(): void {
    this.refusal = null;
    this.news = null;
    this.tell();
  }

  /** Retries at once, after sign-in or when the network is back. */
  retry(): void {
    void this.flush();
  }

  private make(change: RecordChange, way: Way, closing?: Closing): readonly Fault[] {
    const applied = applyRecordChange(this.withPending(), change);
    if (!applied.ok) return applied.faults;
    const { inverse } = applied.value;
    const baseVersion = this.saved.version + this.pending.length;
    const { newId, now = () => new Date() } = this.surroundings;
    const write = { id: newId(), baseVersion, way, change, at: now().toISOString() };
    const end = closing === undefined ? {} : { closing };
    this.pending = [...this.pending, { ...write, ...end, wasSent: false }];
    if (way === 'do') this.undoStack.push({ change, inverse });
    this.refusal = null;
    void this.flush();
    return [];
  }

  /** The same object until something is saved or made. */
  private withPending(): TimerRecord {
    const { saved, pending } = this;
    if (this.made?.saved === saved && this.made.pending === pending) return this.made.record;
    let record: TimerRecord = { plan: saved.plan, survey: saved.survey };
    for (const write of pending) record = withWrite(record, write) ?? record;
    this.made = { saved, pending, record };
    return record;
  }

  private shown(): TimerRecord {
    const record = this.withPending();
    if (!this.draft) return record;
    const applied = applyRecordChange(record, this.draft);
    return applied.ok ? applied.value.record : record;
  }

  /** Sends pending writes one after another, until all are saved or one is blocked. */
  private async flush(): Promise<void> {
    if (this.sending || this.conflict) return;
    this.sending = true;
    let isInTheWay = false;
    while (!isInTheWay && this.hasWork()) {
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

  private hasWork(): boolean {
    const [next, ...others] = this.leftBehind;
    if (next && this.pending.length === 0 && this.draft === null) {
      this.leftBehind = others;
      this.resuming = true;
      // Only the first can be under way; each is sent once the one before is saved.
      this.pending = next.writes.map((write, i) => ({ ...write, wasSent: i === 0 }));
      this.adopt(next.base);
    }
    return this.pending.length > 0 || this.resuming;
  }

  private async sendNext(): Promise<void> {
    const { transport } = this.surroundings;
    const [next, ...rest] = this.pending;
    if (!next) {
      const loaded = await transport.load();
      // Something was typed while the answer came.
      if (this.pending.length > 0) return;
      this.resuming = false;
      if (loaded.version >= this.saved.version) this.adopt(loaded);
      return;
    }
    const chunk = chunkOf(next, rest, this.saved.version, transport.sendSeveral !== undefined);
    const record = this.withPending();
    this.pending = [
      ...chunk.map((write) => ({ ...write, wasSent: true })),
      ...this.pending.slice(chunk.length),
    ];
    this.made = { saved: this.saved, pending: this.pending, record };
    this.tell();
    const [only] = chunk;
    if (only && (chunk.length === 1 || !transport.sendSeveral)) {
      this.isSaved(only, (await transport.send(only)).version);
      return;
    }
    const { versions, refusal } = (await transport.sendSeveral?.(chunk)) ?? {
      versions: [],
      refusal: null,
    };
    for (const [i, write] of chunk.slice(0, versions.length).entries())
      this.isSaved(write, versions[i]);
    if (refusal) throw new RefusedError(refusal.status, refusal.body);
  }

  /** The first waiting write was saved as a version. */
  private isSaved(write: Write, version: number | undefined): void {
    // A write makes the next version, even when repeated; any other answer is about something else.
    if (version !== write.baseVersion + 1)
      throw new UnreachableError('the answer is not that of this write');
    // It was applied already; with hundreds waiting, each is applied once.
    const isNew = version > this.saved.version;
    const shown = this.withPending();
    // A write that arrived before a reload is part of what was loaded.
    if (isNew) {
      const { plan, survey } = withWrite(this.saved, write) ?? this.saved;
      const merging = touchesPlan(write.change) ? null : (this.saved.merging ?? null);
      this.saved = { version, plan, survey, merging };
    }
    this.pending = this.pending.slice(1);
    this.made = isNew ? { saved: this.saved, pending: this.pending, record: shown } : null;
    this.tell();
    this.surroundings.saved?.(write);
  }

  /** Reports an error; returns whether it blocks the other pending writes. */
  private async failed(error: unknown): Promise<boolean> {
    if (!(error instanceof RefusedError) || LATER.includes(error.code)) {
      this.setStatus('offline');
      this.surroundings.later(() => void this.flush(), RETRY_MILLISECONDS);
      return true;
    }
    if (NOT_THEIRS.includes(error.code)) {
      if (error.code === 'taken-out') this.surroundings.takenOut?.();
      this.setStatus('signed-out');
      return true;
    }
    if (error.code === 'stale-version') {
      // Safe cast: our own server answers a stale write with the current record and who saved since.
      const { current, since } = error.body as { current: Theirs; since?: Theirs['since'] };
      const theirs = { ...current, ...(since === undefined ? {} : { since }) };
      return this.merged((merges) => this.putTogether(merges, theirs, new Map()));
    }
    const { message } = error;
    return this.merged((merges) => this.leaveOut(merges, message));
  }

  /** Runs something that needs the merge code; returns whether it is blocked. */
  private async merged(work: (merges: Merges) => void | Promise<void>): Promise<boolean> {
    let merges: Merges;
    try {
      merges = await this.surroundings.merging();
    } catch {
      this.setStatus('offline');
      this.surroundings.later(() => void this.flush(), RETRY_MILLISECONDS);
      return true;
    }
    await work(merges);
    return this.conflict !== null;
  }

  /** Rebases pending writes on what someone else saved; asks first if both changed the same facts. */
  private putTogether({ rebase }: Merges, theirs: Theirs, choices: Choices): void {
    const base = this.saved;
    const mine = this.withPending();
    const rebased = rebase(base, this.pending, theirs, choices);
    if (rebased.open.length > 0) {
      const mineAt = this.pending.at(-1)?.at ?? '';
      this.conflict = { base, mine, mineAt, theirs, open: rebased.open, chosen: choices };
      this.setStatus('saved');
      return;
    }
    this.pending = anew(rebased, base.version);
    // The server then says whether settings were merged.
    this.resuming = true;
    this.adopt(theirs);
    this.news = { before: this.news?.before ?? mine, after: rebased.record, by: theirs.by };
    this.tell();
  }

  /** The server refused the first write: reverts it and everything built on it. */
  private async leaveOut({ rebase }: Merges, why: string): Promise<void> {
    const [refused, ...rest] = this.pending;
    const before = this.saved;
    const made = refused ? withWrite(before, refused) : null;
    const rebased = rebase(made ?? before, rest, before, new Map());
    const refusal = refusalWords(why, rebased.idle.length);
    this.pending = anew(rebased, before.version);
    this.undoStack.clear();
    this.refusal = refusal;
    if (this.pending.length > 0) return;
    const loaded = await this.surroundings.transport.load().catch(() => null);
    // A change made in the meantime must not clear this message.
    this.refusal = refusal;
    if (loaded && this.pending.length === 0) this.adopt(loaded);
  }

  /** Continues from another saved state, which earlier undo steps no longer fit. */
  private adopt(saved: Saved): void {
    const { version, plan, survey, merging = null } = saved;
    this.saved = { version, plan, survey, merging };
    this.undoStack.clear();
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
      canUndo: this.undoStack.canUndo,
      canRedo: this.undoStack.canRedo,
      conflict: this.conflict,
      refusal: this.refusal,
      merging: this.saved.merging ?? null,
      news: this.news,
    };
  }

  private tell(): void {
    const writes = this.pending.map(({ wasSent: _wasSent, ...write }) => write);
    const own = writes.length > 0 ? [{ base: this.saved, writes }] : [];
    this.surroundings.keep([...own, ...this.leftBehind]);
    this.current = this.take();
    for (const listener of this.listeners) listener();
  }
}
