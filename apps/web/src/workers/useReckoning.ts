import { useCallback, useEffect, useRef, useState } from 'react';
import type { EpochDay, Plan } from '@water-clock/core';
import type {
  Blocked,
  BlockedAnswer,
  BlockedRequest,
  ReckonAnswer,
  Reckoning,
  ReckonRequest,
} from './messages.ts';

/** One worker with at most one question under way; a newer question waits, and replaces one that waits. */
class Reckoner {
  private readonly worker = new Worker(new URL('./reckon.worker.ts', import.meta.url), {
    type: 'module',
  });
  private underWay: ReckonRequest | null = null;
  private waiting: ReckonRequest | null = null;

  constructor(
    answered: (reckoning: Reckoning) => void,
    answeredBlocked: (blocked: Blocked) => void,
  ) {
    this.worker.addEventListener(
      'message',
      ({ data }: MessageEvent<ReckonAnswer | BlockedAnswer>) => {
        if (data.kind === 'blocked') {
          answeredBlocked(data);
          return;
        }
        const { underWay } = this;
        this.underWay = null;
        if (underWay?.id === data.id) answered({ ...data, plan: underWay.plan });
        const next = this.waiting;
        this.waiting = null;
        if (next) this.ask(next);
      },
    );
  }

  askBlocked(request: BlockedRequest): void {
    this.worker.postMessage(request);
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

export interface Reckoned {
  /** Verdict and nights of the plan, a few milliseconds behind it; null until the first answer. */
  readonly reckoning: Reckoning | null;
  /** Where the start that was asked about may not go; null while none is. */
  readonly blocked: Blocked | null;
  /** Asks where a start of a plan may not be moved to; null ends that. */
  readonly askBlocked: (question: Pick<BlockedRequest, 'plan' | 'letter' | 'start'> | null) => void;
}

/** What the worker makes of a plan. */
export function useReckoning(
  plan: Plan,
  on: EpochDay,
  firstNight: EpochDay,
  nights: number,
  farNight: EpochDay | null,
): Reckoned {
  const [reckoning, setReckoning] = useState<Reckoning | null>(null);
  const [blocked, setBlocked] = useState<Blocked | null>(null);
  const reckoner = useRef<Reckoner | null>(null);
  const lastId = useRef(0);
  useEffect(() => {
    const made = new Reckoner(
      (next) => setReckoning((last) => keepingNights(last, next)),
      setBlocked,
    );
    reckoner.current = made;
    return () => made.end();
  }, []);
  useEffect(() => {
    lastId.current += 1;
    const id = lastId.current;
    reckoner.current?.ask({ kind: 'reckon', id, plan, on, firstNight, nights, farNight });
  }, [plan, on, firstNight, nights, farNight]);
  const askBlocked = useCallback<Reckoned['askBlocked']>(
    (question) => {
      if (question) reckoner.current?.askBlocked({ kind: 'blocked', on, ...question });
      else setBlocked(null);
    },
    [on],
  );
  return { reckoning, blocked, askBlocked };
}
