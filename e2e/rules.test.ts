/** Every rule: days, percent, soak, no-water hours, the clock, and the ranges of the strip. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import type { Plan } from '@water-clock/core';
import { worstPlan } from '../packages/core/bench/plans.mjs';
import {
  checks,
  choose,
  click,
  distance,
  FENNIMORE,
  HOLLIN_YARD,
  House,
  LARKHOLT,
  MARRAM_LODGE,
  named,
  press,
  QUINCE_COTTAGE,
  saved,
  sees,
  step,
  TOLVERNE_GREEN,
} from './house.ts';

jest.setTimeout(900_000);
let house: House;
beforeAll(async () => {
  house = await House.open();
});
afterAll(() => house.close());

/** The plan on the server. */
async function planOf(page: Page): Promise<Plan> {
  await saved(page);
  return page.evaluate(async () => {
    const [, , id = ''] = location.pathname.split('/');
    return (await fetch(`/api/timers/${id}/export`)).json() as Promise<Plan>;
  });
}

/** Replaces the text of the field with this name and leaves it. */
async function fill(page: Page, name: string, text: string): Promise<void> {
  await click(page, named(name));
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type(text);
  await page.keyboard.press('Tab');
}

const isoDate = (later: number) => new Date(Date.now() + later * 86_400_000);

test('six days, never on Saturdays, beginning the day after tomorrow: four presses, and the weeks show it', async () => {
  const page = await house.at(FENNIMORE);
  await press(page, 'All settings for C');
  await choose(page, 'Day rule of C', 'every few days');
  await fill(page, 'Waters every (days)', '6');
  await press(page, 'Day after tomorrow');
  await click(page, '[aria-label="C never waters on"] button:nth-child(6)');
  await sees(page, '.ten-weeks caption', /next ten weeks of C/);
  const { programs } = await planOf(page);
  const days = programs.find(({ letter }) => letter === 'C')?.days;
  expect(days).toMatchObject({ rule: 'interval', everyDays: 6, blockedWeekdays: ['sat'] });
  // The site's date may be this machine's tomorrow, but never its yesterday.
  const first = days?.rule === 'interval' ? days.firstDate : '';
  expect([2, 3].map((later) => isoDate(later).toISOString().slice(0, 10))).toContain(first);
  expect(await page.$$eval('.ten-weeks .date-waters', (all) => all.length)).toBeGreaterThan(7);
  expect(await page.$$eval('.ten-weeks .date-blocked', (all) => all.length)).toBeGreaterThan(0);
  // The other way round: days left on the timer give the first date.
  await fill(page, 'Days left today', '5');
  const later = (await planOf(page)).programs.find(({ letter }) => letter === 'C')?.days;
  const moved = later?.rule === 'interval' ? later.firstDate : '';
  expect(Date.parse(moved) - Date.parse(first)).toBe(3 * 86_400_000);
  await page.close();
});

test('percent by month, soak by program, total on the display and days between', async () => {
  const page = await house.at(`${HOLLIN_YARD}/settings`);
  await press(page, 'Type percents');
  await fill(page, 'July (%)', '90');
  expect((await planOf(page)).settings.monthlyPercent?.[6]).toBe(90);
  await fill(page, 'July (%)', '900');
  await sees(page, '.fault', /“900” cannot be used here\. Enter a number from 0 to 500/);
  expect((await planOf(page)).settings.monthlyPercent?.[6]).toBe(90);
  await house.go(page, HOLLIN_YARD);
  await press(page, 'All settings for B');
  await sees(page, '.rule-note', /counts the days between\. Set it to 3/);
  await press(page, 'Close');
  await page.waitForSelector('.program-drawer', { hidden: true });
  await press(page, 'All settings for A');
  await sees(page, '.program-drawer', /Total shown on the timer: /);
  await page.waitForSelector('.cycle-drawing rect');
  const pieces = () => page.$$eval('.cycle-drawing rect', (all) => all.length);
  const before = await pieces();
  await fill(page, 'Longest cycle (minutes)', '4');
  await page.waitForFunction(
    (few) => document.querySelectorAll('.cycle-drawing rect').length > few,
    {},
    before,
  );
  expect((await planOf(page)).programs[0]?.cycleSeconds).toBe(240);
  await page.close();
});

