/**
 * Rebases changes made on one version of a timer onto a version that someone else saved: in order, each with its id, and none dropped
 * silently.
 */
import { samePlan } from '../plan/samePlan.ts';
import { planDifferences } from '../record/planDifferences.ts';
import { applyRecordChange, type RecordChange, type TimerRecord } from '../record/record.ts';
import { closeVisit, notAmong, undoneIn } from '../record/closing.ts';
import type { Undone } from '../visit/visit.ts';
import { changeBetween, factAt, mergeRecords, sameRecord, type Choices } from './mergeRecords.ts';
import type { Clash } from './mergeParts.ts';

/** Closing of the open visit. */
export interface Closing {
  /** Local time at the site, `YYYY-MM-DDTHH:MM`. */
  readonly closed: string;
  /** Work left undone on purpose. */
  readonly undone: readonly Undone[];
  /** Confirms that the settings saved as left are those in the timer, although they were changed elsewhere since. */
  readonly leftAsFrozen?: true;
}

/** An unsaved write: a change, or the closing of the visit with the change it makes here. */
export interface TimerWrite {
  readonly id: string;
  readonly change: RecordChange;
  readonly closing?: Closing;
}

export interface Rebased<W extends TimerWrite> {
  /** Writes that still change something, with their new changes. */
  readonly writes: readonly W[];
  /** Ids of writes without effect: already saved, or the other side was chosen. */
  readonly idle: readonly string[];
  /** With all of them applied. */
  readonly record: TimerRecord;
  /** Questions to ask first; the rest assumes their side. */
  readonly open: readonly Clash[];
}

/** Path of the question about a visit that cannot be closed. */
export const CLOSING_AT = 'closing';

const applied = (record: TimerRecord, change: RecordChange): TimerRecord | null => {
  const made = applyRecordChange(record, change);
  return made.ok ? made.value.record : null;
};

/** The closing of the visit as a change; null: none is open, or more is undone than was confirmed. */
export function closingChange(record: TimerRecord, closing: Closing): RecordChange | null {
  const { plan, survey } = record;
  const { closed, undone, leftAsFrozen } = closing;
  const end = closeVisit(plan, survey, closed, undone, [], leftAsFrozen);
  return end && changeBetween(record, { plan, survey: end.survey });
}

/** Writes up to the next closing, with it. */
function segments<W extends TimerWrite>(writes: readonly W[]): { changes: W[]; end?: W }[] {
  const all: { changes: W[]; end?: W }[] = [{ changes: [] }];
  for (const write of writes) {
    const last = all.at(-1);
    if (write.closing) {
      if (last) last.end = write;
      all.push({ changes: [] });
    } else last?.changes.push(write);
  }
  return all;
}

class Rebasing<W extends TimerWrite> {
  readonly writes: W[] = [];
  readonly idle: string[] = [];
  readonly open: Clash[] = [];

  constructor(
    /** Original and new base of the writes so far. */
    private base: TimerRecord,
    public record: TimerRecord,
    private readonly choices: Choices,
  ) {}

  changes(writes: readonly W[]): void {
    if (writes.length === 0) return;
    let mine = this.base;
    for (const { change } of writes) mine = applied(mine, change) ?? mine;
    const { record: whole, open } = mergeRecords(this.base, mine, this.record, this.choices);
    this.open.push(...open);
    for (const write of writes) this.one(write);
    // A fact changed back and forth counts as it ended.
    const rest = changeBetween(this.record, whole);
    const last = writes.at(-1);
    if (rest && last) this.amend(last, rest);
    this.base = mine;
  }

  /** One write alone. Its clashes are decided by the whole. */
  private one(write: W): void {
    const made = applied(this.base, write.change);
    if (!made) {
      this.idle.push(write.id);
      return;
    }
    const { record } = mergeRecords(this.base, made, this.record, this.choices);
    this.base = made;
    if (sameRecord(record, this.record)) {
      this.idle.push(write.id);
      return;
    }
    const direct = applied(this.record, write.change);
    const change =
      direct && sameRecord(direct, record) ? write.change : changeBetween(this.record, record);
    if (change) this.writes.push({ ...write, change });
    this.record = record;
  }

