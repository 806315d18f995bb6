import { useEffect, useLayoutEffect, useRef, useState, type RefObject } from 'react';

const MOST = 8;

interface Pinch {
  /** Width of the drawing as a multiple of its window, 1 to 8. */
  readonly zoom: number;
  readonly reset: () => void;
}

const between = ([first, second]: readonly { readonly clientX: number }[]) =>
  Math.abs((first?.clientX ?? 0) - (second?.clientX ?? 0));

/** Pinch stretches a drawing inside its window around the point between the fingers; one finger pans it. */
export function usePinch(window: RefObject<HTMLElement | null>): Pinch {
  const [zoom, setZoom] = useState(1);
  const latest = useRef(zoom);
  useLayoutEffect(() => {
    latest.current = zoom;
  });
  /** Share of the drawing to place at this many pixels of the window. */
  const keep = useRef<{ readonly share: number; readonly at: number } | null>(null);

  useEffect(() => {
    const element = window.current;
    if (!element) return undefined;
    const touches = new Map<number, { readonly clientX: number }>();
    let began = { width: 0, zoom: 1 };
    const stop = (event: PointerEvent) => void touches.delete(event.pointerId);
    const abort = new AbortController();
    const { signal } = abort;
    element.addEventListener(
      'pointerdown',
      (event) => {
        if (event.pointerType !== 'touch') return;
        touches.set(event.pointerId, event);
        if (touches.size === 2)
          began = { width: Math.max(20, between([...touches.values()])), zoom: latest.current };
      },
      { signal },
    );
    element.addEventListener(
      'pointermove',
      (event) => {
        if (!touches.has(event.pointerId)) return;
        touches.set(event.pointerId, event);
        if (touches.size !== 2) return;
        const [a, b] = [...touches.values()];
        if (!a || !b) return;
        const at = (a.clientX + b.clientX) / 2 - element.getBoundingClientRect().left;
        keep.current = { share: (element.scrollLeft + at) / element.scrollWidth, at };
        setZoom(Math.min(MOST, Math.max(1, (began.zoom * between([a, b])) / began.width)));
      },
      { signal },
    );
    for (const name of ['pointerup', 'pointercancel'] as const)
      element.addEventListener(name, stop, { signal });
    return () => abort.abort();
  }, [window]);

  useLayoutEffect(() => {
    const [element, { current: kept }] = [window.current, keep];
    if (element && kept) element.scrollLeft = kept.share * element.scrollWidth - kept.at;
  }, [zoom, window]);

  return { zoom, reset: () => setZoom(1) };
}
