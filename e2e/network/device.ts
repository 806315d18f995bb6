/**
 * A device in the simulated network: the real editor of each timer, storage that survives a restart, and a network that loses, repeats and
 * delays.
 */
import { randomUUID } from 'node:crypto';
import { rebase } from '@water-clock/core';
import { RefusedError, UnreachableError } from '../../apps/web/src/data/api/request.ts';
import {
  savingOf,
  savingOfSeveral,
  type Queue,
  type Saved,
  type SavedSeveral,
  type TimerView,
  type Write,
} from '../../apps/web/src/data/api/timers.ts';
import { TimerEditor } from '../../apps/web/src/data/editor/editor.ts';
import type { Dice } from '../../packages/core/tests/randomEdits.ts';

/** One of the servers, as a signed-in person uses it. */
export type Ask = (method: string, path: string, body?: unknown) => Promise<unknown>;

/** Words that people enter in this simulation. Each is unique, so that it can be traced. */
export const wordsIn = (value: unknown): Set<string> =>
  new Set(JSON.stringify(value ?? null).match(/word-\d+/gu) ?? []);

export class Device {
  isOnline = true;
  /** The network loses nothing any more. */
  isCalm = false;
  readonly editors = new Map<string, TimerEditor>();
  /** Ids of writes made here. */
  readonly made = new Set<string>();
  /** Words that were ever on this screen, also in a question. */
  readonly seen = new Set<string>();
  /** Words that were entered here. */
  readonly entered = new Set<string>();
  /** Words given up here: overwritten, answered with the other side, or refused with a reason. */
  readonly letGo = new Set<string>();
  private readonly kept = new Map<string, readonly Queue[]>();
  private readonly views = new Map<string, Saved>();
  /** Number of starts. */
  private life = 0;
  private waiting: (() => void)[] = [];
  /** Requests that the network will deliver again later. */
  private strays: (() => Promise<unknown>)[] = [];

  constructor(
    readonly person: string,
    private readonly servers: readonly Ask[],
    private readonly dice: Dice,
    /** Error of this device's clock, milliseconds. */
    private readonly clockError: number,
  ) {}

  private readonly timers = new Set<string>();

  /** Opens a timer, from storage if the server does not answer; false if it was never loaded. */
  async open(timerId: string): Promise<boolean> {
    this.timers.add(timerId);
    const loaded = await this.load(timerId).catch(() => null);
    const view = loaded ?? this.views.get(timerId);
    if (!view) return false;
    const { version, plan, survey } = view;
    const { life } = this;
    /** A closed page hears and does nothing any more. */
    const alive = async <T>(answer: Promise<T>): Promise<T> => {
      const settled = await answer.then(
        (value) => () => value,
        (error: unknown) => () => {
          throw error;
        },
      );
      if (life !== this.life) await new Promise(() => undefined);
      return settled();
    };
    /** Words waiting before and after the last action. */
    let waiting = [new Set<string>(), new Set<string>()] as const;
    const editor = new TimerEditor({ version, plan, survey }, [], {
      transport: {
        send: (write) => alive(this.send(timerId, write)),
        sendSeveral: (writes) => alive(this.sendSeveral(timerId, writes)),
        load: () => alive(this.load(timerId)),
      },
      newId: () => {
        const id = randomUUID();
        this.made.add(id);
        return id;
      },
      merging: () => Promise.resolve({ rebase }),
      keep: (queues) => {
        if (life !== this.life) return;
        this.kept.set(timerId, structuredClone(queues));
        waiting = [waiting[1], wordsIn(queues.map(({ writes }) => writes))];
      },
      later: (work) => this.waiting.push(work),
      now: () => new Date(Date.now() + this.clockError),
    });
    const left = this.kept.get(timerId) ?? [];
    this.editors.set(timerId, editor);
    let refused: string | null = null;
    editor.subscribe(() => {
      this.look();
      const { refusal } = editor.snapshot();
      if (refusal !== null && refusal !== refused)
        for (const word of waiting[0]) if (!waiting[1].has(word)) this.letGo.add(word);
      refused = refusal;
    });
    left.forEach((queue) => editor.resume(queue));
    this.look();
    return true;
  }

  /** Closes the page in the middle of things; only what it stored is left. */
  async restart(): Promise<void> {
    this.life++;
    this.editors.clear();
    this.waiting = [];
    await this.openAll();
  }

  private async openAll(): Promise<void> {
    for (const id of this.timers) if (!this.editors.has(id)) await this.open(id);
  }

  /** Retries what waits, and delivers what strayed. */
  async tick(): Promise<void> {
    const [waiting, strays] = [this.waiting, this.strays];
    this.waiting = [];
    this.strays = [];
    await this.openAll();
    for (const stray of strays) await stray().catch(() => undefined);
    for (const work of waiting) work();
    await this.quiet();
  }

  /** Waits until nothing is under way. */
  async quiet(): Promise<void> {
    const isBusy = () =>
      [...this.editors.values()].some((editor) => editor.snapshot().status === 'saving');
    do await new Promise((resolve) => setTimeout(resolve, 1));
    while (isBusy());
  }

  async hearOfNews(): Promise<void> {
    if (!this.isOnline) return;
    for (const [id, editor] of this.editors) {
      const { version } = await this.load(id).catch(() => ({ version: 0 }));
      await editor.noticeVersion(version, 'somebody');
    }
  }

  private look(): void {
    for (const editor of this.editors.values()) {
      const { plan, survey, conflict } = editor.snapshot();
      for (const word of wordsIn([plan, survey, conflict])) this.seen.add(word);
    }
  }

  private async load(timerId: string): Promise<TimerView> {
    const view = (await this.over('GET', `/api/timers/${timerId}`)) as TimerView;
    this.views.set(timerId, view);
    return view;
  }

  private send(timerId: string, write: Write): Promise<{ version: number }> {
    const { to, body } = savingOf(timerId, write);
    return this.over('POST', to, body) as Promise<{ version: number }>;
  }

  private sendSeveral(timerId: string, writes: readonly Write[]): Promise<SavedSeveral> {
    const { to, body } = savingOfSeveral(timerId, writes);
    return this.over('POST', to, body) as Promise<SavedSeveral>;
  }

  /** One request over this network. */
  private async over(method: string, path: string, body?: unknown): Promise<unknown> {
    if (!this.isOnline) throw new UnreachableError('no network');
    const server = this.servers[this.dice(this.servers.length)];
    if (!server) throw new Error('no server');
    const fate = this.isCalm ? 9 : this.dice(10);
    if (fate === 0) throw new UnreachableError('lost on the way there');
    if (method !== 'GET' && fate === 1) {
      // It arrives long after its sender gave up, perhaps twice.
      this.strays.push(() => server(method, path, body));
      throw new UnreachableError('no answer yet');
    }
    if (method !== 'GET' && fate === 2) {
      await Promise.allSettled([server(method, path, body), server(method, path, body)]);
    }
    const answer = await server(method, path, body);
    if (fate === 3) throw new UnreachableError('lost on the way back');
    return answer;
  }
}

/** A server as a device uses it, with refusals and trouble told apart as in the application. */
export function askOf(url: () => string, cookie: () => string): Ask {
  return async (method, path, body) => {
    let response: Response;
    try {
      response = await fetch(`${url()}${path}`, {
        method,
        headers: { cookie: cookie(), 'content-type': 'application/json' },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      });
    } catch {
      throw new UnreachableError('no server');
    }
    if (response.status >= 500) throw new UnreachableError('trouble');
    const told = (await response.json()) as Record<string, unknown>;
    if (!response.ok) throw new RefusedError(response.status, told);
    return told;
  };
}
