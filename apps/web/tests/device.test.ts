/** What waits on a device belongs to one person: no one else finds, sends or deletes it, and sign-out says what would be lost. */
import { beforeEach, expect, test } from '@jest/globals';
import { queueOf } from './queues.ts';
import { storage } from './storage.ts';

const values = new Map<string, string>();
const outboxes = new Map<string, Map<string, Response>>();
const sent: { path: string; person: string | undefined }[] = [];
let reloads = 0;

const define = (name: string, value: unknown) =>
  Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });

beforeEach(() => {
  values.clear();
  outboxes.clear();
  sent.length = 0;
  reloads = 0;
  define('localStorage', storage(values));
  define('sessionStorage', {
    getItem: () => null,
    setItem: () => undefined,
    clear: () => undefined,
  });
  define('navigator', {});
  define('location', { reload: () => void reloads++ });
  define('caches', {
    open: (name: string) => {
      const box = outboxes.get(name) ?? new Map<string, Response>();
      outboxes.set(name, box);
      return Promise.resolve({
        keys: () => Promise.resolve([...box.keys()].map((url) => ({ url }))),
        match: ({ url }: { url: string }) => Promise.resolve(box.get(url)),
        delete: ({ url }: { url: string }) => Promise.resolve(box.delete(url)),
      });
    },
    delete: (name: string) => Promise.resolve(outboxes.delete(name)),
  });
  define('fetch', (path: string, init: { headers: Record<string, string> }) => {
    sent.push({ path, person: init.headers['water-clock-person'] });
    return Promise.resolve(
      new Response('{}', { status: 200, headers: { 'water-clock-api': '1' } }),
    );
  });
});

const TAMSIN = { id: 'tamsin', companyId: 'brindlewick' };
const JORY = { id: 'jory', companyId: 'brindlewick' };

/** A page in this browser; its modules are shared within the page only. */
async function openPage(person: typeof TAMSIN) {
  const whose = await import('../src/data/api/whose.ts');
  const pending = await import('../src/data/editor/pendingWrites.ts');
  const photos = await import('../src/shared/photos/photos.ts');
  const people = await import('../src/office/account/device.ts');
  const requests = await import('../src/data/api/request.ts');
  whose.workFor(person);
  return { ...whose, ...pending, ...photos, ...people, ...requests };
}

test('it is found, counted, sent and deleted for its own person alone', async () => {
  const tamsin = await openPage(TAMSIN);
  tamsin.keepPending('larkholt', [queueOf('a', 'b')]);
  const photo = '/api/photos/p1';
  outboxes.set('water-clock-photos:brindlewick.tamsin', new Map([[photo, new Response('jpeg')]]));
  // `new URL` needs a whole address.
  const [box] = outboxes.values();
  box?.set(`http://x${photo}`, box.get(photo) ?? new Response());
  box?.delete(photo);
  expect(tamsin.unsentWords(await tamsin.unsentHere())).toBe('2 changes and one photo');

  // The same browser after someone else signed in: the page reloads.
  const jory = await openPage(JORY);
  expect(reloads).toBe(1);
  expect(jory.pendingOf('larkholt')).toEqual([]);
  expect(jory.unsentWords(await jory.unsentHere())).toBeNull();
  expect(await jory.sendWaiting()).toBe(0);
  expect(sent).toEqual([]);
  values.set('preferences', '{"theme":"night"}');
  await jory.clearTimer();
  expect([...values.keys()].some((key) => key.includes('brindlewick.tamsin'))).toBe(true);
  expect(values.has('preferences')).toBe(false);

  const again = await openPage(TAMSIN);
  expect(again.pendingOf('larkholt')).toEqual([queueOf('a', 'b')]);
  expect(await again.sendWaiting()).toBe(0);
  expect(sent).toEqual([{ path: photo, person: 'tamsin' }]);
  await again.clearTimer();
  expect(values.size).toBe(0);
  expect(again.unsentWords(await again.unsentHere())).toBeNull();
});

test('every request says for whom it is', async () => {
  const page = await openPage(JORY);
  await page.request('POST', '/api/timers/x/changes', {});
  expect(sent).toEqual([{ path: '/api/timers/x/changes', person: 'jory' }]);
});
