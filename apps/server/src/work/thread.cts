/**
 * First module of a pool thread. The pool loads it with `require`. In Node.js 20 the whole process aborts if a thread is stopped while it
 * loads an ES module that way; with `import` only the thread ends.
 */
const worker = import('./worker.ts');

/** @returns the result of a job's task (worker.ts) */
export = async (job: Parameters<(typeof import('./worker.ts'))['default']>[0]): Promise<unknown> =>
  (await worker).default(job);
