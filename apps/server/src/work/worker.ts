/** A thread of the pool. */
import fs from 'node:fs';
import os from 'node:os';
import type { Outcome } from '@water-clock/core';
import { workerData } from 'piscina';
import { TASKS, type Task } from './tasks.ts';

/** Linux knows priorities of threads: who waits for a short answer comes before who waits for a long one. Elsewhere all are alike. */
function standBack(behind: number): void {
  try {
    const thread = Number(fs.readlinkSync('/proc/thread-self').split('/').at(-1));
    os.setPriority(thread, behind);
  } catch {
    // It is only less polite.
  }
}
// The cast trusts our own pool.
standBack((workerData as { readonly behind: number }).behind);

export default ({ task, input }: { readonly task: Task; readonly input: never }): unknown => {
  const work: (input: never) => Outcome<unknown> | Promise<Outcome<unknown>> = TASKS[task];
  return work(input);
};
