/**
 * Writes that are not known to be saved, kept on the device: through a reload, and for anybody who opens the timer next where the page
 * was closed in the middle of a walk without a network. Sending one twice is harmless.
 *
 * They belong to a person and their company. Each tab keeps its own, under an id on which it holds a lock for as long as it lives; what a tab without a lock left behind is
 * taken over.
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
    // The cast trusts what this application wrote; the server checks each write again.
    return JSON.parse(localStorage.getItem(key) ?? '[]') as Queue[];
  } catch {
    return [];
  }
}

const keysOf = (prefix: string): string[] =>
  Object.keys(localStorage).filter((key) => key.startsWith(prefix));

/** The writes of one tab, which holds a lock on its id until its page is gone. */
export function openTab() {
  /** A tab that is a copy of another has the other's memory, and so takes a new id. */
  let tab = rememberedTab();

  /** Where there are no locks, only the tab's own reload finds what it kept. */
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
    /** Whether it is kept: where the storage is full or forbidden, the writes are only in this page, and a reload would lose them. */
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

    /** What this tab kept before it was loaded again. */
    pendingOf: (timerId: string): readonly Queue[] => kept(keyOf(timerId, tab)),

    /** What closed tabs left of a timer. It is removed there; the caller has to send it. */
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

/** The timers of which something waits on the device, in any tab. */
export const waitingTimers = (): readonly string[] => {
  const prefix = prefixOf();
  return [...new Set(keysOf(prefix).map((key) => key.slice(prefix.length).split(':')[0] ?? ''))];
};

/** Everything that waits on the device, whosever it is, by where it is kept. */
export const allPending = () =>
  keysOf(PREFIX).map((key) => ({
    key,
    personId: key.slice(PREFIX.length).split(':')[0]?.split('.')[1] ?? '',
    timerId: key.slice(PREFIX.length).split(':')[1] ?? '',
    queues: kept(key),
  }));

/** How many writes of this person wait on the device, for all timers and in all tabs. */
export const countPending = (): number =>
  keysOf(prefixOf())
    .flatMap(kept)
    .reduce((count, { writes }) => count + writes.length, 0);

/** Whether a key of the device's storage holds writes of somebody else. */
export const isAnothersPending = (key: string): boolean =>
  key.startsWith(PREFIX) && !key.startsWith(prefixOf());
