/**
 * Whether this page is drawn in a frame of another page, for no other reason than to keep how it looks (`offline/drawLooks.ts`). It reads what is kept on the
 * device, tells nobody that somebody looks, sends nothing, and takes over nothing that waits.
 */
export const isOutOfSight = (globalThis.frameElement ?? null) !== null;

const DRAWN = 'water-clock:drawn';

/** Tells the page around this one that its look is kept. */
export const tellDrawn = (): void => {
  globalThis.frameElement?.dispatchEvent(new Event(DRAWN));
};

/** @returns whether its look is kept; false after so many milliseconds, or once nobody waits any more */
export const isDrawn = (
  frame: HTMLIFrameElement,
  milliseconds: number,
  signal: AbortSignal,
): Promise<boolean> =>
  new Promise((resolve) => {
    const end = (isKept: boolean) => {
      clearTimeout(patience);
      resolve(isKept);
    };
    const patience = setTimeout(end, milliseconds, false);
    frame.addEventListener(DRAWN, () => end(true), { once: true });
    signal.addEventListener('abort', () => end(false), { once: true });
  });
