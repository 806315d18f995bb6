/**
 * Key presses of a walk of twelve stations by keyboard, compared with the same facts in a plain form: one screen for each station with
 * fields and drop-down lists, a save button and a next button. Both are done in headless Chromium and the results compared. Prints two rows
 * for docs/benchmarks.md.
 */
import { HEAD_WORDS, PLANT_WORDS, SOIL_WORDS, SUN_WORDS } from '../../packages/core/dist/index.js';
import { onStage } from '../stage.mjs';
import { DESK, row } from './parts.mjs';

/** A realistic garden: neighbours share soil and often sun and slope. */
const GARDEN = [
  ['Front lawn', 0, 0, 2, 3, 0, '64', '8'],
  ['Front lawn, gate', 0, 0, 2, 3, 0, '41', '6'],
  ['Side strip', 0, 0, 1, 3, 0, '22', '4'],
  ['Back lawn west', 2, 0, 2, 3, 1, '140', '4'],
  ['Back lawn east', 2, 0, 2, 3, 1, '150', '4'],
  ['Back lawn fence', 2, 0, 2, 3, 1, '120', '3'],
  ['Roses', 5, 3, 3, 3, 0, '22', '30'],
  ['Long border', 5, 3, 2, 3, 0, '35', '48'],
  ['Hedge', 5, 3, 2, 3, 0, '18', '24'],
  ['Kitchen garden', 6, 6, 2, 1, 0, '26', '9'],
  ['Herbs', 6, 6, 2, 1, 0, '8', '4'],
  ['Pots', 5, 2, 3, 1, 0, '5', '14'],
];
const LISTS = [HEAD_WORDS, PLANT_WORDS, SUN_WORDS, SOIL_WORDS].map((words) => Object.values(words));
const SLOPES = ['Flat', 'Up to 6 %', 'Up to 12 %', 'Over 12 %'];
const ALL = [...LISTS, SLOPES];

/** The fewest letters with which a drop-down list selects a word: it takes the first that begins with them. */
const lettersFor = (words, at) => {
  for (let n = 1; n <= words[at].length; n++) {
    const typed = words[at].slice(0, n).toLowerCase();
    if (words.findIndex((word) => word.toLowerCase().startsWith(typed)) === at) return typed;
  }
  throw new Error(`${words[at]} cannot be told apart`);
};

export default () =>
  onStage(async ({ page, url }) => {
    let presses = 0;
    const key = async (name) => {
      presses++;
      await page.keyboard.press(name);
    };
    const type = async (text) => {
      presses += text.length;
      await page.keyboard.type(text);
    };

    // The plain form.
    const list = (words) =>
      `<select><option></option>${words.map((w) => `<option>${w}</option>`).join('')}</select>`;
    const form = `<form><input>${ALL.map(list).join('')}<input><input><button type="button">Save</button><button type="button">Next</button></form>`;
    for (const [name, ...facts] of GARDEN) {
      await page.setContent(form);
      await page.focus('input');
      await type(name);
      for (const [i, words] of ALL.entries()) {
        await key('Tab');
        await type(lettersFor(words, facts[i]));
      }
      for (const number of facts.slice(5)) {
        await key('Tab');
        await type(number);
      }
      const entered = await page.$$eval('input, select', (all) => all.map((one) => one.value));
      const meant = [name, ...ALL.map((words, i) => words[facts[i]]), ...facts.slice(5)];
      if (entered.join() !== meant.join()) throw new Error(`the form has ${entered.join()}`);
      await key('Tab');
      await key('Enter');
      await key('Tab');
      await key('Enter');
    }
    const plain = presses;

    // The walk, with = wherever everything that follows is as at the station before.
    await page.setViewport(DESK);
    await page.goto(url);
    await page.waitForSelector('.today');
    const timerId = await page.evaluate(async () => {
      const answer = await (await fetch('/api/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c01')).json();
      const ids = { siteId: crypto.randomUUID(), timerId: crypto.randomUUID() };
      const stations = Array.from({ length: 12 }, (_, i) => ({ number: i + 1 }));
      const plan = { ...answer.plan, stations, programs: [], settings: {} };
      const site = { name: 'A garden to be walked', timeZone: 'Australia/Adelaide' };
      const headers = { 'content-type': 'application/json' };
      await fetch('/api/sites', {
        method: 'POST',
        headers,
        body: JSON.stringify({ ...ids, site, plan }),
      });
      return ids.timerId;
    });
    presses = 0;
    await page.goto(`${url}/timers/${timerId}/walk/1`);
    for (const [i, [name, ...facts]] of GARDEN.entries()) {
      await page.waitForFunction(
        (at) =>
          document.querySelector('.walk-number')?.textContent === String(at) &&
          document.activeElement?.getAttribute('data-field') === 'Name',
        {},
        i + 1,
      );
      await type(name);
      await key('Enter');
      const before = GARDEN[i - 1]?.slice(1, 6);
      for (const row of [0, 1, 2, 3, 4]) {
        const rest = facts.slice(row, 5);
        if (before && rest.length > 1 && rest.every((one, k) => one === before[row + k])) {
          await key('=');
          break;
        }
        await key(String(facts[row] + 1));
      }
      for (const number of facts.slice(5)) {
        await type(number);
        await key('Enter');
      }
    }
    await page.waitForSelector('.walked');
    await page.waitForFunction(() =>
      /Saved/.test(document.querySelector('.timer-tools')?.textContent ?? ''),
    );
    const { survey, plan } = await page.evaluate(
      async (id) => (await fetch(`/api/timers/${id}`)).json(),
      timerId,
    );
    for (const [i, [name, head, plants, , , , area, heads]] of GARDEN.entries()) {
      const found = survey.stations[i];
      const meant = [
        name,
        Object.keys(HEAD_WORDS)[head],
        Object.keys(PLANT_WORDS)[plants],
        Number(area),
        Number(heads),
      ];
      const has = [
        plan.stations[i].name,
        found.head,
        found.plants,
        found.areaSquareMetres,
        found.headCount,
      ];
      if (has.join() !== meant.join()) throw new Error(`station ${i + 1} has ${has.join()}`);
    }
    const text = GARDEN.reduce(
      (sum, [name, , , , , , area, heads]) => sum + name.length + area.length + heads.length,
      0,
    );
    const told = (what, all) => row(what, all, all - text, ((all - text) / 12).toFixed(1), 12);
    row('twelve stations, all fields', 'key presses', 'beside the text', 'a station', 'screens');
    told('plain form', plain);
    told('the walk', presses);
  });
