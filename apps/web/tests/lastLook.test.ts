/** How a timer last looked is shown again only where nothing on which it depends has changed. */
import 'fake-indexeddb/auto';
import { beforeEach, expect, test } from '@jest/globals';
import { Dexie } from 'dexie';
import { OF_DEVICE, SESSION_PATH } from '../src/kept/keeping.ts';
import { mayFit } from '../src/kept/keepLook.ts';
import { forget, keepAnswer } from '../src/kept/kept.ts';
import { basisOf, lookPath, type LastLook } from '../src/kept/look.ts';
import { lookOf } from '../src/kept/showLook.ts';
import { queueOf } from './queues.ts';
import { storage } from './storage.ts';

Object.assign(Dexie.dependencies, { indexedDB, IDBKeyRange });

const define = (name: string, value: unknown) =>
  Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });

const TIMER = '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c02';
const OWNER = 'firm.ann';
const PERSON = { id: 'ann', companyId: 'firm' };
const values = new Map<string, string>();
let application = '';

const look = (): LastLook => ({
  ...{ html: '<p>Clear</p>', styles: '', ofPage: '', width: 1280, until: 0 },
  ...{ words: 'As it stood', wordsOfVerdict: 'Working it out' },
  basis: basisOf(OWNER, TIMER, 7),
});

/** What of it is shown. */
const shown = async () => (await lookOf(TIMER))?.html ?? null;

test('where nothing was ever kept, none is found, and what is kept later finds its place', async () => {
  await expect(lookOf(TIMER)).rejects.toThrow();
  await keepAnswer(OF_DEVICE, SESSION_PATH, { person: PERSON });
  expect(await shown()).toBeNull();
});

beforeEach(() => {
  values.clear();
  define('localStorage', storage(values));
  define('innerWidth', 1280);
  application = '/assets/main-1.js';
  define('document', { querySelector: () => ({ dataset: { main: application } }) });
});

const changes: readonly (readonly [string, () => unknown])[] = [
  ['the timer is another', () => keepAnswer(OWNER, `/api/timers/${TIMER}`, { version: 8 })],
  ['the timer is not kept any more', () => forget(OWNER)],
  ['nobody is signed in', () => keepAnswer(OF_DEVICE, SESSION_PATH, { person: null })],
  [
    'somebody else is signed in',
    () => keepAnswer(OF_DEVICE, SESSION_PATH, { person: { ...PERSON, id: 'ben' } }),
  ],
  [
    'something waits that was entered after it',
    () => values.set(`water-clock:pending:${OWNER}:${TIMER}:tab`, JSON.stringify([queueOf('a')])),
  ],
  ['what waits cannot be read', () => values.set(`water-clock:pending:${OWNER}:${TIMER}:tab`, '{')],
  ['the person likes another look', () => values.set('preferences', '{"theme":"night"}')],
  ['the window is narrower', () => define('innerWidth', 390)],
  [
    'the application is a newer one',
    () => {
      application = '/assets/main-2.js';
    },
  ],
];
test.each(changes)('it is shown again, and not where %s', async (_, change) => {
  await keepAnswer(OF_DEVICE, SESSION_PATH, { person: PERSON });
  await keepAnswer(OWNER, `/api/timers/${TIMER}`, { version: 7 });
  await keepAnswer(OWNER, lookPath(TIMER), look());
  expect(await shown()).toBe('<p>Clear</p>');
  await change();
  expect(await shown().catch(() => null)).toBeNull();
});

test('what waits for another timer changes nothing', async () => {
  await keepAnswer(OF_DEVICE, SESSION_PATH, { person: PERSON });
  await keepAnswer(OWNER, `/api/timers/${TIMER}`, { version: 7 });
  await keepAnswer(OWNER, lookPath(TIMER), look());
  values.set(`water-clock:pending:${OWNER}:another:tab`, JSON.stringify([queueOf('a')]));
  expect(await shown()).toBe('<p>Clear</p>');
});

test.each([
  ['.verdict', true],
  ['.verdict .row', true],
  ['.verdict .absent', false],
  ['.absent, .row > span', true],
  [':where(.absent).row', true],
  ['.row:not(.absent:is(.other))', true],
  ['button', true],
  ['.absent:hover', false],
])('a rule for %s may fit a page with a verdict and a row: %s', (selector, fits) => {
  expect(mayFit(selector, new Set(['verdict', 'row']))).toBe(fits);
});
