/** Calculations at a station, photos, spreadsheets, the library, and the minutes of the three methods. */
import { deflateSync, crc32 } from 'node:zlib';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { type Survey } from '@water-clock/core';
import {
  accessibilityFaults,
  choose,
  click,
  FENNIMORE,
  file,
  House,
  named,
  press,
  saved,
  sees,
  unfold,
  upload,
} from './house.ts';

jest.setTimeout(900_000);
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

/** A black PNG of any size; large ones are small files. */
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

const MONTHS = Array.from({ length: 12 }, (_, i) =>
  new Date(Date.UTC(2026, i)).toLocaleString('en', { month: 'long', timeZone: 'UTC' }),
);

test('photos: scaled down on the device, an executable and a broken one refused, forty megapixels taken', async () => {
  const page = await house.at(`${FENNIMORE}/walk/5`);
  const input = '.photos input[type=file]';
  await upload(
    page,
    input,
    file('heads.jpg', Buffer.concat([Buffer.from('MZ'), Buffer.alloc(500)])),
  );
  await sees(page, '.photos .fault', /heads\.jpg is not a picture this device can read/);
  await upload(page, input, file('garden.png', blackPng(7300, 5500)));
  await page.waitForSelector('img.photo');
  const photoOf = async () => {
    const { survey } = await recordOf(page);
    return survey.stations.find(({ number }) => number === 5)?.photos?.[0];
  };
  let id = await photoOf();
  // The picture shows before its change is sent.
  while (id === undefined) id = await photoOf();
  await page.waitForFunction(async (photo) => (await fetch(`/api/photos/${photo}`)).ok, {}, id);
  const size = await page.evaluate(async (photo) => {
    const bitmap = await createImageBitmap(await (await fetch(`/api/photos/${photo}`)).blob());
    return [bitmap.width, bitmap.height];
  }, id);
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
  await press(page, 'Import 2 stations');
  await sees(page, '.walked', /Rockery/);
  const { survey } = await recordOf(page);
  expect(survey.stations[0]).toMatchObject({ areaSquareMetres: 58, soil: 'sandy-loam' });
  expect(survey.stations[1]).toMatchObject({ areaSquareMetres: 30 });
  await page.close();
});

test('the office’s library: rules tried on a house, a kind from what is seen on the box, weather from a file', async () => {
  const page = await house.at('/');
  await house.go(page, '/library/rules');
  await sees(page, '.library-list', /Ostrelle district.*Quarrimead shire/s);
  await press(page, 'New');
  // A grid of last digits and weekdays; the same as clauses.
  for (const day of ['Mon', 'Tue', 'Wed', 'Thu', 'Fri']) await press(page, `Ends in 7, ${day}`);
  await click(page, '[aria-label="Enter days"] ::-p-text(As a list)');
  await sees(page, '.edition', /numbers ending in 7: only on Sat and Sun/);
  await page.click('.try-rules input', { count: 3 });
  await page.keyboard.type('17a');
  await sees(page, '.rules-now', /Today: only on Sat and Sun/);
  await press(page, 'Save');
  await sees(page, '.save-bar', /Saved/);

  await house.go(page, '/library/kinds');
  await press(page, 'Create from questions');
  await page.keyboard.type('Grey box in the laundry');
  await page.focus(named('Start times', 'textbox'));
  await page.keyboard.type('6');
  await page.keyboard.press('Enter');
  await page.waitForSelector('.kind-picker');
  await sees(page, 'h2', /Grey box in the laundry/);
  const kinds = await page.evaluate(async () => (await fetch('/api/library/kinds')).text());
  expect(kinds).toContain('Grey box in the laundry');

  await house.go(page, '/library/climates');
  await press(page, 'New');
  const months = Array.from({ length: 12 }, (_, i) => `${i + 1},30,15,40,${i === 0 ? 7 : ''}`);
  const heading = 'month,highest_c,lowest_c,rain_mm,eto_mm\n';
  const input = '.library-form input[type=file]';
  await upload(page, input, file('short.csv', heading + months.slice(0, 11).join('\n')));
  await sees(page, '[role=alert]', /Nothing was imported: December is missing/);
  await upload(page, input, file('whole.csv', heading + months.join('\n')));
  await sees(page, '.year-table', /as entered.*Hargreaves/s);
  await press(page, 'Save');
  await sees(page, '.save-bar', /Saved/);
  await page.close();
});

