/** The planner: compared, kept in part, used and undone; and a finding that is accepted. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import type { Plan } from '@water-clock/core';
import {
  accessibilityFaults,
  checks,
  click,
  FENNIMORE,
  House,
  LARKHOLT,
  press,
  saved,
  sees,
  unfold,
} from './house.ts';

jest.setTimeout(900_000);
let house: House;
beforeAll(async () => {
  house = await House.open();
});
afterAll(() => house.close());

const planOf = async (page: Page): Promise<Plan> => {
  await saved(page);
  return page.evaluate(async () => {
    const [, , id = ''] = location.pathname.split('/');
    const timer = (await (await fetch(`/api/timers/${id}`)).json()) as { plan: Plan };
    return timer.plan;
  });
};

test('from the brief to programs with reasons, around what is kept, as one step that can be undone', async () => {
  const page = await house.at(`${FENNIMORE}/plan`);
  await page.waitForSelector('.planner');
  const before = await planOf(page);
  await page.waitForFunction(() => document.querySelectorAll('button.plan-card').length >= 2);
  await sees(page, '.plan-cards', /What is set now.*overlap/s);
  await click(page, '.planner .ant-collapse-header ::-p-text(Plans as a table)');
  await sees(page, '.plan-table', /Trade-off/);
  await sees(page, '.plan-reasons', /only Tue Sat are allowed here|Tue Sat/);
  await sees(page, '.planner', /Through the year/);
  expect(await accessibilityFaults(page)).toEqual([]);

  // One start is kept; the rest is planned around it.
  await click(page, '.planner .ant-collapse-header ::-p-text(part by part)');
  const start = '.plan-program tr:nth-child(2)';
  const kept = await page
    .waitForSelector(`${start} strong`)
    .then((one) => one?.evaluate((element) => element.textContent ?? ''));
  await click(page, `${start} .keep`);
  await sees(page, '.planner', /1 settings? (is|are) kept/);
  await sees(page, '.plan-program strong', new RegExp(`^${kept}$`));
  await sees(page, '.plan-changes', /A days.*Tue Sat/s);
  await press(page, 'Use these programs');
  await sees(page, '.verdict-headline', /^No overlaps, up to 1[3-9]0 %$/);
  const after = await planOf(page);
  expect(after.programs).not.toEqual(before.programs);
  await press(page, 'Undo');
  await sees(page, '.verdict-headline', /is still running/);
  expect((await planOf(page)).programs).toEqual(before.programs);
  await page.close();
});

test('the large garden has programs, too, though nobody knows what half of it needs', async () => {
  const page = await house.at(`${LARKHOLT}/plan`);
  await page.waitForSelector('.planner .check');
  await page.waitForSelector('button.plan-card', { timeout: 120_000 });
  await press(page, 'Use these programs');
  await sees(page, '.verdict-headline', /^No overlaps, up to 1[3-9]\d %$/);
  await page.close();
});

test('a finding is accepted with a reason, stands apart, and comes back', async () => {
  const page = await house.at(FENNIMORE);
  await checks(page);
  await click(page, '.finding-acts ::-p-text(Accept …)');
  const form = await page.waitForSelector('.accept-form');
  const sentence =
    (await form?.evaluate(
      (element) => element.closest('.finding')?.querySelector('span')?.textContent ?? '',
    )) ?? '';
  expect(sentence).not.toBe('');
  await page.type('.accept-form input', 'until the new valve is in');
  await press(page, 'Accept');
  await sees(page, '.findings-accepted', /Accepted: 1/);
  const open = await page.$$eval('.findings:first-child .finding', (all) =>
    all.map((one) => one.textContent ?? ''),
  );
  expect(open.some((one) => one.startsWith(sentence))).toBe(false);
  await unfold(page, '.findings-accepted');
  await sees(page, '.findings-accepted', /until the new valve is in/);
  await press(page, 'Undo acceptance');
  await sees(page, '.finding', new RegExp(sentence.slice(0, 30).replace(/[^\w ]/g, '.')));
  // An overlap cannot be accepted, but one press fixes it.
  const overlap = await page.$('.finding');
  expect(await overlap?.evaluate((one) => one.textContent)).toMatch(
    /is still running.*Move to a free time/s,
  );
  expect(await overlap?.$('::-p-text(Accept …)')).toBeNull();
  await (await overlap?.$('.finding-acts button'))?.click();
  // Then there is no overlap, but watering at forbidden times.
  await sees(page, '.verdict-detail', /No two cycles overlap on any date/);
  await sees(page, '.verdict-headline', /The rules do not allow/);
  await page.close();
});
