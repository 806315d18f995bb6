/**
 * How soon the first screen of a timer stands, and how far it moves after that: opened from a warm server with nothing in the
 * browser's cache, its processor throttled four-fold. Prints a row of docs/benchmarks.md.
 */
import { yardstick } from '../packages/core/bench/yardstick.mjs';
import { onStage } from './stage.mjs';

const TIMES = 7;
const LARKHOLT = '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c01';

await onStage(async ({ page, url }) => {
  await page.setCacheEnabled(false);
  await page.emulateCPUThrottling(4);
  await page.evaluateOnNewDocument(() => {
    globalThis.opening = { shift: 0, painted: null };
    new PerformanceObserver((list) => {
      for (const { value, hadRecentInput } of list.getEntries())
        if (!hadRecentInput) globalThis.opening.shift += value;
    }).observe({ type: 'layout-shift', buffered: true });
    // Strip, verdict and board: the first frame that shows all three.
    const whole = () =>
      document.querySelector('.verdict[data-of="known"]') &&
      document.querySelector('.strip-cycle') &&
      document.querySelector('.board-cell, .phone-row');
    const look = () => {
      if (!whole()) requestAnimationFrame(look);
      else requestAnimationFrame(() => (globalThis.opening.painted = performance.now()));
    };
    requestAnimationFrame(look);
  });
  for (const [what, width, height] of [
    ['1280×800', 1280, 800],
    ['390×844', 390, 844],
  ]) {
    await page.setViewport({ width, height });
    const all = [];
    for (let i = 0; i < TIMES; i++) {
      await page.goto(url + LARKHOLT);
      await page.waitForFunction(() => globalThis.opening.painted !== null);
      await new Promise((resolve) => setTimeout(resolve, 2_000));
      all.push(
        await page.evaluate(() => ({
          ...globalThis.opening,
          first: performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? 0,
        })),
      );
    }
    const middle = (key) => all.map((one) => one[key]).sort((a, b) => a - b)[Math.floor(TIMES / 2)];
    process.stdout.write(
      `| ${what} | ${middle('first').toFixed(0)} | ${middle('painted')?.toFixed(0)} | ${middle('shift').toFixed(3)} | ${yardstick().toFixed(0)} |\n`,
    );
  }
});
