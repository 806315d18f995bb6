import { useEffect, useState } from 'react';
import type { ClockSecond } from '@water-clock/core';
import { civilSecond } from './zone.ts';

const HALF_A_MINUTE_MILLISECONDS = 30_000;

/** The current time on the site's clock, updated twice a minute. */
export function useCivilNow(timeZone: string): ClockSecond {
  const [now, setNow] = useState(() => civilSecond(new Date(), timeZone));
  useEffect(() => {
    const tick = () => setNow(civilSecond(new Date(), timeZone));
    tick();
    const timer = setInterval(tick, HALF_A_MINUTE_MILLISECONDS);
    return () => clearInterval(timer);
  }, [timeZone]);
  return now;
}
