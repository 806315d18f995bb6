/** The built application with its demo data, and a browser beside it, for the scripts that measure it and take its pictures. */
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import puppeteer from 'puppeteer-core';
import { ensureDatabase, startCluster } from './cluster.mjs';
import { startServer } from './server.mjs';
import { chromiumProgram, setUp } from './setup.mjs';

/** Starts all, signs the demo person in on a page of 1280×800, does the work, and takes everything down again. */
export async function onStage(work) {
  setUp({ database: true, browser: true, web: true });
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'water-clock-stage-'));
  const cluster = await startCluster({ name: `test-${process.pid}`, throwAway: true });
  let browser;
  let server;
  try {
    await ensureDatabase(cluster.url('postgres'), 'stage');
    server = await startServer({
      databaseUrl: cluster.url('stage'),
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
    await page.setViewport({ width: 1280, height: 800 });
    await page.goto(server.url);
    await (await page.waitForSelector('.sign-in-demo button')).click();
    await page.waitForSelector('.today');
    await work({ browser, page, url: server.url });
  } finally {
    await browser?.close();
    await server?.stop();
    cluster.remove();
    fs.rmSync(folder, { recursive: true, force: true });
  }
}
