/** A season of weather: the specification's examples to the digit, a slow second-by-second model, and an exact balance. */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import {
  formatDate,
  parseDate,
  pathText,
  readGarden,
  readGardenText,
  readPlanText,
  seasonFor,
  seasonReport,
  simulate,
  type Garden,
  type GardenStation,
  type Plan,
} from '@water-clock/core';
import type { AccountDay } from '../src/season/season.ts';
import { cases } from './cases.ts';
import { weeklyPlan } from './randomPlans.ts';

const folder = new URL('../../../docs/spec/', import.meta.url);
const file = (name: string) => readFileSync(new URL(name, folder), 'utf8');

test.each(['lawn', 'run-off', 'sensor', 'shrubs'])(
  'the example season-%s, to the digit',
  (name) => {
    const plan = readPlanText(file(`examples/season-${name}.plan.json`));
    const garden = readGardenText(file(`examples/season-${name}.garden.json`));
    if (!plan.ok || !garden.ok) throw new Error('not read');
    const [first] = garden.value.stations;
    const report = seasonReport(plan.value, garden.value, first?.number ?? null);
    expect(report).toEqual(JSON.parse(file(`examples/season-${name}.season.json`)));
  },
);

const FROM = parseDate('2027-06-01') ?? 0;
const WEATHER = fc.array(
  fc.record({
    eto: fc.oneof(fc.constant(0), fc.double({ min: 0, max: 12, noNaN: true })),
    rain: fc.oneof(
      { weight: 2, arbitrary: fc.constant(0) },
      fc.double({ min: 0, max: 60, noNaN: true }),
    ),
  }),
  { minLength: 2, maxLength: 12 },
);
const STATION = fc.record({
  plantFactor: fc.double({ min: 0.05, max: 2, noNaN: true }),
  rootDepthMm: fc.integer({ min: 50, max: 900 }),
  availableWater: fc.integer({ min: 10, max: 200 }),
  allowedDepletion: fc.double({ min: 0.1, max: 0.8, noNaN: true }),
  precipitationRate: fc.double({ min: 1, max: 60, noNaN: true }),
  uniformity: fc.double({ min: 0.2, max: 1, noNaN: true }),
  intakeRate: fc.double({ min: 1, max: 40, noNaN: true }),
  surfaceStorage: fc.double({ min: 0, max: 10, noNaN: true }),
  obeysRain: fc.boolean(),
});
const SENSOR = fc.option(
  fc.record({
    stopsAt: fc.double({ min: 0.1, max: 20, noNaN: true }),
    dryDays: fc.integer({ min: 0, max: 3 }),
  }),
  { nil: null },
);

const gardenOf = (
  plan: Plan,
  weather: readonly { eto: number; rain: number }[],
  station: Omit<GardenStation, 'number'>,
  sensor: Garden['rainSensor'] | null,
): Garden => ({
  format: 'water-clock-garden',
  version: 1,
  // A watered one, if any is.
  stations: [{ ...station, number: simulate(plan, FROM - 1, 8).runs[0]?.station ?? 1 }],
  weather: weather.map((day, i) => ({ date: formatDate(FROM + i), ...day })),
  start: 0.4,
  ...(sensor ? { rainSensor: sensor } : {}),
});

/** The balance by the letter of season.md, second by second: what a quarter gains and loses on each date, mm. */
function referenceIrrigation(plan: Plan, garden: Garden, share: number) {
  const [station] = garden.stations;
  if (!station) throw new Error('no station');
  const { precipitationRate: rate, intakeRate = Infinity, surfaceStorage = 0 } = station;
  const { runs } = simulate(plan, FROM - 1, garden.weather.length + 1);
  const stopped = (day: number) =>
    station.obeysRain !== false &&
    garden.rainSensor !== undefined &&
    garden.weather.some(
      ({ rain }, at) =>
        rain >= (garden.rainSensor?.stopsAt ?? Infinity) &&
        day >= at &&
        day <= at + (garden.rainSensor?.dryDays ?? 0),
    );
  const open = new Set<number>();
  for (const run of runs) {
    if (run.station !== station.number || stopped(Math.floor(run.on / 86_400) - FROM)) continue;
    for (let second = run.on; second < run.off; second++) open.add(second - FROM * 86_400);
  }
  const days = garden.weather.map(() => ({ applied: 0, ranOff: 0 }));
  let standing = 0;
  days.forEach((day, at) => {
    for (let second = at * 86_400; second < (at + 1) * 86_400; second++) {
      const brings = open.has(second) ? (share * rate) / 3600 : 0;
      day.applied += brings;
      standing = Math.max(0, standing + brings - intakeRate / 3600);
      if (standing > surfaceStorage) {
        day.ranOff += standing - surfaceStorage;
        standing = surfaceStorage;
      }
    }
  });
  return days;
}

