/** Languages of a person, a site and a page. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { FENNIMORE, House, LARKHOLT, named } from './house.ts';

jest.setTimeout(900_000);
let house: House;
beforeAll(async () => {
  house = await House.open();
});
afterAll(() => house.close());

/** Presses a button by name. */
const press = async (page: Page, name: string) => {
  const found = await page.waitForSelector(named(name, 'button'));
  await found?.click();
};
const text = (page: Page) => page.$eval('body', (body) => body.innerText);

test('a house: its page, its paper and its link are in Spanish, while the technician reads English', async () => {
  const page = await house.at(`${FENNIMORE}/house`);
  await press(page, 'Zone, coordinates, units');
  await page.waitForSelector('::-p-text(Homeowner’s page language)');
  const list = await page.waitForSelector(named('Homeowner’s page language', 'combobox'));
  await list?.click();
  const spanish = await page.waitForSelector('.ant-select-item-option[title="Español"]');
  await spanish?.click();
  await press(page, 'Save site');
  await page.waitForSelector('::-p-text(Saved.)');
  await house.go(page, `${FENNIMORE}/page`);
  await page.waitForSelector('.sheet[lang=es]');
  expect(await text(page)).toMatch(/Su riego: Fennimore house/u);
  expect(await text(page)).toMatch(/Create private link/u);
  const paper = await page.evaluate(async (address) => {
    const answer = await fetch(address);
    return { status: answer.status, bytes: (await answer.arrayBuffer()).byteLength };
  }, `/api${FENNIMORE}/page.pdf?paper=a4`);
  expect(paper).toMatchObject({ status: 200 });

  await press(page, 'Create private link');
  const link = await page.waitForSelector('.page-link');
  const address = await link?.evaluate((one) => one.textContent);
  const stranger = await house.strangersPage();
  await stranger.goto(String(address));
  await stranger.waitForSelector('.sheet[lang=es]');
  expect(await stranger.evaluate(() => document.documentElement.lang)).toBe('es');
  expect(await text(stranger)).toMatch(/Guardar como PDF/u);
  // Readers may choose another language.
  await press(stranger, 'English');
  await stranger.waitForSelector('.sheet[lang=en]');
  expect(await text(stranger)).toMatch(/Your watering: Fennimore house/u);
  await stranger.close();
  await page.close();
});

test('a person: the whole interface changes, what the server says with it, and comes back', async () => {
  const page = await house.at('/');
  await press(page, 'Tamsin Orrowby');
  await (await page.waitForSelector('::-p-text(Preferences …)'))?.click();
  const choice = await page.waitForSelector('::-p-text(Español)');
  await choice?.click();
  await page.waitForFunction(() => document.documentElement.lang === 'es');
  await page.waitForSelector('::-p-text(Necesita atención)');
  expect(await text(page)).toMatch(/la estación 3 ya no necesita varios riegos al día/u);
  await house.go(page, LARKHOLT);
  await page.waitForSelector('.verdict[data-of=known]');
  expect(await page.$eval('.verdict', (one) => one.textContent)).toMatch(/La estación 1 riega/u);
  // Planner and year are calculated in workers, in the page's language.
  await house.go(page, `${LARKHOLT}/plan`);
  await page.waitForSelector('h1');
  await page.evaluate(async () => {
    const { preferences } = (await (await fetch('/api/session')).json()) as {
      preferences: { version: number; preferences: object };
    };
    await fetch('/api/preferences/changes', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        id: crypto.randomUUID(),
        baseVersion: preferences.version,
        preferences: { ...preferences.preferences, language: 'en' },
      }),
    });
  });
  // Chosen on another device: the page follows when it is opened.
  await page.reload();
  await page.waitForFunction(() => document.documentElement.lang === 'en');
  await page.close();
});
