/** Builds a task for a garden in a worker, pressing every key of the solution: a shell over core. */
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