test('run-off and what goes in are those of living through every second', () => {
  let ranOff = 0;
  fc.assert(
    fc.property(weeklyPlan, WEATHER, STATION, SENSOR, (plan, weather, station, sensor) => {
      const heavy = {
        ...station,
        uniformity: 1,
        precipitationRate: station.precipitationRate + 20,
        intakeRate: station.intakeRate / 4,
      };
      const garden = gardenOf(plan, weather.slice(0, 5), heavy, sensor);
      const account: AccountDay[] = [];
      const number = garden.stations[0]?.number ?? 1;
      seasonFor(plan, garden, { station: number, told: (day) => account.push(day) });
      referenceIrrigation(plan, garden, 1).forEach((day, at) => {
        expect(account[at]?.irrigation).toBeCloseTo(day.applied, 6);
        // The last second of a run may apply slightly less than the soil takes.
        expect(Math.abs((account[at]?.ranOff ?? 0) - day.ranOff)).toBeLessThan(0.2);
        ranOff += day.ranOff;
      });
    }),
    { seed: 391, numRuns: cases(40) },
  );
  expect(ranOff).toBeGreaterThan(1);
});

test('of every quarter, what comes in and what goes out make up what is missing', () => {
  fc.assert(
    fc.property(weeklyPlan, WEATHER, STATION, SENSOR, (plan, weather, station, sensor) => {
      // If all quarters are equal, the averages are those of each.
      const garden = gardenOf(plan, weather, { ...station, uniformity: 1 }, sensor);
      const total = (station.availableWater * station.rootDepthMm) / 1000;
      const account: AccountDay[] = [];
      const number = garden.stations[0]?.number ?? 1;
      const season = seasonFor(plan, garden, { station: number, told: (day) => account.push(day) });
      let missing = 0.4 * total;
      for (const { irrigation, ranOff, rain, used, percolated, depletion } of account) {
        expect(rain + irrigation - ranOff - used - percolated).toBeCloseTo(
          missing - depletion[0],
          6,
        );
        expect(Math.min(...depletion)).toBeGreaterThanOrEqual(-1e-9);
        expect(Math.max(...depletion)).toBeLessThanOrEqual(total + 1e-9);
        [missing] = depletion;
      }
      const [one] = season.stations;
      expect(one?.applied).toBeCloseTo(
        account.reduce((sum, day) => sum + day.irrigation, 0),
        6,
      );
    }),
    { seed: 392, numRuns: cases(300) },
  );
});

describe('the reader', () => {
  const bySchema = new Ajv2020({ formats: { date: true } }).compile(
    JSON.parse(file('garden.schema.json')) as object,
  );
  const good = JSON.parse(file('examples/season-sensor.garden.json')) as Record<string, unknown>;
  const [station] = good['stations'] as object[];
  const weather = good['weather'] as object[];
  const faultsOf = (document: unknown) => {
    const read = readGarden(document);
    return read.ok ? [] : read.faults.map(({ path }) => pathText(path));
  };

  test('takes the examples, as the schema does', () => {
    expect([faultsOf(good), bySchema(good)]).toEqual([[], true]);
  });

  test.each([
    ['stations[0].plantFactor', { stations: [{ ...station, plantFactor: 0 }] }],
    [
      'stations[0].intakeRate',
      {
        stations: [
          {
            number: 1,
            plantFactor: 1,
            rootDepthMm: 100,
            availableWater: 100,
            precipitationRate: 5,
            surfaceStorage: 2,
          },
        ],
      },
    ],
    ['stations[0].soil', { stations: [{ ...station, soil: 'clay' }] }],
    ['weather', { weather: weather.slice(0, 1) }],
    ['weather[1].rain', { weather: [weather[0], { ...weather[1], rain: -1 }] }],
    ['start', { start: 1.5 }],
    ['rainSensor.dryDays', { rainSensor: { stopsAt: 5, dryDays: 15 } }],
  ])('refuses %s, as the schema does', (path, fields) => {
    const document = { ...good, ...fields };
    expect([faultsOf(document), bySchema(document)]).toEqual([[path], false]);
  });

  test('asks for consecutive dates, and names each station once', () => {
    expect(faultsOf({ ...good, weather: [weather[0], weather[2]] })).toEqual(['weather[1].date']);
    expect(faultsOf({ ...good, stations: [station, station] })).toEqual(['stations[1].number']);
  });
});
