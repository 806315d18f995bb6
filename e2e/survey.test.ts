/** Arriving and surveying: a site from its first screen to its brief, by touch and by keyboard. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { readBriefText, type Brief, type Survey } from '@water-clock/core';
import { isLong } from '../packages/core/tests/cases.ts';
import { choose, House, named, press, saved, sees, step, TOLVERNE_GREEN } from './house.ts';

jest.setTimeout(900_000);
let house: House;
beforeAll(async () => {
  house = await House.open({}, true);
});
afterAll(() => house.close());

interface Record {
  readonly survey: Survey;
  readonly plan: {
    readonly stations: readonly {
      readonly number: number;
      readonly name?: string;
      readonly cycleSeconds?: number;
    }[];
  };
}

const recordOf = async (page: Page): Promise<Record> => {
  await saved(page);
  return page.evaluate(async () => {
    const [, , id = ''] = location.pathname.split('/');
    return (await fetch(`/api/timers/${id}`)).json() as Promise<Record>;
  });
};

/** The brief as its page would save it. */
async function exportedBrief(page: Page): Promise<Brief> {
  const text = await page.evaluate(
    () =>
      new Promise<string>((resolve) => {
        const make = URL.createObjectURL.bind(URL);
        URL.createObjectURL = (object) => {
          if (object instanceof Blob) void object.text().then(resolve);
          return make(object);
        };
        [...document.querySelectorAll('button')]
          .find((button) => button.textContent === 'Export brief')
          ?.click();
      }),
  );
  const read = readBriefText(text);
  if (!read.ok) throw new Error(JSON.stringify(read.faults));
  return read.value;
}

const GARDEN = [
  ['Front lawn', 1, 1, 3, 3, 1, '64', '8'],
  ['Side lawn', 1, 1, 2, 3, 1, '31', '5'],
  ['Back lawn', 3, 2, 3, 3, 2, '140', '4'],
  ['Roses', 6, 4, 4, 3, 1, '22', '30'],
  ['Hedge', 6, 4, 3, 3, 1, '18', '24'],
  ['Kitchen garden', 7, 7, 3, 2, 1, '26', '9'],
] as const;

test('by touch only, on a phone: a new house with a six-station timer, from the first screen to its brief', async () => {
  const began = Date.now();
  const page = await house.at('/', 390, 844);
  const tap = async (selector: string) => {
    const target = await page.waitForSelector(selector);
    await target?.evaluate((one) => one.scrollIntoView({ block: 'center' }));
    await target?.tap();
  };
  const tapNamed = (name: string) => tap(named(name, 'button'));
  /** Taps a field and types on the on-screen keyboard. */
  const enter = async (selector: string, text: string) => {
    await tap(selector);
    await page.keyboard.type(text);
  };
  /** From right to left over the card. */
  const swipe = async () => {
    await page.touchscreen.touchStart(330, 420);
    for (let x = 300; x >= 90; x -= 30) await page.touchscreen.touchMove(x, 422);
    await page.touchscreen.touchEnd();
  };
  await tapNamed('New site');
  await page.waitForSelector('.site-form');
  await choose(page, 'Timer', 'Six-station keypad timer');
  await enter('input[name=name]', 'Harrier Rise');
  await enter('input[name=houseNumber]', '12');
  await choose(page, 'Water source', 'town water');
  await choose(page, 'Watering rules', 'Ostrelle district');
  await choose(page, 'Weather from', 'Ostrelle, southern coast');
  await tapNamed('Fri');
  await tapNamed('Add site');
  await tapNamed('Walk stations');
  for (const [i, [name, head, plants, sun, soil, slope, area, heads]] of GARDEN.entries()) {
    await page.waitForFunction(
      (number) => document.querySelector('.walk-number')?.textContent === String(number),
      {},
      i + 1,
    );
    await enter('[data-field="Name"]', name);
    const rows = [head, plants, sun, soil, slope];
    for (const [row, at] of rows.entries())
      await tap(`.chips:nth-of-type(${row + 1}) .chip:nth-child(${at})`);
    await enter('[data-field="Area"]', area);
    await enter('[data-field="Heads"]', heads);
    if (i === 2) await swipe();
    else await tap('.walk-next');
  }
  await page.waitForSelector('.walked');
  await sees(page, '.step-line', /All 6 stations are walked/);
  await step(page, 'Timer');
  await page.waitForSelector('.device');
  await choose(page, 'Power', 'plug-in adapter');
  await choose(page, 'Rain sensor', 'none');
  await tapNamed('Nobody');
  await step(page, 'Clock');
  await tapNamed('Record the clock');
  await step(page, 'Minutes');
  await page.waitForSelector('.minutes-of-stations');
  // Drip has no rate without a flow, so the company's table applies.
  for (const number of [4, 5]) {
    await tapNamed(`Why station ${number}`);
    await tap('.station-steps .ant-segmented-item ::-p-text(Weekly minutes)');
    await tapNamed('Use weekly minutes for this station');
    await tapNamed('Close');
    await page.waitForSelector('.station-steps', { hidden: true });
  }
  await step(page, 'Brief');
  await sees(page, '.step-line', /The brief is complete/);
  await saved(page);
  const brief = await exportedBrief(page);
  expect(brief.stations.map(({ name }) => name)).toEqual(GARDEN.map(([name]) => name));
  expect(brief.stations.every(({ weeklySeconds }) => weeklySeconds > 0)).toBe(true);
  expect(brief.stations[3]).toMatchObject({ overhead: false });
  expect(brief.rules).toMatchObject({ weekdays: ['wed', 'sat'], mostDaysPerWeek: 2 });
  expect(brief.mowing).toEqual({ weekdays: ['fri'] });
  expect(Date.now() - began).toBeLessThan(600_000);
  await page.close();
});

