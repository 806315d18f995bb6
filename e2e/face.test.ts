/** The face with large text and in every look, what a person likes, the keys that lead anywhere, and dragging. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import {
  accessibilityFaults,
  checks,
  FENNIMORE,
  House,
  LARKHOLT,
  press,
  sees,
  THISTLE_CORNER,
} from './house.ts';

jest.setTimeout(240_000);
let house: House;
beforeAll(async () => {
  house = await House.open();
});
afterAll(() => house.close());

const go = async (page: Page, address: string) => {
  await page.goto(`${house.server.url}${address}`);
  await page.waitForSelector(address.startsWith('/timers') ? `.verdict[data-of="known"]` : 'h1');
};
const sideways = (page: Page) =>
  page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);

/** Chooses for the signed-in person, as the dialog does. */
const like = (page: Page, preferences: object) =>
  page.evaluate(async (wanted) => {
    const session = (await (await fetch('/api/session')).json()) as {
      preferences: { version: number };
    };
    const body = {
      id: crypto.randomUUID(),
      baseVersion: session.preferences.version,
      preferences: wanted,
    };
    const headers = { 'content-type': 'application/json' };
    await fetch('/api/preferences/changes', {
      method: 'POST',
      headers,
      body: JSON.stringify(body),
    });
  }, preferences);

test('with text of twice the size, and with words forty percent longer, no step loses its edges', async () => {
  const page = await house.at('/');
  await like(page, { textSize: 200 });
  const wide: string[] = [];
  for (const address of [
    '/',
    '/sites',
    FENNIMORE,
    `${FENNIMORE}/stations`,
    `${FENNIMORE}/minutes`,
  ]) {
    await go(page, address);
    if ((await sideways(page)) > 0) wide.push(address);
  }
  await like(page, {});
  await go(page, FENNIMORE);
  await page.evaluate(() => {
    for (const one of document.querySelectorAll(
      '.rail-steps a, .head button span, .verdict-acts span',
    ))
      one.textContent = `${one.textContent} ${'x'.repeat(Math.ceil(0.4 * (one.textContent?.length ?? 0)))}`;
  });
  if ((await sideways(page)) > 0) wide.push('longer words');
  expect(wide).toEqual([]);
  await page.close();
});

test.each([
  ['day', 'usual'],
  ['night', 'usual'],
  ['day', 'high'],
  ['night', 'high'],
])(
  'by %s in %s contrast everything can be read out, drawers and dialogs too',
  async (theme, contrast) => {
    const page = await house.at('/');
    await like(page, { theme, contrast });
    const faults: string[] = [];
    const look = async (what: string) => {
      for (const fault of await accessibilityFaults(page)) faults.push(`${what}: ${fault}`);
    };
    for (const address of [
      '/',
      '/sites',
      LARKHOLT,
      `${FENNIMORE}/clock`,
      `${THISTLE_CORNER}/log`,
    ]) {
      await go(page, address);
      await look(address);
    }
    await go(page, FENNIMORE);
    await checks(page);
    await sees(page, '.ant-drawer', /Must be fixed/);
    await look('checks');
    await press(page, 'Close');
    await page.waitForSelector('.ant-drawer .findings', { hidden: true });
    await press(page, 'All settings of B');
    await sees(page, '.program-drawer', /Pieces, soak and more/);
    await look('program');
    await like(page, {});
    expect(faults).toEqual([]);
    await page.close();
  },
);

test('what a person likes goes with the person: chosen here, it holds in a fresh browser', async () => {
  const page = await house.at(FENNIMORE);
  await press(page, 'Tamsin Orrowby');
  await page.locator('.ant-dropdown-menu-item ::-p-text(Preferences)').click();
  await page.locator('.preferences ::-p-text(17:30)').click();
  await page.locator('.preferences ::-p-text(9 June)').click();
  await sees(page, '.verdict-headline', /Thu 3 December: B starts at 5:15 while/);
  await page.waitForNetworkIdle({ concurrency: 1 });
  // Another device: what this one remembers is gone.
  await page.evaluate(() => localStorage.clear());
  await page.reload();
  await sees(page, '.verdict-headline', /Thu 3 December: B starts at 5:15 while/);
  await like(page, {});
  await page.close();
});

