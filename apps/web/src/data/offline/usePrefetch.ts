import { useEffect } from 'react';
import type { CalendarVisit } from '../api/calendar.ts';
import { starred } from './starred.ts';
import { prefetch } from './prefetch.ts';

/** After the first paint. */
const AFTER_MS = 3000;
/** More sites are neither visited in a day nor usefully starred. */
const MOST_TAKEN = 60;
const TAKEN = 'water-clock:taken';

/** Loads what today's visits, overdue visits and starred timers need, once a day and page, so that it is there in the garage. */
export function usePrefetch(date: string, visits: readonly CalendarVisit[]): void {
  const ids = visits.map(({ timerId }) => timerId);
  const text = [...new Set([...ids, ...starred()])].slice(0, MOST_TAKEN).join(' ');
  useEffect(() => {
    const what = `${date} ${text}`;
    if (text === '' || sessionStorage.getItem(TAKEN) === what) return undefined;
    const later = setTimeout(() => {
      void prefetch(text.split(' ')).then((missing) => {
        if (missing === 0) sessionStorage.setItem(TAKEN, what);
      });
    }, AFTER_MS);
    return () => clearTimeout(later);
  }, [date, text]);
}
