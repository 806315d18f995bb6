/** Complete jobs at desktop and phone size: what the customer is told must be true. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import type { Plan } from '@water-clock/core';
import { isLong } from '../packages/core/tests/cases.ts';
import {
  checks,
  choose,
  click,
  file,
  House,
  LARKHOLT,
  named,
  press,
  saved,
  sees,
  step,
  type,
  upload,
} from './house.ts';

jest.setTimeout(900_000);
let house: House;
beforeAll(async () => {
  house = await House.open();
});
afterAll(() => house.close());

const SIZES = [
  [1280, 800],
  [390, 844],
] as const;

const planOf = async (page: Page): Promise<Plan> => {
  await saved(page);
  return page.evaluate(async () => {
    const [, , id = ''] = location.pathname.split('/');
    return ((await (await fetch(`/api/timers/${id}`)).json()) as { plan: Plan }).plan;
  });
};

/** The garden as a spreadsheet; walking it is tested with the survey. */
const SHEET = `number;name;head;plants;sun;soil;slope_percent;area_m2;heads
1;Front lawn;fixed-spray;cool-season-lawn;full-sun;loam;0;64;8
2;Side lawn;rotating-stream;cool-season-lawn;full-sun;loam;0;52;9
3;Back lawn;gear-rotor;cool-season-lawn;full-sun;loam;0;140;4
4;Hedge;drip;trees-and-shrubs;full-sun;loam;0;18;24
`;

/** A table by last digits for town water: Monday and Friday, for numbers ending in 1 Tuesday, Thursday and Saturday; never by day. */
async function enterRules(page: Page, name: string): Promise<void> {
  await house.go(page, '/library/rules');
  await press(page, 'New');
  await fill(page, named('Water authority', 'textbox'), name);
  await press(page, 'Different days for town water');
  await press(page, 'Clear all days');
  for (const day of ['Mon', 'Fri']) await press(page, `Ends in 0, ${day}`);
  await press(page, 'Copy ends in 0 to the rows below');
  for (const day of ['Mon', 'Fri', 'Tue', 'Thu', 'Sat']) await press(page, `Ends in 1, ${day}`);
  await press(page, 'Add no-water hours');
  await fill(page, named('Test with number', 'textbox'), '21');
  await sees(page, '.rules-now', /^Today: only on Tue, Thu and Sat; not from 10:00 am to 6:00 pm/);
  await press(page, 'Save');
  await sees(page, '.save-bar', /Saved/);
}

/** Whether the timer card can be printed. */
const isPdf = (page: Page): Promise<boolean> =>
  page.$eval('a[href*="card.pdf"]', async (link) => {
    const answer = await fetch(link.href);
    return (await answer.text()).startsWith('%PDF-');
  });

/** Replaces the text of a field. */
async function fill(page: Page, selector: string, text: string): Promise<void> {
  await click(page, selector);
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type(text);
}

// The office enters the rules at a desk, so that size comes first.
test.each(isLong ? SIZES : SIZES.slice(0, 1))(
  'No. 21 on town water, at %i × %i: from the table of rules to the card and the page',
  async (width, height) => {
    const page = await house.at('/', width, height);
    const rules = 'Eldermere town';
    // The office enters them at a desk.
    if (width > 600) await enterRules(page, rules);
    await house.go(page, '/sites/new');
    await page.waitForSelector('.site-form');
    await choose(page, 'Timer', 'Four-station wall timer');
    await fill(page, 'input[name=name]', `Pear Tree Row ${width}`);
    await fill(page, 'input[name=houseNumber]', '21');
    await choose(page, 'Water source', 'town water');
    await choose(page, 'Watering rules', rules);
    await choose(page, 'Weather from', 'Ostrelle, southern coast');
    await press(page, 'Add site');
    await press(page, 'Stations from CSV');
    await upload(page, '.ant-modal input[type=file]', file('stations.csv', SHEET));
    await press(page, 'Import 4 stations');
    // Drip has no rate without a flow, so the company's table applies.
    await step(page, 'Minutes');
    await press(page, 'Why station 4');
    await click(page, '.station-steps .ant-segmented-item ::-p-text(Weekly minutes)');
    await press(page, 'Use weekly minutes for this station');
    await press(page, 'Close');
    await step(page, 'Planner');
    await page.waitForSelector('button.plan-card');
    await sees(page, '.plan-reasons', /only Tue Thu Sat are allowed here/);
    await press(page, 'Use these programs');
    await sees(page, '.verdict-headline', /^No overlaps, up to 1[0-9]0 %$/);
    const { programs } = await planOf(page);
    const allowed = new Set(['tue', 'thu', 'sat']);
    for (const { days } of programs)
      expect(days?.rule === 'weekdays' && days.weekdays.every((one) => allowed.has(one))).toBe(
        true,
      );
    // Lawn and drip stay apart.
    expect(
      programs.map(({ runs }) => runs.map(({ station }) => station).sort((a, b) => a - b)),
    ).toEqual([[1, 2, 3], [4]]);
    expect(await page.$('.planner .caution')).toBeNull();

    await step(page, 'Homeowner’s page');
    await sees(page, '.sheet', /When watering is allowed.*only on Tue, Thu and Sat/s);
    expect(await isPdf(page)).toBe(true);
    await page.close();
  },
);

const TWO_WIRE = [
  [390, 844, 21, '1:30 am'],
  [1280, 800, 20, '1:00 am'],
] as const;
test.each(isLong ? TWO_WIRE : TWO_WIRE.slice(0, 1))(
  'a two-wire timer, at %i × %i: a station linked to another, and two programs side by side, as accepted',
  async (width, height, station, start) => {
    const page = await house.at(`${LARKHOLT}/stations`, width, height);
    await press(page, `Soak, flow, switches of station ${station}`);
    await choose(page, 'Linked to', 'station 19 Orchard upper');
    await press(page, `Close station ${station}`);
    await step(page, 'Programs');
    // Mondays, Wednesdays and Fridays are no longer all allowed here.
    if (width < 600) await click(page, '.phone-programs ::-p-text(A)');
    const friday = '[aria-label="Watering days of A"] button:nth-child(5)';
    await page.waitForSelector(friday);
    if (await page.$(`${friday}[aria-pressed=true]`)) await click(page, friday);
    if (width < 600) await click(page, '.phone-programs ::-p-text(D)');
    await type(page, 'Start time 1 of D', start);
    await page.keyboard.press('Enter');
    await saved(page);
    await sees(page, '.verdict-headline', /D starts at .* while A is still running/);
    await checks(page);
    await click(page, '.finding-acts ::-p-text(Accept …)');
    await page.type('.accept-form input', 'the line carries two valves');
    await press(page, 'Accept');
    await sees(page, '.verdict-headline', /^Programs run side by side, as accepted$/);
    await page.keyboard.press('Escape');
    await page.waitForSelector('.ant-drawer-open', { hidden: true });
    // The timer card and the homeowner's page are available at once.
    await step(page, 'Homeowner’s page');
    await sees(page, '.sheet', new RegExp(`${station} .*min`));
    expect(await isPdf(page)).toBe(true);
    await page.close();
  },
);
