/** A firm on an empty database: founded, its people invited, an apprentice's proposal accepted, and everybody's own account. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { generateSync } from 'otplib';
import type { Page } from 'puppeteer-core';
import {
  accessibilityFaults,
  choose,
  click,
  House,
  press,
  saved,
  sees,
  type as typeInto,
} from './house.ts';

jest.setTimeout(240_000);
const PASSWORD = 'three words long';
let house: House;
let owner: Page;
beforeAll(async () => {
  house = await House.open({ WATER_CLOCK_DEMO: '0', WATER_CLOCK_FOUNDING_CODE: 'WELL-RIVER-RAIN' });
  owner = await house.strangersPage();
});
afterAll(() => house.close());

/** Replaces the text of a field by its label. */
async function fill(page: Page, label: string, text: string): Promise<void> {
  const field = await page.waitForSelector(`::-p-aria([name="${label}"][role="textbox"])`);
  await field?.click({ count: 3 });
  await field?.type(text);
}
const linkOn = (page: Page) => page.$eval('.page-link', (link) => (link as HTMLAnchorElement).href);
const go = (page: Page, place: string) => page.goto(`${house.server.url}${place}`);

/** Invites somebody, who chooses a password on a device of their own. */
async function invite(name: string, role: string, width?: number): Promise<Page> {
  await go(owner, '/firm');
  await press(owner, 'Invite somebody');
  await fill(owner, 'Name', name);
  await fill(owner, 'E-mail', `${name.toLowerCase()}@thistle.example`);
  await choose(owner, 'Role', role);
  await press(owner, 'Invite');
  await owner.waitForSelector('.page-link');
  const page = await house.strangersPage(width);
  await page.goto(await linkOn(owner));
  await sees(page, 'h1', /Welcome to Thistle Gardens/);
  await fill(page, 'Password', PASSWORD);
  await press(page, 'Join the firm');
  await page.waitForSelector('.rail, .foot');
  return page;
}

test('the first visit founds the firm, with the code that was printed', async () => {
  await go(owner, '/');
  await sees(owner, 'h1', /Found your firm/);
  await fill(owner, 'One-time code', 'something else');
  await fill(owner, 'Name of the firm', 'Thistle Gardens');
  await fill(owner, 'Your name', 'Ash Vane');
  await fill(owner, 'E-mail', 'ash@thistle');
  await fill(owner, 'Password', 'short');
  await press(owner, 'Found the firm');
  await sees(owner, '.fault', /no e-mail address/);
  await sees(owner, '.fault', /at least 10 characters/);
  await fill(owner, 'E-mail', 'ash@thistle.example');
  await fill(owner, 'Password', PASSWORD);
  await press(owner, 'Found the firm');
  await sees(owner, '.fault', /not the code/);
  expect(await accessibilityFaults(owner)).toEqual([]);
  await fill(owner, 'One-time code', 'well river rain');
  await press(owner, 'Found the firm');
  await sees(owner, 'main', /No sites yet/);
  const other = await house.strangersPage(390, 844);
  await go(other, '/found');
  await sees(other, 'h1', /Nobody can found a firm here/);
  await go(other, '/');
  await sees(other, 'h1', /Sign in/);
});

