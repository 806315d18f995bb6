/**
 * Time from a key press in a run-time cell, and from a move of a dragged start, to the repainted strip and verdict, on the largest demo
 * timer in headless Chromium. Prints two rows for docs/benchmarks.md.
 */
import { onStage } from '../stage.mjs';
import { DESK, LARKHOLT, quantile, row } from './parts.mjs';

const KEYS = 300;
/** Milliseconds between two key presses or moves; polling the page would keep it busy. */
const pause = (least = 110) =>
  new Promise((resolve) => setTimeout(resolve, least + Math.random() * 17));

/** In the page. The time of the key press is the browser's own; the end is the first moment after the frame with the new strip. */
function watch() {
  globalThis.samples = [];
  let pressedAt = null;
  addEventListener('keydown', (event) => (pressedAt = event.timeStamp), { capture: true });
  const moved = (event) => event.buttons > 0 && (pressedAt = event.timeStamp);
  addEventListener('pointermove', moved, { capture: true });
  // The times on the cycles: they change when the answer is drawn, not when a drag begins.
  const times = () =>
    [...document.querySelectorAll('.strip-times')].map((one) => one.textContent).join();
  let last = times();
  const observer = new MutationObserver(() => {
    const now = times();
    if (pressedAt === null || now === last) return;
    last = now;
    const began = pressedAt;
    pressedAt = null;
    requestAnimationFrame(() => {
      const { port1, port2 } = new MessageChannel();
      port1.onmessage = () => globalThis.samples.push(performance.now() - began);
      port2.postMessage(null);
    });
  });
  const what = { subtree: true, childList: true, attributes: true, characterData: true };
  observer.observe(document.querySelector('.strip'), what);
}

export default () =>
  onStage(async ({ browser, url }) => {
    row('what', 'median, ms', '95th percentile', '99.9th');
    /** Each measurement has its own page, so that earlier typing does not count. */
    const measure = async (what, work) => {
      const page = await browser.newPage();
      await page.setViewport(DESK);
      await page.goto(url + LARKHOLT);
      await page.waitForSelector('.verdict[data-of="known"]');
      await page.waitForSelector('.strip-run');
      await page.evaluate(watch);
      await work(page);
      const all = await page.evaluate(() => globalThis.samples.splice(0));
      await page.close();
      const samples = all.slice(10);
      const at = (share) => quantile(samples, share).toFixed(1);
      row(`${samples.length} ${what}`, at(0.5), at(0.95), at(0.999));
    };
    const keys = async (page, least) => {
      // The last cell but two of the board; only its visible part is rendered.
      await page.focus('[data-cell="0:0"]');
      await page.keyboard.down('Control');
      await page.keyboard.press('End');
      await page.keyboard.up('Control');
      await page.keyboard.press('ArrowUp');
      await page.keyboard.press('ArrowUp');
      // 8, 80, 8, 80 …: the program's cycle, the strip, the board and the headroom change with each key press.
      await page.keyboard.type('8');
      for (let i = 0; i < KEYS; i++) {
        await page.keyboard.press(i % 2 === 0 ? '0' : 'Backspace');
        await pause(least);
      }
    };
    await measure('keys', keys);
    await measure('keys, four-fold throttled', async (page) => {
      await page.emulateCPUThrottling(4);
      // Four key presses a second: faster ones would wait for the work of the one before.
      await keys(page, 250);
    });
    await measure('moves', async (page) => {
      const box = await (await page.$('.strip-cycle')).boundingBox();
      const [x, y] = [box.x + 4, box.y + box.height / 2];
      await page.mouse.move(x, y);
      await page.mouse.down();
      for (let i = 0; i < KEYS; i++) {
        await page.mouse.move(x + 20 + (i % 2) * 30 + (i % 7) * 4, y);
        await pause();
      }
    });
  });
