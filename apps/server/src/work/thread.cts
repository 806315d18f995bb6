/**
 * What a thread of the pool loads first. The pool asks for it by `require`, and Node.js 20 ends the whole process where a thread is stopped
 * while it loads an ES module that way; by `import` it only ends the thread.
 */
const worker = import('./worker.ts');

/** @returns what the task of a job gives (worker.ts) */
export = async (job: Parameters<(typeof import('./worker.ts'))['default']>[0]): Promise<unknown> =>
  (await worker).default(job);
