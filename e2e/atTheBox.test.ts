/** At the timer: what if, a blinking clock, two-wire, and the wiring test of a visit, in the real application. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import {
  accessibilityFaults,
  click,
  FENNIMORE,
  headline,
  House,
  LARKHOLT,
  press,
  saved,
  sees,
  type,
  unfold,
} from './house.ts';

jest.setTimeout(900_000);
let house: House;
let page: Page;
beforeAll(async () => {
  house = await House.open();
  page = await house.at(FENNIMORE);
});
afterAll(() => house.close());

interface Noted {
  readonly survey: { readonly stations: readonly { readonly number: number }[] };
}
/** The timer's stations as noted, on the server. */
const stationsOf = async () => {
  const { survey } = await page.evaluate(
    async (path) => (await fetch(`/api${path}`)).json() as Promise<Noted>,
    LARKHOLT,
  );
  return survey.stations;
};
const lane = () => page.$$eval('.strip svg .strip-run', (runs) => runs.length);
/** No touch: changing that would reload the page. */
const NARROW = { width: 390, height: 844 };
const DESK = { width: 1280, height: 800 };

test('what if the power fails tonight: the strip shows it, the verdict stays, and nothing of it is kept', async () => {
  await sees(page, '.strip', /./);
  const before = await headline(page);
  const runs = await lane();
  await press(page, 'What if');
  await type(page, 'From', '4a');
  await type(page, 'Until', '3a');
  await sees(page, 'form[aria-label="What if"]', /The end is before the start/);
  await type(page, 'Until', '9a');
  await press(page, 'Show on strip');
  await sees(page, '.strip', /the power fails/);
  await sees(page, 'form[aria-label="What if"]', /What if only/);
  expect(await lane()).not.toBe(runs);
  expect(await headline(page)).toBe(before);
  expect(await accessibilityFaults(page)).toEqual([]);
  await page.setViewport(NARROW);
  const width = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(width).toBeLessThanOrEqual(390);
  await page.setViewport(DESK);
  await press(page, 'As it is');
  await page.reload();
  await sees(page, '.strip', /./);
  expect(await lane()).toBe(runs);
});

test('a clock that flashes: the clock is asked for first, then the factory program, which is taken down as found', async () => {
  await house.go(page, `${FENNIMORE}/found`);
  await click(page, '.visit-begin button');
  await click(page, '::-p-text(A flashing or nonsense clock)');
  const asks = '[aria-label="After a power cut"]';
  await sees(page, asks, /First: Read the clock before anyone sets it/);
  await sees(page, asks, /Is it running its factory program\?.*Until then, either may be set/s);
  expect(await accessibilityFaults(page)).toEqual([]);
  await press(page, 'No, its settings are intact');
  await sees(page, asks, /No\. Its settings are intact/);
  await saved(page);
  await page.reload();
  await sees(page, asks, /No\. Its settings are intact/);
  await press(page, 'Record the clock');
  await sees(page, 'main', /clock/i);
});

test('two wires: serials are pasted in order or refused with the reason; readings are those of the timer', async () => {
  await house.go(page, `${LARKHOLT}/stations`);
  await unfold(page, '.two-wires');
  const wires = '[aria-label="Two-wire"]';
  const before = await stationsOf();
  // Nothing invented: there is no search here.
  expect(
    await page.$$eval(`${wires} button`, (all) => all.map((one) => one.innerText)),
  ).not.toContain('Search line');
  await type(page, 'Serial numbers in station order', 'wet');
  await sees(page, wires, /“wet” is not a serial number/);
  await type(page, 'Serial numbers in station order', '100101, 100102, 100101');
  await sees(page, wires, /100101 is in the list twice/);
  await type(page, 'Serial numbers in station order', '100101, 100102');
  await press(page, 'Assign list');
  await sees(page, wires, /1 .*100101.*Not tested/s);
  await click(page, `${wires} ::-p-text(Current of station 1)`);
  await page.keyboard.type('3');
  await page.keyboard.press('Tab');
  await sees(page, wires, /Open coil.*measure the coil by itself/s);
  await press(page, 'No answer from station 2');
  await sees(page, wires, /No answer.*check its splices/s);
  expect(await accessibilityFaults(page)).toEqual([]);
  await saved(page);
  const stations = await stationsOf();
  expect(stations.filter(({ number }) => number > 2)).toEqual(
    before.filter(({ number }) => number > 2),
  );
});

test('on the bench a simulated line is searched, stopped, assigned, tried and replaced, and nothing is kept', async () => {
  await house.go(page, '/bench?kind=Twenty-four-station%20two-wire%20timer');
  await unfold(page, '.two-wires');
  const wires = '[aria-label="Two-wire"]';
  await press(page, 'Search line');
  await sees(page, wires, /found after [1-9]\d* questions/);
  await press(page, 'Stop the search');
  await sees(page, wires, /Stopped\. The results are kept/);
  await press(page, 'Search again');
  await sees(page, wires, /23 found after \d+ questions.*1 more decoder is on it/s);
  await press(page, 'Assign them in this order');
  await press(page, 'Try every decoder');
  await sees(page, wires, /Open coil/);
  await sees(page, wires, /Shorted coil/);
  expect(await accessibilityFaults(page)).toEqual([]);
  const bad = await page.$$eval(`${wires} .ruled li`, (rows) =>
    rows.filter((row) => /Shorted coil/.test(row.innerText)).map((row) => parseInt(row.innerText)),
  );
  expect(bad).toHaveLength(1);
  await press(page, `Replace the decoder at station ${bad[0]}`);
  await press(page, `Try station ${bad[0]}`);
  await page.waitForFunction(
    (where) => !document.querySelector(where)?.textContent.includes('Shorted coil'),
    {},
    wires,
  );
});

test('a reading in the visit says what it means beside the others, and what is next', async () => {
  await house.go(page, `${FENNIMORE}/leave`);
  await unfold(page, '[aria-label="Test"] .more');
  await type(page, 'Reading of station 1', '0 mA');
  await page.keyboard.press('Tab');
  await sees(page, '[aria-label="Test"]', /No current.*Next: take its wire off the terminal/s);
  await click(page, '::-p-text(Short circuit)');
  await sees(page, '[aria-label="Wiring test"]', /0 mA.*Short circuit/s);
  expect(await accessibilityFaults(page)).toEqual([]);
});
