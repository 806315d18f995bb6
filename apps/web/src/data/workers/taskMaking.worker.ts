/** Makes a task of a garden, off the page's own thread: it presses every key of the way there. A shell over core. */
import {
  taskOfPlan,
  type Plan,
  type Task,
  type TaskWords,
  type TimerKind,
} from '@water-clock/core';
import { expose } from 'comlink';

const worker = {
  make: (plan: Plan, kind: TimerKind | null, words: TaskWords): Task | null =>
    taskOfPlan(plan, kind, words),
};
export type TaskWorker = typeof worker;

expose(worker);
