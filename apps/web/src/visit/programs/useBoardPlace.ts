import { useLayoutEffect, type RefObject } from 'react';

/** The least height of a board, and the room below it for what stands at its foot, pixels. */
const [LEAST, BELOW] = [400, 66];

/**
 * Keeps a board from reaching beyond the foot of the screen, and a cell with the focus from lying under the board's head. As the
 * board's own styles: a custom property would have each of its cells styled anew.
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
    // What stands above the board grows and shrinks with the page.
    for (const element of [document.body, top]) observer.observe(element);
    return () => observer.disconnect();
  }, [board, head]);
}