test('hours without water hold a start back, and say so; two valves open side by side', async () => {
  const page = await house.at(MARRAM_LODGE);
  await sees(page, '[aria-label="Program C"] .start-end', /waits until 6:00 pm, ends/);
  await house.go(page, TOLVERNE_GREEN);
  await sees(page, '.verdict-detail', /no overlaps at any percent between 40 and 140 %/);
  // An hourly rule replaces starts; undoing it restores them.
  await press(page, 'All settings for A');
  await choose(page, 'Day rule of A', 'every few hours');
  await sees(page, '[aria-label="Program A"]', /Starts every 36 h from /);
  await press(page, 'Close');
  await press(page, 'Undo');
  await page.waitForSelector('[aria-label="Start time 1 of A"]');
  await saved(page);
  await page.close();
});

test('the clock as it stands: what it shows gives the error, and the strip its true hours', async () => {
  const page = await house.at(`${LARKHOLT}/clock`);
  await page.waitForSelector('.strip-cycle');
  await press(page, '12 h fast');
  await sees(page, '.clock-answer', /The clock is 12 h fast/);
  // The pots of half past six in the evening then get their water in the morning.
  await sees(page, '.strip-times', /6:30 am/);
  await press(page, 'As set');
  await sees(page, '.clock-answer', /The clock is right/);
  await sees(
    page,
    '.clock-panel',
    /the house’s clocks go from 3:00 am to 2:00 am|from 2:00 am to 3:00 am/,
  );
  await page.close();
});

test('July in March: the percent slider; and a year of dates that leads to its nights', async () => {
  const page = await house.at(FENNIMORE);
  await page.focus('[aria-label="Percent shown on the strip"]');
  await page.keyboard.press('End');
  await sees(page, '.what-if', /150 %.*overlaps at this percent/);
  await press(page, 'As set');
  await distance(page, 'Year');
  await page.waitForSelector('.year-chart .year-overlap');
  await click(page, '.year-chart g g:has(.year-overlap)');
  await sees(page, '.strip-overlap-label', /A and B overlap/);
  const heading = await page.$eval('.night-head h2', (heading) => heading.textContent);
  // By keyboard: the address has the date, and Enter shows its night.
  await distance(page, 'Year');
  await page.waitForSelector('.year-chart');
  await page.$eval('.year-chart', (chart) => (chart as SVGElement).focus());
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await page.waitForFunction(
    (before) => (document.querySelector('.night-head h2')?.textContent ?? before) !== before,
    {},
    heading,
  );
  expect(new URL(page.url()).searchParams.get('night')).toMatch(/^\d{4}-\d\d-\d\d$/);
  await page.close();
});

test('a block of the strip opens to the second, by pointer and by key, and lets go of its mark', async () => {
  // Its pots get water every evening, whatever the date.
  const page = await house.at(LARKHOLT);
  const block = await page.waitForSelector('.strip-cycle');
  const box = await block?.boundingBox();
  await page.mouse.click((box?.x ?? 0) + 4, (box?.y ?? 0) + 14);
  const rows = await sees(page, '.cycle-details', /in seconds|Opens/);
  expect(rows).toMatch(/\d+:\d\d(:\d\d)? [ap]m/);
  await press(page, 'Close');
  await page.waitForSelector('.cycle-details', { hidden: true });
  await page.$eval('.strip-cycle', (one) => (one as SVGElement).focus());
  await page.keyboard.press('Enter');
  await page.waitForSelector('.cycle-details tbody tr');
  expect(await page.$$('.strip-blocked')).toEqual([]);
  await page.close();
});

test('mowing days of the house stand on the strip', async () => {
  const page = await house.at(HOLLIN_YARD);
  await page.waitForSelector('.strip svg');
  expect(await page.$$('.strip-mowing')).toEqual([]);
  await step(page, 'House and rules');
  await page.waitForSelector('[aria-label="Mowing days"]');
  // Every day, so that tonight is one of them.
  for (const button of await page.$$('[aria-label="Mowing days"] button')) await button.click();
  await press(page, 'Save site');
  await sees(page, '.site-form [role=status]', /Saved/);
  await step(page, 'Programs');
  await sees(page, '.strip-mowing', /mowing day (Mon|Tue|Wed|Thu|Fri|Sat|Sun)/);
  await page.close();
});

