/** A company from an empty database: creation, invitations, an apprentice's suggestion, and each person's account. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { generateSync } from 'otplib';
import type { Page } from 'puppeteer-core';
import {
  accessibilityFaults,
  type as typeInto,
  choose,
  click,
  file,
  House,
  named,
  press,
  saved,
  sees,
  upload,
} from './house.ts';

jest.setTimeout(900_000);
const PASSWORD = 'three words long';
let house: House;
let owner: Page;
beforeAll(async () => {
  house = await House.open({ WATER_CLOCK_DEMO: '0', WATER_CLOCK_FOUNDING_CODE: 'WELL-RIVER-RAIN' });
  owner = await house.strangersPage();
});
afterAll(() => house.close());

/** Replaces the text of a labelled field. */
async function fill(page: Page, label: string, text: string): Promise<void> {
  const field = await page.waitForSelector(named(label, 'textbox'));
  await field?.click({ count: 3 });
  await field?.type(text);
}
const linkOn = (page: Page) => page.$eval('.page-link', (link) => (link as HTMLAnchorElement).href);
const go = (page: Page, place: string) => house.go(page, place);

/** Invites someone, who chooses a password in a browser of their own. */
async function invite(name: string, role: string, width?: number): Promise<Page> {
  await go(owner, '/company');
  await press(owner, 'Invite a person');
  await fill(owner, 'Name', name);
  await fill(owner, 'E-mail', `${name.toLowerCase()}@thistle.example`);
  await choose(owner, 'Role', role);
  await press(owner, 'Invite');
  await owner.waitForSelector('.page-link');
  const page = await house.strangersPage(width);
  await page.goto(await linkOn(owner));
  await sees(page, 'h1', /Welcome to Thistle Gardens/);
  await fill(page, 'Password', PASSWORD);
  await press(page, 'Join company');
  await page.waitForSelector('.rail, .foot');
  return page;
}

test('the first visit founds the company, with the code that was printed', async () => {
  await go(owner, '/');
  await sees(owner, 'h1', /Create your company/);
  await fill(owner, 'One-time code', 'something else');
  await fill(owner, 'Company name', 'Thistle Gardens');
  await fill(owner, 'Your name', 'Ash Vane');
  await fill(owner, 'E-mail', 'ash@thistle');
  await fill(owner, 'Password', 'short');
  await press(owner, 'Create company');
  await sees(owner, '.fault', /not an e-mail address/);
  await sees(owner, '.fault', /at least 10 characters/);
  await fill(owner, 'E-mail', 'ash@thistle.example');
  await fill(owner, 'Password', PASSWORD);
  await press(owner, 'Create company');
  await sees(owner, '.fault', /not the code/);
  expect(await accessibilityFaults(owner)).toEqual([]);
  await fill(owner, 'One-time code', 'well river rain');
  await press(owner, 'Create company');
  await sees(owner, 'main', /No sites yet/);
  const other = await house.strangersPage(390, 844);
  await go(other, '/new-company');
  await sees(other, 'h1', /New companies cannot be created here/);
  await go(other, '/');
  await sees(other, 'h1', /Sign in/);
});

