/** A thread of the pool. */
import fs from 'node:fs';
import os from 'node:os';
import type { Outcome } from '@water-clock/core';
import { workerData } from 'piscina';
import { TASKS, type Task } from './tasks.ts';

/** Sets the thread's priority on Linux, so that short answers come before long ones. Elsewhere all are equal. */
function standBack(behind: number): void {
  try {
    const thread = Number(fs.readlinkSync('/proc/thread-self').split('/').at(-1));
    os.setPriority(thread, behind);
  } catch {
    // Priorities are optional.
  }
}
// Jobs come only from our own pool.
standBack((workerData as { readonly behind: number }).behind);

export default ({ task, input }: { readonly task: Task; readonly input: never }): unknown => {
  const work: (input: never) => Outcome<unknown> | Promise<Outcome<unknown>> = TASKS[task];
  return work(input);
};