  /** Rebases the closing of a visit. */
  private amend(write: W, rest: RecordChange): void {
    const before = this.writes.at(-1);
    const isKept = before?.id === write.id;
    const parts = (change: RecordChange) =>
      change.type === 'together' ? change.changes : ([change] as const);
    const changes = [...(isKept ? parts(before.change) : []), ...parts(rest)];
    const amended = { ...write, change: { type: 'together', changes } as const };
    this.writes.splice(isKept ? -1 : this.writes.length, isKept ? 1 : 0, amended);
    this.idle.splice(0, this.idle.length, ...this.idle.filter((id) => id !== write.id));
    this.record = applied(this.record, rest) ?? this.record;
  }

  end(write: W & { readonly closing: Closing }): void {
    // The answers decide what is undone.
    if (this.open.length > 0) return;
    this.base = applied(this.base, write.change) ?? this.base;
    const { plan, survey } = this.record;
    if (!survey.visit) {
      // It is closed already; clashes with that were asked about.
      this.idle.push(write.id);
      return;
    }
    const closing = asFrozen(write.closing, this.record);
    const more = notAmong(undoneIn(plan, survey), closing.undone).filter(
      ({ what }) => !(closing.leftAsFrozen && what === 'as-left-is-older'),
    );
    const side = more.length > 0 ? this.choices.get(CLOSING_AT) : 'mine';
    if (side === undefined)
      this.open.push({ at: CLOSING_AT, base: null, mine: closing.undone, theirs: more });
    const all = { ...closing, undone: [...closing.undone, ...more] };
    const change = side === 'mine' ? closingChange(this.record, all) : null;
    if (!change) {
      this.idle.push(write.id);
      return;
    }
    this.writes.push({ ...write, change, closing: all });
    this.record = applied(this.record, change) ?? this.record;
  }
}

/** A closing after others changed settings since they were saved as left: those are not in the timer. */
function asFrozen(closing: Closing, { plan, survey }: TimerRecord): Closing {
  const frozen = survey.visit?.asLeft;
  const isOlder = frozen !== undefined && !samePlan(frozen.plan, plan);
  const wasSaid = closing.undone.some(({ what }) => what === 'as-left-is-older');
  if (!isOlder || wasSaid) return closing;
  const lines = planDifferences(frozen.plan, plan, '24').length;
  const others = closing.undone.filter(({ what }) => what !== 'not-keyed');
  return { ...closing, undone: [...others, { what: 'not-keyed', lines }], leftAsFrozen: true };
}

/**
 * Rebases writes made on `base` onto `theirs` (docs/sync.md). Facts changed on one side merge by themselves; a closing closes the visit
 * with whatever was noted in it.
 *
 * @param choices answers to the questions
 */
export function rebase<W extends TimerWrite>(
  base: TimerRecord,
  writes: readonly W[],
  theirs: TimerRecord,
  choices: Choices,
): Rebased<W> {
  const rebasing = new Rebasing<W>(base, theirs, choices);
  for (const { changes, end } of segments(writes)) {
    rebasing.changes(changes);
    if (end?.closing) rebasing.end({ ...end, closing: end.closing });
  }
  const { writes: made, idle, record, open } = rebasing;
  return { writes: made, idle, record, open };
}

/** A change that someone else saved. */
export interface OthersChange {
  readonly by: string;
  /** ISO instant by the server's clock. */
  readonly at: string;
  /** Null: the closing of a visit. */
  readonly change: RecordChange | null;
}

/** Who changed a fact last; null: not known. */
export function whoChanged(
  base: TimerRecord,
  since: readonly OthersChange[],
  at: string,
): Pick<OthersChange, 'by' | 'at'> | null {
  let record = base;
  let last: OthersChange | null = null;
  let before = JSON.stringify(factAt(record, at));
  for (const one of since) {
    record = (one.change && applied(record, one.change)) ?? record;
    const after = JSON.stringify(factAt(record, at));
    if (after !== before || (!one.change && at.startsWith('survey/visit'))) last = one;
    before = after;
  }
  last ??= since.at(-1) ?? null;
  return last && { by: last.by, at: last.at };
}
