import { useEffect, useState } from 'react';
import { useTimerNews } from '../api/events.ts';
import type { TimerView } from '../api/timers.ts';
import type { TimerEditor } from './editor.ts';
import { editorOf } from './editors.ts';

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
  const [editor] = useState(() => editorOf(view, proposer));
  useUndoKeys(editor);
  useLeaveWarning(editor);
  const { saved, people } = useTimerNews(view.id);
  useEffect(() => {
    // A proposal has versions of its own.
    if (saved && proposer === null) void editor.noticeVersion(saved.version, saved.by);
  }, [editor, saved, proposer]);
  return { editor, people };
}
