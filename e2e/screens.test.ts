/**
 * Opens every screen once, in the pseudo-language, which is two fifths longer: no text escapes the catalogues, at each size nothing is cut
 * off or scrolls sideways, and everything can be pressed and read by a screen reader. `npm run test:long` checks accessibility at both sizes
 * and in every theme.
 */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { isLong } from '../packages/core/tests/cases.ts';
import {
  accessibilityFaults,
  checks,
  click,
  FENNIMORE,
  House,
  LARKHOLT,
  prefer,
  press,
  sees,
  sideways,
  THISTLE_CORNER,
} from './house.ts';

jest.setTimeout(900_000);
let house: House;
let data: readonly string[] = [];
beforeAll(async () => {
  house = await House.open({}, true);
  const page = await house.at('/');
  data = await dataOf(page);
  await page.close();
});
afterAll(() => house.close());

const STEPS = [
  ...['/house', '/timer', '/clock', '/found', '/seen', '/stations', '/walk/1', '/minutes'],
  ...['/brief', '/plan', '', '?view=year', '?view=fortnight', '/settings', '/keyin', '/leave'],
  ...['/page', '/log'],
];
const PAGES = [
  ...['/', '/sites', '/sites/new', '/calendar', '/device', '/account', '/replans'],
  '/sites/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b02',
  ...['/library', '/library/rules', '/library/minutes', '/library/climates'],
  ...[
    '/company/people',
    '/company/mail',
    '/company/record',
    '/company/settings',
    '/company/reports',
  ],
  ...['/bench', '/bench/tasks', '/bench/random/1/7', '/bench/random/3/7'],
  ...STEPS.map((step) => `${FENNIMORE}${step}`),
];
const PHONE = [390, 844] as const;
const DESK = [1280, 800] as const;
const SIZES = [PHONE, [768, 1024], DESK, [1920, 1080]] as const;

/** Elements meant for touch. */
const TARGETS =
  'button, input.ant-input, .ant-select, .ant-picker, a.ant-btn, .foot-place, .ant-collapse-header, [role=menuitem]';

/** All texts of the office's own data: names, notes, lines of its kinds. */
const dataOf = (page: Page) =>
  page.evaluate(async () => {
    const texts = new Set<string>();
    const collect = (value: unknown): void => {
      if (typeof value === 'string') texts.add(value);
      else if (typeof value === 'object' && value !== null) Object.values(value).forEach(collect);
    };
    const paths = [
      'session',
      'sites?find=',
      'people',
      'weather/towns',
      'timers?size=100',
      'calendar?from=2026-01-01&days=1',
    ];
    for (const shelf of ['kinds', 'rules', 'minutes', 'climates', 'office'])
      paths.push(`library/${shelf}`);
    for (const path of paths) {
      const answer = await fetch(`/api/${path}`, { headers: { 'accept-language': 'en-XA' } });
      if (answer.ok) collect(await answer.json());
    }
    const { lines } = (await (await fetch('/api/timers?size=100')).json()) as {
      lines: { id: string }[];
    };
    for (const { id } of lines) collect(await (await fetch(`/api/timers/${id}`)).json());
    return [...texts].filter((text) => /\p{L}{2}/u.test(text)).sort((a, b) => b.length - a.length);
  });

/** Text on the page that is not a message, data, number or unit. */
const escaped = (page: Page, data: readonly string[]) =>
  page.evaluate((known) => {
    const outside = (text: string) => {
      let depth = 0;
      return [...text]
        .filter((letter) => {
          if (letter === '⟦') depth++;
          const isOut = depth === 0;
          if (letter === '⟧') depth--;
          return isOut;
        })
        .join('');
    };
    const isShown = (one: Element) =>
      one.getClientRects().length > 0 &&
      !one.closest('script, style, code, .sheet, .anticon, .ant-pagination');
    const texts: string[] = [];
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode())
      if (node.parentElement && isShown(node.parentElement)) texts.push(node.textContent ?? '');
    for (const one of document.querySelectorAll('[aria-label], [placeholder], [title]'))
      if (isShown(one))
        for (const name of ['aria-label', 'placeholder', 'title'])
          texts.push(one.getAttribute(name) ?? '');
    return [
      ...new Set(
        texts.flatMap((text) => {
          let rest = outside(text);
          for (const one of known) if (rest.includes(one)) rest = rest.replaceAll(one, ' ');
          const isPart = known.some((one) => one.includes(rest.trim()));
          return /[A-Za-z]{4,}/u.test(rest) && !isPart ? [text.trim()] : [];
        }),
      ),
    ];
  }, data);

/** Names that are the same in every language, and what a timer's display shows. */
const SAME = /^(Water Clock|English|Español|Ctrl .*|Larkholt.*|.*, Linux|[A-Z]{2}[A-Z ]+)$/u;
/** Dates follow the language; the component library has its own text. */
const NOT_OURS =
  /\b(January|February|March|April|May|June|July|August|September|October|November|December)\b|^(Select (all|row|date)|segmented control|control$)/u;

/** Buttons whose text does not fit. */
const cutOff = (page: Page) =>
  page.$$eval(
    'button:not(.rail-skip), .ant-btn:not(.rail-skip), th, .ant-segmented-item-label',
    (all) =>
      all
        .filter(
          (one) => one.getBoundingClientRect().bottom > 0 && one.scrollWidth > one.clientWidth + 2,
        )
        .filter(
          (one) => one.textContent !== '' && getComputedStyle(one).textOverflow !== 'ellipsis',
        )
        .map((one) => one.textContent),
  );

