import { useCallback, useEffect, useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { formatDate, parseDate, type EpochDay } from '@water-clock/core';
import type { WhatIf } from '../../data/workers/timerQuestion.ts';
import { DISTANCES, type Distance } from './distance.ts';

const MOST_PERCENT = 500;

const AS_SET: WhatIf = { percent: null, ahead: 0, acts: [], factory: null };

/** What the strip shows, and how to change it. Everything except the clock and the events of `whatIf` is in the address. */
export interface StripView {
  /** The night that begins on the afternoon of this day. */
  readonly day: EpochDay;
  readonly distance: Distance;
  readonly whatIf: WhatIf;
  /** Letter of the program whose settings are open. */
  readonly program: string | null;
  readonly choose: (day: EpochDay) => void;
  /** Shows a night on the large strip, from any range. */
  readonly showNight: (day: EpochDay) => void;
  readonly setDistance: (distance: Distance) => void;
  readonly setProgram: (letter: string | null) => void;
  readonly setWhatIf: (whatIf: WhatIf) => void;
}

export function useStripView(tonight: EpochDay): StripView {
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const setParameters = useCallback(
    (values: Readonly<Record<string, string | null>>) => {
      // From the address itself: two changes at once must not undo each other.
      const before = location.search;
      const next = new URLSearchParams(before);
      for (const [name, value] of Object.entries(values))
        if (value === null) next.delete(name);
        else next.set(name, value);
      if (next.toString() !== new URLSearchParams(before).toString())
        void navigate({ search: next.toString() }, { replace: true });
    },
    [navigate],
  );
  const [whatIf, setWhatIf] = useState((): WhatIf => {
    const percent = Number(search.get('percent') ?? NaN);
    return percent > 0 && percent <= MOST_PERCENT ? { ...AS_SET, percent } : AS_SET;
  });
  // While a slider is dragged it leads, and the address follows.
  const { percent } = whatIf;
  useEffect(
    () => setParameters({ percent: percent === null ? null : String(percent) }),
    [percent, setParameters],
  );
  const setters = useMemo(() => {
    // Without a night in the address it is tonight, also after the date has changed.
    const night = (day: EpochDay) => (day === tonight ? null : formatDate(day));
    return {
      choose: (day: EpochDay) => setParameters({ night: night(day) }),
      showNight: (day: EpochDay) => setParameters({ night: night(day), view: null }),
      setDistance: (next: Distance) => setParameters({ view: next === 'night' ? null : next }),
      setProgram: (program: string | null) => setParameters({ program }),
    };
  }, [setParameters, tonight]);
  return {
    day: parseDate(search.get('night') ?? '') ?? tonight,
    distance: DISTANCES.find((one) => one === search.get('view')) ?? 'night',
    whatIf,
    program: search.get('program'),
    ...setters,
    setWhatIf,
  };
}
