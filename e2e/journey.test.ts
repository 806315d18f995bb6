/** From an empty office to "no overlaps": an eight-station timer set by touch alone on a phone, and by keyboard alone on a desktop. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import type { Plan } from '@water-clock/core';
import { choose, House, named, saved, sees, step } from './house.ts';

jest.setTimeout(900_000);
let house: House;
beforeAll(async () => {
  house = await House.open();
});
afterAll(() => house.close());

/** Settings: by program its start, days (Monday first) and minutes by station. */
const PROGRAMS = [
  ['A', '4a', [1, 4, 6], [22, 14, 30, 30]],
  ['B', '545a', [2, 4, 7], [20, 25, 15]],
  ['C', '730p', [1, 2, 3, 4, 5, 6, 7], [6]],
] as const;
const WEEK = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];
/** First station of each program: A waters 1 to 4, B 5 to 7, C 8. */
const firstStation = (at: number) =>
  1 + PROGRAMS.slice(0, at).reduce((sum, [, , , minutes]) => sum + minutes.length, 0);

async function planOf(page: Page): Promise<Plan> {
  await saved(page);
  return page.evaluate(async () => {
    const [, , id = ''] = location.pathname.split('/');
    return (await fetch(`/api/timers/${id}/export`)).json() as Promise<Plan>;
  });
}

async function isSet(page: Page): Promise<void> {
  await sees(page, '.verdict-headline', /^No overlaps/);
  const { programs } = await planOf(page);
  expect(programs.map(({ letter, starts }) => [letter, starts])).toEqual([
    ['A', ['04:00']],
    ['B', ['05:45']],
    ['C', ['19:30']],
  ]);
  for (const [at, [, , days, minutes]] of PROGRAMS.entries()) {
    expect(programs[at]?.days).toEqual({
      rule: 'weekdays',
      weekdays: days.map((day) => WEEK[day - 1]),
    });
    expect(programs[at]?.runs).toEqual(
      minutes.map((value, i) => ({ station: firstStation(at) + i, seconds: value * 60 })),
    );
  }
}

test('by touch alone, on a phone', async () => {
  const page = await house.at('/', 390, 844);
  let taps = 0;
  const tap = async (selector: string) => {
    taps++;
    const target = await page.waitForSelector(selector);
    await target?.evaluate((one) => one.scrollIntoView({ block: 'center' }));
    await target?.tap();
  };
  const tapNamed = (name: string) => tap(named(name, 'button'));
  /** Taps a field, types on the on-screen keyboard, and presses its enter key. */
  const enter = async (selector: string, text: string) => {
    await tap(selector);
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  };
  await tapNamed('New site');
  await page.waitForSelector('.site-form');
  await choose(page, 'Timer', 'Eight-station wall timer');
  await tap('input[name=name]');
  await page.keyboard.type('Sandpiper Court');
  await tapNamed('Add site');
  await page.waitForSelector('.walked');
  await step(page, 'Programs');
  await page.waitForSelector('.phone-programs');
  for (const [at, [letter, start, days, minutes]] of PROGRAMS.entries()) {
    if (at > 0) await tapNamed('Add program');
    await page.waitForSelector(`[aria-label="Program ${letter}"]`);
    await enter(`[aria-label="Add a start time to ${letter}"]`, start);
    for (const day of days)
      await tap(`[aria-label="Watering days of ${letter}"] button:nth-child(${day})`);
    for (const [i, value] of minutes.entries()) {
      const station = firstStation(at) + i;
      await enter(`[aria-label="Minutes of ${station}  in ${letter}"]`, String(value));
    }
  }
  await isSet(page);
  process.stderr.write(`by touch: ${taps} taps besides the keyboard\n`);
  await page.close();
});

test('by keyboard alone, on a desktop', async () => {
  const page = await house.at('/');
  await page.waitForSelector('.today');
  let presses = 0;
  const key = async (name: string) => {
    presses++;
    // Safe cast: only key names are given.
    await page.keyboard.press(name as 'Tab');
  };
  const type = async (text: string) => {
    presses += text.length;
    await page.keyboard.type(text);
  };
  const focused = () =>
    page.evaluate(() => {
      const at = document.activeElement;
      const label = at instanceof HTMLInputElement ? at.labels?.[0]?.textContent : null;
      return (
        at?.getAttribute('aria-label') ?? at?.getAttribute('name') ?? label ?? at?.textContent ?? ''
      );
    });
  const tabTo = async (name: RegExp) => {
    for (let i = 0; i < 120; i++) {
      if (name.test(await focused())) return;
      await key('Tab');
    }
    throw new Error(`the tab key does not reach ${String(name)}`);
  };
  await page.keyboard.down('Control');
  await page.keyboard.press('k');
  await page.keyboard.up('Control');
  await page.waitForFunction(() => document.activeElement?.closest('.commands'));
  await type('new site');
  await key('Enter');
  await page.waitForSelector('.site-form');
  await page.waitForNetworkIdle();
  await tabTo(/^Timer$/);
  await type('Eight-station wall');
  await page.waitForSelector('.ant-select-item-option-active');
  await key('Enter');
  await tabTo(/^name$/);
  await type('Turnstone Close');
  await key('Enter');
  await page.waitForSelector('.walked');
  const before = presses;
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  for (let i = 0; i < 4; i++) await key(']');
  await page.waitForSelector('.board');
  for (const [at, [letter, start, days, minutes]] of PROGRAMS.entries()) {
    if (at > 0) {
      await tabTo(new RegExp(`Add program ${letter}$`));
      await key('Enter');
      await page.waitForSelector(`[aria-label="Program ${letter}"]`);
    }
    // The first start of a new program has the focus, and keeps it for the next one.
    if (at === 0) await tabTo(/^Add a start time to A$/);
    expect(await focused()).toBe(`Add a start time to ${letter}`);
    await type(start);
    await key('Enter');
    expect(await focused()).toBe(`Add a start time to ${letter}`);
    await tabTo(/^Mon$/);
    for (let day = 1; day <= 7; day++) {
      if ((days as readonly number[]).includes(day)) await key('Space');
      if (day < 7) await key('Tab');
    }
    await tabTo(new RegExp(`^Minutes of \\d+ {2}in [A-C]$`));
    while (!(await focused()).endsWith(`in ${letter}`)) await key('ArrowRight');
    for (let row = Number(/\d+/.exec(await focused())?.[0]); row < firstStation(at); row++)
      await key('ArrowDown');
    for (const value of minutes) {
      await type(String(value));
      await key('Enter');
    }
  }
  await isSet(page);
  process.stderr.write(`by keyboard: ${presses - before} presses for the programs\n`);
  await page.close();
});
