/** What waits on a device outside an open timer: sites added offline, and what a removed person left. */
import { beforeAll, beforeEach, expect, jest, test } from '@jest/globals';
import { siteFields } from '@water-clock/core';
import { keepNewSite, newTimers, sendNewSiteOf } from '../src/data/api/newSites.ts';
import type { TimerView } from '../src/data/api/timers.ts';
import { workFor } from '../src/data/api/whose.ts';
import type * as Leaving from '../src/data/editor/leaveBehind.ts';
import { star, starred } from '../src/data/offline/starred.ts';
import { queueOf } from './queues.ts';
import { storage } from './storage.ts';

const define = (name: string, value: unknown) =>
  Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });

let leaveBehind: typeof Leaving.leaveBehind;
beforeAll(async () => {
  // The module looks for tabs' locks while loading.
  define('navigator', {});
  ({ leaveBehind } = await import('../src/data/editor/leaveBehind.ts'));
});

interface Asked {
  readonly path: string;
  readonly body: Record<string, unknown>;
  readonly person: string | null;
}
let asked: Asked[] = [];
let answer: (asked: Asked) => number = () => 200;
let values = new Map<string, string>();

beforeEach(() => {
  asked = [];
  answer = () => 200;
  values = new Map();
  define('localStorage', storage(values));
  define('fetch', (path: string, init: RequestInit & { body: string }) => {
    const one = {
      path,
      body: JSON.parse(init.body) as Record<string, unknown>,
      person: new Headers(init.headers).get('water-clock-person'),
    };
    asked.push(one);
    const status = answer(one);
    if (status === 0) return Promise.reject(new Error('no network'));
    return Promise.resolve(
      new Response(JSON.stringify(status === 200 ? {} : { code: 'not-found', message: 'no' }), {
        status,
        headers: { 'water-clock-api': '1' },
      }),
    );
  });
});

const COMPANY = 'brindlewick';
const keep = (person: string, timer: string, ...ids: string[]) =>
  values.set(
    `water-clock:pending:${COMPANY}.${person}:${timer}:tab-${ids.join()}`,
    JSON.stringify([queueOf(...ids)]),
  );

test('everything that waits is handed over as who entered it, and taken away once the office has it', async () => {
  keep('wren', 'larkholt', 'a', 'b');
  keep('wren', 'fennimore', 'c');
  expect(await leaveBehind()).toBe(3);
  expect(asked.map(({ path, person }) => [path, person])).toEqual([
    ['/api/left-behind', 'wren'],
    ['/api/left-behind', 'wren'],
  ]);
  expect(asked[0]?.body).toMatchObject({ timerId: 'larkholt', changes: [{}, {}] });
  expect(values.size).toBe(0);
});

test('what the office does not take, or does not get, stays, and goes again under the same id', async () => {
  keep('wren', 'larkholt', 'a');
  keep('tamsin', 'fennimore', 'b');
  answer = ({ person }) => (person === 'wren' ? 0 : 403);
  expect(await leaveBehind()).toBe(0);
  const [first] = asked.filter(({ person }) => person === 'wren');
  answer = ({ person }) => (person === 'wren' ? 200 : 403);
  expect(await leaveBehind()).toBe(1);
  const again = asked.filter(({ person }) => person === 'wren').at(-1);
  expect(again?.body['id']).toBe(first?.body['id']);
  expect([...values.keys()].join()).toMatch(/tamsin:fennimore/u);
  expect([...values.keys()].join()).not.toMatch(/wren:larkholt/u);
});

test('a house that was noted without a network goes once, and stays where it does not arrive', async () => {
  workFor({ id: 'tamsin', companyId: COMPANY });
  const { base } = queueOf('a');
  const site = siteFields({ name: 'Over the Fence', timeZone: 'Etc/UTC' });
  const made = { siteId: 's', timerId: 't', site, plan: base.plan };
  expect(await keepNewSite(made)).toBe(true);
  expect(newTimers()).toEqual(['t']);
  answer = () => 0;
  await expect(sendNewSiteOf('t')).rejects.toThrow(/cannot be reached/);
  expect(newTimers()).toEqual(['t']);
  answer = () => 200;
  await sendNewSiteOf('t');
  await sendNewSiteOf('t');
  expect(newTimers()).toEqual([]);
  expect(asked.filter(({ path }) => path === '/api/sites')).toHaveLength(2);
  expect(asked.at(-1)?.body).toMatchObject({
    siteId: 's',
    timerId: 't',
    site: { name: site.name },
  });
});

test('a star holds for its person, on this device', () => {
  star(['larkholt', 'fennimore'], true);
  star(['larkholt'], false);
  expect(starred()).toEqual(['fennimore']);
  for (const key of values.keys()) values.set(key, '{broken');
  expect(starred()).toEqual([]);
});

test('where the device has no room, what waits is told to stand in this page only, until there is room', async () => {
  const { editorOf, waiting } = await import('../src/data/editor/editors.ts');
  // A later retry would keep the test running.
  jest.useFakeTimers({ doNotFake: ['setImmediate'] });
  workFor({ id: 'tamsin', companyId: COMPANY });
  answer = () => 0;
  const { base } = queueOf();
  // Only what the editor uses of it.
  const editor = editorOf({ ...base, id: 'full', history: [] } as unknown as TimerView, null);
  const setItem = () => {
    throw new Error('full');
  };
  define('localStorage', { getItem: () => null, setItem, removeItem: () => undefined });
  editor.commit({ type: 'note', fields: { hundredMonth: 2 } });
  expect(waiting()).toMatchObject({ unsaved: 1, isNotKept: false });
  while (editor.snapshot().status !== 'offline') await new Promise(setImmediate);
  expect(waiting()).toMatchObject({ unsaved: 1, isNotKept: true });
  define('localStorage', storage(values));
  editor.commit({ type: 'note', fields: { hundredMonth: 3 } });
  expect(waiting()).toMatchObject({ unsaved: 2, isNotKept: false });
});
