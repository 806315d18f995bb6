/** Slow work of a timer's page, in a worker: a shell over core. */
import { attempt, blockedStarts, type Outcome } from '@water-clock/core';
import { expose } from 'comlink';
import { seldom } from './seldom.ts';
import { answerOf } from './timerAnswer.ts';
import type { Blocked, BlockedQuestion, TimerAnswer, TimerQuestion } from './timerQuestion.ts';

const worker = {
  answer(
    question: TimerQuestion,
    progress: (share: number) => void,
  ): Outcome<Omit<TimerAnswer, 'plan'>> {
    const worked = attempt(() => answerOf(question, seldom(progress)));
    if (!worked.ok) return worked;
    // The page has the plan already.
    const { plan: _plan, ...rest } = worked.value;
    return { ok: true, value: rest };
  },

  blocked({ plan, on, letter, start }: BlockedQuestion): Blocked {
    const worked = attempt(() => blockedStarts(plan, letter, start, on));
    return { letter, times: worked.ok ? worked.value : [] };
  },
};
export type TimerWorker = typeof worker;

expose(worker);
