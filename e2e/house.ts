/** The built application in a real browser: a server with its own database, and headless Chromium. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type Axe from 'axe-core';
import puppeteer, { Puppeteer, type Browser, type ElementHandle, type Page } from 'puppeteer-core';
import { startServer, type RunningServer } from '../scripts/server.mjs';
import { makeTestDatabase } from '../scripts/test-database.mjs';

export const LARKHOLT = '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c01';
export const FENNIMORE = '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c02';
export const QUINCE_COTTAGE = '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c03';
export const MARRAM_LODGE = '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c05';
export const TOLVERNE_GREEN = '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c06';
export const HOLLIN_YARD = '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c07';
export const SORREL_ROW = '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c04';
export const THISTLE_CORNER = '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c0a';

/** Stable pictures and no background traffic; see Chromium's list of switches. */
const CHROMIUM_SWITCHES = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-dev-shm-usage',
  '--font-render-hinting=none',
  '--force-color-profile=srgb',
];

type Env = Readonly<Record<string, string>>;

async function sized(page: Page, width: number, height: number): Promise<Page> {
  // On a busy machine a page may take long; what never comes still fails.
  page.setDefaultTimeout(120_000);
  await page.setViewport({ width, height, hasTouch: width < 600, isMobile: width < 600 });
  return page;
}

/** Polling on every frame, Puppeteer's default, would keep the page drawing frames. */
const POLL_MS = 50;

const EMPTY = '.page > h1 + p > a[href="/sites"]';

/** Follows a path within the loaded application. */
const follow = (page: Page, address: string) =>
  page.evaluate((to) => {
    history.pushState(null, '', to);
    dispatchEvent(new PopStateEvent('popstate'));
  }, address);

/** Leaves for an empty address, so that nothing keeps running and nothing old is on screen. */
async function leave(page: Page): Promise<void> {
  await follow(page, `/nowhere${new URL(page.url()).search}`);
  await page.waitForSelector(EMPTY);
}

/** Comes back from there. */
async function comeTo(page: Page, address: string): Promise<void> {
  const empty = await page.$(EMPTY);
  await follow(page, address);
  await page.waitForFunction((one) => one?.isConnected !== true, { polling: POLL_MS }, empty);
}

export class House {
  server: RunningServer;
  readonly browser: Browser;
  private readonly databaseUrl: string;
  private readonly folder: string;
  private readonly env: Env;
  private readonly isInstalled: boolean;
  /** Pages by size that tests are done with. */
  private readonly done = new Map<string, Page[]>();

  private constructor(
    server: RunningServer,
    browser: Browser,
    databaseUrl: string,
    folder: string,
    env: Env,
    isInstalled: boolean,
  ) {
    this.server = server;
    this.browser = browser;
    this.databaseUrl = databaseUrl;
    this.folder = folder;
    this.env = env;
    this.isInstalled = isInstalled;
  }

  /**
   * @param env server settings besides the usual ones of a test
   * @param isInstalled whether pages cache the application for offline use, which takes a tenth of a file's time
   */
  static async open(env: Env = {}, isInstalled = false): Promise<House> {
    const folder = mkdtempSync(path.join(tmpdir(), 'water-clock-e2e-'));
    const databaseUrl = await makeTestDatabase({ empty: env['WATER_CLOCK_DEMO'] === '0' });
    const server = await House.serve(databaseUrl, folder, env);
    const browser = await puppeteer.launch({
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
      userDataDir: path.join(folder, 'profile'),
      args: CHROMIUM_SWITCHES,
    });
    return new House(server, browser, databaseUrl, folder, env, isInstalled);
  }

  private static serve(
    databaseUrl: string,
    folder: string,
    env: Env,
    port = 0,
  ): Promise<RunningServer> {
    return startServer({
      databaseUrl,
      port,
      env: {
        WATER_CLOCK_DEMO: '1',
        LOG_LEVEL: 'error',
        // A slow machine must not look like an unattended one.
        WATER_CLOCK_CONFIRM_MINUTES: '600',
        WATER_CLOCK_SIGN_IN_TRIES: '1000',
        // A slow machine must not look like trouble.
        WATER_CLOCK_DATABASE_PATIENCE: '20',
        WATER_CLOCK_WORK_SECONDS: '120',
        ...env,
      },
      logFile: path.join(folder, 'server.log'),
    });
  }

  /** Restarts the server on the same database and port. */
  async restart(): Promise<void> {
    await this.whileAway(() => Promise.resolve());
  }

