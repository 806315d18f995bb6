/**
 * The application offline, as in docs/benchmarks.md: how soon a kept timer is shown on a four-fold throttled processor, how much space 200
 * kept sites take, how long 500 waiting changes take to sync, and memory growth over a month of visits.
 */
import { onStage } from '../stage.mjs';
import { DESK, FENNIMORE, LARKHOLT, median, PHONE, row, seconds, whole } from './parts.mjs';

const TIMES = 7;

/** A timer that was prefetched and never opened on this device: the real page. */
async function coldStart(page, url) {
  await page.evaluate(() => navigator.serviceWorker.ready);
  for (const { name, screen } of [
    { name: 'on a phone', screen: PHONE },
    { name: 'at a desk', screen: DESK },
  ]) {
    await page.setViewport(screen);
    await page.goto(url + LARKHOLT);
    await page.waitForFunction(whole);
    // What it asked for is stored.
    await page.waitForNetworkIdle();
    await page.setOfflineMode(true);
    for (const [how, rate] of [
      ['not throttled', 1],
      ['throttled four-fold', 4],
    ]) {
      await page.emulateCPUThrottling(rate);
      const stands = [];
      for (let i = 0; i < TIMES; i++) {
        await page.goto('about:blank');
        const begun = Date.now();
        await page.goto(url + LARKHOLT, { waitUntil: 'domcontentloaded' });
        await page.waitForFunction(whole, { polling: 'raf' });
        stands.push(Date.now() - begun);
      }
      await page.emulateCPUThrottling(1);
      row(`a kept timer stands ${name}, ${how}, ms`, median(stands));
    }
    await page.setOfflineMode(false);
  }
}

/** The store as the application fills it, with answers for 200 sites of this size. */
async function kept(page, url) {
  await page.goto(`${url}/device`);
  const bytes = await page.evaluate(async (id) => {
    const sizes = await Promise.all(
      ['', '/proposals', '/visits', '/page'].map(async (part) => {
        const answer = await fetch(`/api${id}${part}`);
        return (await answer.text()).length;
      }),
    );
    return sizes.reduce((sum, size) => sum + size, 0);
  }, LARKHOLT);
  row('200 kept sites of 24 stations without photos, MB', ((200 * bytes) / 1e6).toFixed(1));
}

async function comingBack(page, url) {
  await page.goto(url + FENNIMORE);
  await page.waitForFunction(whole);
  for (const [what, isMerged] of [
    ['nobody changed it meanwhile', false],
    ['a colleague changed it meanwhile', true],
  ]) {
    await page.goto(`${url}/device`);
    const owner = await page.evaluate(
      async (id, merged) => {
        const { person } = await (await fetch('/api/session')).json();
        const { version, plan, survey } = await (await fetch(`/api/timers/${id}`)).json();
        const writes = Array.from({ length: 500 }, (_, i) => ({
          id: crypto.randomUUID(),
          baseVersion: version + i,
          way: 'do',
          at: new Date().toISOString(),
          change: {
            type: 'note-station',
            station: 1 + (i % 8),
            fields: { note: `entered in the garage, ${merged}, ${i}` },
          },
        }));
        const key = `water-clock:pending:${person.companyId}.${person.id}:${id}:gone`;
        localStorage.setItem(key, JSON.stringify([{ base: { version, plan, survey }, writes }]));
        if (merged)
          await fetch(`/api/timers/${id}/changes`, {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify({
              ...{ id: crypto.randomUUID(), baseVersion: version, way: 'do' },
              change: { type: 'note', fields: { hundredMonth: 7 } },
            }),
          });
        return key;
      },
      FENNIMORE.replace('/timers/', ''),
      isMerged,
    );
    const before = Date.now();
    await page.goto(`${url}/device`);
    await page.waitForFunction(
      async (id, last) => {
        const { survey } = await (await fetch(`/api/timers/${id}`)).json();
        return JSON.stringify(survey).includes(last);
      },
      { polling: 200, timeout: 120_000 },
      ...[FENNIMORE.replace('/timers/', ''), `entered in the garage, ${isMerged}, 499`],
    );
    row(`500 waiting changes in step, ${what}`, seconds(Date.now() - before));
    await page.evaluate((key) => localStorage.removeItem(key), owner);
  }
}

/** Thirty days: each opens four timers and their steps, changes something, and returns to Today. */
async function month(page, url) {
  const client = await page.createCDPSession();
  const heap = async () => {
    await client.send('HeapProfiler.collectGarbage');
    return (await page.metrics()).JSHeapUsedSize / 1e6;
  };
  await page.goto(url);
  await page.waitForSelector('.today');
  const sizes = [];
  for (let day = 0; day < 30; day++) {
    for (const id of [LARKHOLT, FENNIMORE])
      for (const step of ['', '/stations', '/minutes', '/keyin']) {
        // Within the application, so that nothing is reloaded.
        await page.evaluate((to) => {
          history.pushState(null, '', to);
          dispatchEvent(new PopStateEvent('popstate'));
        }, id + step);
        await page.waitForSelector('.verdict[data-of="known"]');
      }
    await page.evaluate(() => {
      history.pushState(null, '', '/');
      dispatchEvent(new PopStateEvent('popstate'));
    });
    await page.waitForSelector('.today');
    if (day % 10 === 9 || day === 1) sizes.push(`day ${day + 1}: ${(await heap()).toFixed(0)}`);
  }
  row('memory of a page that stays open, MB', sizes.join(', '));
}

/** @param {readonly string[]} only names of parts: coldStart, kept, comingBack, month */
export default (only) =>
  onStage(async ({ page, url }) => {
    page.on('dialog', (dialog) => void dialog.accept());
    const parts = { coldStart, kept, comingBack, month };
    for (const [name, work] of Object.entries(parts))
      if (only.length === 0 || only.includes(name)) await work(page, url);
  });
