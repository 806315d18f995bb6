/** Arriving and surveying on the real interface: a house from its first screen to its brief, by touch and by keyboard. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { deflateSync, crc32 } from 'node:zlib';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { readBriefText, type Brief, type Survey } from '@water-clock/core';
import {
  accessibilityFaults,
  choose,
  FENNIMORE,
  House,
  saved,
  sees,
  step,
  TOLVERNE_GREEN,
} from './house.ts';

jest.setTimeout(240_000);
let house: House;
beforeAll(async () => {
  house = await House.open();
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
          .find((button) => button.textContent === 'Export the brief')
          ?.click();
      }),
  );
  const read = readBriefText(text);
  if (!read.ok) throw new Error(JSON.stringify(read.faults));
  return read.value;
}

/** Presses a button by what stands on it, clear of what is fixed to the edge of the screen. */
async function press(page: Page, name: string): Promise<void> {
  const button = await page.waitForSelector(`::-p-aria([name="${name}"][role="button"])`);
  await button?.evaluate((one) => one.scrollIntoView({ block: 'center' }));
  await button?.click();
}

const file = (name: string, content: string | Buffer) => {
  const at = path.join(mkdtempSync(path.join(tmpdir(), 'water-clock-')), name);
  writeFileSync(at, content);
  return at;
};

async function upload(page: Page, selector: string, at: string): Promise<void> {
  const input = await page.waitForSelector(selector);
  // The cast holds because the selector names a file input.
  await (input as { uploadFile?: (...paths: string[]) => Promise<void> } | null)?.uploadFile?.(at);
}