  /** Does something while the server is down, then starts it again. */
  async whileAway(work: () => Promise<void>): Promise<void> {
    const port = Number(new URL(this.server.url).port);
    await this.server.stop();
    try {
      await work();
    } finally {
      this.server = await House.serve(this.databaseUrl, this.folder, this.env, port);
    }
  }

  async page(width = 1280, height = 800): Promise<Page> {
    return this.prepared(await this.browser.newPage(), width, height);
  }

  private async prepared(page: Page, width: number, height: number): Promise<Page> {
    if (!this.isInstalled)
      await page.evaluateOnNewDocument(() =>
        Reflect.deleteProperty(Navigator.prototype, 'serviceWorker'),
      );
    return sized(page, width, height);
  }

  /** A page of a browser in which no one is signed in. */
  async strangersPage(width = 1280, height = 800): Promise<Page> {
    const context = await this.browser.createBrowserContext();
    return this.prepared(await context.newPage(), width, height);
  }

  /** A page at this address, with the demo person signed in. Closing it leaves it to the next test of its size. */
  async at(address: string, width = 1280, height = 800): Promise<Page> {
    const size = `${width}x${height}`;
    const spare = this.done.get(size)?.pop();
    const page = spare ?? (await this.signedIn(address, width, height));
    if (spare) await comeTo(page, address);
    else if (!this.isInstalled)
      page.close = async () => {
        await leave(page);
        this.done.set(size, [...(this.done.get(size) ?? []), page]);
      };
    if (address === '/sites/new') await page.waitForSelector('.site-form');
    if (address.startsWith('/timers')) await page.waitForSelector('.verdict[data-of="known"]');
    return page;
  }

  private async signedIn(address: string, width: number, height: number): Promise<Page> {
    const page = await this.page(width, height);
    // The browser's session is tried first, since most pages are opened signed in.
    await page.goto(`${this.server.url}${address}`);
    const signIn = await page.waitForSelector('.sign-in-demo button, .rail, .foot');
    if (await signIn?.evaluate((one) => one.matches('.sign-in-demo button'))) {
      await signIn?.click();
      await page.waitForSelector('.rail, .foot');
    }
    return page;
  }

  /**
   * Goes to another page as a link does. Reloading takes ten times as long: `page.goto` is for tests of just that, and is used here if no
   * one is signed in yet.
   */
  async go(page: Page, address: string): Promise<void> {
    if (await page.$('.rail, .foot')) {
      await leave(page);
      await comeTo(page, address);
    } else await page.goto(`${this.server.url}${address}`);
  }

