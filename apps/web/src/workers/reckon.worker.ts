/** The verdict, the nights and the blocked times, worked out off the page's thread. A shell over core. */
import { blockedStarts, check, nightsFrom } from '@water-clock/core';
import type { BlockedAnswer, BlockedRequest, ReckonAnswer, ReckonRequest } from './messages.ts';

function reckon({ id, plan, on, firstNight, nights, farNight }: ReckonRequest): ReckonAnswer {
  return {
    kind: 'reckon',
    id,
    check: check(plan, on),
    nights: nightsFrom(plan, firstNight, nights),
    farNight: farNight === null ? null : (nightsFrom(plan, farNight, 1)[0] ?? null),
  };
}

function blocked({ plan, on, letter, start }: BlockedRequest): BlockedAnswer {
  return { kind: 'blocked', letter, times: blockedStarts(plan, letter, start, on) };
}

self.addEventListener('message', ({ data }: MessageEvent<ReckonRequest | BlockedRequest>) => {
  self.postMessage(data.kind === 'reckon' ? reckon(data) : blocked(data));
});
