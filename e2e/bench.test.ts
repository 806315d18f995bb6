/** The bench: a box is keyed in, left to itself, rained on and cut off, by mouse, by keys and by touch. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { accessibilityFaults, choose, House, press, sees } from './house.ts';

jest.setTimeout(240_000);
let house: House;
let page: Page;
beforeAll(async () => {
  house = await House.open();
  page = await house.at('/bench?kind=Four-station wall timer');
});
afterAll(() => house.close());

const shown = () => page.$eval('.bench-screen', (screen) => (screen as HTMLElement).innerText);

const BY_KEYBOARD = { 'Page on': 'ArrowRight', More: 'ArrowUp', Less: 'ArrowDown' } as const;

/** Presses a key until the display says something: by touch on a phone, else by the keyboard. */
async function until(key: keyof typeof BY_KEYBOARD, pattern: RegExp, most = 120): Promise<void> {
  if (!page.viewport()?.hasTouch) await page.focus(`[aria-label="${key}"]`);
  for (let n = 0; n < most && !pattern.test(await shown()); n++)
    await (page.viewport()?.hasTouch ? press(page, key) : page.keyboard.press(BY_KEYBOARD[key]));
  expect(await shown()).toMatch(pattern);
}

test('a start, a run and the days are keyed in, and the box waters by itself', async () => {
  await sees(page, 'h1', /Bench/);
  expect(await accessibilityFaults(page)).toEqual([]);
  await press(page, 'Stop the time');
  await until('Page on', /start 1 of/);
  await until('Less', /11:45/);
  await until('Page on', /station 2/);
  await until('More', /0:05/);
  await until('Page on', /days/);
  await until('More', /EVERY DAY/);
  await press(page, 'Next event');
  await sees(page, '.bench-bed.bench-wet', /runs, 4:59 left/);
  await sees(page, 'main', /A of 23:45 began/);
  await sees(page, '.bench-on', /2/);
  expect(await accessibilityFaults(page)).toEqual([]);
});

test('rain takes the water, power the display; a clock that stood still is set by keys alone', async () => {
  await press(page, 'It rains');
  await press(page, 'Next event');
  await sees(page, '[aria-label="The garden"]', /no water|min/);
  expect(await page.$('.bench-wet')).toBeNull();
  await press(page, 'The rain ends');
  await press(page, 'Power fails');
  await sees(page, '.bench-screen', /The display is blank/);
  await press(page, 'Power comes back');
  await page.focus('[aria-label="Page on"]');
  await page.keyboard.press('ArrowRight');
  await sees(page, '.bench-screen', /year/);
  await page.keyboard.press('ArrowUp');
  await sees(page, '.bench-screen', /year.*20\d\d/s);
  await choose(page, 'A valve does not close', 'station 2');
  await sees(page, 'main', /the valve of station 2 sticks/);
});

test('by touch, a timer of the office beside its card, from an empty box', async () => {
  await page.setViewport({ width: 390, height: 844, isMobile: true, hasTouch: true });
  const id = await page.evaluate(async () => {
    const answer = await fetch('/api/timers?find=fennimore');
    const { lines } = (await answer.json()) as { lines: { id: string }[] };
    return lines[0]?.id ?? '';
  });
  await page.goto(`${house.server.url}/bench?timer=${id}`);
  await sees(page, 'main', /Fennimore house/);
  await sees(page, 'main', /All is in the box/);
  await page.evaluate(() =>
    [...document.querySelectorAll('.ant-segmented-item-label')]
      .find((one) => one.textContent === 'Empty box')
      ?.parentElement?.click(),
  );
  await sees(page, 'main', /\d+ lines are left/);
  await until('Page on', /start 1 of/);
  const width = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(width).toBeLessThanOrEqual(390);
  expect(await accessibilityFaults(page)).toEqual([]);
});