test('a technician joins by a link that works once, and owners alone see the company', async () => {
  const wren = await invite('Wren', 'Technician: works on all sites, timers and the library', 390);
  const link = await linkOn(owner);
  await go(wren, '/company');
  await sees(wren, 'main', /Only owners/);
  const late = await house.strangersPage();
  await late.goto(link);
  await sees(late, 'main', /already used/);
  await go(owner, '/company');
  await sees(owner, '.ant-table', /Wren/);
  expect(await accessibilityFaults(owner)).toEqual([]);
  // Without a mail server, mail is read here.
  await go(owner, '/company/mail');
  await click(owner, '.ant-collapse-header');
  await sees(owner, '.mail', /Ash Vane invites you to Thistle Gardens.*\/join#/s);
  await go(owner, '/company/record');
  await sees(owner, '.ant-table', /Joined the company.*Created the company/s);
});

test('an apprentice proposes, and the owner accepts', async () => {
  const linnet = await invite('Linnet', 'Apprentice: can view everything and suggest changes');
  await go(owner, '/sites/new');
  await fill(owner, 'Name', 'Bell cottage');
  await press(owner, 'Add site');
  await owner.waitForSelector('.verdict');
  const [, , id = ''] = new URL(owner.url()).pathname.split('/');
  await go(owner, `/timers/${id}`);
  await typeInto(owner, 'Add a start time to A', '4:00');
  await owner.keyboard.press('Enter');
  await saved(owner);

  await go(linnet, `/timers/${id}`);
  await sees(linnet, '.ant-alert', /As an apprentice/);
  await typeInto(linnet, 'Start time 1 of A', '5:30');
  await linnet.keyboard.press('Enter');
  await saved(linnet);
  await linnet.reload();
  await linnet.waitForSelector('[aria-label^="Delete start time 5:30"]');
  await fill(linnet, 'Why you suggest it', 'The wind is up at four.');
  await press(linnet, 'Send suggestion');
  await sees(linnet, '.ant-alert', /You suggested this/);

  await owner.reload();
  await owner.waitForSelector('[aria-label^="Delete start time 4:00"]');
  await press(owner, 'Review');
  await sees(owner, '.conflict-table', /A start times.*4:00.*5:30/);
  await sees(owner, '.ant-modal', /The wind is up at four/);
  expect(await accessibilityFaults(owner)).toEqual([]);
  await press(owner, 'Accept');
  await sees(owner, '.ant-modal', /Accepted/);
  await press(owner, 'Done');
  await owner.waitForSelector('[aria-label^="Delete start time 5:30"]');
  await linnet.reload();
  await sees(linnet, '.ant-alert', /Ash Vane accepted/);
  // Shows who else has it open; their changes appear by themselves.
  await linnet.bringToFront();
  await sees(linnet, '.timer-tools', /Ash/);
  const other = await house.strangersPage();
  await go(other, '/');
  await fill(other, 'E-mail', 'wren@thistle.example');
  await fill(other, 'Password', PASSWORD);
  await press(other, 'Sign in');
  await other.waitForSelector('.rail');
  await go(other, `/timers/${id}`);
  await other.waitForSelector('[aria-label^="Delete start time 5:30"]');
  await typeInto(owner, 'Start time 1 of A', '6:00');
  await owner.keyboard.press('Enter');
  await saved(owner);
  await other.waitForSelector('[aria-label^="Delete start time 6:00"]');
  await sees(other, '.ant-alert', /Ash Vane changed this timer on another device/);
  expect(await linnet.$(named('New site'))).toBeNull();
});

test('a second factor is set up, asked for, and taken away by an owner; who is taken out is out', async () => {
  const sorrel = await invite('Sorrel', 'Office: works on all sites, timers and the library');
  await go(sorrel, '/account');
  await sees(sorrel, '.ant-table', /Chrome, Linux.*this one/s);
  await press(sorrel, 'Set up …');
  const shown = /(?:[A-Z2-7]{4} ?){8}/.exec(await sees(sorrel, 'code', /^(?:[A-Z2-7]{4} ?){8}$/));
  const secret = shown?.[0].replaceAll(' ', '') ?? '';
  await fill(sorrel, 'Code', generateSync({ secret }));
  await fill(sorrel, 'Your password', PASSWORD);
  expect(await accessibilityFaults(sorrel)).toEqual([]);
  await press(sorrel, 'Switch on');
  await sees(sorrel, 'main', /On\. Each sign-in also asks for a code/);
  await fill(sorrel, 'Purpose', 'Price list');
  await fill(sorrel, 'Your password, to create the token', PASSWORD);
  await press(sorrel, 'Create token');
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
  await sees(telephone, '.fault', /this code is wrong/);

  const menu = async (item: string) => {
    await go(owner, '/company');
    await click(owner, '[aria-label="Actions for Sorrel"]');
    await click(owner, `.ant-dropdown-menu-item ::-p-text(${item})`);
  };
  await menu('Switch off two-step sign-in');
  await press(owner, 'Switch off');
  await sees(owner, '.ant-table', /Sorrel.*off/s);
  await go(telephone, '/');
  await fill(telephone, 'E-mail', 'sorrel@thistle.example');
  await fill(telephone, 'Password', PASSWORD);
  await press(telephone, 'Sign in');
  await telephone.waitForSelector('.foot');

  await menu('Remove from the company');
  await press(owner, 'Remove');
  await sees(owner, 'main', /Removed: Sorrel/);
  for (const page of [sorrel, telephone]) {
    await page.goto(house.server.url);
    await sees(page, 'h1', /Sign in/);
  }
});

test('thirty gardens come from a spreadsheet, a restriction changes, and they are legal again, with who is called and who is visited', async () => {
  await go(owner, '/sites');
  await press(owner, 'Sites from a spreadsheet');
  // Every third has no phone number.
  const rows = Array.from(
    { length: 30 },
    (_, i) =>
      `Row house ${i + 1};${i + 1};Mill Lane;Dunnock;Ida Fell;${i % 3 ? `555 02${i + 10}` : ''}`,
  );
  const text = `name;number;street;town;person;telephone\n${rows.join('\n')}\n`;
  await upload(owner, '.ant-modal input[type=file]', file('thirty.csv', text));
  await press(owner, 'Import 30 sites');
  await sees(owner, '.ant-modal', /30 sites imported/);
  await press(owner, 'Done');

  // The district's rules: Monday, Wednesday and Friday.
  await go(owner, '/library/rules');
  await press(owner, 'New');
  await fill(owner, 'Water authority', 'Dunnock');
  const weekdays = async (clause: string, days: readonly string[]) => {
    for (const day of days)
      await click(owner, `[aria-label="${clause}: allowed weekdays"] [aria-label="${day}"]`);
  };
  await click(owner, '.edition .ant-segmented-item ::-p-text(As a list)');
  await click(owner, '.edition .ant-collapse-header');
  // All are allowed at first; a press forbids one.
  await weekdays('Rule 1', ['Tue', 'Thu', 'Sat', 'Sun']);
  await press(owner, 'Save');
  await sees(owner, 'main', /Saved\./);

  await go(owner, '/sites?find=row+house');
  await click(owner, '.sites thead .ant-checkbox-input');
  await press(owner, 'Select all results');
  await sees(owner, '[role=status]', /30 sites selected/);
  await choose(owner, 'Rules for selected sites', 'Dunnock');
  await owner.waitForFunction(() => !document.body.textContent.includes('30 sites selected'));
  // What thirty visits have keyed in, at once.
  await owner.evaluate(async () => {
    const ask = async (path: string, body?: object): Promise<unknown> => {
      const init = { method: 'POST', headers: { 'content-type': 'application/json' } };
      const answer = await fetch(path, body ? { ...init, body: JSON.stringify(body) } : {});
      return answer.json();
    };
    type Timer = { version: number; plan: { timer: { stationCount: number } } };
    const { lines } = (await ask('/api/timers?find=row+house&size=50')) as {
      lines: { id: string }[];
    };
    for (const { id } of lines) {
      const { version, plan } = (await ask(`/api/timers/${id}`)) as Timer;
      const [days, runs] = [
        { rule: 'weekdays', weekdays: ['mon', 'wed', 'fri'] },
        [
          { station: 1, seconds: 600 },
          { station: 2, seconds: 900 },
        ],
      ];
      const programs = [{ letter: 'A', days, starts: ['04:00'], runs }];
      const whole = { ...plan, stations: [{ number: 1 }, { number: 2 }], programs };
      await ask(`/api/timers/${id}/changes`, {
        ...{ id: crypto.randomUUID(), baseVersion: version, way: 'do' },
        change: { type: 'replace-plan', plan: whole },
      });
    }
  });
  await go(owner, '/sites?find=row+house&show=breach');
  await sees(owner, 'main', /Breaks rules 0/);

  // Tonight the district allows two other days.
  await go(owner, '/library/rules');
  await click(owner, 'main a ::-p-text(Dunnock)');
  await press(owner, 'Edit');
  await click(owner, '.edition .ant-segmented-item ::-p-text(As a list)');
  await click(owner, '.edition .ant-collapse-header');
  await weekdays('Rule 1', ['Tue', 'Sat', 'Mon', 'Wed', 'Fri']);
  await press(owner, 'Save');
  await sees(owner, 'main', /Saved\./);
  await press(owner, 'Back to the list');
  await click(owner, 'main a ::-p-text(Dunnock)');
  await press(owner, 'Sites out of compliance');
  await sees(owner, 'main', /They apply to 30 sites: 30 break them now/);
  await press(owner, 'Replan all');
  await sees(owner, '[role=status]', /30 need your decision/);
  await sees(owner, 'main', /By phone 20.*By visit 10/s);
  await press(owner, 'Review Row house 2');
  await sees(owner, '.ant-drawer-body', /Few enough to read out.*A days: TUE SAT/s);
  await sees(owner, '.ant-drawer-body', /We will call you/);
  await owner.keyboard.press('Escape');
  await press(owner, 'Add 10 visits to the calendar');
  await sees(owner, '[role=status]', /10 visits planned/);
  await press(owner, 'Accept all 30');
  await press(owner, 'Accept all');
  await sees(owner, 'main', /30 decided/);
  await go(owner, '/sites?find=row+house');
  await sees(owner, 'main', /Overlap 0.*Breaks rules 0.*Rules about to change 0/s);
  await sees(owner, '.sites', /No overlaps/);
  await owner.setViewport({ width: 390, height: 844, isMobile: true, hasTouch: true });
  await go(owner, '/calendar?view=open');
  await sees(owner, 'main', /Row house 1 Mill Lane 1, Dunnock/);
  expect(await accessibilityFaults(owner)).toEqual([]);
  await owner.setViewport({ width: 1280, height: 800 });
});

test('the whole company goes into a file, and into a company that has no sites', async () => {
  const bytes = await owner.evaluate(async () => {
    const answer = await fetch('/api/company/archive');
    return [...new Uint8Array(await answer.arrayBuffer())];
  });
  const other = await House.open({
    WATER_CLOCK_DEMO: '0',
    WATER_CLOCK_FOUNDING_CODE: 'RAIN-BARREL',
  });
  try {
    const page = await other.strangersPage();
    await page.goto(other.server.url);
    await fill(page, 'One-time code', 'rain barrel');
    await fill(page, 'Company name', 'Bindweed');
    await fill(page, 'Your name', 'Ada Reed');
    await fill(page, 'E-mail', 'ada@bindweed.example');
    await fill(page, 'Password', PASSWORD);
    await press(page, 'Create company');
    await sees(page, 'main', /No sites yet/);
    await page.goto(`${other.server.url}/company/settings`);
    await upload(page, 'input[type=file]', file('no-company.zip', 'no zip'));
    await sees(page, '[role=alert]', /This is not a ZIP file/);
    await upload(page, 'input[type=file]', file('company.zip', Buffer.from(bytes)));
    await sees(page, '[role=status]', /31 sites imported/);
    await page.goto(`${other.server.url}/sites?find=row+house`);
    await sees(page, 'main', /Breaks rules 0/);
    await sees(page, '.sites', /Row house 1/);
  } finally {
    await other.close();
  }
});
