/**
 * The editors of this page: one for each timer that is open, and one for each whose changes still wait, so that what was entered in a garage reaches the office also when
 * another page is open by then.
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
/** Timers whose changes found no room on the device, and those of them whose changes wait there: only these are told of. */
const notKept = new Set<string>();
const inPageOnly = new Set<string>();
const listeners = new Set<() => void>();
const tell = () => listeners.forEach((listener) => listener());

/** Where changes go: to the timer, or into somebody's proposal for it. A house that the office does not know yet goes first. */
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

/** Told of each write that was saved. */
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
    // The page is loaded anew: it belongs to nobody now, and hands over what waits.
    takenOut: () => location.reload(),
    saved: (write) => hears.forEach((hear) => hear(id, write)),
  });
  own.forEach((queue) => editor.resume(queue));
  void leftBehind(id).then((left) => left.forEach((queue) => editor.resume(queue)));
  editors.set(id, editor);
  editor.subscribe(() => {
    const { status, conflict } = editor.snapshot();
    // On their way they need no room.
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

/** The editor of a timer whose page opens: the one whose changes still wait, else a new one. */
export function editorOf(view: TimerView, proposer: string | null): TimerEditor {
  const there = editors.get(view.id);
  return there && isBusy(there) ? there : make(view.id, view, proposer);
}

/** Sends what waits of timers whose page is not open. @param proposer the person, where they may only propose. */
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
    // They are kept as this tab's own before they are sent, also where the page was opened meanwhile.
    const opened = editors.get(id);
    if (opened) queues.forEach((queue) => opened.resume(queue));
    else {
      keep(id, queues);
      make(id, { ...first.base, history: [] }, proposer);
    }
  }
}

export interface Waiting {
  /** Changes that the office does not have. */
  readonly unsaved: number;
  /** Timers of which something has to be asked. */
  readonly questions: readonly string[];
  readonly isSignedOut: boolean;
  /** The device has no room for what waits: it stands in this page only. */
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
