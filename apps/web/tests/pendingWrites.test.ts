/** Waiting writes: a tab finds its own, takes over those of closed tabs, and leaves those of living ones. */
import { beforeEach, expect, test } from '@jest/globals';
import { queueOf } from './queues.ts';
import { storage } from './storage.ts';

/** A device: its storage, and the locks of living tabs. */
class Device {
  readonly values = new Map<string, string>();
  readonly held = new Set<string>();
}
let device = new Device();

/** A tab with its session storage. */
async function openTab(memory = new Map<string, string>()) {
  const define = (name: string, value: unknown) =>
    Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });
  define('localStorage', storage(device.values));
  define('sessionStorage', storage(memory));
  const { held } = device;
  let mine: string | null = null;
  define('navigator', {
    locks: {
      request: (name: string, _options: object, work: (lock: object | null) => Promise<void>) => {
        if (held.has(name)) return work(null);
        held.add(name);
        mine = name;
        return work({});
      },
      query: () => Promise.resolve({ held: [...held].map((name) => ({ name })) }),
    },
  });
  // The module opens a tab while loading, so the device must exist.
  const writes = await import('../src/data/editor/pendingWrites.ts');
  return {
    ...writes,
    ...writes.openTab(),
    memory,
    close: () => mine !== null && held.delete(mine),
  };
}

beforeEach(() => {
  device = new Device();
});

test('a reload of the tab finds what it kept; what is saved is kept no longer', async () => {
  const tab = await openTab();
  tab.keepPending('larkholt', [queueOf('a'), queueOf('b')]);
  tab.close();
  const again = await openTab(tab.memory);
  expect(again.pendingOf('larkholt')).toEqual([queueOf('a'), queueOf('b')]);
  expect(again.pendingOf('fennimore')).toEqual([]);
  again.keepPending('larkholt', []);
  expect(device.values.size).toBe(0);
});

test('what a closed tab left is taken over once, and not what a living tab still keeps', async () => {
  const closed = await openTab();
  closed.keepPending('larkholt', [queueOf('left')]);
  const living = await openTab();
  living.keepPending('larkholt', [queueOf('mine')]);
  closed.close();
  const next = await openTab();
  next.keepPending('fennimore', []);
  expect(await next.leftBehind('larkholt')).toEqual([queueOf('left')]);
  expect(await next.leftBehind('larkholt')).toEqual([]);
  expect([...device.values.values()].join()).toContain('mine');
  expect([...device.values.values()].join()).not.toContain('left');
});

test('a tab that was made as a copy of another keeps its own under a name of its own', async () => {
  const first = await openTab();
  first.keepPending('larkholt', [queueOf('first')]);
  const copy = await openTab(new Map(first.memory));
  copy.keepPending('larkholt', [queueOf('copy')]);
  expect([...device.values.values()].filter((value) => value.includes('first'))).toHaveLength(1);
  expect([...device.values.values()].filter((value) => value.includes('copy'))).toHaveLength(1);
});

test('storage that holds rubbish, or none at all, harms nothing', async () => {
  const tab = await openTab();
  expect(tab.keepPending('larkholt', [queueOf('a')])).toBe(true);
  for (const key of device.values.keys()) device.values.set(key, '{broken');
  expect(tab.pendingOf('larkholt')).toEqual([]);
  Object.defineProperty(globalThis, 'localStorage', {
    get: () => {
      throw new Error('forbidden');
    },
    configurable: true,
  });
  expect(tab.keepPending('larkholt', [queueOf('b')])).toBe(false);
  expect(tab.keepPending('larkholt', [])).toBe(true);
  expect(tab.pendingOf('larkholt')).toEqual([]);
});
