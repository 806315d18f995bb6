/** Makes docs/screenshots, and the pictures of the help, from the demo data. Run it after changing a view. */
import fs from 'node:fs';
import path from 'node:path';
import { ROOT } from './setup.mjs';
import { onStage } from './stage.mjs';

const TIMER = (n) => `/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c0${n}`;
const OUT = path.join(ROOT, 'docs/screenshots');
const HELP = path.join(ROOT, 'apps/web/public/help');
/** Each step, and the timer that shows it. */
const HELP_STEPS = [
  ...['house', 'timer', 'clock', 'stations', 'minutes', 'brief', 'programs'].map((step) => [
    step,
    2,
  ]),
  ['plan', 2],
  ['settings', 7],
  ...['found', 'seen', 'keyin', 'leave', 'page', 'log'].map((step) => [step, 'a']),
];

await onStage(async ({ page, url }) => {
  const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
  const size = (width, height) =>
    page.setViewport({ width, height, isMobile: width < 600, hasTouch: width < 600 });
  const take = async (name, from = page) => {
    await pause(500);
    await from.screenshot({ path: path.join(OUT, `${name}.png`) });
  };
  const open = async (address) => {
    await page.goto(url + address);
    await page.waitForSelector(
      '.strip svg, .today, .sites, .site-form, .survey-view, .walk, .library',
    );
  };
  const press = async (name) => {
    const button = await page.$(`::-p-aria([name="${name}"][role="button"])`);
    await button?.click();
  };

  fs.mkdirSync(OUT, { recursive: true });
  await size(1280, 800);
  await page.goto(url);
  await page.waitForSelector('.today');
  await take('today');
  await open('/sites');
  await take('sites');
  await open(TIMER(2));
  await press('Show that night');
  await take('timer-overlap');
  await open(`${TIMER(7)}/settings`);
  await take('settings');
  for (const view of ['stations', 'minutes']) {
    await open(`${TIMER(2)}/${view}`);
    await page.waitForSelector('.survey-view');
    await take(view);
  }
  await open(`${TIMER(1)}/plan`);
  await page.waitForSelector('.planner .check');
  await page.waitForFunction(
    () =>
      document.querySelectorAll('.plan-card').length > 2 &&
      !/…/.test(document.querySelector('.planner-head [role=status]')?.textContent ?? ''),
    { timeout: 120_000 },
  );
  await take('planner');
  await page.goto(`${url}/bench?timer=${TIMER(2).replace('/timers/', '')}`);
  await page.waitForSelector('.bench-screen');
  for (let n = 0; n < 3; n++) await press('Next event');
  for (let n = 0; n < 6; n++) await press('Page on');
  await take('bench');
  await open('/library/rules/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1d01');
  await page.waitForSelector('.read-document');
  await take('library');
  // A visit at the site someone called about.
  const radio = async (words) => {
    await page.evaluate(
      (text) =>
        [...document.querySelectorAll('[role=radio]')]
          .find((one) => one.textContent.includes(text))
          .click(),
      words,
    );
    await pause(400);
  };
  await open(`${TIMER('a')}/found`);
  await press('Start visit');
  await page.waitForSelector('.panel-line');
  await take('as-found');
  await radio('No hidden programs');
  await press('Save as found');
  await page.waitForSelector('.visit-frozen');
  await open(`${TIMER('a')}/seen`);
  await page.waitForSelector('.sighting');
  await page.type('input[placeholder="3:15p"]', '4:45p');
  await page.locator('::-p-aria([name="Where"][role="combobox"])').click();
  await page.locator('.ant-select-item-option[title^="2 "]').click();
  await press('Add sighting');
  await page.waitForSelector('.explanation');
  await take('what-was-seen');
  await open(`${TIMER('a')}/leave`);
  await press('Save as left');
  await page.evaluate(() => scrollTo(0, 0));
  await take('test-and-leave');
  await open(`${TIMER('a')}/page`);
  await page.waitForSelector('.sheet');
  await take('homeowners-page');
  await open(`${TIMER('a')}/log`);
  await page.waitForSelector('.log-entry');
  await take('logbook');

  await size(390, 844);
  await open(TIMER(2));
  await press('Show that night');
  await take('phone-timer');
  await open(`${TIMER('a')}/keyin`);
  await page.waitForSelector('.key-card');
  await page.locator('::-p-aria([name="Key in"][role="combobox"])').click();
  await page.locator('.ant-select-item-option[title="Everything"]').click();
  await page.evaluate(() => document.activeElement?.blur());
  await take('phone-key-in');

  // Small pictures for each step's help: the step alone.
  await size(1180, 760);
  fs.mkdirSync(HELP, { recursive: true });
  for (const [step, timer] of HELP_STEPS) {
    await open(`${TIMER(timer)}/${step === 'programs' ? '' : step}`);
    await page.evaluate(() => scrollTo(0, 0));
    await pause(700);
    await page.screenshot({
      path: path.join(HELP, `${step}.webp`),
      type: 'webp',
      quality: 55,
      clip: { x: 217, y: 114, width: 963, height: 560 },
    });
  }

  await size(1280, 800);
  // A second timer at the site: the same garden, and so the same hours.
  await open('/sites');
  await page.evaluate(async (copyOf) => {
    const post = (path, body) =>
      fetch(path, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    const house = await (await fetch('/api/sites/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b02')).json();
    const { id, version, timers, isArchived, ...site } = house;
    await post(`/api/sites/${id}/changes`, {
      id: crypto.randomUUID(),
      baseVersion: version,
      site: { ...site, street: 'Mill Lane', locality: 'Dunnock', supplyFlow: 40 },
    });
    await post(`/api/timers/${copyOf}/place`, {
      id: crypto.randomUUID(),
      baseVersion: 1,
      name: 'Garage',
      siteId: id,
      isArchived: false,
    });
    await post(`/api/sites/${id}/timers`, {
      timerId: '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1cff',
      name: 'Shed',
      copyOf,
      withSurvey: true,
    });
  }, TIMER(2).split('/').at(-1));
  await page.goto(`${url}/sites/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b02`);
  await page.waitForSelector('.house-strip');
  await take('one-house');

  // Changed rules: a replan, and one of its gardens.
  await page.goto(`${url}/replans`);
  const plan = await page.waitForSelector('::-p-aria([name="Replan all"][role="button"])');
  await plan.click();
  await page.waitForFunction(() => /\d need your decision/.test(document.body.textContent), {
    timeout: 120_000,
  });
  await page.waitForSelector('[aria-label="Review Fennimore house"]');
  await press('Review Fennimore house');
  await page.waitForSelector('.ant-drawer-body ol');
  await take('rules-changed');
  // A week of visits.
  await page.evaluate(async (timers) => {
    const day = (later) => new Date(Date.now() + later * 86_400_000).toISOString().slice(0, 10);
    for (const [i, timer] of timers.entries())
      await fetch(`/api${timer}/stop`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          ...{ id: crypto.randomUUID(), baseVersion: 0, day: day(i % 3) },
          note: i === 1 ? 'ring first: there is a dog' : '',
        }),
      });
  }, [1, 3, 5, 6, 7, 8].map(TIMER));
  await page.goto(`${url}/calendar`);
  await page.waitForSelector('main li');
  await take('calendar');
});
