import { useEffect } from 'react';

/** Keeps the screen on while mounted, where supported; released while the page is hidden. */
export function useAwake(active = true): void {
  useEffect(() => {
    // Not supported in older browsers and insecure contexts.
    if (!active || !('wakeLock' in navigator)) return undefined;
    let lock: WakeLockSentinel | null = null;
    let isOver = false;
    const hold = () => {
      if (document.visibilityState !== 'visible') return;
      navigator.wakeLock.request('screen').then(
        (held) => {
          if (isOver) void held.release();
          else lock = held;
        },
        () => {
          // Refused on a low battery; the screen then dims as usual.
        },
      );
    };
    hold();
    document.addEventListener('visibilitychange', hold);
    return () => {
      isOver = true;
      document.removeEventListener('visibilitychange', hold);
      void lock?.release();
    };
  }, [active]);
}