/** A black PNG of any size: large ones are small files. */
function blackPng(width: number, height: number): Buffer {
  const chunk = (name: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(name), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(body));
    return Buffer.concat([length, body, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head[8] = 8;
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc((width + 1) * height))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
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
  const tapNamed = (name: string, role = 'button') =>
    tap(`::-p-aria([name="${name}"][role="${role}"])`);
  /** Touches a field, and types on the keyboard that comes up. */
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
  await choose(page, '.site-form select', 'Six-station keypad timer');
  await enter('input[name=name]', 'Harrier Rise');
  await enter('input[name=houseNumber]', '12');
  await choose(page, 'select[name=supply]', 'the mains');
  await choose(page, 'select[name=rulesId]', 'Ostrelle district');
  await choose(page, 'select[name=weather]', 'Ostrelle, southern coast');
  await tapNamed('Fri');
  await tapNamed('Add the site');
  await tapNamed('Walk the stations');
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
  await choose(page, '.device select', 'a plug-in adapter');
  await tapNamed('It has none');
  await tapNamed('Nobody');
  await step(page, 'Clock');
  await tapNamed('Note the clock as found');
  await step(page, 'Minutes');
  await page.waitForSelector('.minutes-of-stations');
  // Drip says nothing of its rate without a flow: the table of the office does.
  for (const number of [4, 5]) await tap(`[aria-label^="Station ${number} by Weekly minutes"]`);
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

test('by keyboard only: a new house with a twelve-station timer, walked with all fields, in few presses', async () => {
  const page = await house.at('/sites/new');
  await page.waitForSelector('.site-form option::-p-text(Twelve-station)');
  await page.waitForSelector('select[name=rulesId] option::-p-text(Ostrelle)');
  await page.waitForSelector('select[name=weather] option::-p-text(Ostrelle)');
  const focused = () =>
    page.evaluate(
      () =>
        document.activeElement?.getAttribute('name') ?? document.activeElement?.textContent ?? '',
    );
  /** Goes on with the tab key to the field or button of this name. */
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
  await page.focus('.site-form select');
  await page.keyboard.type('Twelve');
  await tabTo(/^name$/);
  await page.keyboard.type('Plover Bank');
  await tabTo(/^houseNumber$/);
  await page.keyboard.type('9');
  await tabTo(/^supply$/);
  await page.keyboard.type('a bore');
  await tabTo(/^rulesId$/);
  await page.keyboard.type('Ostrelle');
  await tabTo(/^weather$/);
  await page.keyboard.type('Ostrelle');
  await tabTo(/^Add the site$/);
  await page.keyboard.press('Enter');
  await page.waitForSelector('.walked');
  await tabTo(/^Walk the stations$/);
  await page.keyboard.press('Enter');
  let presses = 0;
  let screens = 0;
  const key = async (name: string) => {
    presses++;
    // The cast holds because a digit is a key.
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
  await tabTo(/^not noted/);
  await page.keyboard.type('a plug');
  for (const name of [/^It has none$/, /^Nobody$/]) {
    await tabTo(name);
    await page.keyboard.press('Enter');
  }
  await goTo(/^Clock$/, '.clock-answer');
  await tabTo(/^Note the clock as found$/);
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
  // What has to be typed itself is the same in any form; beside it: nine presses a station, where a plain form of drop-down lists
  // takes a tab and a letter or more for each of five lists, a tab for each of three fields, and a press to save.
  const text =
    2 *
    GARDEN.reduce(
      (sum, [name, , , , , , area, heads]) => sum + name.length + area.length + heads.length,
      0,
    );
  expect({ screens, beside: presses - text }).toEqual({ screens: 12, beside: 12 * 8 });
  await page.close();
});

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
  // Seven minutes pass while the page is not even there.
  await page.evaluateOnNewDocument(() => {
    const real = Date.now.bind(Date);
    Date.now = () => real() + 420_000;
  });
  await page.reload();
  await press(page, 'Time to run-off');
  await sees(page, '.tool .watch', /^7:0/);
  await press(page, 'Puddle');
  await press(page, 'Stop');
  await page.type('[aria-label="Type a try"]', '6:40');
  await page.keyboard.press('Enter');
  await sees(page, '.tool .tool-answer', /At most 6 min at a stretch, then/);
  const { plan, survey } = await recordOf(page);
  const { runOff } = survey.stations.find(({ number }) => number === 2) ?? {};
  expect(runOff?.seconds[0]).toBeGreaterThanOrEqual(420);
  expect(runOff?.seconds[0]).toBeLessThan(450);
  expect(runOff?.seconds[1]).toBe(400);
  // The least of the two, a tenth off for safety.
  expect(plan.stations.find(({ number }) => number === 2)?.cycleSeconds).toBe(360);
  await page.close();
});

test('cups and flow: what was caught, what it means, and whether two stations could run at once', async () => {
  const page = await house.at(`${FENNIMORE}/walk/2`);
  await press(page, 'Catch cups');
  await page.waitForSelector('.cup-entry input');
  await page.type('.cup-entry input', '50 50 50 10');
  await page.keyboard.press('Enter');
  await sees(page, '.tool-answer', /uniformity 25 %.*Driest: row 1, cup 4/s);
  await page.type('.cup-entry input', '-5');
  await page.keyboard.press('Enter');
  await sees(page, '.tool .fault', /"-5" is no volume/);
  await press(page, 'Flow');
  const flow = async (label: string, text: string) => {
    const field = await page.waitForSelector(`.tool ::-p-aria([name="${label}"])`);
    await field?.evaluate((one) => one.scrollIntoView({ block: 'center' }));
    await field?.click({ count: 3 });
    await page.keyboard.type(text);
    await page.keyboard.press('Tab');
  };
  await flow('Meter before (l)', '1000');
  await flow('Meter after (l)', '1000');
  await flow('Ran (minutes)', '2');
  await sees(page, '.tool .fault', /No flow/);
  await flow('Meter after (l)', '1030');
  await sees(page, '.tool-answer', /15\.0 l\/min/);
  await flow('The supply gives (l/min)', '40');
  await choose(page, '.tool-fields select', '3 Back lawn near');
  await sees(page, '.tool-answer', /No: both take 42\.0 l\/min, more than the 40\.0/);
  await page.close();
});

test('a house in feet and gallons: what is typed comes back as it was typed', async () => {
  const page = await house.at(`${FENNIMORE}/house`);
  await page.waitForSelector('.site-more summary');
  await page.click('.site-more summary');
  await choose(page, 'select[name=units]', 'inches, feet, US gallons');
  await press(page, 'Save the house');
  await sees(page, '.site-form [role=status]', /Saved/);
  await page.goto(`${house.server.url}${FENNIMORE}/walk/6`);
  for (const typed of ['377', '123']) {
    const field = await page.waitForSelector('::-p-aria([name="Area (ft²)"])');
    await field?.click({ count: 3 });
    await page.keyboard.type(typed);
    await page.keyboard.press('Tab');
    await saved(page);
    await page.reload();
    await page.waitForSelector('[data-field="Area"]');
    expect(await page.$eval('[data-field="Area"]', (one) => (one as HTMLInputElement).value)).toBe(
      typed,
    );
  }
  const { survey } = await recordOf(page);
  const area = survey.stations.find(({ number }) => number === 6)?.areaSquareMetres;
  expect(area).toBeCloseTo(123 * 0.3048 ** 2, 9);
  await page.close();
});

test('photos: scaled down on the device, an executable and a broken one refused, forty megapixels taken', async () => {
  const page = await house.at(`${FENNIMORE}/walk/5`);
  const input = '.photos input[type=file]';
  await upload(
    page,
    input,
    file('heads.jpg', Buffer.concat([Buffer.from('MZ'), Buffer.alloc(500)])),
  );
  await sees(page, '.photos .fault', /heads\.jpg is no picture that this device can read/);
  await upload(page, input, file('garden.png', blackPng(7300, 5500)));
  await page.waitForSelector('img.photo');
  const { survey } = await recordOf(page);
  const [id] = survey.stations.find(({ number }) => number === 5)?.photos ?? [];
  await page.waitForFunction(
    async (photo) => (await fetch(`/api/photos/${photo}`)).ok,
    {},
    id ?? 'none',
  );
  const size = await page.evaluate(async (photo) => {
    const bitmap = await createImageBitmap(await (await fetch(`/api/photos/${photo}`)).blob());
    return [bitmap.width, bitmap.height];
  }, id ?? 'none');
  expect(size).toEqual([1600, 1205]);
  await page.close();
});

test('stations from a spreadsheet: each bad cell marked, nothing else refused, a hundred thousand rows answered', async () => {
  const page = await house.at(`${FENNIMORE}/stations`);
  await press(page, 'Stations from CSV');
  const input = '.ant-modal input[type=file]';
  await upload(page, input, file('long.csv', `number;name\n${'1;x\n'.repeat(100_000)}`));
  await sees(page, '.cell-faults', /at most 200 rows/);
  await upload(
    page,
    input,
    file('stations.csv', 'number;name;area_m2;soil\n1;Rockery;-4;\n2;;30;chalk\n'),
  );
  await sees(page, '.cell-faults', /Line 2, area_m2.*Line 3, soil/s);
  expect(
    await page.$$eval('td.cell-bad', (cells) => cells.map((cell) => cell.textContent)),
  ).toEqual(['-4', 'chalk']);
  await press(page, 'Take 2 stations');
  await sees(page, '.walked', /Rockery/);
  const { survey } = await recordOf(page);
  expect(survey.stations[0]).toMatchObject({ areaSquareMetres: 58, soil: 'sandy-loam' });
  expect(survey.stations[1]).toMatchObject({ areaSquareMetres: 30 });
  await page.close();
});

test('the office’s library: rules tried on a house, a kind from what is seen on the box, weather from a file', async () => {
  const page = await house.at('/');
  await page.goto(`${house.server.url}/library/rules`);
  await sees(page, '.library-list', /Ostrelle district.*Quarrimead shire/s);
  await press(page, 'New');
  await page.waitForSelector('.clause-line summary');
  await page.click('.clause-line summary');
  await press(page, '7');
  for (const day of ['Mon', 'Tue', 'Wed', 'Thu', 'Fri']) await press(page, day);
  await sees(page, '.clause-line summary', /numbers ending in 7: only on Sat and Sun/);
  await page.click('.try-rules input', { count: 3 });
  await page.keyboard.type('17a');
  await sees(page, '.rules-now', /Today: only on Sat and Sun/);
  await press(page, 'Save');
  await sees(page, '.save-bar', /Saved/);

  await page.goto(`${house.server.url}/library/kinds`);
  await press(page, 'Make one from what is seen on the box');
  await page.keyboard.type('Grey box in the laundry');
  await page.focus('::-p-aria([name="Starts"][role="textbox"])');
  await page.keyboard.type('6');
  await page.keyboard.press('Enter');
  await page.waitForSelector('.kind-picker');
  await sees(page, 'h2', /Grey box in the laundry/);
  const kinds = await page.evaluate(async () => (await fetch('/api/library/kinds')).text());
  expect(kinds).toContain('Grey box in the laundry');

  await page.goto(`${house.server.url}/library/climates`);
  await press(page, 'New');
  const months = Array.from({ length: 12 }, (_, i) => `${i + 1},30,15,40,${i === 0 ? 7 : ''}`);
  const heading = 'month,highest_c,lowest_c,rain_mm,eto_mm\n';
  const input = '[aria-label="CSV file of weather"]';
  await upload(page, input, file('short.csv', heading + months.slice(0, 11).join('\n')));
  await sees(page, '[role=alert]', /Nothing was taken: there is nothing of December/);
  await upload(page, input, file('whole.csv', heading + months.join('\n')));
  await sees(page, '.year-table', /as entered.*Hargreaves/s);
  await press(page, 'Save');
  await sees(page, '.save-bar', /Saved/);
  await page.close();
});

test('minutes by three schools: chosen by station, overruled with a source, put on the timer', async () => {
  const page = await house.at(`${FENNIMORE}/minutes`);
  await page.waitForSelector('.minutes-of-stations');
  await page.click('[aria-label^="Station 3 by Rule of thumb"]');
  const open = await page.waitForSelector('::-p-aria([name="Why station 3"])');
  await open?.click();
  const factor = await page.waitForSelector(
    '.school:nth-child(3) ::-p-aria([name="Plant factor (×)"])',
  );
  await factor?.click({ count: 3 });
  await page.keyboard.type('0.7');
  await page.keyboard.press('Tab');
  await sees(page, '.school:nth-child(3)', /your own number/);
  const { survey } = await recordOf(page);
  expect(survey.stations[2]).toMatchObject({ school: 'thumb', overruled: { plantFactor: 0.7 } });
  // The present month, as the site has it, is made the one of 100 percent, and set.
  const month = await page.$$eval(
    '.season li',
    (months) => months.findIndex((item) => item.classList.contains('season-now')) + 1,
  );
  await page.select('.minutes-choices label:nth-child(2) select', String(month));
  await sees(page, '.season-now', /100$/);
  const set = await page.waitForSelector('.survey-view button::-p-text(Set 100 %)');
  await set?.click();
  await sees(page, '.survey-view button', /100 % is set/);
  await page.close();
});

test.each([
  'rules',
  'rules/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1d01',
  'kinds/5d1e0000-7a3c-4c1e-8e5a-000000000003',
  'minutes/5d1e0000-7a3c-4c1e-8e5a-0000000000f1',
  'climates',
])(
  'on a phone nothing of the library’s %s is cut off, and all of it can be read out',
  async (entry) => {
    const page = await house.at('/', 390, 844);
    await page.goto(`${house.server.url}/library/${entry}`);
    await page.waitForSelector(entry.includes('/') ? '.save-bar' : '.library-list');
    await page.evaluate(() =>
      document.querySelectorAll('summary').forEach((element) => element.click()),
    );
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
      390,
    );
    expect(await accessibilityFaults(page)).toEqual([]);
    await page.close();
  },
);
