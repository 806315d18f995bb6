/**
 * The application without a network, as docs/benchmarks.md tells it: how soon a kept timer stands with the processor throttled four-fold, how much 200 kept sites take, how long 500 waiting
 * changes take to be in step, and how the memory grows over a month of visits.
 */
import { yardstick } from '../packages/core/bench/yardstick.mjs';
import { onStage } from './stage.mjs';

const LARKHOLT = '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c01';
const FENNIMORE = '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c02';
const TIMES = 7;
const middle = (all) => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)];
const say = (what, value) => process.stdout.write(`| ${what} | ${value} |\n`);

const whole = () =>
  document.querySelector('.verdict[data-of="known"]') &&
  document.querySelector('.strip-cycle') &&
  document.querySelector('.board-cell, .phone-row');

/** When the verdict, the strip and the board as they last stood were painted; null: not yet. */
const lookPainted = () => {
  const tree = document.getElementById('root')?.previousElementSibling?.shadowRoot;
  const [paint] = performance.getEntriesByName('first-contentful-paint');
  return tree?.querySelector('.verdict[data-of="known"]') &&
    tree.querySelector('.strip-cycle') &&
    tree.querySelector('.board-cell, .phone-row') &&
    paint
    ? performance.timeOrigin + paint.startTime
    : null;
};

/** Whether how a timer looks was kept since a moment. */
const isKept = (id, since) =>
  new Promise((resolve) => {
    const opened = indexedDB.open('water-clock-kept');
    opened.onsuccess = () => {
      const all = opened.result.transaction('answers').objectStore('answers').getAll();
      all.onsuccess = () => {
        opened.result.close();
        resolve(all.result.some(({ path, at }) => path === `look:${id}` && at > since));
      };
    };
  });

const SCREENS = [
  { name: 'on a phone', width: 390, height: 844, isMobile: true, hasTouch: true },
  { name: 'at a desk', width: 1280, height: 800 },
];

/** Of a timer that was taken along, and never opened on this device. */
async function coldStart(page, url) {
  await page.evaluate(() => navigator.serviceWorker.ready);
  for (const { name, ...screen } of SCREENS) {
    await page.setViewport(screen);
    await page.goto(`${url}/sites/${LARKHOLT.replace('1c01', '1b01')}`);
    const before = Date.now();
    const menu = await page.waitForSelector('[aria-label="What to do with the house"]');
    if (name === SCREENS[0].name) {
      await menu.click();
      await page
        .locator('.ant-dropdown-menu-item ::-p-text(Always keep it on this device)')
        .click();
    }
    await page.waitForFunction(isKept, { polling: 250 }, LARKHOLT, before);
    say(`its picture is ready ${name}, s`, ((Date.now() - before) / 1000).toFixed(1));
    await page.setOfflineMode(true);
    for (const [how, rate] of [
      ['not throttled', 1],
      ['throttled four-fold', 4],
    ]) {
      const here = yardstick();
      await page.emulateCPUThrottling(rate);
      const seen = [];
      const stands = [];
      for (let i = 0; i < TIMES; i++) {
        await page.goto('about:blank');
        const begun = Date.now();
        await page.goto(`${url}/timers/${LARKHOLT}`, { waitUntil: 'domcontentloaded' });
        // Nothing else is painted before.
        const painted = await page.waitForFunction(lookPainted, { polling: 'raf' });
        seen.push((await painted.jsonValue()) - begun);
        await page.waitForFunction(whole, { polling: 'raf' });
        stands.push(Date.now() - begun);
      }
      await page.emulateCPUThrottling(1);
      const yardsticks = `yardstick ${here.toFixed(0)} before, ${yardstick().toFixed(0)} after`;
      say(`seen as it last stood ${name}, ${how}, ms`, `${middle(seen).toFixed(0)}, ${yardsticks}`);
      say(`takes what is pressed ${name}, ${how}, ms`, middle(stands));
    }
    await page.setOfflineMode(false);
  }
}

/** The store as the application fills it, with the answers of 200 houses of this size. */
async function kept(page, url) {
  await page.goto(`${url}/device`);
  const bytes = await page.evaluate(async (id) => {
    const sizes = await Promise.all(
      ['', '/proposals', '/visits', '/page'].map(async (part) => {
        const answer = await fetch(`/api/timers/${id}${part}`);
        return (await answer.text()).length;
      }),
    );
    return sizes.reduce((sum, size) => sum + size, 0);
  }, LARKHOLT);
  say('200 kept sites of 24 stations without photos, MB', ((200 * bytes) / 1e6).toFixed(1));
}

async function comingBack(page, url) {
  await page.goto(`${url}/timers/${FENNIMORE}`);
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
      FENNIMORE,
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
      ...[FENNIMORE, `entered in the garage, ${isMerged}, 499`],
    );
    say(`500 waiting changes in step, ${what}, s`, ((Date.now() - before) / 1000).toFixed(1));
    await page.evaluate((key) => localStorage.removeItem(key), owner);
  }
}

/** Thirty days: each opens four timers and their steps, changes something, and goes back to Today. */
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
        // Within the application, so that nothing is loaded anew.
        await page.evaluate((to) => {
          history.pushState(null, '', to);
          dispatchEvent(new PopStateEvent('popstate'));
        }, `/timers/${id}${step}`);
        await page.waitForSelector('.verdict[data-of="known"]');
      }
    await page.evaluate(() => {
      history.pushState(null, '', '/');
      dispatchEvent(new PopStateEvent('popstate'));
    });
    await page.waitForSelector('.today');
    if (day % 10 === 9 || day === 1) sizes.push(`day ${day + 1}: ${(await heap()).toFixed(0)}`);
  }
  say('memory of a page that stays open, MB', sizes.join(', '));
}

await onStage(async ({ page, url }) => {
  page.on('dialog', (dialog) => void dialog.accept());
  const asked = process.argv[2];
  const works = { coldStart, kept, comingBack, month };
  for (const [name, work] of Object.entries(works))
    if (asked === undefined || asked === name) await work(page, url);
  say('this machine’s yardstick, ms', yardstick().toFixed(0));
});
