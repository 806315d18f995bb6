/** What is kept and has no look of today is drawn out of sight, one after the other, and only while nobody needs the page. */
import 'fake-indexeddb/auto';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { Dexie } from 'dexie';
import { workFor } from '../src/api/whose.ts';
import { OF_DEVICE, SESSION_PATH } from '../src/kept/keeping.ts';
import { forget, keepAnswer } from '../src/kept/kept.ts';
import { basisOf, lookPath, type LastLook } from '../src/kept/look.ts';
import { drawLooks } from '../src/offline/drawLooks.ts';
import { queueOf } from './queues.ts';
import { storage } from './storage.ts';

Object.assign(Dexie.dependencies, { indexedDB, IDBKeyRange });

const PERSON = { id: 'ann', companyId: 'firm' };
const OWNER = 'firm.ann';
const NOW = Date.UTC(2027, 5, 15, 12);
const HOUR = 3_600_000;
const idOf = (n: number) => `6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c${n}`;
const values = new Map<string, string>();
/** The frames that were made, and those that are there. */
let made: string[] = [];
const there = new Set<EventTarget>();
const window = new EventTarget();
const page = { hidden: false };
/** Whether a page that is drawn becomes whole. */
let isWhole = true;

const define = (name: string, value: unknown) =>
  Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });

async function keep(n: number, until?: number) {
  await keepAnswer(OWNER, `/api/timers/${idOf(n)}`, { version: 7 }, NOW - n);
  if (until === undefined) return;
  const look: LastLook = {
    ...{ html: '', styles: '', ofPage: '', width: 390, until },
    ...{ words: '', wordsOfVerdict: '', basis: basisOf(OWNER, idOf(n), 7) },
  };
  await keepAnswer(OWNER, lookPath(idOf(n)), look);
}

beforeEach(async () => {
  jest.useFakeTimers({ now: NOW, doNotFake: ['setImmediate', 'nextTick', 'queueMicrotask'] });
  values.clear();
  made = [];
  isWhole = true;
  page.hidden = false;
  define('localStorage', storage(values));
  define('innerWidth', 390);
  define('innerHeight', 844);
  define('addEventListener', window.addEventListener.bind(window));
  const frame = () =>
    Object.assign(new EventTarget(), {
      style: {},
      src: '',
      remove(this: EventTarget) {
        there.delete(this);
      },
    });
  const append = (one: ReturnType<typeof frame>) => {
    made.push(one.src.slice(-2));
    there.add(one);
    if (isWhole) setTimeout(() => one.dispatchEvent(new Event('water-clock:drawn')), 4000);
  };
  define(
    'document',
    Object.assign(page, { querySelector: () => null, createElement: frame, body: { append } }),
  );
  workFor(PERSON);
  await keepAnswer(OF_DEVICE, SESSION_PATH, { person: PERSON });
});
afterEach(async () => {
  jest.useRealTimers();
  await forget(OWNER, OF_DEVICE);
});

/** Lets them be drawn. @returns leaves the page, and lets so many seconds pass: what takes time of its own, such as a cipher, is waited for */
function begin() {
  const left = new AbortController();
  let isOver = false;
  void drawLooks(left.signal).then(() => {
    isOver = true;
  });
  const settled = async () => {
    while (!isOver && jest.getTimerCount() === 0)
      await new Promise((resolve) => setImmediate(resolve));
  };
  return {
    leave: () => left.abort(),
    pass: async (seconds: number) => {
      for (let n = 0; n < seconds * 4; n++) {
        await settled();
        await jest.advanceTimersByTimeAsync(250);
      }
      await settled();
    },
  };
}

test('the newest first, and not what has its look of today or waits to be sent', async () => {
  await keep(13);
  await keep(10, NOW + HOUR);
  await keep(12, NOW - HOUR);
  await keep(11);
  values.set(`water-clock:pending:${OWNER}:${idOf(11)}:tab`, JSON.stringify([queueOf('a')]));
  const { pass } = begin();
  await pass(1);
  expect(made).toEqual(['12']);
  expect(there.size).toBe(1);
  await pass(10);
  expect(made).toEqual(['12', '13']);
  expect(there.size).toBe(0);
});

test('not while somebody presses something or looks elsewhere, nor once the page is left', async () => {
  await keep(20);
  await keep(21);
  page.hidden = true;
  const { pass, leave } = begin();
  await pass(1);
  expect(made).toEqual([]);
  page.hidden = false;
  window.dispatchEvent(new Event('pointerdown'));
  await pass(2);
  expect(made).toEqual([]);
  await pass(2);
  expect(made).toEqual(['20']);
  leave();
  await pass(10);
  expect(made).toEqual(['20']);
  expect(there.size).toBe(0);
});

test('three in vain are enough, and are not tried again', async () => {
  isWhole = false;
  for (const n of [30, 31, 32, 33]) await keep(n);
  await begin().pass(100);
  expect(made).toEqual(['30', '31', '32']);
  isWhole = true;
  await begin().pass(10);
  expect(made).toEqual(['30', '31', '32', '33']);
});
