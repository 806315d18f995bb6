/** A thread of the pool. */
import type { Outcome } from '@water-clock/core';
import { TASKS, type Task } from './tasks.ts';

export default ({ task, input }: { readonly task: Task; readonly input: never }): unknown => {
  const work: (input: never) => Outcome<unknown> | Promise<Outcome<unknown>> = TASKS[task];
  return work(input);
};
