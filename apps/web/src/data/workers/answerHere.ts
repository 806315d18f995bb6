import { attempt, Effort } from '@water-clock/core';
import { answerOf } from './timerAnswer.ts';
import type { TimerAnswer, TimerQuestion } from './timerQuestion.ts';

/**
 * Engine steps that the main thread may take between two frames (about two milliseconds, twelve times what a large garden needs). The
 * answer then comes with the key press, and strip and digit are drawn in one frame.
 */
const STEPS_HERE = 60_000;

/** An answer at once; null if it takes too long. */
export function answerHere(question: TimerQuestion): TimerAnswer | null {
  const answer = attempt(() => answerOf(question, undefined, new Effort(STEPS_HERE)));
  return answer.ok ? answer.value : null;
}
