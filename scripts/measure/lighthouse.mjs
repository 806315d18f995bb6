/**
 * `npm run measure -- lighthouse`: Lighthouse scores (mobile preset) for sign-in, Today, the site list and a timer, each the median of
 * three runs (`-- lighthouse 5`: of five), with what lowers each. Lighthouse is not a dependency: `npm install --no-save lighthouse@12`
 * first.
 */
import { onServer, withBrowser } from '../stage.mjs';
import { row } from './parts.mjs';

const PAGES = [
  ['sign-in', '/', false],
  ['Today', '/', true],
  ['sites', '/sites', true],
  ['a timer', '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c02', true],
];
const CATEGORIES = ['performance', 'accessibility', 'best-practices'];
const FIGURES = [
  'first-contentful-paint',
  'largest-contentful-paint',
  'total-blocking-time',
  'cumulative-layout-shift',
  'speed-index',
];

const middle = (numbers) => [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)];

async function lighthouseItself() {
  try {
    return (await import('lighthouse')).default;
  } catch {
    throw new Error('Lighthouse is missing: run npm install --no-save lighthouse@12');
  }
}

export default async function measure([runs = '3']) {
  const lighthouse = await lighthouseItself();
  await onServer(async ({ serve }) => {
    const { url } = await serve();
    for (const [name, path, isSignedIn] of PAGES) {
      const results = [];
      for (let run = 0; run < Number(runs); run++)
        await withBrowser(async (browser) => {
          const page = await browser.newPage();
          if (isSignedIn) {
            await page.goto(url);
            await (await page.waitForSelector('.sign-in-demo button')).click();
            await page.waitForSelector('.today');
          }
          const { lhr } = await lighthouse(
            `${url}${path}`,
            // Keep cookies, otherwise no one is signed in.
            { onlyCategories: CATEGORIES, disableStorageReset: true, logLevel: 'error' },
            undefined,
            page,
          );
          results.push(lhr);
        });
      const scores = CATEGORIES.map((category) =>
        Math.round(100 * middle(results.map((one) => one.categories[category].score))),
      );
      row(`${name}: ${CATEGORIES.join(', ')}`, scores.join(', '));
      row(
        `${name}: first and largest paint, blocking, shift, index`,
        FIGURES.map((id) =>
          middle(results.map((one) => one.audits[id].numericValue)).toFixed(
            id === 'cumulative-layout-shift' ? 3 : 0,
          ),
        ).join(', '),
      );
      const [last] = results.slice(-1);
      for (const category of CATEGORIES.slice(1))
        for (const { id } of last.categories[category].auditRefs) {
          const { score, scoreDisplayMode, title } = last.audits[id];
          if (scoreDisplayMode === 'binary' && score !== null && score < 1)
            row(`${name}: held back by`, `${title} (${id})`);
        }
    }
  });
}
