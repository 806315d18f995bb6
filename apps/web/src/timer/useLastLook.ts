import { useEffect } from 'react';
import {
  momentWords,
  say,
  SECONDS_PER_DAY,
  type ClockSecond,
  type Speech,
} from '@water-clock/core';
import { ownerName } from '../api/whose.ts';

/** Changes come in bursts, and what is kept of the office's answer follows a save; milliseconds. */
const SETTLED_MS = 3000;

interface Shown {
  readonly timerId: string;
  /** Of the timer, and how many changes wait. */
  readonly version: number;
  readonly unsaved: number;
  /** The verdict is known, and nothing is supposed or chosen. */
  readonly isWhole: boolean;
  readonly now: ClockSecond;
  readonly speech: Speech;
  readonly working: string;
}

/** Keeps how the page looks, so that it is there at once where it is opened again. */
export function useLastLook(shown: Shown): void {
  const { timerId, version, unsaved, isWhole, now, speech, working } = shown;
  const words = say`As it stood on ${momentWords(now - (now % 60), speech)}. Opening …`;
  const tomorrow = (Math.floor(now / SECONDS_PER_DAY) + 1) * SECONDS_PER_DAY;
  useEffect(() => {
    if (!isWhole) return undefined;
    const later = setTimeout(() => {
      // Half a word is nothing to show again.
      if (document.activeElement instanceof HTMLInputElement) return;
      const until = Date.now() + (tomorrow - now) * 1000;
      const said = { until, words, wordsOfVerdict: working };
      void import('../kept/keepLook.ts').then(({ keepLook }) =>
        keepLook(ownerName(), timerId, version, said),
      );
    }, SETTLED_MS);
    return () => clearTimeout(later);
  }, [timerId, version, unsaved, isWhole, now, words, tomorrow, working]);
}
