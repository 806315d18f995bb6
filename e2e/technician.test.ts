/** A technician's complete job. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import type { HTTPResponse, Page } from 'puppeteer-core';
import {
  accessibilityFaults,
  click,
  FENNIMORE,
  headline,
  House,
  LARKHOLT,
  more,
  named,
  press,
  QUINCE_COTTAGE,
  saved,
  sees,
  SORREL_ROW,
  step,
  type,
  unfold,
  valueOf,
} from './house.ts';

// Generous, for a busy machine; each wait inside has its own limit.
jest.setTimeout(900_000);
let house: House;
beforeAll(async () => {
  house = await House.open({}, true);
});
afterAll(() => house.close());

const control = async (page: Page, key: string, shift = false) => {
  await page.keyboard.down('Control');
  if (shift) await page.keyboard.down('Shift');
  await page.keyboard.press(key as 'z');
  if (shift) await page.keyboard.up('Shift');
  await page.keyboard.up('Control');
};

test('a stranger gets the sign-in, light and without charts; the demo person comes in with one press', async () => {
  const page = await house.page();
  const loaded: HTTPResponse[] = [];
  const collect = (response: HTTPResponse) => {
    if (response.url().endsWith('.js')) loaded.push(response);
  };
  page.on('response', collect);
  await page.goto(`${house.server.url}${FENNIMORE}`, { waitUntil: 'networkidle0' });
  page.off('response', collect);
  const scripts = await Promise.all(
    loaded.map(async (response) => ({
      url: response.url(),
      gzipped: gzipSync(await response.buffer()).length,
    })),
  );
  expect(scripts.length).toBeGreaterThan(1);
  expect(scripts.reduce((sum, { gzipped }) => sum + gzipped, 0)).toBeLessThan(220_000);
  expect(scripts.filter(({ url }) => /TimerPage|strip|worker/i.test(url))).toEqual([]);
  expect(await accessibilityFaults(page)).toEqual([]);
  await page.type('input[name=email]', 'tamsin@brindlewick.example');
  await page.type('input[name=password]', 'wrong');
  await press(page, 'Sign in');
  await sees(page, '[role=alert]', /is wrong/);
  await press(page, 'Sign in as Tamsin Orrowby');
  await page.waitForSelector('.verdict');
  await page.close();
});

test('the list tells each timer apart, and leads to the overlap on its night', async () => {
  const page = await house.at('/sites');
  const rows = await sees(page, '.sites .ant-table-row', /Fennimore/);
  expect(rows).toMatch(
    /Fennimore.*Overlap.*B starts at .* while A is still running, 21 min of overlap/,
  );
  // Nothing overlaps there, but the site's rules are broken.
  expect(rows).toMatch(/Larkholt.*Breaks rules.*do not allow that day/);
  expect(rows).toMatch(/Thistle Corner.*No overlaps.*No overlaps, up to \d+ %/);
  expect(rows).toMatch(/Quince Cottage.*12:15 am while A, started (Tue|Sat) .* at 10:30 pm/);
  expect(rows).toMatch(/Saltbush Corner.*The timer is switched off/);
  expect(rows).toMatch(/Sorrel Row.*Empty.*No watering yet/);
  expect(await accessibilityFaults(page)).toEqual([]);
  await click(page, `a[href="${QUINCE_COTTAGE}"]`);
  await page.waitForSelector('.verdict[data-of="known"]');
  const show = await page.$(named('Show that night'));
  await show?.click();
  await sees(page, '.strip-overlap-label', /A and B overlap 25 min/);
  // The table behind the strip says the same, and what this timer does about it.
  await press(page, 'Night as a table');
  await sees(page, '.night-table tr', /A10:30 pm12:40 am.*B 25 min.*cut off at 12:15 am/);
  expect(await accessibilityFaults(page)).toEqual([]);
  await page.close();
});

describe('editing', () => {
  test('every way of typing a start works; verdict and strip follow each key; Enter saves; undo and redo', async () => {
    const page = await house.at(FENNIMORE);
    expect(await headline(page)).toMatch(/B starts at 5:15 am while A/);
    for (const [typed, shown] of [
      ['6', '6:00 am'],
      ['5:45', '5:45 am'],
      ['530', '5:30 am'],
      ['5p', '5:00 pm'],
      ['17:30', '5:30 pm'],
    ] as const) {
      await type(page, 'Start time 1 of B', typed);
      await page.keyboard.press('Enter');
      await page.waitForFunction(
        (want) =>
          document.querySelector<HTMLInputElement>('[aria-label="Start time 1 of B"]')?.value ===
          want,
        {},
        shown,
      );
    }
    await saved(page);
    // The site's rules are broken, which comes first.
    await sees(page, '.verdict-detail', /No two cycles overlap on any date/);
    await type(page, 'Start time 1 of B', '5:');
    await sees(page, '.verdict-headline', /B starts at 5:00 am while A.*36 min/);
    await page.keyboard.type('30');
    await sees(page, '.verdict-headline', /B starts at 5:30 am while A.*6 min/);
    // Not made yet: Escape reverts it, and the saved one stays.
    await page.keyboard.press('Escape');
    await sees(page, '.verdict-detail', /No two cycles overlap on any date/);
    expect(await valueOf(page, 'Start time 1 of B')).toBe('5:30 pm');
    await click(page, 'h1');
    for (let i = 0; i < 5; i++) await control(page, 'z');
    await sees(page, '.verdict-headline', /B starts at 5:15 am while A/);
    await control(page, 'z', true);
    expect(await valueOf(page, 'Start time 1 of B')).toBe('6:00 am');
    await control(page, 'z');
    await saved(page);
    await page.close();
  });

  test('nonsense is told at the field and changes nothing', async () => {
    const page = await house.at(FENNIMORE);
    await type(page, 'Start time 1 of A', '25:00');
    await page.keyboard.press('Tab');
    await sees(page, '[role=alert]', /“25:00” is not a time\. Type a time such as 5, 5:30/);
    await type(page, 'Minutes of 1 Front lawn in A', '9999');
    await page.keyboard.press('Enter');
    await sees(page, '[role=alert]', /Station 1: “9999” is not a run time/);
    await page.reload();
    await page.waitForSelector('.board');
    expect(await valueOf(page, 'Start time 1 of A')).toBe('4:00 am');
    expect(await valueOf(page, 'Minutes of 1 Front lawn in A')).toBe('22');
    await page.close();
  });

  test('arrows step, Enter goes on, a pasted column fills, totals follow, a restart keeps it all', async () => {
    const page = await house.at(LARKHOLT);
    const cell = (n: number, name: string) => `Minutes of ${n} ${name} in D`;
    const first = await page.waitForSelector(`[aria-label="${cell(1, 'Front lawn, street')}"]`);
    await first?.focus();
    for (let i = 0; i < 3; i++) await page.keyboard.press('+');
    expect(await valueOf(page, cell(1, 'Front lawn, street'))).toBe('1:30');
    await page.keyboard.press('Enter');
    const focused = await page.evaluate(() => document.activeElement?.getAttribute('aria-label'));
    expect(focused).toBe(cell(2, 'Front lawn, house'));
    const total = 'section[aria-label="Program D"] .program-total';
    await sees(page, total, /17 min 30 s/);
    await page.evaluate(
      (label) => {
        const field = document.querySelector(`[aria-label="${label}"]`);
        const clipboardData = new DataTransfer();
        clipboardData.setData('text/plain', '3\n4:30\n\n5\n');
        field?.dispatchEvent(
          new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }),
        );
      },
      cell(2, 'Front lawn, house'),
    );
    await sees(page, total, /30 min/);
    await saved(page);
    await house.restart();
    await page.reload();
    await page.waitForSelector('.board');
    expect(
      await Promise.all([
        valueOf(page, cell(2, 'Front lawn, house')),
        valueOf(page, cell(3, 'Drive verge')),
        valueOf(page, cell(4, 'Side lawn east')),
        valueOf(page, cell(5, 'Side lawn west')),
      ]),
    ).toEqual(['3', '4:30', '', '5']);
    await page.close();
  });

  test('a start is dragged on the strip, snapped to the step, and moved by keys', async () => {
    const page = await house.at(FENNIMORE);
    const block = await page.waitForSelector('.strip-cycle[aria-label^="Start time of C"]');
    const box = await block?.boundingBox();
    if (!box) throw new Error('no block');
    const pixelsPerHour = await page.$eval('.strip-window svg', (svg) => svg.clientWidth / 24);
    await page.mouse.move(box.x + 3, box.y + 10);
    await page.mouse.down();
    await page.mouse.move(box.x + 3 + pixelsPerHour, box.y + 10, { steps: 8 });
    // Shown while dragged, made on release.
    await sees(page, '.strip-times', /8:30 pm – 8:36 pm/);
    // Where it would ever overlap A or B is hatched while it is held.
    expect((await page.$$('.strip-blocked')).length).toBeGreaterThan(0);
    expect(await valueOf(page, 'Start time 1 of C')).toBe('8:30 pm');
    await page.mouse.up();
    await saved(page);
    expect(await page.$('.strip-blocked')).toBeNull();
    const moved = await page.waitForSelector('.strip-cycle[aria-label^="Start time of C"]');
    await moved?.evaluate((element) => (element as unknown as SVGElement).focus());
    await page.keyboard.press('ArrowLeft');
    await sees(page, '.strip-times', /8:15 pm – 8:21 pm/);
    await saved(page);
    await page.reload();
    await page.waitForSelector('.start-field');
    expect(await valueOf(page, 'Start time 1 of C')).toBe('8:15 pm');
    await page.close();
  });

  test('an empty timer is set from nothing to clear with the keyboard alone', async () => {
    const page = await house.at(SORREL_ROW);
    await sees(page, '.verdict-headline', /No watering yet/);
    await type(page, 'Add a start time to A', '6a');
    await page.keyboard.press('Enter');
    await sees(
      page,
      '.verdict-headline',
      /A never waters: it needs a run time .* and watering days/,
    );
    await type(page, 'Minutes of 1  in A', '20');
    await page.keyboard.press('Enter');
    const day = await page.waitForSelector('[aria-label="Watering days of A"] button:nth-child(3)');
    await day?.focus();
    await page.keyboard.press('Space');
    await sees(page, '.verdict-headline', /No overlaps/);
    await sees(page, '.start-end', /ends 6:20 am/);
    await step(page, 'Stations');
    await type(page, 'Name of station 1', 'Balcony boxes');
    await page.keyboard.press('Enter');
    await saved(page);
    await step(page, 'Programs');
    await page.waitForSelector('[aria-label="Minutes of 1 Balcony boxes in A"]');
    await page.close();
  });
});

test('undo goes on where it was after a reload, and changes wait while the server is away', async () => {
  const page = await house.at(FENNIMORE);
  const before = await valueOf(page, 'Start time 1 of A');
  for (const typed of ['3', '2:30']) {
    await type(page, 'Start time 1 of A', typed);
    await page.keyboard.press('Enter');
  }
  await saved(page);
  await page.reload();
  await page.waitForSelector('.verdict[data-of="known"]');
  await press(page, 'Undo');
  expect(await valueOf(page, 'Start time 1 of A')).toBe('3:00 am');
  await saved(page);

  await house.whileAway(async () => {
    await press(page, 'Undo');
    await sees(page, '.timer-tools [role=status]', /We could not confirm your last change/);
    expect(await valueOf(page, 'Start time 1 of A')).toBe(before);
  });
  await saved(page);
  await page.reload();
  await page.waitForSelector('.start-field');
  expect(await valueOf(page, 'Start time 1 of A')).toBe(before);
  await page.close();
});

test('the house is put right; whoever is slower there is shown both sides, too', async () => {
  const pages = [
    await house.at(`${SORREL_ROW}/house`),
    await house.at(`${SORREL_ROW}/house`),
  ] as const;
  const rename = async (page: Page, name: string) => {
    await page.bringToFront();
    await page.$eval('input[name=name]', (field) => field.focus());
    await control(page, 'a');
    await page.keyboard.type(name);
    await press(page, 'Save site');
  };
  const [first, second] = pages;
  await rename(first, 'Sorrel Row, east');
  await sees(first, 'h1', /Sorrel Row, east/);
  await rename(second, 'Sorrel Row, west');
  await sees(second, '.conflict', /Name: saved “Sorrel Row, east”, yours “Sorrel Row, west”/);
  await press(second, 'Keep editing mine');
  await press(second, 'Save site');
  await sees(second, 'h1', /Sorrel Row, west/);
  await first.close();
  await second.close();
});

test('two tabs on one timer: the slower one is shown both sides and decides', async () => {
  const [mine, theirs] = [await house.at(QUINCE_COTTAGE), await house.at(QUINCE_COTTAGE)];
  // This tab does not hear of the other before it saves.
  const network = await mine.createCDPSession();
  await network.send('Network.enable');
  await network.send('Network.setBlockedURLs', { urls: ['*/events'] });
  await mine.reload();
  await mine.waitForSelector('.verdict[data-of="known"]');
  await theirs.bringToFront();
  await type(theirs, 'Start time 1 of B', '2:30');
  await theirs.keyboard.press('Enter');
  await saved(theirs);
  await mine.bringToFront();
  await type(mine, 'Start time 1 of B', '1:45');
  await mine.keyboard.press('Enter');
  const question = await sees(mine, '.clash', /B start times/);
  expect(question).toMatch(/2:30 am Tamsin Orrowby.*1:45 am you/s);
  const choice = await mine.waitForSelector('.clash input[value=mine]');
  await choice?.evaluate((one) => (one as HTMLElement).click());
  await press(mine, 'Save these choices');
  await saved(mine);
  await mine.close();
  await theirs.bringToFront();
  await sees(
    theirs,
    '.ant-alert',
    /Tamsin Orrowby changed this timer on another device\..*2:30 am → 1:45 am/,
  );
  expect(await valueOf(theirs, 'Start time 1 of B')).toBe('1:45 am');
  await theirs.close();
});

