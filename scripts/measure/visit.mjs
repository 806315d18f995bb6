/**
 * Taps and key presses of a service call on a phone ("it comes on in the afternoon"): started from Today, saved as found, diagnosed, keyed
 * in with read-back, tested and closed. Prints a row for docs/benchmarks.md for each part. Finds buttons by name, so that older versions
 * can be measured with the same script.
 */
import { onStage } from '../stage.mjs';
import { PHONE, row } from './parts.mjs';

const THISTLE = '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c0a';

export default () =>
  onStage(async ({ page, url }) => {
    page.setDefaultTimeout(20_000);
    await page.setViewport(PHONE);
    let taps = 0;
    let keys = 0;
    const places = new Set();
    const tap = async (element) => {
      await element.evaluate((one) => one.scrollIntoView({ block: 'center' }));
      await new Promise((resolve) => setTimeout(resolve, 250));
      await element.tap();
      taps++;
      await new Promise((resolve) => setTimeout(resolve, 250));
      places.add(await page.evaluate(() => location.pathname));
    };
    const on = async (selector) => tap(await page.waitForSelector(selector));
    const press = (name) => on(`::-p-aria([name="${name}"][role="button"])`);
    const has = (selector) => page.$(selector);
    const type = async (text) => {
      keys += text.length;
      await page.keyboard.type(text);
    };
    const enter = async () => {
      keys++;
      await page.keyboard.press('Enter');
      await new Promise((resolve) => setTimeout(resolve, 150));
    };
    const step = async (phase, name) => {
      await press(phase);
      await on(`.sheet-steps a::-p-text(${name})`);
    };
    const choose = async (name, pattern) => {
      await on(`::-p-aria([name="${name}"][role="combobox"])`);
      const options =
        '.ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option';
      await page.waitForSelector(options);
      const all = await page.$$(options);
      const words = await Promise.all(all.map((one) => one.evaluate((each) => each.textContent)));
      await tap(all[words.findIndex((one, i) => i > 0 && pattern.test(one))]);
    };
    const told = (what) => {
      row(what, taps, keys, places.size);
      taps = keys = 0;
      places.clear();
    };
    row('on a phone', 'taps', 'keys', 'pages');

    // Started from Today, in its row if it has a button, otherwise through the site.
    await page.goto(url);
    await page.waitForSelector('.today');
    const line = await has('li:has(a[href*="' + THISTLE + '"])');
    const start = await line?.$('::-p-text(Start visit)');
    if (start) await tap(start);
    else {
      await on(`a[href*="${THISTLE}"]`);
      await step('Arrive', 'As found');
      await on('.visit-begin button');
    }
    await page.waitForSelector('[data-line]');
    told('begin from Today');

    // As found: every line confirmed as planned by its own key press, and no hidden programs.
    await on('[data-line][data-looked="false"]');
    for (let n = 0; n < 80 && (await has('[data-line][data-looked="false"]')); n++) await enter();
    await on('::-p-aria([name="No hidden programs"][role="radio"])');
    await press('Save as found');
    await page.waitForSelector('.visit-frozen');
    told('note as found, 24 settings');

    await step('Look', 'Sightings');
    await choose('Day', /^(Tue|Thu|Sat)/);
    await on('input[placeholder="3:15p"]');
    await type('3:15p');
    await choose('Where', /^2 /);
    await press('Add sighting');
    await page.waitForSelector('.explanation');
    await press('This was it');
    await on('.explanation ::-p-text(this start)').catch(() => press('Take this start out'));
    told('find “it comes on in the afternoon”');

    await step('Set', 'Key in');
    await page.waitForSelector('.key-line');
    const values = new Map(
      await page.$$eval('.key-line', (all) =>
        all.map((one) =>
          ['.key-name', '.key-value'].map((part) => one.querySelector(part).textContent),
        ),
      ),
    );
    await on('.key-acts .ant-checkbox-wrapper');
    for (let n = 0; n < 10 && (await has('.key-line-next input')); n++) {
      const value = values.get(
        await page.$eval('.key-line-next .key-name', (one) => one.textContent),
      );
      // The field has the focus already, or is tapped.
      await page
        .waitForFunction(() => document.activeElement?.closest('.key-line-next input'), {
          timeout: 1_500,
        })
        .catch(() => on('.key-line-next input'));
      await type(value);
      await enter();
    }
    told('key in with read-back, 3 settings');

    await step('Set', 'Test and leave');
    await on('button::-p-text(All ran well)');
    await press('Save as left');
    await press('Ask someone to watch the first watering');
    const close = await page.waitForSelector('button::-p-text(Close visit)');
    await tap(close);
    for (let n = 0; n < 10 && !(await has('.visit-begin')); n++) {
      const box = await has('.undone-list .ant-checkbox:not(.ant-checkbox-checked) input');
      if (box) await tap(box);
      else {
        const leave = await has('button:not([disabled])::-p-text(Close anyway)');
        if (leave) await tap(leave);
      }
      await new Promise((resolve) => setTimeout(resolve, 400));
    }
    await page.waitForSelector('.visit-begin');
    told('test, leave and close');
  });
