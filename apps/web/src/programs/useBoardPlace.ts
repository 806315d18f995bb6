import { useLayoutEffect, type RefObject } from 'react';

/**
 * Keeps, as custom properties of the board, how far down its page it begins (`--board-top`), so that it ends with the screen,
 * and how tall its head is (`--board-head`), so that no cell with the focus lies under it.
 */
export function useBoardPlace(
  board: RefObject<HTMLElement | null>,
  head: RefObject<HTMLElement | null>,
): void {
  useLayoutEffect(() => {
    const [{ current: here }, { current: top }] = [board, head];
    if (!here || !top) return undefined;
    const measure = () => {
      here.style.setProperty('--board-top', `${here.getBoundingClientRect().top + scrollY}px`);
      here.style.setProperty('--board-head', `${top.offsetHeight}px`);
    };
    measure();
    const observer = new ResizeObserver(measure);
    // What stands above the board grows and shrinks with the page.
    for (const element of [document.body, top]) observer.observe(element);
    return () => observer.disconnect();
  }, [board, head]);
}
