import { useEffect } from 'react';
import {
  momentWords,
  say,
  SECONDS_PER_DAY,
  type ClockStyle,
  type DateOrder,
} from '@water-clock/core';
import { ownerName } from '../api/whose.ts';
import { civilSecond } from '../platform/zone.ts';

/** Changes come in bursts, and what is kept of the office's answer follows a save; milliseconds. */
const SETTLED_MS = 3000;

interface Shown {
  readonly timerId: string;
  /** Of the house. */
  readonly timeZone: string;
  /** Of the timer, and how many changes wait. */
  readonly version: number;
  readonly unsaved: number;
  /** The verdict is known, and nothing is supposed or chosen. */
  readonly isWhole: boolean;
  readonly clock: ClockStyle;
  readonly order: DateOrder;
  /** What stands in place of a verdict that is not known. */
  readonly working: string;
}

/** Keeps how the page looks, so that it is there at once where it is opened again. */
export function useLastLook(shown: Shown): void {
  const { timerId, timeZone, version, unsaved, isWhole, clock, order, working } = shown;
  useEffect(() => {
    if (!isWhole) return undefined;
    const later = setTimeout(() => {
      // Half a word is nothing to show again.
      if (document.activeElement instanceof HTMLInputElement) return;
      const now = civilSecond(new Date(), timeZone);
      const on = Math.floor(now / SECONDS_PER_DAY);
      const when = momentWords(now - (now % 60), { on, clock, order });
      const said = {
        until: Date.now() + ((on + 1) * SECONDS_PER_DAY - now) * 1000,
        words: say`As it stood on ${when}. Opening …`,
        wordsOfVerdict: working,
      };
      void import('../kept/keepLook.ts').then(({ keepLook }) =>
        keepLook(ownerName(), timerId, { version, unsaved }, said),
      );
    }, SETTLED_MS);
    return () => clearTimeout(later);
  }, [timerId, timeZone, version, unsaved, isWhole, clock, order, working]);
}
