import { useEffect, useState } from 'react';

/** A countdown based on timestamps, so that a locked screen or closed page makes no difference. */
interface Running {
  readonly station: number;
  /** Milliseconds since 1970. */
  readonly endsAt: number;
}

const keyOf = (timerId: string) => `water-clock:countdown:${timerId}`;

function stored(timerId: string): Running | null {
  try {
    const value: unknown = JSON.parse(localStorage.getItem(keyOf(timerId)) ?? 'null');
    if (typeof value !== 'object' || value === null) return null;
    const { station, endsAt } = value as Partial<Running>;
    return typeof station === 'number' && typeof endsAt === 'number' ? { station, endsAt } : null;
  } catch {
    return null;
  }
}

export interface Countdown {
  /** Seconds left for a station; null: none runs, 0: finished. */
  readonly left: (station: number) => number | null;
  readonly start: (station: number, seconds: number) => void;
  readonly stop: () => void;
}

const TICK_MILLISECONDS = 250;

/** A timer's countdown, for one station at a time. */
export function useCountdown(timerId: string): Countdown {
  const [running, setRunning] = useState(() => stored(timerId));
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!running) return undefined;
    const ticking = setInterval(() => setNow(Date.now()), TICK_MILLISECONDS);
    return () => clearInterval(ticking);
  }, [running]);
  const keep = (next: Running | null) => {
    setRunning(next);
    setNow(Date.now());
    try {
      if (next) localStorage.setItem(keyOf(timerId), JSON.stringify(next));
      else localStorage.removeItem(keyOf(timerId));
    } catch {
      // Without storage it runs while the page is open.
    }
  };
  return {
    left: (station) =>
      running?.station === station ? Math.max(0, Math.ceil((running.endsAt - now) / 1000)) : null,
    start: (station, seconds) => keep({ station, endsAt: Date.now() + seconds * 1000 }),
    stop: () => keep(null),
  };
}

/** Seconds as on a clock: `1:05`. */
export const clockWords = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;