test('a plan document is exported, refused by path where it is wrong, and taken over in one undoable step', async () => {
  const page = await house.at(QUINCE_COTTAGE);
  const exported = await page.evaluate(async () => {
    const [, , id = ''] = location.pathname.split('/');
    return (await fetch(`/api/timers/${id}/export`)).text();
  });
  const plan = JSON.parse(exported) as { programs: { starts: string[]; days: unknown }[] };
  const [program] = plan.programs;
  if (!program) throw new Error('no program');
  const paste = (text: string) =>
    page.$eval(
      'textarea',
      (area, value) => {
        Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')?.set?.call(
          area,
          value,
        );
        area.dispatchEvent(new Event('input', { bubbles: true }));
      },
      text,
    );
  await more(page, 'Import plan');
  await page.waitForSelector('textarea');
  await paste(exported);
  await sees(page, '.ant-modal', /It matches the current settings/);
  await paste(JSON.stringify({ ...plan, programs: [{ ...program, days: { rule: 'odd' } }], x: 1 }));
  await sees(page, '[role=alert]', /Nothing was changed.*x: there is no field with this name/);
  const large = path.join(mkdtempSync(path.join(tmpdir(), 'water-clock-')), 'large.plan.json');
  writeFileSync(large, 'x'.repeat(5_000_000));
  const file = await page.$('input[type=file]');
  await file?.uploadFile(large);
  await sees(page, '[role=alert]', /The document has 5000000 bytes/);
  await paste(JSON.stringify({ ...plan, programs: [{ ...program, starts: ['03:00'] }] }));
  await sees(page, '.ant-modal li', /A start times: 10:30 pm → 3:00 am/);
  await click(page, '.ant-modal-footer .ant-btn-primary:not([disabled])');
  await page.waitForFunction(() => document.querySelectorAll('.program-head').length === 1);
  await press(page, 'Undo');
  await page.waitForFunction(() => document.querySelectorAll('.program-head').length === 2);
  await saved(page);
  await page.close();
});

