import { useEffect, useRef } from 'react';
import type { EpochDay } from '@water-clock/core';
import type { TimerAnswer, WhatIf } from '../../data/workers/timerQuestion.ts';

/** At another percent, the strip goes to the first night that overlaps, once for each percent. */
export function useFirstOverlap(
  answer: TimerAnswer | null,
  { percent }: WhatIf,
  choose: (night: EpochDay) => void,
): void {
  const shown = useRef<number | null>(null);
  const first = answer?.firstOverlap ?? null;
  useEffect(() => {
    if (percent === null) shown.current = null;
    else if (first?.percent === percent && shown.current !== percent) {
      shown.current = percent;
      choose(first.night);
    }
  }, [percent, first, choose]);
}
