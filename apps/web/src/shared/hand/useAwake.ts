import { useEffect } from 'react';

/** Keeps the screen on while this is shown, where the device can; it lets go when the page is hidden, and takes hold again. */
export function useAwake(active = true): void {
  useEffect(() => {
    // Older browsers, and pages without a secure address, have no such lock.
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
          // A battery that is nearly empty refuses; then the screen goes dark as usual.
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