test('a few letters lead anywhere, single keys go from step to step, and the focus comes back', async () => {
  const page = await house.at(FENNIMORE);
  const at = (pattern: RegExp) =>
    page.waitForFunction(
      (source) => new RegExp(source).test(location.pathname),
      {},
      pattern.source,
    );
  const chord = async (name: 'k') => {
    await page.keyboard.down('Control');
    await page.keyboard.press(name);
    await page.keyboard.up('Control');
  };
  await page.keyboard.press(']');
  await at(/\/settings$/);
  await page.keyboard.press('[');
  await page.waitForSelector('.board');
  await page.keyboard.press('[');
  await at(/\/plan$/);
  await chord('k');
  await page.waitForFunction(() => document.activeElement?.closest('.commands'));
  await page.keyboard.type('larkh');
  await sees(page, '.command', /Larkholt/);
  await page.keyboard.press('Enter');
  await at(new RegExp(`${LARKHOLT}$`));
  await page.waitForSelector('.verdict[data-of="known"]');
  await page.keyboard.press('?');
  await sees(page, '.ant-modal', /go to a site, a step or an act/);
  await page.keyboard.press('Escape');
  await page.waitForSelector('.ant-modal', { hidden: true });
  await page.focus('.timer-tools [aria-label^="Checks"]');
  await page.keyboard.press('Enter');
  await page.waitForSelector('.ant-drawer .findings');
  await page.keyboard.press('Escape');
  await page.waitForSelector('.ant-drawer .findings', { hidden: true });
  await page.waitForFunction(() =>
    document.activeElement?.getAttribute('aria-label')?.startsWith('Checks'),
  );
  await page.close();
});

test('a run time is dragged to another program, by pointer and by keys', async () => {
  const page = await house.at(FENNIMORE);
  const value = (label: string) =>
    page.$eval(`[aria-label="${label}"]`, (one) => (one as HTMLInputElement).value);
  const grip = '[aria-label="Move station 5 from B to another program"]';
  // Once it stands still.
  await page.locator(grip).hover();
  const from = await (await page.$(grip))?.boundingBox();
  const target = await (await page.$('[aria-label="Minutes of 5 Rose bed in C"]'))?.boundingBox();
  if (!from || !target) throw new Error('no cells');
  await page.mouse.move(from.x + 8, from.y + 10);
  await page.mouse.down();
  await page.mouse.move(from.x + 40, from.y + 12, { steps: 4 });
  await page.mouse.move(target.x + 60, target.y + 12, { steps: 10 });
  await page.waitForSelector('.board-zone-over:nth-child(3)');
  await page.mouse.up();
  await page.waitForFunction(
    () =>
      document.querySelector<HTMLInputElement>('[aria-label="Minutes of 5 Rose bed in C"]')
        ?.value === '20',
  );
  expect(await value('Minutes of 5 Rose bed in B')).toBe('');
  await page.focus('[aria-label="Move station 5 from C to another program"]');
  await page.keyboard.press('Space');
  await page.waitForSelector('.board-zone-over:nth-child(3)');
  // Keys are heard from the next turn of the page on.
  await page.evaluate(() => new Promise((resolve) => setTimeout(resolve)));
  await page.keyboard.press('ArrowLeft');
  await page.waitForSelector('.board-zone-over:nth-child(2)');
  await page.keyboard.press('Space');
  await page.waitForFunction(
    () =>
      document.querySelector<HTMLInputElement>('[aria-label="Minutes of 5 Rose bed in B"]')
        ?.value === '20',
  );
  await page.close();
});
