/** Large text, preferences, shortcuts, and dragging. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { click, FENNIMORE, House, LARKHOLT, prefer, press, sees, sideways } from './house.ts';

jest.setTimeout(900_000);
let house: House;
beforeAll(async () => {
  house = await House.open();
});
afterAll(() => house.close());

const go = async (page: Page, address: string) => {
  await page.goto(`${house.server.url}${address}`);
  await page.waitForSelector(address.startsWith('/timers') ? `.verdict[data-of="known"]` : 'h1');
};
test('with text of twice the size, and with words forty percent longer, no step loses its edges', async () => {
  const page = await house.at('/');
  await prefer(page, { textSize: 200 });
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
  await prefer(page, {});
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

test('what a person likes goes with the person: chosen here, it holds in a fresh browser', async () => {
  const page = await house.at(FENNIMORE);
  await press(page, 'Tamsin Orrowby');
  await click(page, '.ant-dropdown-menu-item ::-p-text(Preferences)');
  await click(page, '.preferences ::-p-text(17:30)');
  await click(page, '.preferences ::-p-text(9 June)');
  await sees(page, '.verdict-headline', /Thu 3 December: B starts at 5:15 while/);
  // Both are stored with the person once the server has them.
  await page.waitForFunction(
    async () => {
      const session = await (await fetch('/api/session')).text();
      return session.includes('"clock":"24"') && session.includes('"dateOrder":"day-month"');
    },
    { polling: 200 },
  );
  // Another device: what this one stores is gone.
  await page.evaluate(() => localStorage.clear());
  await page.reload();
  await sees(page, '.verdict-headline', /Thu 3 December: B starts at 5:15 while/);
  await prefer(page, {});
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
  await sees(page, '.ant-modal', /go to a site, step or action/);
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
  // Shortcuts work from the next event loop turn on.
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
