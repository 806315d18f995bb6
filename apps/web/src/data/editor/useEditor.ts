import { useEffect, useState } from 'react';
import { useTimerNews } from '../api/events.ts';
import type { TimerView } from '../api/timers.ts';
import type { TimerEditor } from './editor.ts';
import { editorOf } from './editors.ts';

/** Undo and redo shortcuts, except in text areas. */
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

/** Warns before leaving a page whose changes cannot reach the server. */
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
 * The editor of a timer while its page is open, with shortcuts, news from other tabs and people, and who else has it open.
 *
 * @param proposer the person, if they may only suggest
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
    // A suggestion has its own versions.
    if (saved && proposer === null) void editor.noticeVersion(saved.version, saved.by);
  }, [editor, saved, proposer]);
  return { editor, people };
}
