import { useRef, type PointerEvent } from 'react';

/** Shorter moves, and mostly vertical ones, are not swipes. */
const SHORTEST = 70;

interface Swipe {
  readonly onPointerDown: (event: PointerEvent) => void;
  readonly onPointerUp: (event: PointerEvent) => void;
  readonly onPointerCancel: () => void;
}

/** Swiping left goes on, swiping right goes back; touch only. */
export function useSwipe(on: () => void, back: () => void): Swipe {
  const from = useRef<{ readonly x: number; readonly y: number } | null>(null);
  return {
    onPointerDown: (event) => {
      from.current = event.isPrimary ? { x: event.clientX, y: event.clientY } : null;
    },
    onPointerUp: (event) => {
      const began = from.current;
      from.current = null;
      if (!began || event.pointerType === 'mouse') return;
      const [x, y] = [event.clientX - began.x, event.clientY - began.y];
      if (Math.abs(x) < SHORTEST || Math.abs(x) < 2 * Math.abs(y)) return;
      if (x < 0) on();
      else back();
    },
    onPointerCancel: () => {
      from.current = null;
    },
  };
}
