/**
 * Writes not known to be saved, stored on the device: they survive a reload, and closing the page offline. Sending one twice is harmless.
 *
 * They belong to a person and a company. Each tab stores its own under an id that it holds a lock on while it lives; what a tab without a
 * lock left is taken over.
 */
import type { Queue } from '../api/timers.ts';
import { ownerName } from '../api/whose.ts';
import { PREFIX } from '../offlineCache/pendingKeys.ts';

const TAB_KEY = 'water-clock:tab';
const lockOf = (tab: string) => `water-clock:tab:${tab}`;

function rememberedTab(): string {
  try {
    const known = sessionStorage.getItem(TAB_KEY);
    if (known !== null) return known;
    const made = crypto.randomUUID();
    sessionStorage.setItem(TAB_KEY, made);
    return made;
  } catch {
    return crypto.randomUUID();
  }
}

const prefixOf = () => `${PREFIX}${ownerName()}:`;
const keyOf = (timerId: string, ofTab: string) => `${prefixOf()}${timerId}:${ofTab}`;

function kept(key: string): readonly Queue[] {
  try {
    // Our own data; the server checks each write again.
    return JSON.parse(localStorage.getItem(key) ?? '[]') as Queue[];
  } catch {
    return [];
  }
}

const keysOf = (prefix: string): string[] =>
  Object.keys(localStorage).filter((key) => key.startsWith(prefix));

/** The writes of one tab, which holds a lock on its id until its page is gone. */
export function openTab() {
  /** A duplicated tab copies the other's session storage, so it needs a new id. */
  let tab = rememberedTab();

  /** Without lock support, only a reload of the same tab finds its writes. */
  async function holdLock(): Promise<void> {
    const gone = new Promise<void>(() => {});
    await navigator.locks?.request(lockOf(tab), { ifAvailable: true }, async (lock) => {
      if (lock) await gone;
      tab = crypto.randomUUID();
      try {
        sessionStorage.setItem(TAB_KEY, tab);
      } catch {
        // Only a reload forgets it.
      }
      void holdLock();
    });
  }
  void holdLock();

  return {
    /** Whether it is stored. If storage is full or forbidden, the writes exist only in this page, and a reload would lose them. */
    keepPending: (timerId: string, queues: readonly Queue[]): boolean => {
      try {
        const key = keyOf(timerId, tab);
        if (queues.length === 0) localStorage.removeItem(key);
        else localStorage.setItem(key, JSON.stringify(queues));
        return true;
      } catch {
        return queues.length === 0;
      }
    },

    /** What this tab stored before a reload. */
    pendingOf: (timerId: string): readonly Queue[] => kept(keyOf(timerId, tab)),

    /** What closed tabs left for a timer. Removes it there; the caller must send it. */
    leftBehind: async (timerId: string): Promise<readonly Queue[]> => {
      const locks = await navigator.locks?.query();
      if (!locks) return [];
      const alive = new Set([...(locks.held ?? [])].map(({ name }) => name));
      const prefix = `${prefixOf()}${timerId}:`;
      const left: Queue[] = [];
      for (const key of keysOf(prefix)) {
        const owner = key.slice(prefix.length);
        if (owner === tab || alive.has(lockOf(owner))) continue;
        left.push(...kept(key));
        localStorage.removeItem(key);
      }
      return left;
    },
  };
}

export const { keepPending, pendingOf, leftBehind } = openTab();

/** Timers with waiting writes on the device, in any tab. */
export const waitingTimers = (): readonly string[] => {
  const prefix = prefixOf();
  return [...new Set(keysOf(prefix).map((key) => key.slice(prefix.length).split(':')[0] ?? ''))];
};

/** Everything waiting on the device, for anyone, by storage key. */
export const allPending = () =>
  keysOf(PREFIX).map((key) => ({
    key,
    personId: key.slice(PREFIX.length).split(':')[0]?.split('.')[1] ?? '',
    timerId: key.slice(PREFIX.length).split(':')[1] ?? '',
    queues: kept(key),
  }));

/** Number of this person's waiting writes on the device, over all timers and tabs. */
export const countPending = (): number =>
  keysOf(prefixOf())
    .flatMap(kept)
    .reduce((count, { writes }) => count + writes.length, 0);

/** Whether a storage key holds another person's writes. */
export const isAnothersPending = (key: string): boolean =>
  key.startsWith(PREFIX) && !key.startsWith(prefixOf());