// On a phone above; keys alone also in journey.test.ts.
(isLong ? test : test.skip)(
  'by keyboard only: a new house with a twelve-station timer, walked with all fields, in few presses',
  async () => {
    const page = await house.at('/sites/new');
    await page.waitForSelector('.site-form');
    await page.waitForNetworkIdle();
    const focused = () =>
      page.evaluate(() => {
        const at = document.activeElement;
        const label = at instanceof HTMLInputElement ? at.labels?.[0]?.textContent : null;
        return at?.getAttribute('name') ?? label ?? at?.textContent ?? '';
      });
    /** Chooses from the focused list by first letters. */
    const pick = async (letters: string) => {
      await page.keyboard.type(letters);
      await page.waitForSelector('.ant-select-item-option-active');
      await page.keyboard.press('Enter');
    };
    /** Presses Tab until the field or button with this name has the focus. */
    const tabTo = async (name: RegExp, back = false) => {
      if (back) await page.keyboard.down('Shift');
      for (let i = 0; i < 120; i++) {
        if (name.test(await focused())) {
          await page.keyboard.up('Shift');
          return;
        }
        await page.keyboard.press('Tab');
      }
      throw new Error(`the tab key does not reach ${String(name)}`);
    };
    await tabTo(/^Timer$/);
    await pick('Twelve');
    await tabTo(/^name$/);
    await page.keyboard.type('Plover Bank');
    await tabTo(/^houseNumber$/);
    await page.keyboard.type('9');
    await tabTo(/^Water source$/);
    await pick('a bore');
    await tabTo(/^Watering rules$/);
    await pick('Ostrelle');
    await tabTo(/^Weather from$/);
    await pick('Ostrelle');
    await tabTo(/^Add site$/);
    await page.keyboard.press('Enter');
    await page.waitForSelector('.walked');
    await tabTo(/^Walk stations$/);
    await page.keyboard.press('Enter');
    let presses = 0;
    let screens = 0;
    const key = async (name: string) => {
      presses++;
      // Safe cast: a digit is a key.
      await page.keyboard.press(name as 'Enter');
    };
    const typed = async (text: string) => {
      presses += text.length;
      await page.keyboard.type(text);
    };
    for (let number = 1; number <= 12; number++) {
      const [name, head, plants, sun, soil, slope, area, heads] =
        GARDEN[(number - 1) % 6] ?? GARDEN[0];
      await page.waitForFunction(
        (at) =>
          document.querySelector('.walk-number')?.textContent === String(at) &&
          document.activeElement?.getAttribute('data-field') === 'Name',
        {},
        number,
      );
      screens++;
      await typed(name);
      await key('Enter');
      for (const digit of [head, plants, sun, soil, slope]) await key(String(digit));
      await typed(area);
      await key('Enter');
      await typed(heads);
      await key('Enter');
    }
    await page.waitForSelector('.walked');
    await sees(page, '.step-line', /All 12 stations are walked/);
    const { survey, plan } = await recordOf(page);
    expect(plan.stations.map(({ name }) => name)).toEqual(
      [...GARDEN, ...GARDEN].map(([name]) => name),
    );
    expect(survey.stations[2]).toEqual({
      number: 3,
      walked: 'seen',
      head: 'gear-rotor',
      plants: 'warm-season-lawn',
      surroundings: 'full-sun',
      soil: 'loam',
      slopePercent: 5,
      areaSquareMetres: 140,
      headCount: 4,
    });
    // The rest of the way to the brief.
    const goTo = async (name: RegExp, selector: string, back = true) => {
      await tabTo(name, back);
      await page.keyboard.press('Enter');
      await page.waitForSelector(selector);
    };
    await goTo(/^Timer$/, '.device', false);
    await tabTo(/^Power$/);
    await pick('plug');
    await tabTo(/^Rain sensor$/);
    await pick('none');
    await tabTo(/^Nobody$/);
    await page.keyboard.press('Enter');
    await goTo(/^Clock$/, '.clock-answer');
    await tabTo(/^Record the clock$/);
    await page.keyboard.press('Enter');
    await goTo(/^Minutes/, '.minutes-of-stations');
    for (const number of [4, 5, 10, 11]) {
      for (let i = 0; i < 120; i++) {
        const at = await page.evaluate(
          () => document.activeElement?.getAttribute('aria-label') ?? '',
        );
        if (at.startsWith(`Station ${number} by Weekly minutes`)) break;
        await page.keyboard.press('Tab');
      }
      await page.keyboard.press('Enter');
    }
    await goTo(/^Brief/, '.brief');
    await sees(page, '.step-line', /The brief is complete/);
    const brief = await exportedBrief(page);
    expect(brief.stations.filter(({ weeklySeconds }) => weeklySeconds > 0)).toHaveLength(12);
    expect(brief.rules).toMatchObject({ weekdays: ['wed', 'sun', 'fri'], mostDaysPerWeek: 3 });
    // Typing is the same in any form. Besides it: nine presses a station, where a plain form with drop-down lists takes a Tab and a letter or
    // more for each of five lists, a Tab for each of three fields, and a press to save.
    const text =
      2 *
      GARDEN.reduce(
        (sum, [name, , , , , , area, heads]) => sum + name.length + area.length + heads.length,
        0,
      );
    expect({ screens, beside: presses - text }).toEqual({ screens: 12, beside: 12 * 8 });
    await page.close();
  },
);