/** Parts of a page too small for a finger. */
const smallTargets = (page: Page) =>
  page.$$eval(TARGETS, (all) =>
    all
      .filter((one) => one.getClientRects().length > 0)
      .filter((one) => one.getBoundingClientRect().height < 43.5)
      .map((one) => `${one.className} ${one.textContent} ${one.getBoundingClientRect().height}`),
  );

/** Pixels the frame of a visit leaves for its step. */
const roomForStep = (page: Page) =>
  page.evaluate(() => {
    const heightOf = (selector: string) =>
      document.querySelector(selector)?.getBoundingClientRect().height ?? 0;
    return innerHeight - heightOf('.bar') - heightOf('.verdict') - heightOf('.foot');
  });

const unfoldAll = (page: Page) =>
  page.evaluate(() =>
    document
      .querySelectorAll('.ant-collapse-header[aria-expanded=false], .walk [aria-expanded=false]')
      .forEach((one) => (one as HTMLElement).click()),
  );

const phoneSteps = ['', '/keyin', '/minutes', '/walk/1'].map((step) => `${FENNIMORE}${step}`);
test.each(isLong ? STEPS.map((step) => `${FENNIMORE}${step}`) : phoneSteps)(
  '%s on a phone: the frame leaves the step 560 pixels',
  async (address) => {
    const page = await house.at(address, 390, 844);
    await page.waitForSelector('.foot');
    expect(await roomForStep(page)).toBeGreaterThanOrEqual(560);
    await page.close();
  },
);

/** In the pseudo-language, two fifths longer than English; goes from screen to screen. */
let sweep: Page | null = null;

async function signedIn(): Promise<Page> {
  // A page that becomes a phone later is reloaded.
  const page = await house.strangersPage();
  await page.goto(`${house.server.url}/?language=en-XA`);
  await click(page, '.sign-in-demo button');
  await page.waitForSelector('.rail');
  await page.setViewport({ width: PHONE[0], height: PHONE[1] });
  return page;
}

/** Goes to a screen, and waits until it is drawn. */
async function load(address: string): Promise<Page> {
  const page = (sweep ??= await signedIn());
  await house.go(page, `${address}${address.includes('?') ? '&' : '?'}language=en-XA`);
  await page.waitForSelector('h1');
  if (address.startsWith('/timers')) await page.waitForSelector('.verdict[data-of="known"]');
  await page.waitForFunction(() => !/F[eé]tch[ií]ng/.test(document.body.textContent ?? ''), {
    polling: 50,
  });
  return page;
}

async function expectToFit(page: Page, width: number, height: number): Promise<void> {
  await page.setViewport({ width, height });
  await page.evaluate(() => new Promise(requestAnimationFrame));
  expect([width, await sideways(page)]).toEqual([width, 0]);
}

/** Ant Design puts the menu of tabs that do not fit into the tab list, where only tabs belong. */
const TABS = /^aria-required-children: .*ant-tabs-nav/;

/** Addresses of pages opened already, and a second task of the same kind. */
const SAME_TITLE = /^\/library$|random\/3|\?view=|\/walk\//;
const titles: string[] = [];

test.each(PAGES)(
  '%s: every word is a message, all of it fits, can be pressed and read out',
  async (address) => {
    const page = await load(address);
    await page.waitForSelector('.foot');
    const found = await escaped(page, data);
    expect(found.filter((text) => !SAME.test(text) && !NOT_OURS.test(text))).toEqual([]);
    if (!SAME_TITLE.test(address)) titles.push(await page.title());
    await unfoldAll(page);
    expect(await smallTargets(page)).toEqual([]);
    // Each size checks half of the screens; `npm run test:long` checks all at both.
    const half = PAGES.indexOf(address) % 2 === 0 ? PHONE : DESK;
    for (const size of SIZES) {
      const [width, height] = size;
      await expectToFit(page, width, height);
      if (size === PHONE || size === DESK) {
        expect([width, await cutOff(page)]).toEqual([width, []]);
        if (size === half || isLong)
          expect((await accessibilityFaults(page)).filter((one) => !TABS.test(one))).toEqual([]);
      }
    }
    await page.setViewport({ width: PHONE[0], height: PHONE[1] });
  },
);

test('the tab of every page has a name of its own', () => {
  expect(titles.filter((title) => !/^\S.* · Water Clock$/.test(title))).toEqual([]);
  expect(new Set(titles).size).toBe(titles.length);
});

const LOOKS = [
  ['night', 'high'],
  ['day', 'usual'],
  ['night', 'usual'],
  ['day', 'high'],
] as const;

test.each(isLong ? LOOKS : LOOKS.slice(0, 1))(
  'by %s in %s contrast everything can be read out, drawers and dialogs too',
  async (theme, contrast) => {
    const page = await house.at('/');
    await prefer(page, { theme, contrast });
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
      await house.go(page, address);
      await page.waitForSelector(
        address.startsWith('/timers') ? `.verdict[data-of="known"]` : 'h1',
      );
      await look(address);
    }
    await house.go(page, FENNIMORE);
    await checks(page);
    await sees(page, '.ant-drawer', /Fix/);
    await look('checks');
    await press(page, 'Close');
    await page.waitForSelector('.ant-drawer .findings', { hidden: true });
    await press(page, 'All settings for B');
    await sees(page, '.program-drawer', /Cycle and soak, and more/);
    await look('program');
    await prefer(page, {});
    expect(faults).toEqual([]);
    await page.close();
  },
);
