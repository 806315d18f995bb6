/** Without a network: the page opens, changes wait, and all of them arrive. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import {
  accessibilityFaults,
  click,
  FENNIMORE,
  headline,
  House,
  isKept,
  press,
  QUINCE_COTTAGE,
  saved,
  sees,
} from './house.ts';

jest.setTimeout(900_000);
let house: House;
let page: Page;
beforeAll(async () => {
  house = await House.open({}, true);
  page = await house.at(FENNIMORE);
  // Leaving with unsent changes asks first.
  page.on('dialog', (dialog) => void dialog.accept());
});
afterAll(() => house.close());

const STATUS = '.timer-tools [role=status]';
const isReady = () =>
  page.evaluate(async () => {
    const { active } = await navigator.serviceWorker.ready;
    for (let n = 0; n < 100 && active?.state !== 'activated'; n++)
      await new Promise((resolve) => setTimeout(resolve, 100));
    return active?.state;
  });
test('after one visit the timer opens without a network, and says since when it may be behind', async () => {
  await sees(page, '.strip', /./);
  const before = await headline(page);
  expect(await isReady()).toBe('activated');
  // The first page's answers came before the service worker was there; the second page is stored completely.
  await page.reload();
  await sees(page, '.strip', /./);
  await new Promise((resolve) => setTimeout(resolve, 1000));
  await page.setOfflineMode(true);
  await page.reload();
  await sees(page, '.strip', /./);
  expect(await headline(page)).toBe(before);
  await sees(page, '[role=status]', /Offline\. You see data from/);
  expect(await accessibilityFaults(page)).toEqual([]);
  for (const step of ['clock', 'stations', 'keyin', 'brief', 'plan']) {
    await page.goto(`${house.server.url}${FENNIMORE}/${step}`);
    await sees(page, 'main', /\w{4}/);
    expect(await page.$('::-p-text(could not be)')).toBeNull();
  }
});

test('what is changed there outlives a reload without a network, and arrives when there is one', async () => {
  await page.goto(`${house.server.url}${FENNIMORE}`);
  await sees(page, '.strip', /./);
  await press(page, 'Move B to a free time');
  await sees(page, STATUS, /We could not confirm your last change/);
  const clear = await headline(page);
  await page.reload();
  await sees(page, '.strip', /./);
  await sees(page, '.verdict', new RegExp(clear.slice(0, 12)));
  await page.setOfflineMode(false);
  await page.reload();
  await saved(page);
  await page.waitForFunction(
    async (path) => {
      const answer = await fetch(`/api${path}`);
      const { plan } = (await answer.json()) as {
        plan: { programs: { letter: string; starts: string[] }[] };
      };
      return !plan.programs.find(({ letter }) => letter === 'B')?.starts.includes('05:15');
    },
    { polling: 500 },
    FENNIMORE,
  );
  await page.waitForFunction(() => !document.body.innerText.includes('Offline. You see data from'));
});

test('a timer that was taken along and never opened here opens without a network', async () => {
  await page.goto(`${house.server.url}/sites/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b03`);
  await press(page, 'Site actions');
  await click(page, '.ant-dropdown-menu-item ::-p-text(Keep offline)');
  // It is loaded last.
  await isKept(page, `/api${QUINCE_COTTAGE}/visits`);
  await page.setOfflineMode(true);
  await page.goto(`${house.server.url}${QUINCE_COTTAGE}`);
  await sees(page, '.verdict[data-of="known"]', /\w{4}/);
  await sees(page, '.strip', /./);
  await page.setOfflineMode(false);
});

test('what is kept stands on one page, and is gone after signing out', async () => {
  await page.goto(`${house.server.url}/device`);
  await sees(page, 'main', /Fennimore house, Eight-station wall timer/);
  await sees(page, 'main', /Nothing is waiting to be sent/);
  expect(await accessibilityFaults(page)).toEqual([]);
  await press(page, 'Refresh');
  await sees(page, 'main', /Everything is synced/);
  await page.evaluate(async () => {
    await fetch('/api/session');
  });
  await press(page, 'Tamsin Orrowby');
  await click(page, '.ant-dropdown-menu-item ::-p-text(Sign out)');
  await page.waitForSelector('.sign-in-demo');
  const left = await page.evaluate(
    () =>
      new Promise<number>((resolve, reject) => {
        const opened = indexedDB.open('water-clock-kept');
        opened.onerror = () => reject(new Error('it does not open'));
        opened.onsuccess = () => {
          const count = opened.result.transaction('answers').objectStore('answers').getAllKeys();
          count.onsuccess = () =>
            resolve(count.result.filter((key) => !/session/.test(JSON.stringify(key))).length);
        };
      }),
  );
  expect(left).toBe(0);
});
