import { useEffect, useState } from 'react';
import type { Night, Plan } from '@water-clock/core';
import type { WhatIf } from '../../data/workers/timerQuestion.ts';

interface Supposed {
  readonly of: Night;
  readonly whatIf: WhatIf;
  /** Null: it takes too long to calculate here. */
  readonly night: Night | null;
}

/** A night with its what-if events; unchanged without any. */
export function useSupposed(night: Night | undefined, plan: Plan, whatIf: WhatIf) {
  const [supposed, setSupposed] = useState<Supposed | null>(null);
  const isAsked = whatIf.acts.length > 0;
  useEffect(() => {
    if (!isAsked || !night) return undefined;
    let isGone = false;
    void import('./supposed.ts').then(({ supposedNight }) => {
      if (!isGone) setSupposed({ of: night, whatIf, night: supposedNight(night, plan, whatIf) });
    });
    return () => {
      isGone = true;
    };
  }, [isAsked, night, plan, whatIf]);
  const isThere = isAsked && supposed?.of === night && supposed?.whatIf === whatIf;
  return {
    night: (isThere && supposed?.night) || night,
    isTooMuch: isThere && supposed?.night === null,
  };
}
