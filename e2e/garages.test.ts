/**
 * A day in garages without a network, on a phone: three complete visits, one at a site the office changes in between, and a new site. In
 * the evening everything is merged, and one question is asked. Also a visit during which the server is down.
 */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import type { ClosedVisit, Plan, RecordChange, Survey } from '@water-clock/core';
import { demoCompany } from '../apps/server/src/demo/demo-documents.ts';
import {
  accessibilityFaults,
  FENNIMORE,
  file,
  HOLLIN_YARD,
  House,
  isKept,
  named,
  press,
  QUINCE_COTTAGE,
  saved,
  sees,
  step,
  THISTLE_CORNER,
  upload,
} from './house.ts';

jest.setTimeout(900_000);
let house: House;
beforeAll(async () => {
  house = await House.open({}, true);
});
afterAll(() => house.close());

interface Timer {
  readonly version: number;
  readonly plan: Plan;
  readonly survey: Survey;
}

/** Requests by Jory at the office. */
async function office() {
  const [, jory] = demoCompany().people;
  const signIn = await fetch(`${house.server.url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: jory?.email, password: jory?.password }),
  });
  const [cookie = ''] = (signIn.headers.get('set-cookie') ?? '').split(';');
  const ask = async <T>(path: string, body?: object): Promise<T> => {
    const answer = await fetch(`${house.server.url}/api${path}`, {
      method: body ? 'POST' : 'GET',
      headers: { cookie, 'content-type': 'application/json' },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
    return (await answer.json()) as T;
  };
  return {
    timer: (path: string) => ask<Timer>(path),
    visits: (path: string) => ask<{ visit: ClosedVisit }[]>(`${path}/visits`),
    sites: (find: string) => ask<{ name: string }[]>(`/sites?find=${encodeURIComponent(find)}`),
    change: async (path: string, change: RecordChange) => {
      const { version: baseVersion } = await ask<Timer>(path);
      const id = crypto.randomUUID();
      await ask(`${path}/changes`, { id, baseVersion, way: 'do', change });
    },
  };
}

const isReady = (page: Page) =>
  page.evaluate(async () => {
    const { active } = await navigator.serviceWorker.ready;
    for (let n = 0; n < 100 && active?.state !== 'activated'; n++)
      await new Promise((resolve) => setTimeout(resolve, 100));
  });

/** A one-colour picture, as from a camera. */
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAIAAAACCAIAAAD91JpzAAAAFklEQVR4nGP8z8DAwMDAxMDAwMDAAAANHQEDasKb6QAAAABJRU5ErkJggg==',
  'base64',
);

/** Starts the visit, confirms every line as planned, and saves as found. */
async function found(page: Page): Promise<void> {
  await press(page, 'Start visit');
  const open = '[data-line][data-looked="false"]';
  await page.waitForSelector(open);
  await page.focus(open);
  for (let n = 0; n < 120 && (await page.$(open)); n++) await page.keyboard.press('Enter');
  const none = await page.waitForSelector(named('No hidden programs', 'radio'));
  await none?.evaluate((one) => (one as HTMLElement).click());
  await press(page, 'Save as found');
  await sees(page, '.visit-frozen', /Saved as found/);
}

/** Tests, saves as left, and closes the visit with whatever is undone. */
async function leave(page: Page, words: string): Promise<void> {
  await step(page, 'Test and leave');
  await press(page, 'All ran well');
  await press(page, 'Save as left');
  await page.type('.leave-done textarea', words);
  await page.keyboard.press('Tab');
  await press(page, 'Close visit …');
  await page.waitForSelector('.undone-list');
  for (const box of await page.$$('.undone-list input[type=checkbox]')) {
    await box.focus();
    await page.keyboard.press('Space');
  }
  await press(page, 'Close anyway');
  await sees(page, '.visit-begin', /Start visit/);
}

/** Types a start of a program on the phone. */
async function setStart(page: Page, label: string, time: string): Promise<void> {
  await step(page, 'Programs');
  const field = await page.waitForSelector(`[aria-label="${label}"]`);
  await field?.evaluate((one) => one.scrollIntoView({ block: 'center' }));
  await field?.click({ count: 3 });
  await page.keyboard.type(time);
  await page.keyboard.press('Enter');
}

test('three visits and a new house in garages without a network; in the evening one question is asked, and it is the right one', async () => {
  const page = await house.at('/', 390, 844);
  page.on('dialog', (dialog) => void dialog.accept());
  await isReady(page);
  // In the morning, what the day needs is opened once.
  for (const timer of [THISTLE_CORNER, FENNIMORE, QUINCE_COTTAGE]) {
    await page.goto(`${house.server.url}${timer}`);
    await page.waitForSelector('.verdict[data-of="known"]');
    await isKept(page, `/api${timer}`);
  }
  await page.goto(`${house.server.url}/sites/new`);
  await page.waitForSelector('.site-form');
  await new Promise((later) => setTimeout(later, 1500));
  await page.setOfflineMode(true);
  const open = async (address: string) => {
    await page.goto(`${house.server.url}${address}`);
    if (address.startsWith('/timers')) await page.waitForSelector('.verdict[data-of="known"]');
  };

  // First garage: as found, walk with a photo, test, close.
  await open(`${THISTLE_CORNER}/found`);
  await found(page);
  await open(`${THISTLE_CORNER}/walk/1`);
  await page.waitForSelector('.walk');
  await upload(page, '.walk input[type=file]', file('head.png', PNG));
  await sees(page, '.walk', /1 uploading/);
  await leave(page, 'Nothing to do.');

  // Second: the office changes the site in between, the same start here and something else there.
  await open(`${FENNIMORE}/found`);
  await found(page);
  await setStart(page, 'Start time 1 of A', '3:15a');
  const desk = await office();
  const before = await desk.timer(FENNIMORE);
  await desk.change(FENNIMORE, { type: 'set-starts', program: 'A', starts: ['02:00'] });
  await desk.change(FENNIMORE, {
    ...{ type: 'note-station', station: 1, fields: { note: 'gate on the left' } },
  });
  // The page is closed and reopened in the middle.
  await open(`${FENNIMORE}/leave`);
  await leave(page, 'Start moved.');

  // Third.
  await open(`${QUINCE_COTTAGE}/found`);
  await found(page);
  await leave(page, 'Looked through.');

  // And a neighbour has a timer too.
  await open('/sites/new');
  await page.waitForSelector('.site-form');
  await page.type('.site-form input[name=name]', 'Over the Fence');
  await press(page, 'Add site');
  await page.waitForFunction(() => /\/timers\/.*\/stations/u.test(location.pathname));
  await sees(page, 'main', /station/i);
  await open('/device');
  await sees(page, 'main', /Waiting to be sent: one new site, \d+ changes and one photo/);
  expect(await accessibilityFaults(page)).toEqual([]);
  expect((await desk.timer(FENNIMORE)).version).toBe(before.version + 2);

  // In the evening everything is sent, whatever page is open.
  await page.setOfflineMode(false);
  await page.goto(`${house.server.url}/`);
  await sees(page, '[role=status]', /You and a colleague changed the same thing on one timer/);
  await page.waitForSelector('.today h1');
  expect(await accessibilityFaults(page)).toEqual([]);
  await press(page, 'Review changes');
  await sees(page, '.ant-modal', /Which one is right\?/);
  const question = await page.$eval('.ant-modal', (one) => one.textContent ?? '');
  expect(question).toMatch(/2:00 am.*Jory.*3:15 am.*you/s);
  expect(await page.$$('.clash')).toHaveLength(1);
  expect(await accessibilityFaults(page)).toEqual([]);
  const mine = await page.waitForSelector('.clash input[value=mine]');
  await mine?.evaluate((one) => (one as HTMLElement).click());
  await press(page, 'Save these choices');
  await saved(page);

  for (const [timer, words] of [
    [THISTLE_CORNER, 'Nothing to do.'],
    [FENNIMORE, 'Start moved.'],
    [QUINCE_COTTAGE, 'Looked through.'],
  ] as const) {
    const all = await desk.visits(timer);
    expect([timer, all.filter(({ visit }) => visit.done === words).length]).toEqual([timer, 1]);
    expect((await desk.timer(timer)).survey.visit).toBeUndefined();
  }
  const after = await desk.timer(FENNIMORE);
  expect(after.plan.programs.find(({ letter }) => letter === 'A')?.starts[0]).toBe('03:15');
  expect(after.survey.stations.find(({ number }) => number === 1)?.note).toBe('gate on the left');
  expect(await desk.sites('Over the Fence')).toHaveLength(1);
  await page.goto(`${house.server.url}/device`);
  await sees(page, 'main', /Nothing is waiting to be sent/);
  await page.close();
});

test('a visit in whose middle third the server is down', async () => {
  const page = await house.at(`${HOLLIN_YARD}/found`, 390, 844);
  page.on('dialog', (dialog) => void dialog.accept());
  await isReady(page);
  await page.reload();
  await page.waitForSelector('.verdict[data-of="known"]');
  await found(page);
  await saved(page);
  await house.whileAway(async () => {
    for (const name of ['Stations', 'Minutes', 'Planner', 'Key in']) {
      await step(page, name);
      await sees(page, 'main', /\w{4}/);
    }
    await setStart(page, 'Start time 1 of A', '4:45a');
    await page.reload();
    await page.waitForSelector('.verdict[data-of="known"]');
    await sees(page, '[role=status]', /Offline\. You see data from/);
  });
  await leave(page, 'Done in spite of it.');
  await saved(page);
  const desk = await office();
  const { plan, survey } = await desk.timer(HOLLIN_YARD);
  expect(survey.visit).toBeUndefined();
  expect(plan.programs.find(({ letter }) => letter === 'A')?.starts[0]).toBe('04:45');
  const [last] = await desk.visits(HOLLIN_YARD);
  expect(last?.visit).toMatchObject({ done: 'Done in spite of it.' });
  await page.close();
});
