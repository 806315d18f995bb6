/** Where each number of a station comes from, by priority of sources; and climates and kinds as documents. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  applyRecordChange,
  assembleBrief,
  climateOf,
  conditionWords,
  allowedWords,
  delayForSlowValve,
  EMPTY_SURVEY,
  emptyPlan,
  figuresOf,
  HEADS,
  pathText,
  readClimate,
  readStationTable,
  readSurvey,
  readTimerKind,
  SHIPPED_KINDS,
  SHIPPED_MINUTES,
  siteMinutes,
  stationRows,
  stationTableChange,
  takeBriefChange,
  TIMER_KINDS,
  type ClimateDocument,
  type Station,
  type SurveyStation,
  type TimerRecord,
} from '@water-clock/core';
import { dayOfSun, hargreaves } from '../src/water/evapotranspiration.ts';
import { etoOf, middleOfMonth } from '../src/water/climate.ts';
import { PLANT_FACTORS, SOILS, SURROUNDINGS } from '../src/water/tables.ts';

const station: Station = { number: 1, flowLpm: 12 };
const CUPS = {
  mouthSquareCentimetres: 100,
  minutes: 60,
  millilitres: [200, 200, 100, 300],
  across: 2,
};

const DRIP = { emitterLitresPerHour: 2, emitterSpacingMetres: 0.5, rowSpacingMetres: 0.4 };

describe('the rate of a station', () => {
  const base: SurveyStation = { number: 1, head: 'fixed-spray' };
  test.each<[string, SurveyStation, Station, number, string]>([
    ['is the head’s where nothing else is known', base, { number: 1 }, 41, 'table'],
    [
      'is the drip line’s where its spacing is',
      { ...base, drip: DRIP },
      { number: 1 },
      10,
      'noted',
    ],
    [
      'is by flow and area before that',
      { ...base, drip: DRIP, areaSquareMetres: 60 },
      station,
      12,
      'noted',
    ],
    [
      'is by a measured flow before one that was noted',
      { ...base, areaSquareMetres: 60, flow: { by: 'bucket', litres: 10, seconds: 20 } },
      station,
      30,
      'measured',
    ],
    [
      'is by cups before any flow',
      { ...base, areaSquareMetres: 60, cups: CUPS },
      station,
      20,
      'measured',
    ],
    [
      'is a person’s word before all',
      { ...base, cups: CUPS, overruled: { rate: 7 } },
      station,
      7,
      'overruled',
    ],
    [
      'falls back where every cup was empty',
      { ...base, cups: { ...CUPS, millilitres: [0, 0] } },
      { number: 1 },
      41,
      'table',
    ],
  ])('%s', (_name, noted, of, value, source) => {
    const { rate } = figuresOf(noted, of);
    expect(rate?.source).toBe(source);
    expect(rate?.value).toBeCloseTo(value, 9);
  });

  test('has no table’s value for a bubbler, and none for a head that nobody noted', () => {
    expect(figuresOf({ number: 1, head: 'bubbler' }, { number: 1 }).rate).toBeNull();
    expect(figuresOf({ number: 1 }, { number: 1 }).rate).toBeNull();
  });
});

test('the longest run: measured, else worked out from soil, slope and rate; a steeper slope never makes it longer', () => {
  const noted: SurveyStation = { number: 1, head: 'fixed-spray', soil: 'clay', slopePercent: 2 };
  // Clay takes 2.5 mm an hour, 5 mm may stand: 3,600 × 5 ÷ (41 − 2.5).
  expect(figuresOf(noted, { number: 1 }).longestRun?.value).toBeCloseTo((3600 * 5) / 38.5, 6);
  const runOff = { seconds: [300], taken: 'least', safetyPercent: 10 } as const;
  expect(figuresOf({ ...noted, runOff }, { number: 1, cycleSeconds: 270 }).longestRun).toEqual({
    value: 270,
    source: 'measured',
  });
  for (const soil of Object.keys(SOILS) as (keyof typeof SOILS)[]) {
    const runs = [0, 4, 8, 20].map(
      (slopePercent) =>
        figuresOf({ ...noted, soil, slopePercent }, { number: 1 }).longestRun?.value ?? 0,
    );
    expect(runs.every((run, i) => run > 0 && run <= (runs[i - 1] ?? Infinity))).toBe(true);
  }
  // Sand takes 20 mm an hour: a rotor never floods it.
  expect(
    figuresOf({ number: 1, head: 'gear-rotor', soil: 'sand' }, { number: 1 }).longestRun?.value,
  ).toBe(Infinity);
});

test('a slow valve is given its time and a quarter, whole seconds', () => {
  expect([1, 4, 6, 10].map(delayForSlowValve)).toEqual([2, 5, 8, 13]);
});

const CLIMATE: ClimateDocument = {
  format: 'water-clock-climate',
  version: 1,
  name: 'Marrowby',
  source: 'made up',
  latitude: 51.9,
  months: Array.from({ length: 12 }, (_, i) => ({
    highestCelsius: 10 + i,
    lowestCelsius: 2 + i,
    rainMm: 40,
  })),
};

describe('a climate', () => {
  const whole = { humidityPercent: 70, windMetresPerSecond: 2, sunshineHours: 6 };
  test('finds evapotranspiration by the best way that its numbers allow', () => {
    const bare = { highestCelsius: 24, lowestCelsius: 12, rainMm: 30 };
    const sun = dayOfSun(CLIMATE.latitude, middleOfMonth(7));
    expect(etoOf(bare, CLIMATE, middleOfMonth(7))).toEqual({
      mmPerDay: hargreaves(sun, 24, 12),
      way: 'hargreaves',
    });
    expect(etoOf({ ...bare, ...whole }, CLIMATE, middleOfMonth(7)).way).toBe('penman-monteith');
    for (const key of Object.keys(whole) as (keyof typeof whole)[]) {
      const { [key]: _lacks, ...most } = whole;
      expect(etoOf({ ...bare, ...most }, CLIMATE, middleOfMonth(7)).way).toBe('hargreaves');
    }
    expect(etoOf({ ...bare, ...whole, etoMmPerDay: 4.2 }, CLIMATE, 1)).toEqual({
      mmPerDay: 4.2,
      way: 'entered',
    });
    // More sunshine than the day is long counts as the whole day.
    expect(etoOf({ ...bare, ...whole, sunshineHours: 24 }, CLIMATE, 190).mmPerDay).toBeCloseTo(
      etoOf({ ...bare, ...whole, sunshineHours: sun.daylightHours + 2 }, CLIMATE, 190).mmPerDay,
      9,
    );
  });

  test.each<[string, unknown, string]>([
    ['eleven months', { ...CLIMATE, months: CLIMATE.months.slice(1) }, 'months'],
    [
      'a night warmer than its day',
      { ...CLIMATE, months: CLIMATE.months.map((m) => ({ ...m, lowestCelsius: 40 })) },
      'months[0].lowestCelsius',
    ],
    [
      'rain below nothing',
      { ...CLIMATE, months: CLIMATE.months.map((m) => ({ ...m, rainMm: -1 })) },
      'months[0].rainMm',
    ],
    ['a place beyond the polar circle', { ...CLIMATE, latitude: 70 }, 'latitude'],
    ['another format', { ...CLIMATE, format: 'water-clock-rules' }, 'format'],
    ['a later version', { ...CLIMATE, version: 2 }, 'version'],
    ['no name', { ...CLIMATE, name: ' ' }, 'name'],
  ])('with %s is refused by path', (_name, value, path) => {
    const read = readClimate(value);
    expect(read.ok ? [] : read.faults.map((fault) => pathText(fault.path))).toContain(path);
  });

  test('gives twelve months, also where the sun hardly rises', () => {
    const { etoMmPerDay } = climateOf({ ...CLIMATE, latitude: 66 });
    expect(etoMmPerDay.every((eto) => Number.isFinite(eto) && eto >= 0)).toBe(true);
  });
});

test.each<[string, object, string]>([
  ['a sign without a meaning', { signs: [{ sign: 'a light', means: '' }] }, 'signs[0].means'],
  ['a setting that no panel has', { reach: [{ setting: 'mood', line: 'x' }] }, 'reach[0].setting'],
  [
    'a photo that is an address',
    { reach: [{ setting: 'clock', line: 'x', photo: 'https://x' }] },
    'reach[0].photo',
  ],
  [
    'a timer without stations',
    { timer: { ...TIMER_KINDS[0], stationCount: 0 } },
    'timer.stationCount',
  ],
  ['a field of its own', { colour: 'grey' }, 'colour'],
])('a kind with %s is refused by path', (_name, more, path) => {
  const read = readTimerKind({ ...SHIPPED_KINDS[0]?.kind, ...more });
  expect(read.ok ? [] : read.faults.map((fault) => pathText(fault.path))).toEqual([path]);
});

const keys = <T extends object>(table: T) => Object.keys(table) as (keyof T)[];
const anyStation = fc.record(
  {
    head: fc.constantFrom(...keys(HEADS)),
    plants: fc.constantFrom(...keys(PLANT_FACTORS)),
    surroundings: fc.constantFrom(...keys(SURROUNDINGS)),
    soil: fc.constantFrom(...keys(SOILS)),
    slopePercent: fc.integer({ min: 0, max: 100 }),
    areaSquareMetres: fc.integer({ min: 1, max: 90_000 }).map((n) => n / 10),
    headCount: fc.integer({ min: 1, max: 1000 }),
    group: fc.constantFrom('lawn', 'beds', '-'),
    note: fc.constantFrom('=cmd', 'by the gate', '"quoted"'),
    overruled: fc.record({ weeklySeconds: fc.integer({ min: 0, max: 10_000 }).map((n) => n * 60) }),
  },
  { requiredKeys: [] },
);
const kind = TIMER_KINDS[2];
if (!kind) throw new Error('there is a third kind');
const anyRecord = fc
  .array(anyStation, { minLength: 8, maxLength: 8 })
  .map((stations): TimerRecord => ({
    plan: emptyPlan(kind),
    survey: {
      stations: stations
        .map((facts, i) => ({ number: i + 1, ...facts }))
        .filter((one) => Object.keys(one).length > 1),
    },
  }));

test('any survey is sound, goes through rows unchanged, and makes a brief that can be taken over', () => {
  fc.assert(
    fc.property(anyRecord, (record) => {
      expect(readSurvey(record.survey)).toEqual({ ok: true, value: record.survey });
      const table = readStationTable(stationRows(record), record.plan);
      expect(table.faults).toEqual([]);
      const empty: TimerRecord = { ...record, survey: EMPTY_SURVEY };
      const copied = applyRecordChange(empty, stationTableChange(empty, table));
      expect(copied.ok && copied.value.record).toEqual(record);
      const minutes = siteMinutes(record.plan, record.survey, SHIPPED_MINUTES, climateOf(CLIMATE));
      const sources = { minutes, rules: null, mowing: [] };
      const taken = applyRecordChange(
        record,
        takeBriefChange(record, assembleBrief(record, sources)),
      );
      expect(taken.ok).toBe(true);
    }),
    { seed: 21, numRuns: 60 },
  );
});

test('a brief of a smaller timer is refused as a whole where stations would have no place', () => {
  const small = TIMER_KINDS[0];
  if (!small) throw new Error('there is a first kind');
  const record: TimerRecord = { plan: emptyPlan(kind), survey: EMPTY_SURVEY };
  const brief = assembleBrief(
    { plan: emptyPlan(small), survey: EMPTY_SURVEY },
    {
      minutes: siteMinutes(emptyPlan(small), EMPTY_SURVEY, SHIPPED_MINUTES, null),
      rules: null,
      mowing: [],
    },
  );
  const result = applyRecordChange(record, takeBriefChange(record, brief));
  expect(result.ok ? [] : result.faults[0]?.code).toBe('beyond-timer');
});

test.each([
  [{}, 'every house'],
  [{ lastDigits: [1, 2] }, 'numbers ending in 1 and 2'],
  [{ parity: 'odd', supplies: ['bore', 'tank'] }, 'odd numbers, water from a bore or a tank'],
] as const)('a condition %j is said as %s', (when, words) => {
  expect(conditionWords(when)).toBe(words);
});

test.each([
  [{}, 'any day, any time'],
  [{ weekdays: [] }, 'no watering on any day'],
  [
    { weekdays: ['mon', 'wed', 'sat'], mostDaysPerWeek: 1 },
    'only on Mon, Wed and Sat; on at most 1 day a week',
  ],
  [
    {
      parity: 'even',
      noWaterWindows: [
        { from: '09:00', to: '18:00' },
        { from: '22:00', to: '04:00', weekdays: ['sun'] },
      ],
    },
    'only on even dates; not from 9:00 am to 6:00 pm and 10:00 pm to 4:00 am on Sun',
  ],
] as const)('rules %j are said as %s', (rules, words) => {
  expect(allowedWords(rules, { on: 20_000, clock: '12' })).toBe(words);
});
