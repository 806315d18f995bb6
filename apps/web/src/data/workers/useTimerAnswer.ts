import { useCallback, useEffect, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import {
  faultSentence,
  type Brief,
  type ClockChange,
  type ComingRules,
  type SupplyNoted,
  type EpochDay,
  type Night,
  type Outcome,
  type Plan,
} from '@water-clock/core';
import { started, withProgress, type Started } from './started.ts';
import type { TimerWorker } from './timer.worker.ts';
import type * as Here from './answerHere.ts';
import { keepingSame } from './keepingSame.ts';
import type {
  Blocked,
  BlockedQuestion,
  TimerAnswer,
  TimerQuestion,
  WhatIf,
} from './timerQuestion.ts';

interface Listeners {
  readonly answered: (answer: TimerAnswer) => void;
  readonly answeredBlocked: (blocked: Blocked) => void;
  readonly working: (work: Work) => void;
}

/** What the worker is doing, as far as people need to know. */
export type Work =
  | { readonly state: 'done' }
  /** Set only if it takes long. */
  | { readonly state: 'working'; readonly share: number }
  | { readonly state: 'stopped' }
  | { readonly state: 'refused'; readonly why: string };

/** The engine on the main thread. A worker gives the first answer, so that the page does not wait for this code. */
let here: Pick<typeof Here, 'answerHere'> | null = null;
async function fetchHere(): Promise<void> {
  // Without it the worker keeps answering.
  here ??= await import('./answerHere.ts').catch(() => null);
}

const startWorker = () =>
  started<TimerWorker>(
    new Worker(new URL('./timer.worker.ts', import.meta.url), { type: 'module' }),
  );

/** Answers cheap questions at once and sends the others to a worker, one at a time; a newer question replaces a waiting one. */
class Answering {
  private worker: Started<TimerWorker> = startWorker();
  private isBusy = false;
  private waiting: TimerQuestion | null = null;
  private readonly listeners: Listeners;
  /** Nights of the answer before. */
  private nights: readonly Night[] = [];

  constructor(listeners: Listeners) {
    this.listeners = listeners;
  }

  private answer(answer: TimerAnswer): void {
    this.nights = keepingSame(this.nights, answer.nights);
    this.listeners.answered({ ...answer, nights: this.nights });
  }

  async askBlocked(question: BlockedQuestion): Promise<void> {
    this.listeners.answeredBlocked(await this.worker.call.blocked(question));
  }

  ask(question: TimerQuestion): void {
    if (this.isBusy) {
      this.waiting = question;
      return;
    }
    const answer = question.yearFrom === null ? here?.answerHere(question) : null;
    if (answer) {
      this.listeners.working({ state: 'done' });
      this.answer(answer);
    } else void this.askWorker(question);
  }

  /** Resolves once the worker has answered; never if it was stopped first. */
  private async askWorker(question: TimerQuestion): Promise<void> {
    this.isBusy = true;
    const { worker, listeners } = this;
    const answer = await withProgress<Outcome<Omit<TimerAnswer, 'plan'>>>(
      async (progress) => worker.call.answer(question, progress),
      (share) => {
        if (this.worker === worker) listeners.working({ state: 'working', share });
      },
    );
    if (this.worker !== worker) return;
    this.isBusy = false;
    if (!answer.ok)
      listeners.working({ state: 'refused', why: answer.faults.map(faultSentence).join(' ') });
    else {
      listeners.working({ state: 'done' });
      // Drawn at once, together with its plan.
      flushSync(() => this.answer({ ...answer.value, plan: question.plan }));
    }
    void fetchHere();
    const next = this.waiting;
    this.waiting = null;
    if (next) this.ask(next);
  }

  /** Abandons the question under way; the next one is answered again. */
  stop(): void {
    this.worker.end();
    this.isBusy = false;
    this.waiting = null;
    this.worker = startWorker();
    this.listeners.working({ state: 'stopped' });
  }

  end(): void {
    this.worker.end();
  }
}

export interface Answered {
  /** Verdict and nights of the plan, a few milliseconds behind it; null until the first answer. */
  readonly answer: TimerAnswer | null;
  readonly work: Work;
  /** Abandons work that takes too long. */
  readonly stop: () => void;
  /** Times to which the start in question may not move; null if there is none. */
  readonly blocked: Blocked | null;
  /** Asks to which times a start may not move; null ends that. */
  readonly askBlocked: (
    question: Pick<BlockedQuestion, 'plan' | 'letter' | 'start'> | null,
  ) => void;
}

/** A question without its plan. */
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
  readonly coming: readonly ComingRules[];
  readonly anyPhase: readonly string[];
  readonly supply: SupplyNoted;
}

/** A source of plans, possibly faster than the page draws. */
export interface PlanSource {
  readonly subscribe: (listener: () => void) => () => void;
  readonly snapshot: () => { readonly plan: Plan };
}

const DONE: Work = { state: 'done' };

/**
 * The worker's answers to the plans of a source.
 *
 * @param question asked again whenever it is another object
 * @param answered called with each answer before it is drawn
 */
export function useTimerAnswer(
  source: PlanSource,
  question: Wanted,
  answered: () => void,
): Answered {
  const [answer, setAnswer] = useState<TimerAnswer | null>(null);
  const [blocked, setBlocked] = useState<Blocked | null>(null);
  const [work, setWork] = useState<Work>(DONE);
  const answering = useRef<Answering | null>(null);
  /** Whether a start is being dragged, so that the worker was asked where it may not go. */
  const holding = useRef(false);
  const asked = useRef<{ plan: Plan | null; question: Wanted }>({ plan: null, question });
  const ask = useCallback((about: Plan, what: Wanted) => {
    const last = asked.current;
    if (last.plan === about && last.question === what) return;
    asked.current = { plan: about, question: what };
    answering.current?.ask({ plan: about, ...what });
  }, []);
  useEffect(() => {
    const made = new Answering({
      answered: (next) => {
        setAnswer(next);
        answered();
      },
      // Dropped before the answer came: mark nothing any more.
      answeredBlocked: (next) => holding.current && setBlocked(next),
      working: (next) =>
        setWork((last) => (last.state === 'done' && next.state === 'done' ? last : next)),
    });
    answering.current = made;
    return () => {
      asked.current = { ...asked.current, plan: null };
      made.end();
    };
  }, [answered]);
  // Asked while the key event is handled, not after the page is drawn.
  useEffect(() => {
    const askNow = () => ask(source.snapshot().plan, question);
    askNow();
    return source.subscribe(askNow);
  }, [source, ask, question]);
  const { on } = question;
  const askBlocked = useCallback<Answered['askBlocked']>(
    (about) => {
      holding.current = about !== null;
      if (about) void answering.current?.askBlocked({ on, ...about });
      else setBlocked(null);
    },
    [on],
  );
  const stop = useCallback(() => answering.current?.stop(), []);
  return { answer, work, stop, blocked, askBlocked };
}
