import { say } from '@water-clock/core';
import { fileURLToPath } from 'node:url';
import { Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import type { Outcome } from '@water-clock/core';
import PQueue from 'p-queue';
import { Piscina } from 'piscina';
import { ApiError, apiFaults, notAccepted } from '../http/api-error.ts';
import { Settings } from '../platform/settings.ts';
import type { InputOf, Task, ValueOf } from './tasks.ts';

/** Threads run the built code, even if the server runs from source, as in tests. */
const WORKER = fileURLToPath(new URL('../../dist/work/thread.cjs', import.meta.url));

/** Heap of a thread, in megabytes. */
const MOST_HEAP_MB = 256;
/** Young generation of it, so that the thousands of short-lived lines of a calendar are not copied repeatedly. */
const YOUNG_HEAP_MB = 96;
/** Most jobs of one company, waiting or running. */
const MOST_OF_COMPANY = 8;
/** Most jobs of all companies. */
const MOST_WAITING = 64;

/** Niceness of threads in Linux: about a third of a contended processor, and a tenth. */
const BEHIND = 5;
const FAR_BEHIND = 10;
/** Minimum seconds for a background job. */
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

/** Runs heavy work off the event loop, with limits on time, memory and number, so that no one stalls others. */
@Injectable()
export class WorkService implements OnApplicationShutdown {
  private readonly logger = new Logger('Work');
  private readonly pool: Piscina;
  private readonly queue: PQueue;
  /** Separate threads for background jobs, so that answers never wait for them. */
  private readonly backPool: Piscina;
  private readonly backQueue: PQueue;
  private readonly underWay = new Map<string, number>();

  constructor(private readonly settings: Settings) {
    const poolOf = (minThreads: number) => {
      const pool = new Piscina({
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
      // A thread may run out of memory just after its job was given up. Without a listener that would end the server.
      pool.on('error', (error: Error) => this.logger.warn(`a thread ended: ${error.message}`));
      return pool;
    };
    this.pool = poolOf(1);
    this.queue = new PQueue({ concurrency: settings.workers });
    this.backPool = poolOf(0);
    this.backQueue = new PQueue({ concurrency: settings.workers });
  }

  /** Number of jobs waiting and running. */
  get load(): { readonly waiting: number; readonly running: number } {
    return { waiting: this.queue.size, running: this.queue.pending };
  }

  /**
   * @param path of the document in the request, put before fault paths; `inBackground`: no one waits for it, so all others go first
   * @throws ApiError 503 `busy`; 422 `not-accepted` with core's faults; 422 `too-much-work` if time or memory ran out
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

  /** Waits as long as it takes; callers ask for little at once. */
  private async inBackground<T extends Task>(task: T, input: InputOf<T>): Promise<ValueOf<T>> {
    const seconds = Math.max(BACK_SECONDS, this.settings.workSeconds);
    const work = () => this.inTime(task, input, this.backPool, seconds);
    return valueOf(await this.backQueue.add(work), []);
  }

  /**
   * Waits for a thread, at most as long as a job may take.
   *
   * @param count earlier jobs of the same company; heavy users wait behind light ones
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
      // Safe cast: it is the result of the task of this name.
      return (await pool.run({ task, input }, { signal })) as Outcome<ValueOf<T>>;
    } catch (error) {
      // Errors from threads may belong to another realm, so only the code is checked.
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
