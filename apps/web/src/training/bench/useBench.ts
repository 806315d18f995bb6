import { useEffect, useRef, useState } from 'react';
import type { BenchAct, LiveBench } from '@water-clock/core';

export const SPEEDS = [1, 60, 3600] as const;
type Speed = (typeof SPEEDS)[number];

const TICK_MILLISECONDS = 100;
/** How far ahead to look for the next event, seconds. */
const FARTHEST_EVENT = 400 * 86_400;

export interface BenchHands {
  readonly bench: LiveBench;
  readonly speed: Speed;
  readonly isPaused: boolean;
  readonly setSpeed: (speed: Speed) => void;
  readonly setPaused: (isPaused: boolean) => void;
  readonly act: (act: BenchAct) => void;
  readonly toNextEvent: () => void;
}

/** A running bench timer. Each action takes a second, so that its effect can be seen. */
export function useBench(make: () => LiveBench): BenchHands {
  const [bench] = useState(make);
  const [speed, setSpeed] = useState<Speed>(1);
  const [isPaused, setPaused] = useState(false);
  const [, setShown] = useState(0);
  const redraw = () => setShown((count) => count + 1);
  const owed = useRef(0);
  useEffect(() => {
    if (isPaused) return undefined;
    let last = performance.now();
    const timer = setInterval(() => {
      const now = performance.now();
      owed.current += ((now - last) / 1000) * speed;
      last = now;
      const whole = Math.floor(owed.current);
      if (whole === 0) return;
      owed.current -= whole;
      bench.advance(bench.now + whole);
      redraw();
    }, TICK_MILLISECONDS);
    return () => clearInterval(timer);
  }, [bench, speed, isPaused]);
  return {
    bench,
    speed,
    isPaused,
    setSpeed,
    setPaused,
    act: (act) => {
      bench.act(act);
      bench.advance(bench.now + 1);
      redraw();
    },
    toNextEvent: () => {
      bench.advance(bench.nextMoment(bench.now + FARTHEST_EVENT) + 1);
      redraw();
    },
  };
}
