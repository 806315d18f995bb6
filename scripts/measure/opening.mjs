/**
 * How soon the first screen of a timer is shown, and how far it moves afterwards: from a warm server with an empty browser cache and a
 * four-fold throttled processor. Prints a row for docs/benchmarks.md.
 */
import { onStage } from '../stage.mjs';
import { DESK, LARKHOLT, median, PHONE, row } from './parts.mjs';

const TIMES = 7;

export default () =>
  onStage(async ({ page, url }) => {
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
    row('screen', 'first paint, ms', 'whole, ms', 'layout shift');
    for (const { width, height } of [DESK, PHONE]) {
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
      const middle = (key) => median(all.map((one) => one[key]));
      row(
        `${width}×${height}`,
        middle('first').toFixed(0),
        middle('painted').toFixed(0),
        middle('shift').toFixed(3),
      );
    }
  });
