/** What takes too long for the page's own thread. */
import { attempt, blockedStarts } from '@water-clock/core';
import type { Answer, BlockedRequest, ReckonRequest } from './messages.ts';
import { reckon } from './reckon.ts';

const MILLISECONDS_BETWEEN_NEWS = 150;

const answer = (message: Answer) => self.postMessage(message);

/** Tells how far the work is, a few times a second. */
function news(): (share: number) => void {
  let last = performance.now();
  return (share) => {
    const now = performance.now();
    if (now - last < MILLISECONDS_BETWEEN_NEWS) return;
    last = now;
    answer({ kind: 'progress', share });
  };
}

self.addEventListener('message', ({ data }: MessageEvent<ReckonRequest | BlockedRequest>) => {
  if (data.kind === 'reckon') {
    const { id } = data;
    const worked = attempt(() => reckon(data, news()));
    if (!worked.ok) return answer({ kind: 'refused', id, faults: worked.faults });
    // The page has the plan already.
    const { plan: _plan, ...rest } = worked.value;
    return answer({ kind: 'reckon', id, ...rest });
  }
  const { plan, on, letter, start } = data;
  const worked = attempt(() => blockedStarts(plan, letter, start, on));
  return answer({ kind: 'blocked', letter, times: worked.ok ? worked.value : [] });
});
