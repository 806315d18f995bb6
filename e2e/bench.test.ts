/** The bench: a timer is keyed in, left to run, rained on and cut off, by mouse, keyboard and touch. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { KeyInput, Page } from 'puppeteer-core';
import { SHIPPED_TASKS, type BenchKey } from '@water-clock/core';
import { isLong } from '../packages/core/tests/cases.ts';
import { accessibilityFaults, choose, click, FENNIMORE, House, press, sees } from './house.ts';

jest.setTimeout(900_000);
let house: House;
let page: Page;
beforeAll(async () => {
  house = await House.open();
  page = await house.at('/bench?kind=Four-station wall timer');
});
afterAll(() => house.close());

const shown = () => page.$eval('.bench-screen', (screen) => (screen as HTMLElement).innerText);

const BY_KEYBOARD = { 'Page on': 'ArrowRight', More: 'ArrowUp', Less: 'ArrowDown' } as const;

/** Presses a key until the display shows something: by touch on a phone, otherwise by keyboard. */
async function until(key: keyof typeof BY_KEYBOARD, pattern: RegExp, most = 120): Promise<void> {
  if (!page.viewport()?.hasTouch) await page.focus(`[aria-label="${key}"]`);
  for (let n = 0; n < most && !pattern.test(await shown()); n++)
    await (page.viewport()?.hasTouch ? press(page, key) : page.keyboard.press(BY_KEYBOARD[key]));
  expect(await shown()).toMatch(pattern);
}

test('a start, a run and the days are keyed in, and the box waters by itself', async () => {
  await sees(page, 'h1', /Bench/);
  expect(await accessibilityFaults(page)).toEqual([]);
  await press(page, 'Pause time');
  await until('Page on', /start time 1 of/);
  await until('Less', /11:45/);
  await until('Page on', /station 2/);
  await until('More', /0:05/);
  await until('Page on', /days/);
  await until('More', /EVERY DAY/);
  await press(page, 'Next event');
  await sees(page, '.bench-wet', /running, 4:59 left/);
  await sees(page, 'main', /A of 23:45 began/);
  await sees(page, '[aria-label="Station lights"] .heavy', /2/);
  expect(await accessibilityFaults(page)).toEqual([]);
});

test('rain takes the water, power the display; a clock that stood still is set by keys alone', async () => {
  await press(page, 'Rain starts');
  await press(page, 'Next event');
  await sees(page, '[aria-label="The garden"]', /no water|min/);
  expect(await page.$('.bench-wet')).toBeNull();
  await press(page, 'Rain stops');
  await press(page, 'Power fails');
  await sees(page, '.bench-screen', /The display is blank/);
  await press(page, 'Power comes back');
  await page.focus('[aria-label="Page on"]');
  await page.keyboard.press('ArrowRight');
  await sees(page, '.bench-screen', /year/);
  await page.keyboard.press('ArrowUp');
  await sees(page, '.bench-screen', /year.*20\d\d/s);
  await choose(page, 'Valve stays open', 'station 2');
  await sees(page, 'main', /Station 2: a valve that does not close/);
});

test('the wiring test tells a broken circuit, a short and a valve that is shut apart', async () => {
  await choose(page, 'Open circuit', 'station 1');
  await choose(page, 'Shorted coil', 'station 3');
  await choose(page, 'Valve stays closed', 'station 4');
  await press(page, 'Wiring test');
  const rows = await page.$$eval('table tbody tr', (all) => all.map((row) => row.innerText));
  expect(rows.map((row) => /Open circuit|Short circuit|Good wiring/.exec(row)?.[0])).toEqual([
    ...['Open circuit', 'Good wiring', 'Short circuit', 'Good wiring'],
  ]);
  expect(rows[0]).toMatch(/Next: take its wire off the terminal/);
  expect(await accessibilityFaults(page)).toEqual([]);
});

test('by touch, a timer of the office beside its card, from an empty box', async () => {
  await page.setViewport({ width: 390, height: 844, isMobile: true, hasTouch: true });
  const id = await page.evaluate(async () => {
    const answer = await fetch('/api/timers?find=fennimore');
    const { lines } = (await answer.json()) as { lines: { id: string }[] };
    return lines[0]?.id ?? '';
  });
  await house.go(page, `/bench?timer=${id}`);
  await sees(page, 'main', /Fennimore house/);
  await sees(page, 'main', /Everything is keyed in/);
  await page.evaluate(() =>
    [...document.querySelectorAll('.ant-segmented-item-label')]
      .find((one) => one.textContent === 'Empty timer')
      ?.parentElement?.click(),
  );
  await sees(page, 'main', /\d+ lines are left/);
  await until('Page on', /start time 1 of/);
  const width = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(width).toBeLessThanOrEqual(390);
  expect(await accessibilityFaults(page)).toEqual([]);
});

