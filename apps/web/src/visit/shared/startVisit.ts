import { useCallback, useEffect, useRef } from 'react';
import { useLocation, useNavigate } from 'react-router';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { momentText } from './panel.ts';

/** Router state that asks to start a visit. */
export const START_VISIT = { startVisit: true } as const;

/** Starts a visit at the current local time, unless one is open; at once if the router state asks for it. */
export function useStartVisit(editor: TimerEditor, now: number): () => void {
  const place = useLocation();
  const { pathname, search } = place;
  const state: unknown = place.state;
  const navigate = useNavigate();
  const latest = useRef(now);
  useEffect(() => {
    latest.current = now;
  });
  const start = useCallback(() => {
    if (editor.snapshot().survey.visit) return;
    const visit = { began: momentText(latest.current) };
    editor.commit({ type: 'note', fields: { visit } });
  }, [editor]);
  const isAsked = (state as Partial<typeof START_VISIT> | null)?.startVisit === true;
  useEffect(() => {
    if (!isAsked) return;
    start();
    // Coming back to this page later must not start another.
    void navigate(pathname + search, { replace: true, state: null });
  }, [isAsked, start, navigate, pathname, search]);
  return start;
}
