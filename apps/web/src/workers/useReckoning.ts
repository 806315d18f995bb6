import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import {
  attempt,
  Effort,
  faultSentence,
  type Brief,
  type ClockChange,
  type EpochDay,
  type Night,
  type Plan,
} from '@water-clock/core';
import { keepingSame, reckon } from './reckon.ts';
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

/**
 * Small steps of the engine that the page's own thread may take between two frames, about two milliseconds; a dozen times what
 * a large garden asks for. Then the answer is there with the key, and strip and digit are drawn in one frame.
 */
const STEPS_HERE = 60_000;

/**
 * Answers at once what is quickly worked out. All else goes to a worker with at most one question under way; a newer question
 * waits, and replaces one that waits.
 */
class Reckoner {
  private worker: Worker;
  private underWay: ReckonRequest | null = null;
  private waiting: ReckonRequest | null = null;
  private readonly listeners: Listeners;
  /** Of the answer before. */
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
      // Drawn at once, together with the plan that it is about.
      if (underWay?.id === data.id) flushSync(() => this.answer({ ...data, plan: underWay.plan }));
    }
    const next = this.waiting;
    this.waiting = null;
    if (next) this.ask(next);
  }

  private answer(reckoning: Reckoning): void {
    this.nights = keepingSame(this.nights, reckoning.nights);
    this.listeners.answered({ ...reckoning, nights: this.nights });
  }

  askBlocked(request: BlockedRequest): void {
    this.worker.postMessage(request);
  }

  ask(request: ReckonRequest): void {
    if (this.underWay) {
      this.waiting = request;
      return;
    }
    if (request.yearFrom === null) {
      const here = attempt(() => reckon(request, undefined, new Effort(STEPS_HERE)));
      if (here.ok) {
        this.listeners.told({ state: 'done' });
        this.answer(here.value);
        return;
      }
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
  readonly changes: readonly ClockChange[];
  readonly brief: Brief;
  readonly unknown: readonly number[];
}

/** Where plans come from, faster than the page draws them. */
export interface PlanSource {
  readonly subscribe: (listener: () => void) => () => void;
  readonly snapshot: () => { readonly plan: Plan };
}

const DONE: Work = { state: 'done' };

/**
 * What the worker makes of the plan of a source.
 *
 * @param answered is called with each answer, before the page draws it.
 */
export function useReckoning(source: PlanSource, wanted: Wanted, answered: () => void): Reckoned {
  const [reckoning, setReckoning] = useState<Reckoning | null>(null);
  const [blocked, setBlocked] = useState<Blocked | null>(null);
  const [work, setWork] = useState<Work>(DONE);
  const reckoner = useRef<Reckoner | null>(null);
  /** Whether a start is held, about which it was asked where it may not go. */
  const holding = useRef(false);
  const { on, firstNight, nights, farNight, yearFrom, whatIf, changes } = wanted;
  const { brief, unknown } = wanted;
  const question = useMemo(
    () => ({ on, firstNight, nights, farNight, yearFrom, whatIf, changes, brief, unknown }),
    [on, firstNight, nights, farNight, yearFrom, whatIf, changes, brief, unknown],
  );
  const asked = useRef<{ id: number; plan: Plan | null; question: Wanted }>({
    id: 0,
    plan: null,
    question,
  });
  const ask = useCallback((about: Plan, what: Wanted) => {
    const last = asked.current;
    if (last.plan === about && last.question === what) return;
    const id = last.id + 1;
    asked.current = { id, plan: about, question: what };
    reckoner.current?.ask({ kind: 'reckon', id, plan: about, ...what });
  }, []);
  useEffect(() => {
    const made = new Reckoner({
      answered: (answer) => {
        setReckoning(answer);
        answered();
      },
      // Let go before the answer came: nothing is to be marked any more.
      answeredBlocked: (answer) => holding.current && setBlocked(answer),
      told: (next) =>
        setWork((last) => (last.state === 'done' && next.state === 'done' ? last : next)),
    });
    reckoner.current = made;
    return () => {
      asked.current = { ...asked.current, plan: null };
      made.end();
    };
  }, [answered]);
  // Asked while the key is still being handled, not when the page has been drawn.
  useEffect(() => {
    const askNow = () => ask(source.snapshot().plan, question);
    askNow();
    return source.subscribe(askNow);
  }, [source, ask, question]);
  const askBlocked = useCallback<Reckoned['askBlocked']>(
    (about) => {
      holding.current = about !== null;
      if (about) reckoner.current?.askBlocked({ kind: 'blocked', on, ...about });
      else setBlocked(null);
    },
    [on],
  );
  const stop = useCallback(() => reckoner.current?.stop(), []);
  return { reckoning, work, stop, blocked, askBlocked };
}
