/** Minutes by three methods, the year of the programs, and weather: scaling, limits, and comparison with a slow calculation. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  climateOf,
  daysByMonth,
  EMPTY_SURVEY,
  emptyPlan,
  faultSentence,
  figuresOf,
  formatDate,
  givenByMonth,
  parseDate,
  readClimate,
  readWeatherTable,
  SHIPPED_MINUTES,
  SIMULATED_COUNT,
  SIMULATED_FROM,
  SIMULATED_TOWNS,
  simulate,
  simulatedDays,
  simulatedNormals,
  siteMinutes,
  TIMER_KINDS,
  weatherDayRows,
  weatherMonthRows,
  type Climate,
  type Plan,
  type Survey,
  type SurveyStation,
} from '@water-clock/core';
import { monthsOfDays } from '../src/water/climate.ts';
import { simulatedDay } from '../src/water/simulatedWeather.ts';
import { someOf } from './cases.ts';

const kind = TIMER_KINDS[2];
const [town] = SIMULATED_TOWNS;
if (!kind || !town) throw new Error('there are kinds and towns');
const plan = emptyPlan(kind);
const CLIMATE: Climate = {
  etoMmPerDay: [7, 6.5, 5, 3.5, 2, 1.5, 1.5, 2, 3, 4.5, 5.5, 6.5],
  rainMm: [10, 12, 20, 40, 60, 70, 70, 60, 50, 40, 20, 15],
};

const FULL: SurveyStation = {
  number: 1,
  head: 'fixed-spray',
  plants: 'cool-season-lawn',
  surroundings: 'part-shade',
  soil: 'clay',
  areaSquareMetres: 60,
  headCount: 6,
  waterings: 2,
};

const answersOf = (
  station: SurveyStation,
  more: Partial<Survey> = {},
  climate: Climate | null = CLIMATE,
) => {
  const [first] = siteMinutes(
    plan,
    { ...more, stations: [station] },
    SHIPPED_MINUTES,
    climate,
  ).stations;
  if (!first) throw new Error('station 1 is there');
  return first;
};

test('the three schools side by side, by hand', () => {
  const { answers, weeklySeconds } = answersOf(FULL, { school: 'weekly' });
  // 15 min × ¾ (part shade) × 0.9 (clay) × 10 per 100 m² ÷ the 10 there are × 2 waterings.
  expect(answers.thumb.weeklySeconds).toBeCloseTo(60 * 15 * 0.75 * 0.9 * 1 * 2, 6);
  // An hour a week in high summer, adjusted the same way.
  expect(answers.weekly.weeklySeconds).toBeCloseTo(3600 * 0.75 * 0.9, 6);
  // January: 7 × 7 × 0.8 × 0.75 = 29.4 mm, rain 10 × ½ × 7 ÷ 31; 41 mm/h; 1 ÷ (0.4 + 0.6 × 0.6).
  const net = 29.4 - (5 * 7) / 31;
  expect(answers.balance.weeklySeconds).toBeCloseTo(((3600 * net) / 41) * (1 / 0.76), 6);
  expect(weeklySeconds).toBe(Math.round(3600 * 0.75 * 0.9));
});

test('every school is the product of the numbers that it shows', () => {
  const { answers } = answersOf(FULL);
  for (const school of ['thumb', 'weekly'] as const) {
    const { steps, weeklySeconds } = answers[school];
    expect(steps.reduce((all, { value }) => all * value, 60)).toBeCloseTo(weeklySeconds ?? NaN, 6);
  }
  const of = new Map(answers.balance.steps.map(({ what, value }) => [what, value]));
  const get = (what: Parameters<typeof of.get>[0]) => of.get(what) ?? NaN;
  expect(((3600 * get('net-need')) / get('rate')) * get('multiplier')).toBeCloseTo(
    answers.balance.weeklySeconds ?? NaN,
    6,
  );
});

test('what is lacking is named, and a person’s word beats all schools', () => {
  const bare = answersOf({ number: 1 }, {}, null);
  expect([bare.answers.thumb.lacking, bare.answers.balance.lacking]).toEqual([
    ['head', 'waterings'],
    ['plants', 'rate', 'climate'],
  ]);
  expect(bare.weeklySeconds).toBeNull();
  expect(answersOf({ number: 1, overruled: { weeklySeconds: 777 } }, {}, null).weeklySeconds).toBe(
    777,
  );
  // A bubbler has no table rate: only from flow and basin.
  expect(answersOf({ ...FULL, head: 'bubbler' }).answers.balance.lacking).toEqual(['rate']);
});

test('twice the rate halves the minutes; a station under cover gets no rain; a measured rate beats the table', () => {
  fc.assert(
    fc.property(fc.double({ min: 2, max: 80, noNaN: true }), (rate) => {
      const once = answersOf({ ...FULL, overruled: { rate } }).answers.balance.weeklySeconds ?? NaN;
      const twice = answersOf({ ...FULL, overruled: { rate: 2 * rate } }).answers.balance
        .weeklySeconds;
      expect(twice).toBeCloseTo(once / 2, 6);
    }),
  );
  const [station] = plan.stations;
  if (!station) throw new Error('station 1 is there');
  const cups = {
    mouthSquareCentimetres: 100,
    minutes: 30,
    millilitres: [50, 50, 50, 50],
    across: 2,
  };
  expect(figuresOf({ ...FULL, cups }, station).rate).toEqual({ value: 10, source: 'measured' });
  expect(figuresOf(FULL, { ...station, flowLpm: 20 }).rate).toEqual({ value: 20, source: 'noted' });
  expect(figuresOf(FULL, { ...station, underCover: true }).rainShare.value).toBe(0);
});

test('the season by days: enough in every month, never more than needed, and seven at the most', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 20_000 }), { minLength: 12, maxLength: 12 }),
      fc.integer({ min: 1, max: 5 }),
      (seconds, waterings) => {
        const year = seconds.map((weeklySeconds, i) => ({ month: i + 1, weeklySeconds }));
        const perWatering = (seconds[0] ?? 0) / waterings;
        daysByMonth(year, 1, waterings).forEach((days, i) => {
          const need = seconds[i] ?? 0;
          if (perWatering === 0) expect(days).toBe(0);
          else if (days < 7) {
            expect(days * perWatering).toBeGreaterThanOrEqual(need - 1e-6);
            expect((days - 1) * perWatering).toBeLessThan(need);
          }
        });
      },
    ),
  );
});

test('what the programs give in a month is what they run in it', () => {
  const set: Plan = {
    ...plan,
    settings: { seasonalPercent: 70, offDaysOfMonth: [31], wateringResumes: '2026-12-05' },
    programs: [
      {
        letter: 'A',
        starts: ['05:00', '22:00'],
        runs: [
          { station: 1, seconds: 600 },
          { station: 2, seconds: 120 },
        ],
        days: { rule: 'odd' },
      },
      {
        letter: 'B',
        starts: ['07:00'],
        runs: [{ station: 2, seconds: 900 }],
        days: { rule: 'interval', everyDays: 5, firstDate: '2026-11-03', blockedWeekdays: ['sun'] },
      },
      { letter: 'C', starts: ['09:00'], runs: [{ station: 3, seconds: 900 }], days: null },
    ],
  };
  const from = parseDate('2026-11-25') ?? 0;
  const given = givenByMonth(set, from);
  const { runs } = simulate(set, from, 365);
  const daysOf = (month: number) =>
    Array.from({ length: 365 }, (_, i) => formatDate(from + i)).filter(
      (date) => Number(date.slice(5, 7)) === month,
    ).length;
  for (const station of [1, 2, 3])
    for (let month = 1; month <= 12; month++) {
      const ran = runs
        .filter((run) => run.station === station)
        .filter(({ on }) => Number(formatDate(Math.floor(on / 86_400)).slice(5, 7)) === month)
        .reduce((sum, { on, off }) => sum + off - on, 0);
      expect(given.get(station)?.[month - 1]).toBeCloseTo((ran * 7) / daysOf(month), 6);
    }
  expect(
    givenByMonth({ ...set, settings: { mode: 'off' } }, from)
      .get(1)
      ?.every((s) => s === 0),
  ).toBe(true);
});

test('the simulated weather is the same for ever, lawful, and its towns are as they are described', () => {
  const [first] = simulatedDays(town, SIMULATED_FROM, 1);
  expect(first).toEqual(simulatedDay(town, SIMULATED_FROM));
  for (const simulatedTown of someOf(SIMULATED_TOWNS)) {
    const normals = simulatedNormals(simulatedTown);
    expect(readClimate(normals)).toEqual({ ok: true, value: normals });
    const { etoMmPerDay, ways } = climateOf(normals);
    expect(new Set(ways)).toEqual(new Set(['penman-monteith']));
    const [january = 0, july = 0] = [etoMmPerDay[0], etoMmPerDay[6]];
    expect(january > july).toBe(simulatedTown.latitude < 0);
    for (const eto of etoMmPerDay) expect(eto > 0.2 && eto < 13).toBe(true);
    const mean = normals.months.reduce(
      (sum, m) => sum + (m.highestCelsius + m.lowestCelsius) / 24,
      0,
    );
    expect(Math.abs(mean - simulatedTown.meanCelsius)).toBeLessThan(1);
  }
  expect(SIMULATED_COUNT).toBe(3653);
});

test('days and months go through a spreadsheet and back; a month that is missing is told apart', () => {
  const days = simulatedDays(town, SIMULATED_FROM, 366);
  const table = readWeatherTable(weatherDayRows(days));
  expect(table).toMatchObject({ kind: 'days', used: 366, faults: [] });
  expect(table.months).toEqual(monthsOfDays(days));
  const normals = simulatedNormals(town);
  expect(readWeatherTable(weatherMonthRows(normals.months))).toEqual({
    kind: 'months',
    months: normals.months,
    used: 12,
    faults: [],
  });
  const short = readWeatherTable(weatherDayRows(days.slice(0, 100)));
  expect(short.months.findIndex((month) => month === null)).toBe(4);
  expect(short.months.filter((month) => month !== null)).toHaveLength(4);
});

test('bad weather is told cell by cell, and the good rows are used', () => {
  const table = readWeatherTable([
    ['month', 'highest_c', 'lowest_c', 'rain_mm', 'eto_mm'],
    ['1', '30', '15', '10', '7'],
    ['2', '30', '35', '10', ''],
    ['13', '30', '15', '10', ''],
    ['3', 'warm', '15', '', ''],
    ['1', '30', '15', '10', ''],
  ]);
  expect(table.faults.map(({ line, column, fault }) => [line, column, fault.code])).toEqual([
    [3, 'lowest_c', 'out-of-range'],
    [4, 'month', 'out-of-range'],
    [5, 'highest_c', 'malformed'],
    [5, 'rain_mm', 'missing-field'],
    [6, 'month', 'repeated'],
  ]);
  expect(table.used).toBe(1);
  const long = readWeatherTable(
    Array.from({ length: 100_001 }, () => ['date', 'highest_c', 'lowest_c', 'rain_mm']),
  );
  expect(long.faults.map(({ fault }) => faultSentence(fault))).toHaveLength(1);
  expect(readWeatherTable([]).faults.map(({ column }) => column)).toEqual([
    'month',
    'highest_c',
    'lowest_c',
    'rain_mm',
  ]);
  expect(EMPTY_SURVEY.stations).toEqual([]);
});