test('a technician joins by a link that works once, and owners alone see the firm', async () => {
  const wren = await invite('Wren', 'Technician: works on all sites, timers and the library', 390);
  const link = await linkOn(owner);
  await go(wren, '/firm');
  await sees(wren, 'main', /for owners/);
  const late = await house.strangersPage();
  await late.goto(link);
  await sees(late, 'main', /used already/);
  await go(owner, '/firm');
  await sees(owner, '.ant-table', /Wren/);
  expect(await accessibilityFaults(owner)).toEqual([]);
  // Without a mail server the mail is read here.
  await go(owner, '/firm/mail');
  await click(owner, '.ant-collapse-header');
  await sees(owner, '.mail', /Ash Vane invites you to Thistle Gardens.*\/join#/s);
  await go(owner, '/firm/record');
  await sees(owner, '.ant-table', /Joined the firm.*Founded the firm/s);
});

test('an apprentice proposes, and the owner accepts', async () => {
  const linnet = await invite(
    'Linnet',
    'Apprentice: sees everything, and proposes changes of timers',
  );
  await go(owner, '/sites/new');
  await fill(owner, 'Name', 'Bell cottage');
  await press(owner, 'Add the site');
  await owner.waitForSelector('.verdict');
  const [, , id = ''] = new URL(owner.url()).pathname.split('/');
  await go(owner, `/timers/${id}`);
  await typeInto(owner, 'Add a start to A', '4:00');
  await owner.keyboard.press('Enter');
  await saved(owner);

  await go(linnet, `/timers/${id}`);
  await sees(linnet, '.ant-alert', /as an apprentice/);
  await typeInto(linnet, 'Start 1 of A', '5:30');
  await linnet.keyboard.press('Enter');
  await saved(linnet);
  await linnet.reload();
  await linnet.waitForSelector('[aria-label^="Remove the start 5:30"]');
  await fill(linnet, 'Why you propose it', 'The wind is up at four.');
  await press(linnet, 'Send the proposal');
  await sees(linnet, '.ant-alert', /You proposed this/);

  await owner.reload();
  await owner.waitForSelector('[aria-label^="Remove the start 4:00"]');
  await press(owner, 'Look at it');
  await sees(owner, '.conflict-table', /A starts.*4:00.*5:30/);
  await sees(owner, '.ant-modal', /The wind is up at four/);
  expect(await accessibilityFaults(owner)).toEqual([]);
  await press(owner, 'Accept');
  await sees(owner, '.ant-modal', /Accepted/);
  await press(owner, 'Done');
  await owner.waitForSelector('[aria-label^="Remove the start 5:30"]');
  await linnet.reload();
  await sees(linnet, '.ant-alert', /Ash Vane accepted/);
  // Whoever else looks at it is said, and what they change comes by itself.
  await linnet.bringToFront();
  await sees(linnet, '.timer-tools', /Ash/);
  const other = await house.strangersPage();
  await go(other, '/');
  await fill(other, 'E-mail', 'wren@thistle.example');
  await fill(other, 'Password', PASSWORD);
  await press(other, 'Sign in');
  await other.waitForSelector('.rail');
  await go(other, `/timers/${id}`);
  await other.waitForSelector('[aria-label^="Remove the start 5:30"]');
  await typeInto(owner, 'Start 1 of A', '6:00');
  await owner.keyboard.press('Enter');
  await saved(owner);
  await other.waitForSelector('[aria-label^="Remove the start 6:00"]');
  await sees(other, '.ant-alert', /Ash Vane changed this timer elsewhere/);
  expect(await linnet.$('::-p-aria([name="New site"])')).toBeNull();
});

test('a second factor is set up, asked for, and taken away by an owner; who is taken out is out', async () => {
  const sorrel = await invite('Sorrel', 'Office: works on all sites, timers and the library');
  await go(sorrel, '/account');
  await sees(sorrel, '.ant-table', /Chrome on Linux.*this one/s);
  await press(sorrel, 'Set it up …');
  const shown = /(?:[A-Z2-7]{4} ?){8}/.exec(await sees(sorrel, 'code', /^(?:[A-Z2-7]{4} ?){8}$/));
  const secret = shown?.[0].replaceAll(' ', '') ?? '';
  await fill(sorrel, 'Code', generateSync({ secret }));
  await fill(sorrel, 'Your password', PASSWORD);
  expect(await accessibilityFaults(sorrel)).toEqual([]);
  await press(sorrel, 'Switch it on');
  await sees(sorrel, 'main', /On: each sign-in asks for a code/);
  await fill(sorrel, 'What it is for', 'Price list');
  await press(sorrel, 'Make a token');
  const token = await sees(sorrel, '.notice', /wct_[\w-]{43}/);
  const asked = await fetch(`${house.server.url}/api/sites`, {
    headers: { authorization: `Bearer ${/wct_[\w-]{43}/.exec(token)?.[0] ?? ''}` },
  });
  expect(asked.status).toBe(200);
  await sees(sorrel, '.ruled', /Price list.*never used|Price list.*last used/);

  const telephone = await house.strangersPage(390, 844);
  await go(telephone, '/');
  await fill(telephone, 'E-mail', 'sorrel@thistle.example');
  await fill(telephone, 'Password', PASSWORD);
  await press(telephone, 'Sign in');
  await fill(telephone, 'Code', '000000');
  await press(telephone, 'Sign in');
  await sees(telephone, '.fault', /this code is not good/);

  const menu = async (item: string) => {
    await go(owner, '/firm');
    await click(owner, '[aria-label="What to do with Sorrel"]');
    await click(owner, `.ant-dropdown-menu-item ::-p-text(${item})`);
  };
  await menu('Switch off the second factor');
  await press(owner, 'Switch off');
  await sees(owner, '.ant-table', /Sorrel.*off/s);
  await go(telephone, '/');
  await fill(telephone, 'E-mail', 'sorrel@thistle.example');
  await fill(telephone, 'Password', PASSWORD);
  await press(telephone, 'Sign in');
  await telephone.waitForSelector('.foot');

  await menu('Take out of the firm');
  await press(owner, 'Take out');
  await sees(owner, 'main', /Taken out: Sorrel/);
  for (const page of [sorrel, telephone]) {
    await go(page, '/');
    await sees(page, 'h1', /Sign in/);
  }
});
