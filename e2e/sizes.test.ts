/** Every page and every step at every size: nothing is cut off or scrolls sideways, all of it can be pressed and read out. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { accessibilityFaults, FENNIMORE, House } from './house.ts';

jest.setTimeout(240_000);
let house: House;
beforeAll(async () => {
  house = await House.open();
});
afterAll(() => house.close());

const STEPS = [
  ...[
    '/house',
    '/timer',
    '/clock',
    '/found',
    '/seen',
    '/stations',
    '/walk/1',
    '/minutes',
    '/brief',
  ],
  ...[
    '/plan',
    '',
    '?view=year',
    '?view=fortnight',
    '/settings',
    '/keyin',
    '/leave',
    '/page',
    '/log',
  ],
];
const PAGES = [
  '/',
  '/sites',
  '/calendar',
  '/library',
  '/firm',
  '/account',
  '/sites/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b02',
  ...STEPS.map((step) => `${FENNIMORE}${step}`),
];
const SIZES = [
  [390, 844],
  [768, 1024],
  [1280, 800],
  [1920, 1080],
] as const;

const sideways = (page: Page) =>
  page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);

/** What a finger has to hit. */
const TARGETS =
  'button, input.ant-input, .ant-select, .ant-picker, a.ant-btn, .foot-place, .ant-collapse-header, [role=menuitem]';

test.each(PAGES)(
  '%s at every size: nothing is cut off, all of it can be pressed and read out',
  async (address) => {
    const page = await house.at(address);
    await page.setViewport({ width: 390, height: 844 });
    await page.waitForSelector('.foot');
    await page.waitForSelector('h1, h2');
    await page.waitForFunction(() => !document.body.textContent?.includes('Fetching'));
    await page.evaluate(() =>
      document
        .querySelectorAll('.ant-collapse-header[aria-expanded=false], .walk [aria-expanded=false]')
        .forEach((one) => (one as HTMLElement).click()),
    );
    const small = await page.$$eval(TARGETS, (all) =>
      all
        .filter((one) => one.getClientRects().length > 0)
        .filter((one) => one.getBoundingClientRect().height < 43.5)
        .map((one) => `${one.className} ${one.textContent} ${one.getBoundingClientRect().height}`),
    );
    expect(small).toEqual([]);
    if (address.startsWith('/timers')) {
      const left = await page.evaluate(() => {
        const heightOf = (selector: string) =>
          document.querySelector(selector)?.getBoundingClientRect().height ?? 0;
        return innerHeight - heightOf('.bar') - heightOf('.verdict') - heightOf('.foot');
      });
      expect(left).toBeGreaterThanOrEqual(560);
    }
    expect(await accessibilityFaults(page)).toEqual([]);
    for (const [width, height] of SIZES) {
      await page.setViewport({ width, height });
      await page.evaluate(() => new Promise(requestAnimationFrame));
      expect([width, await sideways(page)]).toEqual([width, 0]);
      if (width === 1280) expect(await accessibilityFaults(page)).toEqual([]);
    }
    await page.close();
  },
);
