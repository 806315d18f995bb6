/**
 * The editors of this page: one for each open timer, and one for each timer with waiting changes, so that what was entered in a garage is
 * sent even when another page is open.
 */
import { loadProposed, sendProposed } from '../api/proposals.ts';
import { newId } from '../api/request.ts';
import {
  loadTimer,
  sendWrite,
  sendWrites,
  type Queue,
  type Saved,
  type TimerView,
  type Write,
} from '../api/timers.ts';
import { sendNewSiteOf } from '../api/newSites.ts';
import type { Transport } from './editing.ts';
import { TimerEditor } from './editor.ts';
import { keepPending, leftBehind, pendingOf, waitingTimers } from './pendingWrites.ts';

const editors = new Map<string, TimerEditor>();
/** Timers whose changes did not fit on the device, and those whose changes wait there. Only these are announced. */
const notKept = new Set<string>();
const inPageOnly = new Set<string>();
const listeners = new Set<() => void>();
const tell = () => listeners.forEach((listener) => listener());

/** Where changes go: to the timer, or into someone's suggestion for it. A site the server does not know yet goes first. */
const transportOf = (id: string, proposer: string | null): Transport =>
  proposer === null
    ? {
        send: async (write) => {
          await sendNewSiteOf(id);
          return sendWrite(id, write);
        },
        sendSeveral: async (writes) => {
          await sendNewSiteOf(id);
          return sendWrites(id, writes);
        },
        load: () => loadTimer(id),
      }
    : { send: (write) => sendProposed(id, write), load: () => loadProposed(id, proposer) };

function keep(id: string, queues: readonly Queue[]): void {
  if (!keepPending(id, queues)) {
    notKept.add(id);
    return;
  }
  notKept.delete(id);
  inPageOnly.delete(id);
}

/** Called for each saved write. */
export type OnSaved = (timerId: string, write: Write) => void;
const hears = new Set<OnSaved>();
export const onSaved = (hear: OnSaved): (() => void) => {
  hears.add(hear);
  return () => hears.delete(hear);
};

function make(
  id: string,
  view: Saved & Pick<TimerView, 'history'>,
  proposer: string | null,
): TimerEditor {
  const { version, plan, survey, merging = null, history } = view;
  const own = pendingOf(id);
  const editor = new TimerEditor({ version, plan, survey, merging }, history, {
    transport: transportOf(id, proposer),
    newId,
    merging: () => import('./merging.ts'),
    keep: (queues) => keep(id, queues),
    later: (work, milliseconds) => setTimeout(work, milliseconds),
    // Reloads the page, which now belongs to no one and hands in what waits.
    takenOut: () => location.reload(),
    saved: (write) => hears.forEach((hear) => hear(id, write)),
  });
  own.forEach((queue) => editor.resume(queue));
  void leftBehind(id).then((left) => left.forEach((queue) => editor.resume(queue)));
  editors.set(id, editor);
  editor.subscribe(() => {
    const { status, conflict } = editor.snapshot();
    // On their way they need no space.
    const waits = status === 'offline' || status === 'signed-out' || conflict !== null;
    if (waits && notKept.has(id)) inPageOnly.add(id);
    tell();
  });
  tell();
  return editor;
}

const isBusy = (editor: TimerEditor): boolean => {
  const { unsaved, conflict } = editor.snapshot();
  return unsaved > 0 || conflict !== null;
};

/** The editor of a timer whose page opens: the existing one if its changes still wait, otherwise a new one. */
export function editorOf(view: TimerView, proposer: string | null): TimerEditor {
  const there = editors.get(view.id);
  return there && isBusy(there) ? there : make(view.id, view, proposer);
}

/**
 * Sends waiting changes of timers whose page is not open.
 *
 * @param proposer the person, if they may only suggest
 */
export async function sendWaiting(proposer: string | null): Promise<void> {
  for (const id of waitingTimers()) {
    const there = editors.get(id);
    if (there) {
      there.retry();
      continue;
    }
    const own = pendingOf(id);
    const queues = own.length > 0 ? own : await leftBehind(id);
    const [first] = queues;
    if (!first) continue;
    // Stored as this tab's own before sending, in case the page is opened in the meantime.
    const opened = editors.get(id);
    if (opened) queues.forEach((queue) => opened.resume(queue));
    else {
      keep(id, queues);
      make(id, { ...first.base, history: [] }, proposer);
    }
  }
}

export interface Waiting {
  /** Changes the server does not have. */
  readonly unsaved: number;
  /** Timers with a question to answer. */
  readonly questions: readonly string[];
  readonly isSignedOut: boolean;
  /** The device has no space; the changes exist only in this page. */
  readonly isNotKept: boolean;
}

let told: Waiting = { unsaved: 0, questions: [], isSignedOut: false, isNotKept: false };

/** What waits in this page; the same object until it changes. */
export function waiting(): Waiting {
  const all = [...editors].map(([id, editor]) => ({ id, ...editor.snapshot() }));
  const now: Waiting = {
    unsaved: all.reduce((sum, { unsaved }) => sum + unsaved, 0),
    questions: all.flatMap(({ id, conflict }) => (conflict ? [id] : [])),
    isSignedOut: all.some(({ status, unsaved }) => status === 'signed-out' && unsaved > 0),
    isNotKept: inPageOnly.size > 0,
  };
  if (JSON.stringify(now) !== JSON.stringify(told)) told = now;
  return told;
}

export const onWaiting = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
