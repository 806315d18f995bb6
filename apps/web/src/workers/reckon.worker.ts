/** The verdict and the nights, worked out off the page's thread. A shell over core. */
import { check, nightsFrom } from '@water-clock/core';
import type { ReckonAnswer, ReckonRequest } from './messages.ts';

self.addEventListener('message', ({ data }: MessageEvent<ReckonRequest>) => {
  const { id, plan, on, firstNight, nights, farNight } = data;
  const answer: ReckonAnswer = {
    id,
    check: check(plan, on),
    nights: nightsFrom(plan, firstNight, nights),
    farNight: farNight === null ? null : (nightsFrom(plan, farNight, 1)[0] ?? null),
  };
  self.postMessage(answer);
});
