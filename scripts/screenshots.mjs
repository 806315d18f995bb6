/** Makes docs/screenshots from the demo data: one current picture of each main view. Call it after a view has changed. */
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import puppeteer from 'puppeteer-core';
import { ensureDatabase, startCluster } from './cluster.mjs';
import { startServer } from './server.mjs';
import { chromiumProgram, ROOT, setUp } from './setup.mjs';

const TIMER = (n) => `/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c0${n}`;
const OUT = path.join(ROOT, 'docs/screenshots');

setUp({ database: true, browser: true, web: true });
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'water-clock-pictures-'));
const cluster = await startCluster({ name: `test-${process.pid}`, throwAway: true });
let browser;
let server;
try {
  await ensureDatabase(cluster.url('postgres'), 'pictures');
  server = await startServer({
    databaseUrl: cluster.url('pictures'),
    env: { WATER_CLOCK_DEMO: '1', LOG_LEVEL: 'error' },
    logFile: path.join(folder, 'server.log'),
  });
  browser = await puppeteer.launch({
    executablePath: chromiumProgram(),
    userDataDir: path.join(folder, 'profile'),
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-dev-shm-usage',
      '--no-first-run',
      '--font-render-hinting=none',
      '--force-color-profile=srgb',
    ],
  });
  const page = await browser.newPage();
  const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
  const size = (width, height) =>
    page.setViewport({ width, height, isMobile: width < 600, hasTouch: width < 600 });
  const take = async (name, from = page) => {
    await pause(500);
    await from.screenshot({ path: path.join(OUT, `${name}.png`) });
  };
  const open = async (address) => {
    await page.goto(server.url + address);
    await page.waitForSelector('.strip svg, .sites, .site-form, .survey-view, .walk, .library');
  };
  const press = async (name) => {
    const button = await page.$(`::-p-aria([name="${name}"][role="button"])`);
    await button?.click();
  };

  fs.mkdirSync(OUT, { recursive: true });
  await size(1280, 800);
  await page.goto(server.url);
  const demo = await page.waitForSelector('.sign-in-demo button');
  await demo.click();
  await page.waitForSelector('.sites');
  await take('sites');
  await open(TIMER(2));
  await press('Show that night');
  await take('timer-overlap');
  await open(TIMER(1));
  const nights = await page.$$('.small-night');
  await nights[1].click();
  await take('timer-clear');
  await open(TIMER(5));
  await page.evaluate(() => document.querySelector('.day-rule').scrollIntoView());
  await page.evaluate(() => scrollBy(0, -330));
  await take('timer-interval');
  await open(TIMER(1));
  const box = await (await page.$('.strip-cycle')).boundingBox();
  await page.mouse.click(box.x + 4, box.y + box.height / 2);
  await page.waitForSelector('.cycle-details');
  await take('timer-seconds');
  await open(TIMER(5));
  await press('A year');
  await page.waitForSelector('.year-chart');
  await page.evaluate(() => scrollTo(0, 0));
  await take('timer-year');
  await open(`${TIMER(7)}/settings`);
  await take('settings');
  await open(`${TIMER(1)}/clock`);
  await press('12 h ahead');
  await take('clock');
  for (const view of ['house', 'stations', 'minutes', 'brief']) {
    await open(`${TIMER(2)}/${view}`);
    await page.waitForSelector('.survey-view');
    await take(view);
  }
  await open(`${TIMER(1)}/plan`);
  await page.waitForSelector('.planner .check');
  await press('Work it out');
  await page.waitForFunction(
    () =>
      document.querySelectorAll('.plan-alternative').length > 1 &&
      !document.querySelector('.planner-head button:not(.ant-btn-primary)'),
    { timeout: 120_000 },
  );
  await take('planner');
  await open(`${TIMER(2)}/timer`);
  await page.waitForSelector('.device');
  await take('timer-facts');
  await open('/library/rules/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1d01');
  await page.waitForSelector('.edition');
  await take('library');
  await open('/sites/new');
  await take('new-site');

  // Two tabs on one timer; mine does not hear of the other one before it saves.
  await open(TIMER(3));
  const network = await page.createCDPSession();
  await network.send('Network.enable');
  await network.send('Network.setBlockedURLs', { urls: ['*/version'] });
  await page.evaluate(async (address) => {
    const { version } = await (await fetch(`/api${address}`)).json();
    const change = { type: 'set-starts', program: 'B', starts: ['02:00'] };
    const body = { id: crypto.randomUUID(), baseVersion: version, way: 'do', change };
    const headers = { 'content-type': 'application/json' };
    await fetch(`/api${address}/changes`, { method: 'POST', headers, body: JSON.stringify(body) });
  }, TIMER(3));
  await page.focus('[aria-label="Start 1 of B"]');
  await page.keyboard.type('1:15a');
  await page.keyboard.press('Enter');
  await page.waitForSelector('.conflict-table');
  await take('conflict');
  await press('Keep what is saved');
  await network.detach();

  await size(390, 844);
  await open(TIMER(2));
  await press('Show that night');
  await take('phone-timer');
  await open(`${TIMER(2)}/walk/3`);
  await page.waitForSelector('.walk');
  await take('phone-walk');
} finally {
  await browser?.close();
  await server?.stop();
  cluster.remove();
  fs.rmSync(folder, { recursive: true, force: true });
}
