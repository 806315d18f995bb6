/**
 * How soon each step of a visit is shown on a four-fold throttled processor: opened by address from a warm server, and reached from another
 * step. Counts the first frame with the step's own content. Prints two columns for docs/benchmarks.md. Step names as in their addresses
 * (`programs` for the first) limit the run to those.
 */
import { onStage } from '../stage.mjs';
import { FENNIMORE, median, row } from './parts.mjs';

const TIMES = 3;
/** Each step, its name in the rail, and something only it has. */
const STEPS = [
  ['house', 'House and rules', '.rules-now'],
  ['timer', 'Timer', '.kind-card'],
  ['clock', 'Clock', '.clock-answer'],
  ['found', 'As found', '.visit-begin, .panel-progress'],
  ['seen', 'Sightings', '.visit-begin, .sighting'],
  ['stations', 'Stations', '.walked'],
  ['minutes', 'Minutes', '.minute-rows'],
  ['brief', 'Brief', '.brief'],
  ['plan', 'Planner', '.planner'],
  ['', 'Programs', '.board-cell'],
  ['settings', 'Percent and hours', '.hours-grid'],
  ['keyin', 'Key in', '.visit-begin, .key-card'],
  ['leave', 'Test and leave', '.visit-begin, .leave-part'],
  ['page', 'Homeowner’s page', '.sheet'],
  ['log', 'Logbook', '.log, .files'],
];

/** In the page: milliseconds from now, or from the start of the load, to the frame that shows an element. */
const seen = (selector, sinceLoad) =>
  new Promise((resolve) => {
    const begun = sinceLoad ? 0 : performance.now();
    const look = () => {
      if (!document.querySelector(selector)) requestAnimationFrame(look);
      else requestAnimationFrame(() => resolve(performance.now() - begun));
    };
    look();
  });

/** @param {readonly string[]} only names of steps */
export default (only) =>
  onStage(async ({ page, url }) => {
    const wanted = STEPS.filter(([path]) => only.length === 0 || only.includes(path || 'programs'));
    // A warm server.
    for (const [path, , selector] of wanted) {
      await page.goto(`${url}${FENNIMORE}/${path}`);
      await page.waitForSelector(selector);
    }
    await page.emulateCPUThrottling(4);
    row('step', 'by its address, ms', 'from another step, ms');
    for (const [path, name, selector] of wanted) {
      const [opened, reached] = [[], []];
      for (let i = 0; i < TIMES; i++) {
        await page.setCacheEnabled(false);
        await page.goto(`${url}${FENNIMORE}/${path}`, { waitUntil: 'domcontentloaded' });
        opened.push(await page.evaluate(seen, selector, true));
        await page.setCacheEnabled(true);
        // From the neighbouring step, after looking at it for a while.
        await page.goto(`${url}${FENNIMORE}/${path === 'log' ? 'house' : 'log'}`);
        await page.waitForSelector('.verdict[data-of="known"]');
        await new Promise((resolve) => setTimeout(resolve, 3_000));
        const link = await page.waitForSelector(`.rail-steps a::-p-text(${name})`);
        const isThere = page.evaluate(seen, selector, false);
        await link.evaluate((one) => one.click());
        reached.push(await isThere);
      }
      row(name, median(opened).toFixed(0), median(reached).toFixed(0));
    }
  });
