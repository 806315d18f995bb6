import { say } from '@water-clock/core';
import { fileURLToPath } from 'node:url';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { Outcome } from '@water-clock/core';
import PQueue from 'p-queue';
import { Piscina } from 'piscina';
import { ApiError, apiFaults, notAccepted } from '../http/api-error.ts';
import { Settings } from '../platform/settings.ts';
import type { InputOf, Task, ValueOf } from './tasks.ts';

/** Threads run what is built, also where the server itself runs from its source, as in the tests. */
const WORKER = fileURLToPath(new URL('../../dist/work/thread.cjs', import.meta.url));

/** Megabytes of a thread's heap. */
const MOST_HEAP_MB = 256;
/** Of those, for what lives a moment only: a calendar's thousands of lines are not copied from room to room. */
const YOUNG_HEAP_MB = 96;
/** Works of one company that run or wait. */
const MOST_OF_COMPANY = 8;
/** Of all companies. */
const MOST_WAITING = 64;

/** Niceness of threads, by Linux's measure: a third of the processor where somebody else wants it all, and a tenth. */
const BEHIND = 5;
const FAR_BEHIND = 10;
/** Seconds that a piece may take for which nobody waits, at least. */
const BACK_SECONDS = 60;

interface WorkOptions {
  readonly path?: readonly string[];
  readonly inBackground?: boolean;
}

function valueOf<T>(outcome: Outcome<T>, path: readonly string[]): T {
  if (!outcome.ok) throw notAccepted(apiFaults(outcome.faults, path));
  return outcome.value;
}

const busy = () =>
  new ApiError({
    code: 'busy',
    message: say`the server is busy; try again in a moment`,
  });

/** Does heavy work off the event loop, within limits of time, memory and number, so that nobody stalls anybody. */
@Injectable()
export class WorkService implements OnApplicationShutdown {
  private readonly pool: Piscina;
  private readonly queue: PQueue;
  /** Threads of their own for work that nobody waits for: an answer is never behind it. */
  private readonly backPool: Piscina;
  private readonly backQueue: PQueue;
  private readonly underWay = new Map<string, number>();

  constructor(private readonly settings: Settings) {
    const poolOf = (minThreads: number) =>
      new Piscina({
        filename: WORKER,
        minThreads,
        maxThreads: settings.workers,
        idleTimeout: 60_000,
        resourceLimits: {
          maxOldGenerationSizeMb: MOST_HEAP_MB,
          maxYoungGenerationSizeMb: YOUNG_HEAP_MB,
        },
        workerData: { behind: minThreads === 0 ? FAR_BEHIND : BEHIND },
      });
    this.pool = poolOf(1);
    this.queue = new PQueue({ concurrency: settings.workers });
    this.backPool = poolOf(0);
    this.backQueue = new PQueue({ concurrency: settings.workers });
  }

  /** How many pieces of work wait, and how many are done now. */
  get load(): { readonly waiting: number; readonly running: number } {
    return { waiting: this.queue.size, running: this.queue.pending };
  }

  /**
   * @param path of the request's document, before the paths of faults; `inBackground`: nobody waits for it, so all others go first
   * @throws ApiError 503 `busy`, 422 `not-accepted` with the faults of core, or 422 `too-much-work` where time or memory ran out
   */
  async run<T extends Task>(
    companyId: string,
    task: T,
    input: InputOf<T>,
    { path = ['plan'], inBackground = false }: WorkOptions = {},
  ): Promise<ValueOf<T>> {
    if (inBackground) return this.inBackground(task, input);
    const count = this.underWay.get(companyId) ?? 0;
    if (count >= MOST_OF_COMPANY || this.queue.size >= MOST_WAITING) throw busy();
    this.underWay.set(companyId, count + 1);
    try {
      return valueOf(await this.inTurn(count, () => this.inTime(task, input)), path);
    } finally {
      const left = (this.underWay.get(companyId) ?? 1) - 1;
      if (left > 0) this.underWay.set(companyId, left);
      else this.underWay.delete(companyId);
    }
  }

  /** Waits as long as it takes; whoever calls it asks for little at once. */
  private async inBackground<T extends Task>(task: T, input: InputOf<T>): Promise<ValueOf<T>> {
    const seconds = Math.max(BACK_SECONDS, this.settings.workSeconds);
    const work = () => this.inTime(task, input, this.backPool, seconds);
    return valueOf(await this.backQueue.add(work), []);
  }

  /**
   * Waits for a thread, no longer than a piece of work may take.
   *
   * @param count works of the same company before this one: who asks for much waits behind those who ask for little.
   */
  private async inTurn<R>(count: number, work: () => Promise<R>): Promise<R> {
    const patience = new AbortController();
    const end = setTimeout(() => patience.abort(busy()), this.settings.workSeconds * 1000);
    const begun = () => {
      clearTimeout(end);
      return work();
    };
    return this.queue.add(begun, { priority: -count, signal: patience.signal });
  }

  private async inTime<T extends Task>(
    task: T,
    input: InputOf<T>,
    pool = this.pool,
    seconds = this.settings.workSeconds,
  ): Promise<Outcome<ValueOf<T>>> {
    const signal = AbortSignal.timeout(seconds * 1000);
    try {
      // The cast holds: it is what the task of this name gives.
      return (await pool.run({ task, input }, { signal })) as Outcome<ValueOf<T>>;
    } catch (error) {
      // An error of a thread is not always one of this realm, so only its code is looked at.
      const code = typeof error === 'object' && error !== null && 'code' in error ? error.code : '';
      if (signal.aborted || code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new ApiError({
          code: 'too-much-work',
          message: say`this takes too long to calculate; ask for less`,
        });
      throw error;
    }
  }

  async onApplicationShutdown(): Promise<void> {
    await Promise.all([this.pool.destroy(), this.backPool.destroy()]);
  }
}
