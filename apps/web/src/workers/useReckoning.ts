import { useCallback, useEffect, useRef, useState } from 'react';
import { faultSentence, type EpochDay, type Night, type Plan } from '@water-clock/core';
import type {
  Answer,
  Blocked,
  BlockedRequest,
  Reckoning,
  ReckonRequest,
  WhatIf,
} from './messages.ts';

interface Listeners {
  readonly answered: (reckoning: Reckoning) => void;
  readonly answeredBlocked: (blocked: Blocked) => void;
  readonly told: (work: Work) => void;
}

/** What the worker is at, as far as it concerns people. */
export type Work =
  | { readonly state: 'done' }
  /** Only where it takes long. */
  | { readonly state: 'working'; readonly share: number }
  | { readonly state: 'stopped' }
  | { readonly state: 'refused'; readonly why: string };

/** One worker with at most one question under way; a newer question waits, and replaces one that waits. */
class Reckoner {
  private worker: Worker;
  private underWay: ReckonRequest | null = null;
  private waiting: ReckonRequest | null = null;
  private readonly listeners: Listeners;
  /** Of the answer before; the worker names those that are as they were by their date only. */
  private nights: readonly Night[] = [];

  constructor(listeners: Listeners) {
    this.listeners = listeners;
    this.worker = this.start();
  }

  private start(): Worker {
    const worker = new Worker(new URL('./reckon.worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('message', ({ data }: MessageEvent<Answer>) => this.heard(data));
    return worker;
  }

  private heard(data: Answer): void {
    const { underWay, listeners } = this;
    if (data.kind === 'blocked') {
      listeners.answeredBlocked(data);
      return;
    }
    if (data.kind === 'progress') {
      listeners.told({ state: 'working', share: data.share });
      return;
    }
    this.underWay = null;
    if (data.kind === 'refused')
      listeners.told({ state: 'refused', why: data.faults.map(faultSentence).join(' ') });
    else {
      listeners.told({ state: 'done' });
      const nights = data.nights.flatMap((one) =>
        typeof one === 'number' ? (this.nights.find(({ day }) => day === one) ?? []) : one,
      );
      this.nights = nights;
      if (underWay?.id === data.id) listeners.answered({ ...data, nights, plan: underWay.plan });
    }
    const next = this.waiting;
    this.waiting = null;
    if (next) this.ask(next);
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

  /** Gives up what is under way; the next question is answered again. */
  stop(): void {
    this.worker.terminate();
    this.underWay = null;
    this.waiting = null;
    this.worker = this.start();
    this.listeners.told({ state: 'stopped' });
  }

  end(): void {
    this.worker.terminate();
  }
}

export interface Reckoned {
  /** Verdict and nights of the plan, a few milliseconds behind it; null until the first answer. */
  readonly reckoning: Reckoning | null;
  readonly work: Work;
  /** Gives up work that takes too long. */
  readonly stop: () => void;
  /** Where the start that was asked about may not go; null while none is. */
  readonly blocked: Blocked | null;
  /** Asks where a start of a plan may not be moved to; null ends that. */
  readonly askBlocked: (question: Pick<BlockedRequest, 'plan' | 'letter' | 'start'> | null) => void;
}

export interface Wanted {
  readonly on: EpochDay;
  readonly firstNight: EpochDay;
  readonly nights: number;
  readonly farNight: EpochDay | null;
  readonly yearFrom: EpochDay | null;
  readonly whatIf: WhatIf;
}

const DONE: Work = { state: 'done' };

/** What the worker makes of a plan. */
export function useReckoning(plan: Plan, wanted: Wanted): Reckoned {
  const [reckoning, setReckoning] = useState<Reckoning | null>(null);
  const [blocked, setBlocked] = useState<Blocked | null>(null);
  const [work, setWork] = useState<Work>(DONE);
  const reckoner = useRef<Reckoner | null>(null);
  const lastId = useRef(0);
  useEffect(() => {
    const made = new Reckoner({
      answered: setReckoning,
      answeredBlocked: setBlocked,
      told: (next) =>
        setWork((last) => (last.state === 'done' && next.state === 'done' ? last : next)),
    });
    reckoner.current = made;
    return () => made.end();
  }, []);
  const { on, firstNight, nights, farNight, yearFrom, whatIf } = wanted;
  useEffect(() => {
    lastId.current += 1;
    const id = lastId.current;
    const kind = 'reckon' as const;
    reckoner.current?.ask({ kind, id, plan, on, firstNight, nights, farNight, yearFrom, whatIf });
  }, [plan, on, firstNight, nights, farNight, yearFrom, whatIf]);
  const askBlocked = useCallback<Reckoned['askBlocked']>(
    (question) => {
      if (question) reckoner.current?.askBlocked({ kind: 'blocked', on, ...question });
      else setBlocked(null);
    },
    [on],
  );
  const stop = useCallback(() => reckoner.current?.stop(), []);
  return { reckoning, work, stop, blocked, askBlocked };
}
