/** What colleagues do with a timer while its page is open. */
import { useEffect, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { proposalsKey } from './proposals.ts';

export interface TimerNews {
  /** Saved version; null: not known yet. */
  readonly saved: { readonly version: number; readonly by: string | null } | null;
  /** Who else has it open now. */
  readonly people: readonly string[];
}

const AGAIN_AFTER_MILLISECONDS = 10_000;
const NOTHING: TimerNews = { saved: null, people: [] };

/** Connected only while the page is visible: a browser has few connections for all its tabs. */
export function useTimerNews(timerId: string): TimerNews {
  const client = useQueryClient();
  const [news, setNews] = useState(NOTHING);
  useEffect(() => {
    let source: EventSource | null = null;
    let again: ReturnType<typeof setTimeout> | undefined;
    const close = () => {
      clearTimeout(again);
      source?.close();
      source = null;
    };
    const open = () => {
      close();
      if (document.hidden) return;
      source = new EventSource(`/api/timers/${encodeURIComponent(timerId)}/events`);
      const hear = <T>(kind: string, take: (data: T) => void) =>
        source?.addEventListener(kind, ({ data }: MessageEvent<string>) =>
          // Safe cast: our own server.
          take(JSON.parse(data) as T),
        );
      hear<NonNullable<TimerNews['saved']>>('version', (saved) =>
        setNews((last) => ({ ...last, saved })),
      );
      hear<Pick<TimerNews, 'people'>>('looking', ({ people }) =>
        setNews((last) => ({ ...last, people })),
      );
      hear('proposals', () => {
        void client.invalidateQueries({ queryKey: proposalsKey(timerId) });
      });
      // The browser reconnects by itself, except after a refusal.
      source.onerror = () => {
        setNews((last) => ({ ...last, people: [] }));
        if (source?.readyState === EventSource.CLOSED)
          again = setTimeout(open, AGAIN_AFTER_MILLISECONDS);
      };
    };
    open();
    document.addEventListener('visibilitychange', open);
    return () => {
      document.removeEventListener('visibilitychange', open);
      close();
    };
  }, [client, timerId]);
  return news;
}