test('a new site is added from a kind of timer, once, and its faults stand at their fields', async () => {
  const page = await house.at('/sites/new');
  await unfold(page, '.site-more');
  await page.type('input[name=latitude]', '95');
  await press(page, 'Add site');
  await sees(page, '.fault', /Give the site a name/);
  await sees(page, '.fault', /Degrees north, -90 to 90/);
  await page.type('input[name=name]', 'Heron Yard');
  await page.$eval('input[name=latitude]', (field) => field.focus());
  await control(page, 'a');
  await page.keyboard.type('-34.5');
  await page.type('input[name=longitude]', '139');
  await press(page, 'Add site');
  await page.waitForSelector('.verdict[data-of="known"]');
  await sees(page, 'h1', /Heron Yard/);
  await page.close();
});

test('on a phone nothing is cut off and what is pressed is large enough', async () => {
  const page = await house.at(FENNIMORE, 390, 844);
  const { width, small } = await page.evaluate(() => ({
    width: document.documentElement.scrollWidth,
    small: [
      ...document.querySelectorAll(
        'button, input.ant-input, .ant-select, .ant-picker, a.ant-btn, .foot-place, .ant-collapse-header',
      ),
    ]
      .filter((one) => one.getClientRects().length > 0)
      .filter((one) => one.getBoundingClientRect().height < 43.5)
      .map((one) => `${one.className} ${one.textContent} ${one.getBoundingClientRect().height}`),
  }));
  expect(width).toBeLessThanOrEqual(390);
  expect(small).toEqual([]);
  await page.close();
});