  async close(): Promise<void> {
    await this.browser.close();
    await this.server.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** Text of the verdict line. */
export const headline = (page: Page) =>
  page.$eval('.verdict-headline', (element) => element.textContent ?? '');

/** Text of every element matching a selector, one a line. */
const textsOf = (page: Page, selector: string): Promise<string> =>
  page.$$eval(selector, (all) => all.map((element) => element.textContent ?? '').join('\n'));

/** Waits until a text matches in an element; on failure says what is there instead. */
export async function sees(page: Page, selector: string, pattern: RegExp): Promise<string> {
  const isThere = page.waitForFunction(
    (where, source, flags) =>
      [...document.querySelectorAll(where)].some((element) =>
        new RegExp(source, flags).test(element.textContent ?? ''),
      ),
    { polling: POLL_MS },
    selector,
    pattern.source,
    pattern.flags,
  );
  await isThere.catch(async (error: unknown) => {
    const found = await textsOf(page, selector);
    throw new Error(`${selector} does not say ${String(pattern)} but:\n${found}`, { cause: error });
  });
  return textsOf(page, selector);
}

/** Times an element is pressed again that moved away under the pointer. */
const PRESSES = 5;

/** Notes from now on whether a press reaches this element. */
const watchPress = (one: ElementHandle) =>
  one.evaluate((wanted) => {
    const seen = globalThis as { wanted?: Element; isPressed?: boolean };
    const note = ({ target }: Event) => {
      // Drawn anew before the press: what is in its place was pressed.
      if (seen.wanted?.contains(target as Node) || !seen.wanted?.isConnected) seen.isPressed = true;
    };
    if (!seen.wanted) addEventListener('click', note, true);
    Object.assign(seen, { wanted, isPressed: false });
  });

/** Whether it did; true if the press took the element away. */
const isPressed = (one: ElementHandle) =>
  one.evaluate(
    ({ isConnected }) => !isConnected || (globalThis as { isPressed?: boolean }).isPressed === true,
  );

/**
 * Clicks an element, or taps it on a phone: scrolled clear of fixed bars, and once it stands still. As a person would, presses again if the
 * page moved just then and the press landed elsewhere.
 */
export async function click(page: Page, selector: string): Promise<void> {
  for (let presses = 0; presses < PRESSES; presses++) {
    const place = page.locator(selector);
    const one = await place.waitHandle();
    await one.evaluate((each) => each.scrollIntoView({ block: 'center' }));
    await watchPress(one);
    if (page.viewport()?.hasTouch) {
      // On a phone it is a finger. Hovering waits as a click does, without pressing.
      await place.hover();
      await (await place.waitHandle()).tap();
    } else await place.click();
    // A press that leads to another document takes this one away.
    if (await isPressed(one).catch(() => true)) return;
  }
  throw new Error(`${selector} moved away from ${PRESSES} presses`);
}

/** Ticks or unticks a box by keyboard, which a page still settling cannot make miss. */
export async function tick(page: Page, selector: string): Promise<void> {
  const box = await page.waitForSelector(selector);
  await box?.focus();
  await page.keyboard.press('Space');
}

/** Selector of elements with a role. */
const ROLES = {
  button: 'button, [role=button]',
  textbox: 'input, textarea',
  combobox: '[role=combobox]',
  radio: '[type=radio], [role=radio]',
  checkbox: '[type=checkbox], [role=checkbox]',
  switch: '[role=switch]',
  any: 'button, a, input, textarea, select, img, [role], [tabindex], [aria-label]',
} as const;

/**
 * Puppeteer's own search by accessible name makes the browser maintain its accessibility tree from then on, which took a sixth of a test
 * file's time.
 */
Puppeteer.registerCustomQueryHandler('named', {
  queryOne: (root, argument) => {
    const [selector = '', wanted = ''] = argument.split(' => ');
    const squeezed = (text: string) => text.replace(/\s/g, '');
    /** Accessible name without spaces: a label, or the text with the labels of its pictures. */
    const textOf = (node: Node): string => {
      if (!(node instanceof Element)) return squeezed(node.textContent ?? '');
      if (node.ariaHidden === 'true') return '';
      const label = node.ariaLabel ?? node.getAttribute('alt');
      return label ? squeezed(label) : [...node.childNodes].map(textOf).join('');
    };
    const nameOf = (one: Element): string => {
      const { labels } = one as HTMLInputElement;
      const ids = one.getAttribute('aria-labelledby')?.split(' ') ?? [];
      if (ids.length > 0)
        return ids
          .map((id) => document.getElementById(id))
          .map((label) => (label ? textOf(label) : ''))
          .join('');
      if (one.ariaLabel || !labels?.length)
        return textOf(one) || squeezed(one.getAttribute('title') ?? '');
      return [...labels].map(textOf).join('');
    };
    const all = [...(root as Element).querySelectorAll(selector)];
    return (
      all.find(
        (one) =>
          nameOf(one) === squeezed(wanted) &&
          one.checkVisibility({ visibilityProperty: true }) &&
          !one.closest('[aria-hidden=true]'),
      ) ?? null
    );
  },
});

/** A selector for the visible element with this role and accessible name. */
export const named = (name: string, role: keyof typeof ROLES = 'any'): string =>
  `::-p-named(${JSON.stringify(`${ROLES[role]} => ${name}`)})`;

/** Presses a button by name. */
export const press = (page: Page, name: string): Promise<void> =>
  click(page, named(name, 'button'));

const PHASES: Readonly<Record<string, RegExp>> = {
  Arrive: /^(House and rules|Timer|Clock|As found)$/,
  Look: /^(Sightings|Stations|Minutes)$/,
  Plan: /^(Brief|Planner|Programs|Percent and hours)$/,
  Set: /^(Key in|Test and leave)$/,
  'Hand over': /^(Homeowner’s page|Logbook)$/,
};

/** Goes to a step of the visit: by the rail, or on a phone by its phase. */
export async function step(page: Page, name: string): Promise<void> {
  await page.waitForSelector('.rail, .foot');
  if (await page.$('.foot')) {
    const [phase = ''] = Object.entries(PHASES).find(([, steps]) => steps.test(name)) ?? [];
    await press(page, phase);
    await click(page, `.sheet-steps a::-p-text(${name})`);
    await page.waitForSelector('.sheet-steps', { hidden: true });
  } else await click(page, `.rail-steps a::-p-text(${name})`);
}

/** Opens the checks. */
export const checks = (page: Page) => click(page, '.timer-tools [aria-label^="Checks"]');

/** Chooses a range of the strip. */
export const distance = (page: Page, name: 'Night' | '14 nights' | 'Year') =>
  click(page, `.night-head .ant-segmented-item ::-p-text(${name})`);

/** Waits until something is stored on the device (paths as in `kept.ts`), since a page that is left stores nothing more. */
export const isKept = (page: Page, path: string) =>
  page.waitForFunction(
    (end) =>
      new Promise<boolean>((resolve) => {
        const opened = indexedDB.open('water-clock-kept');
        opened.onsuccess = () => {
          const all = opened.result.transaction('answers').objectStore('answers').getAllKeys();
          all.onsuccess = () => {
            opened.result.close();
            resolve(all.result.some((key) => JSON.stringify(key).endsWith(end)));
          };
        };
      }),
    { polling: 250 },
    `,"${path}"]`,
  );

/** Chooses from a timer's menu. */
export async function more(page: Page, words: string): Promise<void> {
  await press(page, 'More');
  await click(page, `.ant-dropdown-menu-item ::-p-text(${words})`);
}

/** Opens the list with this name. */
const open = (page: Page, name: string) => click(page, named(name, 'combobox'));

const OPTION = '.ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option';

/** Options of the list with this name, in order. */
export async function offered(page: Page, name: string): Promise<string[]> {
  await open(page, name);
  await page.waitForSelector(OPTION);
  const words = await page.$$eval(OPTION, (all) => all.map((one) => one.textContent?.trim() ?? ''));
  await page.keyboard.press('Escape');
  // A list still opening takes no key.
  await page
    .waitForSelector(OPTION, { hidden: true, timeout: 5000 })
    .catch(() => page.keyboard.press('Escape'));
  await page.waitForSelector(OPTION, { hidden: true });
  return words;
}

/** Chooses from the list with this name by an option's text. */
export async function choose(page: Page, name: string, words: string): Promise<void> {
  await open(page, name);
  const option = `${OPTION}[title="${words}"]`;
  // A list closes again if its page moved while it opened.
  const isOpen = await page.waitForSelector(option, { timeout: 5000 }).catch(() => null);
  if (!isOpen) await open(page, name);
  await click(page, option);
  await page.waitForSelector(OPTION, { hidden: true });
}

/** Opens or closes a section by its heading. */
export const unfold = (page: Page, within: string): Promise<void> =>
  click(page, `${within} .ant-collapse-header`);

/** Replaces the text of the field with this name, key by key. */
export async function type(page: Page, label: string, text: string): Promise<void> {
  const field = await page.waitForSelector(`[aria-label="${label}"]`);
  await field?.click();
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type(text);
}

export const valueOf = (page: Page, label: string) =>
  page.$eval(`[aria-label="${label}"]`, (field) => (field as HTMLInputElement).value);

/** Waits until all changes are on the server. */
export const saved = (page: Page) => sees(page, '.timer-tools [role=status]', /Saved$/);

/** A file with this content in a folder of its own. */
export const file = (name: string, content: string | Buffer) => {
  const at = path.join(mkdtempSync(path.join(tmpdir(), 'water-clock-')), name);
  writeFileSync(at, content);
  return at;
};

/** Gives a file to the file input matching a selector. */
export async function upload(page: Page, selector: string, at: string): Promise<void> {
  const input = await page.waitForSelector(selector);
  // Safe cast: the selector names a file input.
  await (input as { uploadFile?: (...paths: string[]) => Promise<void> } | null)?.uploadFile?.(at);
}

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
/** Accessibility faults of a page, by rule. */
export async function accessibilityFaults(page: Page): Promise<string[]> {
  // The page's content policy forbids foreign scripts, so the checker is injected through the debugger.
  if (!(await page.evaluate(() => 'axe' in globalThis))) await page.evaluate(axe);
  // Lists only violations; style sheets, which no rule in use reads, are not loaded again.
  const results = await page.evaluate(() =>
    (globalThis as unknown as { axe: typeof Axe }).axe.run({
      resultTypes: ['violations'],
      preload: false,
    }),
  );
  return results.violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html ?? ''}`);
}

/** Saves preferences of the signed-in person, as the dialog does. */
export const prefer = (page: Page, preferences: object) =>
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

/** Pixels by which a page scrolls sideways. */
export const sideways = (page: Page): Promise<number> =>
  page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
