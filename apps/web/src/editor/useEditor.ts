import { useEffect, useState } from 'react';
import { useTimerNews } from '../api/events.ts';
import { newId } from '../api/request.ts';
import { loadProposed, sendProposed } from '../api/proposals.ts';
import { TimerEditor, type Transport } from './editor.ts';
import { keepPending, leftBehind, pendingOf } from './pendingWrites.ts';
import { loadTimer, sendChange, type TimerView } from '../api/timers.ts';

/** Where changes go: to the timer, or into somebody's proposal for it. */
const transportOf = (id: string, proposer: string | null): Transport =>
  proposer === null
    ? { send: (write) => sendChange(id, write), load: () => loadTimer(id) }
    : {
        send: (write) => sendProposed(id, write),
        load: () => loadProposed(id, proposer),
      };

function makeEditor(view: TimerView, proposer: string | null): TimerEditor {
  const { id, version, plan, survey, history } = view;
  const left = pendingOf(id);
  const editor = new TimerEditor({ version, plan, survey }, history, {
    transport: transportOf(id, proposer),
    newId,
    keep: (writes) => keepPending(id, writes),
    later: (work, milliseconds) => setTimeout(work, milliseconds),
  });
  if (left.length > 0) editor.resume(left);
  void leftBehind(id).then((writes) => {
    if (writes.length > 0) editor.resume(writes);
  });
  return editor;
}

/** Undo and redo by their usual keys, except in text areas. */
function useUndoKeys(editor: TimerEditor): void {
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      const key = event.key.toLowerCase();
      const redo = key === 'y' || (key === 'z' && event.shiftKey);
      if (key !== 'z' && !redo) return;
      if (event.target instanceof HTMLTextAreaElement) return;
      event.preventDefault();
      if (redo) editor.redo();
      else editor.undo();
    };
    addEventListener('keydown', onKeyDown);
    return () => removeEventListener('keydown', onKeyDown);
  }, [editor]);
}

/** Warns before somebody leaves a page whose changes cannot reach the server. */
function useLeaveWarning(editor: TimerEditor): void {
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => {
      const { unsaved, status } = editor.snapshot();
      if (unsaved > 0 && status !== 'saving') event.preventDefault();
    };
    addEventListener('beforeunload', warn);
    return () => removeEventListener('beforeunload', warn);
  }, [editor]);
}

/**
 * The editor of a timer while its page is open: with its keys, and with news of other tabs and people, and of who looks at it now.
 *
 * @param proposer the person, where they may only propose
 */
export function useEditor(
  view: TimerView,
  proposer: string | null,
): { readonly editor: TimerEditor; readonly people: readonly string[] } {
  const [editor] = useState(() => makeEditor(view, proposer));
  useUndoKeys(editor);
  useLeaveWarning(editor);
  const { saved, people } = useTimerNews(view.id);
  useEffect(() => {
    // A proposal has versions of its own.
    if (saved && proposer === null) void editor.noticeVersion(saved.version, saved.by);
  }, [editor, saved, proposer]);
  return { editor, people };
}