test('a task is not done by doing nothing; done, it is kept; a hint and a wrong answer are told', async () => {
  await page.setViewport({ width: 1280, height: 800 });
  await house.go(page, '/bench/tasks');
  await sees(page, 'main', /1\. Set the clock.*22\. Fourteen stations/s);
  expect(await accessibilityFaults(page)).toEqual([]);
  await click(page, 'a::-p-text(“Nothing since the weekend”)');
  await press(page, 'Done');
  await sees(page, '[role=alert]', /Not yet.*That was not the fault\..*should start but does not/s);
  await press(page, 'Hint');
  await sees(page, 'main', /Look at the clock page/);
  expect(await shown()).toMatch(/rain delay/);
  await page.focus('[aria-label="Page on"]');
  for (let n = 0; n < 12 && !/rain delay.*page/s.test(await shown()); n++)
    await page.keyboard.press('ArrowLeft');
  await until('Less', /OFF/);
  await choose(page, 'What is wrong?', 'a rain delay was forgotten');
  await press(page, 'Done');
  await sees(page, '[role=alert]', /Done: \d\d of 100 points/);
  expect(await accessibilityFaults(page)).toEqual([]);
  await house.go(page, '/bench/tasks');
  await sees(page, 'main', /“Nothing since the weekend”.*done, \d\d/s);
  await click(page, 'a::-p-text(medium)');
  await sees(page, 'main', /Random task \d+, level 3/);
  await house.go(page, '/bench/random/99/absurd');
  await sees(page, 'main', /This page does not exist/);
});

test('the office makes a task of a garden; it is kept, and taken out again', async () => {
  await page.setViewport({ width: 1280, height: 800 });
  await house.go(page, `/bench?timer=${FENNIMORE.split('/').at(-1)}`);
  await press(page, 'Make a task from this');
  await sees(page, '.ant-modal', /Make a task from this garden/);
  expect(await accessibilityFaults(page)).toEqual([]);
  await press(page, 'Create task');
  await sees(page, 'main', /Office task/);
  await sees(page, '[aria-label="The task"]', /A new timer and a card from the office/);
  await press(page, 'Done');
  await sees(page, '[role=alert]', /Not yet/);
  await house.go(page, '/bench/tasks');
  const office = '[aria-labelledby="office-tasks"]';
  await sees(page, office, /Key in this garden.*medium/s);
  expect(await accessibilityFaults(page)).toEqual([]);
  await press(page, 'Delete');
  await page.waitForFunction(
    (where) => !/Key in this garden/.test(document.querySelector(where)?.textContent ?? ''),
    {},
    office,
  );
});

const KEYBOARD: Readonly<Record<BenchKey, KeyInput>> = {
  'page-back': 'ArrowLeft',
  'page-on': 'ArrowRight',
  less: 'ArrowDown',
  more: 'ArrowUp',
  program: 'p',
  'by-hand': 'h',
  store: 's',
  rest: 'r',
};

/** Presses the keys of a stored solution on the keyboard. */
async function solve(id: string): Promise<void> {
  const keys = SHIPPED_TASKS.find((one) => one.id === id)?.task.solution.keys ?? [];
  await page.focus('[aria-label="Page on"]');
  for (const { key, times, fast = false } of keys) {
    if (fast) await page.keyboard.down('Shift');
    for (let n = 0; n < times; n++) await page.keyboard.press(KEYBOARD[key]);
    if (fast) await page.keyboard.up('Shift');
  }
}

test('after a wrong key one sees one’s presses again, with the one after which it was worse', async () => {
  await page.setViewport({ width: 1280, height: 800 });
  await house.go(page, '/bench/tasks/set-02-start');
  await press(page, 'Pause time');
  await solve('set-02-start');
  await page.keyboard.press('r');
  await press(page, 'Done');
  const again = '[aria-label="Replay"]';
  await sees(page, again, /\d+ of \d+: The key “.+”.*After this press it was worse than before/s);
  expect(await accessibilityFaults(page)).toEqual([]);
  await press(page, 'Previous press');
  await page.waitForFunction(
    (where) => !/worse/.test(document.querySelector(where)?.textContent ?? ''),
    {},
    again,
  );
});

const SIZES = [
  ['a desk', { width: 1280, height: 800 }],
  ['a phone', { width: 390, height: 844, isMobile: true, hasTouch: true }],
] as const;

const [DESK, HAND] = SIZES;
test.each(isLong ? SIZES : [HAND])(
  'the hard task is done from the card, by keys alone, on %s',
  async (_, size) => {
    const id = 'set-14-fourteen-stations';
    await page.setViewport(size);
    await house.go(page, `/bench/tasks/${id}`);
    await press(page, 'Pause time');
    await solve(id);
    await sees(page, 'main', /Everything is keyed in/);
    await press(page, 'Done');
    await sees(page, '[role=alert]', /Done: \d+ of 100 points/);
  },
);

test.each(isLong ? SIZES : [DESK])('an easy task is done by hand on %s', async (_, size) => {
  const id = 'set-02-start';
  await page.setViewport(size);
  await house.go(page, `/bench/tasks/${id}`);
  await sees(page, 'h1', /Give it a start time/);
  await until('Page on', /start time 1 of/);
  await until('More', /5:00/, 30);
  await press(page, 'Done');
  await sees(page, '[role=alert]', /Done: \d+ of 100 points/);
  const width = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(width).toBeLessThanOrEqual(size.width);
  expect(await accessibilityFaults(page)).toEqual([]);
});
