/**
 * The languages on the real interface: in the language of tests no text escapes the catalogues, and no layout breaks where words are two fifths longer; a person, a house and a
 * page have a language each.
 */
import { afterAll, afterEach, beforeAll, describe, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { FENNIMORE, House, LARKHOLT } from './house.ts';

jest.setTimeout(240_000);
let house: House;
beforeAll(async () => {
  house = await House.open();
});
afterAll(() => house.close());

const STEPS = [
  ...['/house', '/timer', '/clock', '/found', '/seen', '/stations', '/walk/1', '/minutes'],
  ...['/brief', '/plan', '', '?view=year', '?view=fortnight', '/settings', '/keyin', '/leave'],
  ...['/log'],
];
const PAGES = [
  '/',
  '/sites',
  '/sites/new',
  '/calendar',
  '/device',
  '/account',
  '/sites/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b02',
  ...['/library', '/library/rules', '/library/minutes', '/library/climates'],
  ...['/firm/people', '/firm/mail', '/firm/record', '/firm/settings', '/firm/reports', '/replans'],
  ...['/bench', '/bench/tasks', '/bench/random/1/7', '/bench/random/3/7'],
  ...STEPS.map((step) => `${LARKHOLT}${step}`),
];

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

/** What stands on the page without a message: outside of the marks, and no data, number or unit. */
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

/** Names that are the same in every language, and what a timer's own display shows. */
const SAME = /^(Water Clock|English|Español|Ctrl .*|Larkholt.*|.*, Linux|[A-Z]{2}[A-Z ]+)$/u;
/** Dates are those of the language; the component library has its own words. */
const NOT_OURS =
  /\b(January|February|March|April|May|June|July|August|September|October|November|December)\b|^(Select (all|row|date)|segmented control|control$)/u;

const sideways = (page: Page) =>
  page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);

/** Buttons whose words do not fit into them. */
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

describe('in the language of tests', () => {
  let page: Page;
  afterEach(() => page.close());

  test.each(PAGES)('%s: every word is a message, and all of it fits', async (address) => {
    const query = `${address.includes('?') ? '&' : '?'}language=en-XA`;
    page = await house.at(`${address}${query}`);
    await page.waitForSelector('h1, h2');
    await page.waitForFunction(() => !document.body.textContent?.includes('Fétchíng'));
    const data = await dataOf(page);
    const found = await escaped(page, data);
    expect(found.filter((text) => !SAME.test(text) && !NOT_OURS.test(text))).toEqual([]);
    for (const [width, height] of [
      [1280, 800],
      [390, 844],
    ] as const) {
      await page.setViewport({ width, height });
      await page.evaluate(() => new Promise(requestAnimationFrame));
      expect([width, await sideways(page)]).toEqual([width, 0]);
      expect([width, await cutOff(page)]).toEqual([width, []]);
    }
  });
});

describe('each in their own language', () => {
  /** Presses a button by its name. */
  const press = async (page: Page, name: string) => {
    const found = await page.waitForSelector(`::-p-aria([name="${name}"][role="button"])`);
    await found?.click();
  };
  const text = (page: Page) => page.$eval('body', (body) => body.innerText);

  test('a house: its page, its paper and its link are in Spanish, while the technician reads English', async () => {
    const page = await house.at(`${FENNIMORE}/house`);
    await press(page, 'Zone, coordinates, units');
    await page.waitForSelector('::-p-text(Language of the homeowner’s page)');
    const list = await page.waitForSelector('::-p-aria(Language of the homeowner’s page)');
    await list?.click();
    const spanish = await page.waitForSelector('.ant-select-item-option[title="Español"]');
    await spanish?.click();
    await press(page, 'Save the house');
    await page.waitForSelector('::-p-text(Saved.)');
    await page.goto(`${house.server.url}${FENNIMORE}/page`);
    await page.waitForSelector('.sheet[lang=es]');
    expect(await text(page)).toMatch(/Su riego: Fennimore house/u);
    expect(await text(page)).toMatch(/Make a private link/u);
    const paper = await page.evaluate(async (address) => {
      const answer = await fetch(address);
      return { status: answer.status, bytes: (await answer.arrayBuffer()).byteLength };
    }, `/api${FENNIMORE}/page.pdf?paper=a4`);
    expect(paper).toMatchObject({ status: 200 });

    await press(page, 'Make a private link');
    const link = await page.waitForSelector('.page-link');
    const address = await link?.evaluate((one) => one.textContent);
    const stranger = await house.strangersPage();
    await stranger.goto(String(address));
    await stranger.waitForSelector('.sheet[lang=es]');
    expect(await stranger.evaluate(() => document.documentElement.lang)).toBe('es');
    expect(await text(stranger)).toMatch(/Guardar como PDF/u);
    // Whoever reads it may want it otherwise.
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
    await page.goto(`${house.server.url}${LARKHOLT}`);
    await page.waitForSelector('.verdict[data-of=known]');
    expect(await page.$eval('.verdict', (one) => one.textContent)).toMatch(
      /La estación 1 se riega/u,
    );
    // The planner and the year are worked out beside the page, and speak as it does.
    await page.goto(`${house.server.url}${LARKHOLT}/plan`);
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
});