test('each pair that overlaps is told, with its night', async () => {
  const page = await house.at(QUINCE_COTTAGE);
  await fill(page, 'Add a start time to A', '10:45 pm');
  await checks(page);
  await sees(page, '.finding', /10:45 pm/);
  await click(page, '::-p-text(overlapping pairs of start times)');
  const list = await sees(page, '.overlap-list', /A starts again at 10:45 pm/);
  expect(list).toMatch(/This happens about \d+ times a year/);
  const nights = await page.$$('.overlap-list button');
  await nights.at(-1)?.click();
  await sees(page, '.strip-overlap-label', /overlap/);
  await press(page, 'Undo');
  await saved(page);
  await page.close();
});

test('the night on which the house’s clocks are changed says what that does to this timer', async () => {
  const page = await house.at(MARRAM_LODGE);
  await distance(page, 'Year');
  await page.waitForSelector('.year-chart');
  expect(await page.$$('.year-forbidden')).not.toEqual([]);
  // The site's coming clock change, as on the clock page.
  await house.go(page, `${MARRAM_LODGE}/clock`);
  const told = await sees(page, '.clock-panel', /clocks change from/);
  const [, month = '', day = '', year] =
    /On \w+ (\w+) (\d+)(?:, (\d{4}))?, clocks/.exec(told) ?? [];
  const date = new Date(`${day} ${month} ${year ?? new Date().getFullYear()} 12:00 UTC`);
  await distance(page, 'Year');
  await click(page, named('Go to a date', 'textbox'));
  await page.keyboard.type(date.toISOString().slice(0, 10));
  await page.keyboard.press('Enter');
  await page.waitForSelector('.strip-change');
  await sees(page, '.timer-night', /does not adjust itself\. Reset its clock then/);
  await page.close();
});

test('another kind of timer tells beforehand what would no longer fit, and undo brings the old one back', async () => {
  const page = await house.at(`${LARKHOLT}/timer`);
  await press(page, 'Edit capabilities');
  await choose(page, 'Start from another timer kind', 'Six-station keypad timer');
  await sees(page, '.kind-picker', /Not possible yet.*Delete first: program C, program D/);
  await choose(
    page,
    'Start from another timer kind',
    'Forty-eight-station two-wire timer, four valves at once',
  );
  await sees(page, '.kind-picker', /All settings fit/);
  await house.go(page, `${HOLLIN_YARD}/timer`);
  await press(page, 'Edit capabilities');
  await choose(page, 'Start from another timer kind', 'Six-station wall timer with soak');
  await sees(page, '.kind-picker', /cannot hold.*no percent by month/);
  await press(page, 'Use this kind');
  await checks(page);
  await sees(page, '.findings', /no percent by month/);
  expect((await planOf(page)).timer.name).toBe('Six-station wall timer with soak');
  await press(page, 'Undo');
  expect((await planOf(page)).timer.name).toBe('Six-station keypad timer that soaks');
  await page.close();
});

test('long work tells how far it is and can be stopped; the next change is worked out again', async () => {
  const page = await house.at('/');
  const timerId = await page.evaluate(async (plan) => {
    const ids = { siteId: crypto.randomUUID(), timerId: crypto.randomUUID() };
    const site = { name: 'Largest of all', timeZone: 'Australia/Adelaide' };
    const headers = { 'content-type': 'application/json' };
    const body = JSON.stringify({ ...ids, site, plan });
    await fetch('/api/sites', { method: 'POST', headers, body });
    return ids.timerId;
  }, worstPlan(5));
  await house.go(page, `/timers/${timerId}`);
  // In the page itself, as soon as there is progress: the work takes only a moment.
  await page.waitForFunction(
    () => {
      const note = document.querySelector('.work-note');
      if (!/Calculating: \d+ %/.test(note?.textContent ?? '')) return false;
      note?.querySelector('button')?.click();
      return true;
    },
    { polling: 'mutation' },
  );
  await sees(page, '.work-note', /Stopped\. This verdict is for earlier settings/);
  expect(await page.$('.verdict[data-of="unknown"]')).not.toBeNull();
  await page.focus('[aria-label="Start time 1 of A"]');
  await page.keyboard.type('3:10a');
  await page.keyboard.press('Enter');
  await page.waitForSelector('.verdict[data-of="known"]');
  await sees(page, '.verdict', /more pairs of start times overlap/);
  await page.close();
});
