import { attempt, Effort } from '@water-clock/core';
import { answerOf } from './timerAnswer.ts';
import type { TimerAnswer, TimerQuestion } from './timerQuestion.ts';

/**
 * Small steps of the engine that the page's own thread may take between two frames, about two milliseconds; a dozen times what
 * a large garden asks for. Then the answer is there with the key, and strip and digit are drawn in one frame.
 */
const STEPS_HERE = 60_000;

/** An answer at once; null: it takes too much work. */
export function answerHere(question: TimerQuestion): TimerAnswer | null {
  const answer = attempt(() => answerOf(question, undefined, new Effort(STEPS_HERE)));
  return answer.ok ? answer.value : null;
}