test('Enter after the name goes on to the head and chooses none', async () => {
  const page = await house.at(`${TOLVERNE_GREEN}/walk/4`);
  await page.waitForSelector('[data-field="Name"]');
  await page.focus('[data-field="Name"]');
  await page.keyboard.press('Enter');
  expect(await page.evaluate(() => document.activeElement?.getAttribute('data-field'))).toBe(
    'Head',
  );
  expect((await recordOf(page)).survey.stations.find(({ number }) => number === 4)).toBeUndefined();
  await page.close();
});

test('= takes the rest as it was at the station before', async () => {
  const page = await house.at(`${TOLVERNE_GREEN}/walk/1`);
  await page.waitForSelector('[data-field="Head"]');
  for (const [label, digit] of [
    ['Head', '3'],
    ['Plants', '2'],
    ['Sun', '3'],
    ['Soil', '1'],
    ['Slope', '1'],
  ] as const) {
    await page.focus(`[data-field="${label}"]`);
    await page.keyboard.press(digit);
  }
  await press(page, 'Next: station 2');
  await page.waitForFunction(() => document.querySelector('.walk-number')?.textContent === '2');
  await page.focus('[data-field="Head"]');
  await page.keyboard.press('6');
  await page.keyboard.press('=');
  const { survey } = await recordOf(page);
  expect(survey.stations[1]).toEqual({
    number: 2,
    head: 'drip',
    plants: 'warm-season-lawn',
    surroundings: 'full-sun',
    soil: 'sand',
    slopePercent: 1,
    // Whoever notes something has seen it.
    walked: 'seen',
  });
  expect(await page.evaluate(() => document.activeElement?.getAttribute('data-field'))).toBe(
    'Area',
  );
  await page.close();
});

test('a page that is closed in mid-walk without a network loses nothing: the next one brings it', async () => {
  const page = await house.at(`${TOLVERNE_GREEN}/walk/3`);
  await page.waitForSelector('[data-field="Name"]');
  await house.whileAway(async () => {
    await page.focus('[data-field="Soil"]');
    await page.keyboard.press('5');
    await page.focus('[data-field="Name"]');
    await page.keyboard.down('Control');
    await page.keyboard.press('a');
    await page.keyboard.up('Control');
    await page.keyboard.type('Heron pond edge');
    await page.close({ runBeforeUnload: false });
  });
  const later = await house.at(`${TOLVERNE_GREEN}/stations`);
  await sees(later, '.walked', /Heron pond edge/);
  const { survey, plan } = await recordOf(later);
  expect(plan.stations.find(({ number }) => number === 3)?.name).toBe('Heron pond edge');
  expect(survey.stations.find(({ number }) => number === 3)?.soil).toBe('clay');
  await later.close();
});

test('the run-off watch goes by moments: a locked screen and a reload make no difference', async () => {
  const page = await house.at(`${TOLVERNE_GREEN}/walk/2`);
  await press(page, 'Time to run-off');
  await press(page, 'Start');
  // Seven minutes pass while the page is closed.
  await page.evaluateOnNewDocument(() => {
    const real = Date.now.bind(Date);
    Date.now = () => real() + 420_000;
  });
  await page.reload();
  await press(page, 'Time to run-off');
  await sees(page, '.tool .watch', /^7:0/);
  await press(page, 'Puddle');
  await press(page, 'Stop');
  await page.type('[aria-label="Type a result"]', '6:40');
  await page.keyboard.press('Enter');
  await sees(page, '.tool .tool-answer', /Longest cycle 6 min, then/);
  const { plan, survey } = await recordOf(page);
  const { runOff } = survey.stations.find(({ number }) => number === 2) ?? {};
  expect(runOff?.seconds[0]).toBeGreaterThanOrEqual(420);
  expect(runOff?.seconds[0]).toBeLessThan(450);
  expect(runOff?.seconds[1]).toBe(400);
  // The smaller of the two, less a tenth for safety.
  expect(plan.stations.find(({ number }) => number === 2)?.cycleSeconds).toBe(360);
  await page.close();
});
