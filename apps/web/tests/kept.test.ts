/** Stored answers: by person, encrypted, limited, deleted at sign-out, and used when the server cannot be reached. */
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { Dexie } from 'dexie';
import { IDBKeyRange, indexedDB } from 'fake-indexeddb';
import { request, RefusedError, UnreachableError } from '../src/data/api/request.ts';
import { prefetch } from '../src/data/offline/prefetch.ts';
import { workFor } from '../src/data/api/whose.ts';
import {
  changedBy,
  syncStatus,
  isKept,
  isWorthKeeping,
  OF_DEVICE,
} from '../src/data/offlineCache/keeping.ts';
import {
  forget,
  keepAnswer,
  keptAnswer,
  keptPaths,
  MOST_KEPT_BYTES,
  MOST_KEPT_DAYS,
  prune,
} from '../src/data/offlineCache/kept.ts';

Object.assign(Dexie.dependencies, { indexedDB, IDBKeyRange });

const TIMER = '/api/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c02';
const DAY = 86_400_000;
const NOW = Date.UTC(2027, 5, 15);

afterEach(async () => forget('ann', 'ben', OF_DEVICE, 'company.ann'));

describe('the device', () => {
  test('gives back what was kept, the newest of it, to nobody else, and nothing after sign-out', async () => {
    await keepAnswer('ann', TIMER, { name: 'Quince' }, NOW);
    await keepAnswer('ann', TIMER, { name: 'Quince', version: 2 }, NOW + 1000);
    expect(await keptAnswer('ann', TIMER)).toEqual({
      body: { name: 'Quince', version: 2 },
      at: NOW + 1000,
    });
    expect(await keptAnswer('ben', TIMER)).toBeNull();
    await keepAnswer('ben', TIMER, { name: 'Quince' }, NOW);
    await forget('ann');
    expect(await keptAnswer('ann', TIMER)).toBeNull();
    expect(await keptPaths('ann')).toEqual([]);
    expect((await keptPaths('ben')).map(({ path }) => path)).toEqual([TIMER]);
  });

  test('what lies there cannot be read without the key, nor with the key of another', async () => {
    await keepAnswer('ann', TIMER, { name: 'Quince cottage' }, NOW);
    const database = await new Dexie('water-clock-kept').open();
    const [row] = (await database.table('answers').toArray()) as {
      data: ArrayBuffer;
      owner: string;
    }[];
    if (!row) throw new Error('nothing is kept');
    expect(new TextDecoder().decode(row.data)).not.toContain('Quince');
    await keepAnswer('ben', '/api/library/rules', [], NOW);
    await database.table('answers').put({ ...row, owner: 'ben' });
    expect(await keptAnswer('ben', TIMER)).toBeNull();
    const keys = (await database.table('keys').toArray()) as { key: CryptoKey }[];
    expect(keys.every(({ key }) => !key.extractable)).toBe(true);
    database.close();
  });

  test('what is too old goes, then the oldest until the rest fits', async () => {
    await keepAnswer('ann', '/api/library/rules', 'old', NOW - (MOST_KEPT_DAYS + 1) * DAY);
    const third = 'x'.repeat(Math.floor(MOST_KEPT_BYTES / 2.5));
    await keepAnswer('ann', '/api/library/kinds', third, NOW - 3);
    await keepAnswer('ann', '/api/library/minutes', third, NOW - 2);
    await keepAnswer('ben', '/api/library/office', third, NOW - 1);
    await prune(NOW);
    expect((await keptPaths('ann')).map(({ path }) => path)).toEqual(['/api/library/minutes']);
    expect(await keptPaths('ben')).toHaveLength(1);
  });
});

test.each([
  [TIMER, true],
  [`${TIMER}/proposals`, true],
  ['/api/session', true],
  ['/api/library/kinds', true],
  ['/api/timers?show=all&page=1&size=20', false],
  [`${TIMER}/events`, false],
  ['/api/photos/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c02', false],
  ['/api/sites/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c02/archive.zip', false],
  ['/api/account/sessions', false],
])('%s is kept: %s', (path, kept) => {
  expect(isKept(path)).toBe(kept);
});

