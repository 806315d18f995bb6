/**
 * A timer that was taken along, or whose look is of an earlier date, is drawn once out of sight, so that how it looks is there at once in the garage: in a frame
 * as large as the window, which opens its page from what is kept on the device.
 */
import { ownerName } from '../api/whose.ts';
import { keptTimers } from '../kept/kept.ts';
import { waitingIds } from '../kept/look.ts';
import { isDrawn } from '../kept/outOfSight.ts';
import { lookOf } from '../kept/showLook.ts';

/** Nobody visits more in a day. */
const MOST_DRAWN = 60;
/** A slow phone needs some seconds for a page. */
const PATIENCE_MS = 30_000;
/** Whoever presses something gets the processor, milliseconds. */
const QUIET_MS = 3000;
const PAUSE_MS = 250;
const ACTS = ['pointerdown', 'pointermove', 'keydown', 'wheel', 'touchmove'];
const GIVEN_UP = 3;

/** What could not be drawn is not tried again by this page. */
const failed = new Set<string>();

async function draw(timerId: string, signal: AbortSignal): Promise<boolean> {
  const frame = document.createElement('iframe');
  frame.inert = true;
  Object.assign(frame.style, {
    ...{ position: 'fixed', inset: '0', border: '0', visibility: 'hidden' },
    ...{ width: `${innerWidth}px`, height: `${innerHeight}px` },
  });
  frame.src = `/timers/${timerId}`;
  document.body.append(frame);
  try {
    return await isDrawn(frame, PATIENCE_MS, signal);
  } finally {
    frame.remove();
  }
}

/** It is there already, as it is today; or what waits has to be seen first by who entered it. */
async function isSettled(owner: string, timerId: string): Promise<boolean> {
  if (failed.has(timerId) || waitingIds(owner, timerId).length > 0) return true;
  const look = await lookOf(timerId).catch(() => null);
  return look !== null && look.until > Date.now();
}

/** Draws what is kept and has no look of today, one after the other, as long as nobody needs the processor. */
export async function drawLooks(signal: AbortSignal): Promise<void> {
  const owner = ownerName();
  let lastAct = 0;
  const act = () => (lastAct = Date.now());
  for (const kind of ACTS) addEventListener(kind, act, { signal, passive: true, capture: true });
  const timers = (await keptTimers(owner)).slice(0, MOST_DRAWN);
  let inVain = 0;
  for (const { id } of timers) {
    if (await isSettled(owner, id)) continue;
    while (!signal.aborted && (document.hidden || Date.now() < lastAct + QUIET_MS))
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
    if (signal.aborted || inVain === GIVEN_UP) return;
    if (await draw(id, signal)) inVain = 0;
    else if (!signal.aborted) {
      failed.add(id);
      inVain += 1;
    }
  }
}
