/** A thread of the pool. */
import fs from 'node:fs';
import os from 'node:os';
import type { Outcome } from '@water-clock/core';
import { TASKS, type Task } from './tasks.ts';

/** A third of the processor where somebody else wants it all: enough to end within the limits of time. */
const BEHIND = 5;

/** Linux knows priorities of threads: who waits for a short answer comes before who waits for a long one. Elsewhere all are alike. */
function standBack(): void {
  try {
    const thread = Number(fs.readlinkSync('/proc/thread-self').split('/').at(-1));
    os.setPriority(thread, BEHIND);
  } catch {
    // It is only less polite.
  }
}
standBack();

export default ({ task, input }: { readonly task: Task; readonly input: never }): unknown => {
  const work: (input: never) => Outcome<unknown> | Promise<Outcome<unknown>> = TASKS[task];
  return work(input);
};
