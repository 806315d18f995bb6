import { useSyncExternalStore } from 'react';

export type Screen = 'phone' | 'tablet' | 'desktop';

const QUERIES = ['(min-width: 1024px)', '(min-width: 641px)'] as const;

function subscribe(listener: () => void): () => void {
  const lists = QUERIES.map((query) => matchMedia(query));
  for (const list of lists) list.addEventListener('change', listener);
  return () => {
    for (const list of lists) list.removeEventListener('change', listener);
  };
}

/** The current layout. */
export const screenNow = (): Screen =>
  matchMedia(QUERIES[0]).matches ? 'desktop' : matchMedia(QUERIES[1]).matches ? 'tablet' : 'phone';

/** Layout for the available width: a rail with words, a rail of icons, or a bar at the bottom. */
export const useScreen = (): Screen => useSyncExternalStore(subscribe, screenNow);
