import { useEffect, useRef, useState } from 'react';
import type { EpochDay, Plan } from '@water-clock/core';
import type { ReckonAnswer, Reckoning, ReckonRequest } from './messages.ts';

/** One worker with at most one question under way; a newer question waits, and replaces one that waits. */
class Reckoner {
  private readonly worker = new Worker(new URL('./reckon.worker.ts', import.meta.url), {
    type: 'module',
  });
  private underWay: ReckonRequest | null = null;
  private waiting: ReckonRequest | null = null;

  constructor(answered: (reckoning: Reckoning) => void) {
    this.worker.addEventListener('message', ({ data }: MessageEvent<ReckonAnswer>) => {
      const { underWay } = this;
      this.underWay = null;
      if (underWay?.id === data.id) answered({ ...data, plan: underWay.plan });
      const next = this.waiting;
      this.waiting = null;
      if (next) this.ask(next);
    });
  }

  ask(request: ReckonRequest): void {
    if (this.underWay) {
      this.waiting = request;
      return;
    }
    this.underWay = request;
    this.worker.postMessage(request);
  }

  end(): void {
    this.worker.terminate();
  }
}

/** The new answer with the old objects of nights that are as they were, so that those need no drawing. */
function keepingNights(last: Reckoning | null, next: Reckoning): Reckoning {
  const texts = new Map(last?.nights.map((night) => [night.day, JSON.stringify(night)]));
  const nights = next.nights.map((night) => {
    const same = texts.get(night.day) === JSON.stringify(night);
    return (same && last?.nights.find(({ day }) => day === night.day)) || night;
  });
  return { ...next, nights };
}

/** Verdict and nights of a plan, a few milliseconds behind it; null until the first answer. */
export function useReckoning(
  plan: Plan,
  on: EpochDay,
  firstNight: EpochDay,
  nights: number,
  farNight: EpochDay | null,
): Reckoning | null {
  const [reckoning, setReckoning] = useState<Reckoning | null>(null);
  const reckoner = useRef<Reckoner | null>(null);
  const lastId = useRef(0);
  useEffect(() => {
    const made = new Reckoner((next) => setReckoning((last) => keepingNights(last, next)));
    reckoner.current = made;
    return () => made.end();
  }, []);
  useEffect(() => {
    lastId.current += 1;
    reckoner.current?.ask({ id: lastId.current, plan, on, firstNight, nights, farNight });
  }, [plan, on, firstNight, nights, farNight]);
  return reckoning;
}
