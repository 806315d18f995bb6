/** Survey code that needs no page: answers to a kind, library shelves, steps, curves, spreadsheets. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  applyRecordChange,
  EMPTY_SURVEY,
  emptyPlan,
  readStationTable,
  readTimerKind,
  SHIPPED_KINDS,
  SHIPPED_MINUTES,
  siteMinutes,
  START_STEPS_MINUTES,
  stationRows,
  stationTableChange,
  TIMER_KINDS,
  type RecordChange,
  type TimerRecord,
} from '@water-clock/core';
import { curveGeometry } from '../src/shared/charts/curveGeometry.ts';
import { kindOfAnswers, USUAL_ANSWERS, type Answers } from '../src/office/library/kindQuestions.ts';
import { itemsOf } from '../src/data/api/library.ts';
import { csvText, rowsOf } from '../src/app/platform/csv.ts';
import { stepStates } from '../src/visit/steps/steps.ts';

test('whatever is answered, the kind can be read, and says what was seen', () => {
  const answers = fc.record<Answers>({
    name: fc.constant(' Grey box '),
    stations: fc.integer({ min: 1, max: 99 }),
    programs: fc.integer({ min: 1, max: 26 }),
    starts: fc.integer({ min: 1, max: 24 }),
    startStep: fc.constantFrom(...START_STEPS_MINUTES),
    longestRunMinutes: fc.integer({ min: 1, max: 1440 }),
    runStep: fc.constantFrom('seconds', 'minutes', 'fives'),
    days: fc.subarray(['weekdays', 'interval', 'parity', 'hours'] as const),
    longestInterval: fc.integer({ min: 1, max: 365 }),
    percent: fc.constantFrom('none', 'timer', 'program', 'months'),
    highestPercent: fc.integer({ min: 100, max: 500 }),
    percentStep: fc.integer({ min: 1, max: 50 }),
    soak: fc.constantFrom('none', 'station', 'program'),
    longestDelaySeconds: fc.integer({ min: 0, max: 36_000 }),
    overlap: fc.constantFrom('queue', 'drop', 'cut', 'together'),
    dryHours: fc.constantFrom('ignore', 'cut', 'pause'),
    atOnce: fc.integer({ min: 1, max: 99 }),
    clock: fc.constantFrom('date', 'weekday'),
  });
  fc.assert(
    fc.property(answers, (given) => {
      const kind = kindOfAnswers(given);
      expect(readTimerKind(kind)).toEqual({ ok: true, value: kind });
      const { timer } = kind;
      expect(timer).toMatchObject({ name: 'Grey box', startsPerProgram: given.starts });
      expect(timer.dayRules.includes('odd')).toBe(given.days.includes('parity'));
      expect(timer.seasonal.byMonth).toBe(given.percent === 'months');
    }),
  );
  expect(kindOfAnswers(USUAL_ANSWERS).timer.seasonal).toMatchObject({
    scope: 'timer',
    stepPercent: 10,
  });
});

test('the office’s document stands in place of a shipped one; taken out, the shipped one is back with its version', () => {
  const [shipped] = SHIPPED_KINDS;
  if (!shipped) throw new Error('kinds ship');
  const own = { ...shipped.kind, note: 'ours' };
  const of = (document: typeof own | null) =>
    itemsOf('kinds', [
      { id: shipped.id, version: 3, document },
      { id: 'another', version: 1, document: own },
    ]);
  expect(of(own)).toHaveLength(SHIPPED_KINDS.length + 1);
  expect(of(own).find(({ id }) => id === shipped.id)).toMatchObject({
    ships: true,
    version: 3,
    document: own,
  });
  expect(of(null).find(({ id }) => id === shipped.id)).toEqual({
    id: shipped.id,
    version: 3,
    document: shipped.kind,
    ships: true,
  });
  expect(of(null).find(({ id }) => id === 'another')?.ships).toBe(false);
});

const kind = TIMER_KINDS[1];
if (!kind) throw new Error('there is a second kind');
const EMPTY: TimerRecord = { plan: emptyPlan(kind), survey: EMPTY_SURVEY };
const SITE = {
  id: '',
  version: 1,
  name: 'Heron Yard',
  houseNumber: null,
  street: null,
  locality: null,
  supplyFlow: null,
  timeZone: 'Europe/Lisbon',
  latitude: null,
  longitude: null,
  supply: null,
  mowing: [],
  notes: '',
  people: [],
  units: null,
  clockStyle: null,
  language: null,
  town: null,
  climateId: null,
  rulesId: null,
  minutesId: null,
};
const changed = (record: TimerRecord, change: RecordChange): TimerRecord => {
  const applied = applyRecordChange(record, change);
  if (!applied.ok) throw new Error(JSON.stringify(applied.faults));
  return applied.value.record;
};

test('each step says what is missing until nothing is', () => {
  const statesOf = (record: TimerRecord, site: object = {}) =>
    stepStates({
      ...record,
      kind: null,
      site: { ...SITE, ...site },
      rules: null,
      minutes: siteMinutes(record.plan, record.survey, SHIPPED_MINUTES, null),
      verdict: 'empty',
      today: 20_000,
    });
  const first = statesOf(EMPTY);
  expect(Object.values(first).every(({ done }) => !done)).toBe(true);
  expect(first.stations?.line).toBe('Walked 0 of 4. Left: stations 1, 2, 3, 4.');
  expect(first.house?.line).toContain('street number');
  const whole = changed(EMPTY, {
    type: 'together',
    changes: [
      ...[1, 2, 3, 4].map((station) => ({
        type: 'note-station' as const,
        station,
        fields: { walked: 'seen' as const, overruled: { weeklySeconds: 60 } },
      })),
      {
        type: 'note',
        fields: {
          rules: {},
          device: {
            power: 'adapter',
            sensors: [],
            changers: [],
            clockShown: '2026-01-01T10:00',
            clockReally: '2026-01-01T10:00',
          },
        },
      },
    ],
  });
  const last = statesOf(whole, { houseNumber: '3', supply: 'mains', town: 'marrowby' });
  expect(
    Object.entries(last)
      .filter(([, { done }]) => !done)
      .map(([step]) => step),
  ).toEqual(['']);
  // The reading of an earlier visit says nothing about the clock in this one.
  const later = changed(whole, { type: 'note', fields: { visit: { began: '2026-02-01T10:00' } } });
  expect([statesOf(whole).clock?.done, statesOf(later).clock?.done]).toEqual([true, false]);
  // An open visit says what each step lacks, until it can be closed.
  const at = '2026-01-01T10:00';
  const leave = (...changes: RecordChange[]) =>
    changes.reduce(
      (lines, change) => {
        const record = changed(lines.record, change);
        const { found, leave: state } = statesOf(record);
        return { record, told: [...lines.told, [found?.done, state?.done, state?.line]] };
      },
      { record: whole, told: [] as unknown[] },
    ).told;
  const tested = (stations: readonly number[]) => ({
    type: 'note-visit' as const,
    fields: { tests: stations.map((station) => ({ station, result: 'waters' as const })) },
  });
  const { plan } = whole;
  expect(
    leave(
      { type: 'note', fields: { visit: { began: at } } },
      { type: 'note-visit', fields: { asFound: { at, plan, hidden: 'none-found' } } },
      tested([1, 2, 4]),
      {
        type: 'note-visit',
        fields: { asLeft: { at, plan }, switched: [{ what: 'bypass', putBack: false }] },
      },
      tested([1, 2, 3, 4]),
      { type: 'note-visit', fields: { switched: [{ what: 'bypass', putBack: true }] } },
      { type: 'set-settings', settings: { seasonalPercent: 90 } },
    ),
  ).toEqual([
    [
      false,
      false,
      'Missing: the test of stations 1, 2, 3, 4, the settings as found, the settings as left.',
    ],
    [true, false, 'Missing: the test of stations 1, 2, 3, 4, the settings as left.'],
    [true, false, 'Missing: the test of station 3, the settings as left.'],
    [true, false, 'Missing: the test of station 3, what was switched for the test.'],
    [true, false, 'Missing: what was switched for the test.'],
    [true, true, 'Tested, put back and saved. The visit can be closed.'],
    [true, false, 'Missing: the settings as left, which are older than what is set.'],
  ]);
  // A battery is asked for its date.
  const battery = changed(whole, {
    type: 'note',
    fields: { device: { ...whole.survey.device, power: 'battery' } },
  });
  expect(statesOf(battery).timer?.line).toBe('Missing: the battery’s date.');
});

test('curves stay in their frame, months from left to right, more is higher', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.array(fc.double({ min: 0, max: 90, noNaN: true }), { minLength: 12, maxLength: 12 }),
        { minLength: 1, maxLength: 3 },
      ),
      fc.integer({ min: 280, max: 1400 }),
      (lists, width) => {
        const { shapes, months, bottom } = curveGeometry(
          lists.map((values, i) => ({ name: String(i), values })),
          width,
          240,
        );
        for (const { points, path } of shapes) {
          expect(path.startsWith('M')).toBe(true);
          points.forEach(({ x, y, value }, i) => {
            expect(x).toBe(months[i]?.x);
            expect(x > (months[i - 1]?.x ?? 0) && x < width && y >= 0 && y <= bottom + 1e-6).toBe(
              true,
            );
            for (const other of points)
              if (other.value > value) expect(other.y).toBeLessThanOrEqual(y);
          });
        }
      },
    ),
  );
});

test('names that are formulas, with quotes, commas and other scripts, go through a spreadsheet and back', async () => {
  const named = ['=1+1', '+39', 'Pots, "north"; by the gate', '庭の芝生'].reduce(
    (record, name, i) => changed(record, { type: 'set-station', station: i + 1, fields: { name } }),
    EMPTY,
  );
  const text = csvText(stationRows(named));
  expect(text).toContain("'=1+1");
  for (const file of [text, `\uFEFF${text}`]) {
    const table = readStationTable(await rowsOf(file, 200), named.plan);
    expect(table.faults).toEqual([]);
    expect(changed(named, stationTableChange(named, table))).toEqual(named);
  }
  expect((await rowsOf('number\n' + '1\n'.repeat(5000), 200)).length).toBe(202);
});
