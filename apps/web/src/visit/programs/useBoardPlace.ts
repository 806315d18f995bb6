import { useLayoutEffect, type RefObject } from 'react';

/** Minimum height of a board, and the space below it for the bar at the bottom, pixels. */
const [LEAST, BELOW] = [400, 66];

/**
 * Keeps the board within the screen, and a focused cell out from under the header. Set as styles of the board itself: a custom property
 * would restyle every cell.
 */
export function useBoardPlace(
  board: RefObject<HTMLElement | null>,
  head: RefObject<HTMLElement | null>,
): void {
  useLayoutEffect(() => {
    const [{ current: here }, { current: top }] = [board, head];
    if (!here || !top) return undefined;
    const measure = () => {
      const above = here.getBoundingClientRect().top + scrollY;
      here.style.maxHeight = `max(${LEAST}px, calc(100vh - ${above + BELOW}px))`;
      here.style.scrollPaddingTop = `${top.offsetHeight}px`;
    };
    measure();
    const observer = new ResizeObserver(measure);
    // What stands above the board changes height with the page.
    for (const element of [document.body, top]) observer.observe(element);
    return () => observer.disconnect();
  }, [board, head]);
}