test('that nobody is signed in is kept only on a device on which somebody was', () => {
  const memory = new Map<string, string>();
  const storage = {
    getItem: (key: string) => memory.get(key) ?? null,
    setItem: (key: string, value: string) => memory.set(key, value),
  };
  Object.defineProperty(globalThis, 'localStorage', { value: storage, configurable: true });
  expect(isWorthKeeping('/api/session', { person: null })).toBe(false);
  expect(isWorthKeeping('/api/session', { person: { id: 'ann' } })).toBe(true);
  expect(isWorthKeeping('/api/session', { person: null })).toBe(true);
  expect(isWorthKeeping(TIMER, {})).toBe(true);
});

test('a write makes the kept timer old, and nothing else', () => {
  expect(changedBy(`${TIMER}/changes`)).toBe(TIMER);
  expect(changedBy('/api/library/rules/1/changes')).toBeNull();
  expect(changedBy(TIMER)).toBeNull();
});

describe('in place of the office', () => {
  const answers: (() => Response | Promise<Response>)[] = [];
  const said =
    (body: unknown, status = 200) =>
    () =>
      new Response(JSON.stringify(body), { status, headers: { 'water-clock-api': '1' } });
  const silent = () => Promise.reject(new TypeError('no network'));
  /** Resolves once an answer is encrypted and stored, however long that takes. */
  const untilKept = async () => {
    for (;;) {
      const kept = await keptAnswer('company.ann', TIMER);
      if (kept) return kept;
    }
  };
  beforeEach(() => {
    workFor({ id: 'ann', companyId: 'company' });
    jest.spyOn(globalThis, 'fetch').mockImplementation(async () => {
      const next = answers.shift();
      if (!next) throw new Error('asked too often');
      return next();
    });
  });
  afterEach(() => {
    jest.restoreAllMocks();
  });

  test('the last answer stands in where none comes, and it is said since when; the next one clears that', async () => {
    answers.push(said({ version: 1 }), silent, said({ version: 2 }));
    expect(await request('GET', TIMER)).toEqual({ version: 1 });
    expect(syncStatus.behind()).toBeNull();
    await untilKept();
    expect(await request('GET', TIMER)).toEqual({ version: 1 });
    expect(syncStatus.behind()).toBeLessThanOrEqual(Date.now());
    expect(await request('GET', TIMER)).toEqual({ version: 2 });
    expect(syncStatus.behind()).toBeNull();
  });

  test('what is taken along has to come from the office: what is kept does not count', async () => {
    const answersOf = (answer: () => Response | Promise<Response>) =>
      answers.push(...Array.from({ length: 8 }, () => answer));
    answersOf(said({}));
    expect(await prefetch([TIMER.split('/').at(-1) ?? ''])).toBe(0);
    await untilKept();
    answersOf(silent);
    expect(await prefetch([TIMER.split('/').at(-1) ?? ''])).toBe(8);
    expect(answers).toHaveLength(0);
  });

  test('a refusal stays one, and what was never kept cannot be reached', async () => {
    answers.push(said({ version: 1 }), said({ code: 'not-found' }, 404), silent, silent);
    await request('GET', TIMER);
    await untilKept();
    await expect(request('GET', TIMER)).rejects.toBeInstanceOf(RefusedError);
    await expect(request('GET', '/api/library/rules')).rejects.toBeInstanceOf(UnreachableError);
    await expect(request('POST', `${TIMER}/changes`, {})).rejects.toBeInstanceOf(UnreachableError);
  });

  test('after a write the timer is fetched again, once for a burst, so that what is kept is not older', async () => {
    jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] });
    answers.push(said({}), said({}), said({ version: 3 }));
    await request('POST', `${TIMER}/changes`, { id: '1' });
    await request('POST', `${TIMER}/changes`, { id: '2' });
    await jest.advanceTimersByTimeAsync(2500);
    jest.useRealTimers();
    expect(answers).toHaveLength(0);
    expect((await untilKept()).body).toEqual({ version: 3 });
  });
});