test('minutes by three schools: chosen by station, overruled with a source, put on the timer', async () => {
  const page = await house.at(`${FENNIMORE}/minutes`);
  await page.waitForSelector('.minutes-of-stations');
  await click(page, '[aria-label^="Station 3 by Rule of thumb"]');
  await click(page, named('Why station 3'));
  await click(page, '.station-steps .ant-segmented-item ::-p-text(Water balance)');
  const factor = await page.waitForSelector(`.school ${named('Plant factor (×)')}`);
  await factor?.click({ count: 3 });
  await page.keyboard.type('0.7');
  await page.keyboard.press('Tab');
  await sees(page, '.school', /your own value/);
  const { survey } = await recordOf(page);
  expect(survey.stations[2]).toMatchObject({ school: 'thumb', overruled: { plantFactor: 0.7 } });
  // Makes the site's current month the one that 100 percent stands for, and sets it.
  const month = await page.$$eval(
    '.season li',
    (months) => months.findIndex((item) => item.classList.contains('season-now')) + 1,
  );
  await choose(page, '100 % stands for', MONTHS[month - 1] ?? '');
  await sees(page, '.season-now', /100$/);
  await click(page, '.survey-view button::-p-text(Set 100 %)');
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
    await house.go(page, `/library/${entry}?edit`);
    await page.waitForSelector(entry.includes('/') ? '.save-bar' : '.library-list');
    await page.evaluate(() =>
      document
        .querySelectorAll<HTMLElement>('.ant-collapse-header')
        .forEach((element) => element.click()),
    );
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
      390,
    );
    expect(await accessibilityFaults(page)).toEqual([]);
    // Nothing fixed at the bottom covers the save button.
    const isSaveFree = () =>
      page.$eval('.save-bar button', (one) => {
        const { x, y, width, height } = one.getBoundingClientRect();
        return one.contains(document.elementFromPoint(x + width / 2, y + height / 2));
      });
    if (entry.includes('/')) expect(await isSaveFree()).toBe(true);
    await page.close();
  },
);

test('cups and flow: what was caught, what it means, and whether two stations could run at once', async () => {
  const page = await house.at(`${FENNIMORE}/walk/2`);
  await press(page, 'Catch cups');
  await page.waitForSelector('.cup-entry input');
  await page.type('.cup-entry input', '50 50 50 10');
  await page.keyboard.press('Enter');
  await sees(page, '.tool-answer', /uniformity 25 %.*Driest: row 1, cup 4/s);
  await page.type('.cup-entry input', '-5');
  await page.keyboard.press('Enter');
  await sees(page, '.tool .fault', /“-5” is not a volume/);
  await press(page, 'Flow');
  const flow = async (label: string, text: string) => {
    const field = await page.waitForSelector(`.tool ${named(label)}`);
    await field?.evaluate((one) => one.scrollIntoView({ block: 'center' }));
    await field?.click({ count: 3 });
    await page.keyboard.type(text);
    await page.keyboard.press('Tab');
  };
  await flow('Meter before (L)', '1000');
  await flow('Meter after (L)', '1000');
  await flow('Run time (minutes)', '2');
  await sees(page, '.tool .fault', /No flow/);
  await flow('Meter after (L)', '1030');
  await sees(page, '.tool-answer', /15 L\/min/);
  await flow('Supply flow (L/min)', '40');
  await choose(page, 'Could it run together with', '3 Back lawn near');
  await sees(page, '.tool-answer', /No\. Both use 42 L\/min, more than the supply of 40/);
  await page.close();
});

test('a house in feet and gallons: what is typed comes back as it was typed', async () => {
  const page = await house.at(`${FENNIMORE}/house`);
  await unfold(page, '.site-more');
  await choose(page, 'Units at this site', 'inches, feet, US gallons');
  await press(page, 'Save site');
  await sees(page, '.site-form [role=status]', /Saved/);
  await house.go(page, `${FENNIMORE}/walk/6`);
  for (const typed of ['377', '123']) {
    const field = await page.waitForSelector(named('Area (ft²)'));
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
