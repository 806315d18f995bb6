/** An office's day: gardens found and assigned, changed rules, visits planned and ordered, at both sizes. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { accessibilityFaults, choose, click, House, named, press, sees, type } from './house.ts';

jest.setTimeout(900_000);
let house: House;
let page: Page;
beforeAll(async () => {
  house = await House.open();
  page = await house.at('/sites');
});
afterAll(() => house.close());

const go = (place: string) => house.go(page, place);
const phone = () => page.setViewport({ width: 390, height: 844, isMobile: true, hasTouch: true });
const desk = () => page.setViewport({ width: 1280, height: 800 });

test('gardens are found by what is known of them, chosen, and given to somebody; the columns stay as chosen', async () => {
  await sees(page, '.sites', /Fennimore house.*Wrenfield Terrace/s);
  await type(page, 'Find a site', 'petra');
  await page.waitForFunction(() => document.querySelectorAll('.sites .ant-table-row').length === 1);
  await sees(page, '.sites', /Fennimore house/);
  await click(page, '.sites tbody .ant-checkbox-input');
  await sees(page, '[role=status]', /1 site selected/);
  await choose(page, 'Technician for selected sites', 'Jory Pellaway');
  await page.waitForFunction(() => !document.body.textContent.includes('1 site selected'));
  await go('/sites');
  await click(page, '::-p-text(More filters and columns)');
  await click(page, '.ant-popover .ant-checkbox-wrapper ::-p-text(Technician)');
  await sees(page, '.sites', /Technician.*Jory/s);
  expect(await accessibilityFaults(page)).toEqual([]);
  await page.reload();
  await sees(page, '.sites thead', /Technician/);
});

test('rules that have changed: each garden that breaks them gets a plan, which is looked at, taken, and legal', async () => {
  await go('/library/rules/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1d01');
  await press(page, 'Sites out of compliance');
  await sees(page, 'main', /They apply to 9 sites: 4 break them now/);
  expect(await accessibilityFaults(page)).toEqual([]);
  await press(page, 'Replan all');
  await page.waitForFunction(
    () => /\d need your decision/.test(document.querySelector('[role=status]')?.textContent ?? ''),
    // Four plans on a busy machine.
    { timeout: 600_000 },
  );
  await sees(page, '.replan', /Larkholt.*do not allow.*The rules are kept/s);
  await sees(page, '.replan', /Marram Lodge.*no plan found/s);
  expect(await accessibilityFaults(page)).toEqual([]);
  await press(page, 'Review Fennimore house');
  await sees(page, '.ant-drawer-body', /Set now.*Suggested.*At the timer: \d+ settings/s);
  await sees(page, '.ant-drawer-body', /Hello Petra Fennimore.*The watering rules of Ostrelle/s);
  expect(await accessibilityFaults(page)).toEqual([]);
  await press(page, 'Accept');
  await sees(page, '.replan', /Fennimore house.*accepted/s);
  await phone();
  await sees(page, '.replan', /Larkholt.*needs your decision/s);
  expect(await accessibilityFaults(page)).toEqual([]);
  await desk();
  await press(page, 'Add 2 visits to the calendar');
  await sees(page, '[role=status]', /2 visits planned\. Choose days/);
  await press(page, 'Accept all 2');
  await press(page, 'Accept all');
  await sees(page, 'main', /3 decided, 1 without a plan/);
  await go('/sites?show=breach');
  await page.waitForFunction(() => document.querySelectorAll('.sites .ant-table-row').length === 1);
  await sees(page, '.sites', /Marram Lodge/);
});

test('a visit gets its day and its person, and the day its order', async () => {
  await go('/calendar?view=open');
  await sees(page, 'main', /No date yet.*Larkholt.*Replanned for Ostrelle district/s);
  const today = new Date().toISOString().slice(0, 10);
  for (const name of ['Larkholt', 'Wrenfield Terrace']) {
    await press(page, `Plan: ${name}`);
    await choose(page, 'Technician', 'Jory Pellaway');
    const day = await page.waitForSelector(named('Date (optional)'));
    await day?.click();
    await page.keyboard.type(today);
    await page.keyboard.press('Tab');
    await press(page, 'Plan visit');
    await page.waitForSelector('.ant-modal', { hidden: true });
  }
  await go('/');
  await sees(page, '.today', /Larkholt.*Jory.*Wrenfield Terrace.*Jory/s);
  expect(await accessibilityFaults(page)).toEqual([]);
  const names = () =>
    page.$$eval('section[aria-labelledby=today-visits] li a', (all) =>
      all.map((a) => a.textContent),
    );
  const before = await names();
  // By keyboard: pick up, move down, drop.
  const handle = await page.waitForSelector(`[aria-label="Move ${before[0]}"]`);
  await handle?.focus();
  for (const key of ['Space', 'ArrowDown', 'Space'] as const) {
    await page.keyboard.press(key);
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
  await page.waitForFunction(
    (first) =>
      document.querySelector('section[aria-labelledby=today-visits] li a')?.textContent !== first,
    {},
    before[0],
  );
  await page.reload();
  await page.waitForSelector('section[aria-labelledby=today-visits] li a');
  expect(await names()).toEqual([before[1], before[0], ...before.slice(2)]);
  await go('/calendar?view=month');
  await sees(page, '.ant-picker-calendar', /Larkholt|Wrenfield Terrace/);
  expect(await accessibilityFaults(page)).toEqual([]);
  await phone();
  await go('/calendar');
  await sees(page, 'main', /Larkholt/);
  expect(await accessibilityFaults(page)).toEqual([]);
  await desk();
});
