/** The built application with its own database and a browser, for scripts that measure it and take screenshots. */
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import puppeteer from 'puppeteer-core';
import { ensureDatabase, startCluster } from './cluster.mjs';
import { startServer } from './server.mjs';
import { chromiumProgram, setUp } from './setup.mjs';

/**
 * Starts a cluster, does the work, and shuts everything down.
 *
 * @param {(given: { databaseUrl: string, folder: string, serve: (env?: Record<string, string>) => Promise<any> }) => Promise<unknown>} work
 * `serve` starts a server on the database
 */
export async function onServer(work) {
  setUp({ database: true, browser: true, web: true });
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'water-clock-stage-'));
  const cluster = await startCluster({ name: `test-${process.pid}`, throwAway: true });
  const servers = [];
  try {
    await ensureDatabase(cluster.url('postgres'), 'stage');
    const databaseUrl = cluster.url('stage');
    const serve = async (env = {}) => {
      const server = await startServer({
        databaseUrl,
        env: { WATER_CLOCK_DEMO: '1', LOG_LEVEL: 'error', ...env },
        logFile: path.join(folder, 'server.log'),
      });
      servers.push(server);
      return server;
    };
    await work({ databaseUrl, folder, serve });
  } finally {
    for (const server of servers) await server.stop();
    cluster.remove();
    fs.rmSync(folder, { recursive: true, force: true });
  }
}

const SWITCHES = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-dev-shm-usage',
  '--no-first-run',
  '--font-render-hinting=none',
  '--force-color-profile=srgb',
];

/**
 * Does something with its own browser.
 *
 * @param {readonly string[]} more switches
 */
export async function withBrowser(work, more = []) {
  const browser = await puppeteer.launch({
    executablePath: chromiumProgram(),
    args: [...SWITCHES, ...more],
  });
  try {
    return await work(browser);
  } finally {
    await browser.close();
  }
}

/** Starts everything, signs the demo person in on a page of 1280×800, and does the work. */
export const onStage = (work) =>
  onServer(async ({ serve }) => {
    const { url } = await serve();
    await withBrowser(async (browser) => {
      const page = await browser.newPage();
      await page.setViewport({ width: 1280, height: 800 });
      await page.goto(url);
      await (await page.waitForSelector('.sign-in-demo button')).click();
      await page.waitForSelector('.today');
      await work({ browser, page, url });
    });
  });
