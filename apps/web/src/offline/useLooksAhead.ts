import { useEffect } from 'react';
import { onTaken } from './takeAlong.ts';

/** The page is drawn first, and what it asks for comes; milliseconds. */
const AFTER_MS = 5000;

/** While this page is open, and after each time that timers were taken along, what is kept gets its look of today. */
export function useLooksAhead(pathname: string): void {
  useEffect(() => {
    let over = new AbortController();
    const begin = () => {
      over.abort();
      over = new AbortController();
      const { signal } = over;
      void import('./drawLooks.ts')
        .then(({ drawLooks }) => drawLooks(signal))
        .catch(() => undefined);
    };
    const later = setTimeout(begin, AFTER_MS);
    const forget = onTaken(begin);
    return () => {
      clearTimeout(later);
      forget();
      over.abort();
    };
  }, [pathname]);
}
