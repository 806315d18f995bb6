/** A site with two timers on one supply: checked together, planned around each other, moved, archived and deleted. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import {
  accessibilityFaults,
  choose,
  click,
  FENNIMORE,
  file,
  House,
  named,
  press,
  saved,
  sees,
  upload,
} from './house.ts';

jest.setTimeout(900_000);
const HOUSE = '/sites/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b02';
let house: House;
let page: Page;
beforeAll(async () => {
  house = await House.open();
  page = await house.at(HOUSE);
});
afterAll(() => house.close());

const go = (place: string) => house.go(page, place);
async function fill(label: string, text: string): Promise<void> {
  const field = await page.waitForSelector(named(label, 'textbox'));
  await field?.click({ count: 3 });
  await field?.type(text);
}
const act = async (with_: string, words: string) => {
  await click(page, `[aria-label="Actions for ${with_}"]`);
  await click(
    page,
    `.ant-dropdown:not(.ant-dropdown-hidden) .ant-dropdown-menu-item ::-p-text(${words})`,
  );
};

test('a second timer, as a copy: when both run at once is said, with the water that it takes', async () => {
  await sees(page, 'h1', /Fennimore house/);
  await press(page, 'Add a timer');
  await fill('Name', 'Shed');
  await choose(page, 'Timer', 'copy of Eight-station wall timer at this site');
  await press(page, 'Add timer');
  await page.waitForSelector('.verdict[data-of="known"]');
  await go(HOUSE);
  await sees(page, '.ant-alert', /It is not known whether the supply is enough/);
  await sees(page, '.ruled', /Eight-station wall timer’s B meets Shed’s B:.*157 times a year/);
  await sees(page, '.house-night', /Hatched: two timers run at once/);
  await go(`${FENNIMORE}/house`);
  await fill('Supply flow (L/min)', '40');
  await fill('Street', 'Mill Lane');
  await press(page, 'Save site');
  await sees(page, '.site-form', /Saved/);
  await go(HOUSE);
  await sees(page, 'main', /8 Mill Lane; supply 40/);
  await sees(page, '.ant-alert', /use more than the supply can give/);
  await sees(page, '.ruled li', /at least 54 L\/min of 40 L\/min available\.too much/);
  expect(await accessibilityFaults(page)).toEqual([]);
});

test('the planner keeps clear of the other timer', async () => {
  await go(`${FENNIMORE}/plan`);
  await sees(page, '.planner', /avoid Shed/);
  await click(page, named('Use these programs', 'button'));
  await saved(page);
  await go(HOUSE);
  await sees(page, '.ant-alert', /No two timers at this site ever run at the same time/);
});

test('renamed, put away, brought back, and deleted for good by its name', async () => {
  await act('Shed', 'Rename or move');
  await fill('Name', 'Potting shed');
  await press(page, 'Rename');
  await sees(page, '.ant-table', /Potting shed/);
  await act('Potting shed', 'Archive');
  await sees(page, '.ant-table', /Potting shed.*archived/);
  await page.waitForFunction(() => document.querySelector('.ant-alert') === null);
  await act('Potting shed', 'Restore');
  await sees(page, '.ant-alert', /No two timers/);
  await act('Potting shed', 'Delete permanently');
  await fill('Type the name to confirm: Potting shed', 'Potting shed');
  await press(page, 'Delete permanently');
  await sees(page, '.ant-modal', /export it first/);
  await page.evaluate(async () => {
    const file = document.querySelector<HTMLAnchorElement>('.ant-modal a[href*="export"]');
    await fetch(file?.href ?? '');
  });
  await press(page, 'Delete permanently');
  await page.waitForFunction(
    () => !document.querySelector('.ant-table')?.textContent?.includes('Potting'),
  );
  await go('/company/record');
  await sees(page, '.ant-table', /Deleted a timer permanently.*Potting shed/);
});

test('thirty sites from a spreadsheet: bad cells are marked, and a hundred thousand rows are answered', async () => {
  await go('/sites');
  await press(page, 'Sites from a spreadsheet');
  const input = '.ant-modal input[type=file]';
  await upload(page, input, file('long.csv', `name;town\n${'X;Y\n'.repeat(100_000)}`));
  await sees(page, '.cell-faults', /at most 5000 rows/);
  const rows = Array.from(
    { length: 30 },
    (_, i) => `Row house ${i + 1};${i + 1};Mill Lane;Dunnock;`,
  );
  rows[3] = 'Row house 4;4;Mill Lane;Dunnock;river';
  rows.push(';31;Mill Lane;Dunnock;');
  const text = `name;number;street;town;supply\n${rows.join('\n')}\n`;
  await upload(page, input, file('sites.csv', text));
  await sees(page, '.cell-faults', /Line 5, supply.*Line 32, name/s);
  expect(await page.$$eval('td.cell-bad', (cells) => cells.length)).toBe(2);
  expect(await accessibilityFaults(page)).toEqual([]);
  await press(page, 'Import 30 sites');
  await sees(page, '.ant-modal', /30 sites imported/);
  await press(page, 'Done');
  await go('/sites?find=row+house+17');
  await sees(page, '.sites', /Row house 17/);
});
