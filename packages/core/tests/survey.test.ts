/** A timer's record, its spreadsheet tables and its brief: what goes in comes out, and undo restores it. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  announcedEditions,
  applyRecordChange,
  assembleBrief,
  dueVisits,
  EMPTY_SURVEY,
  emptyPlan,
  faultSentence,
  formatDate,
  MOST_STATION_ROWS,
  parseDate,
  pathText,
  readRecordChange,
  readStationTable,
  readSurvey,
  recordDifferences,
  SHIPPED_MINUTES,
  siteMinutes,
  stationRows,
  stationTableChange,
  surveyOf,
  takeBriefChange,
  TIMER_KINDS,
  unknownNeeds,
  withPresentWater,
  type RecordChange,
  type SurveyStation,
  type TimerRecord,
} from '@water-clock/core';
import { readBrief } from '../src/brief/readBrief.ts';

const kind = TIMER_KINDS[2];
if (!kind) throw new Error('there is a third kind');
const EMPTY: TimerRecord = { plan: emptyPlan(kind), survey: EMPTY_SURVEY };

function applied(record: TimerRecord, change: RecordChange) {
  const result = applyRecordChange(record, change);
  if (!result.ok) throw new Error(JSON.stringify(result.faults));
  return result.value;
}

const LAWN = {
  walked: 'seen',
  head: 'fixed-spray',
  plants: 'cool-season-lawn',
  surroundings: 'full-sun',
  soil: 'clay',
  slopePercent: 8,
  areaSquareMetres: 62.5,
  headCount: 9,
  faults: [{ fault: 'tilted-head', severity: 'soon', note: 'by the gate' }],
  runOff: { seconds: [300, 260], taken: 'least', safetyPercent: 10 },
  cups: { mouthSquareCentimetres: 80, minutes: 10, millilitres: [40, 55, 61, 44], across: 2 },
  flow: { by: 'meter', before: 1000, after: 1092, minutes: 4 },
} as const satisfies Omit<SurveyStation, 'number'>;

test('any series of facts is undone step by step, through the wire, to where it began', () => {
  const facts = fc.record(
    {
      head: fc.constantFrom('fixed-spray', 'drip', null),
      soil: fc.constantFrom('clay', 'sand', null),
      headCount: fc.integer({ min: 1, max: 1000 }),
      note: fc.string({ maxLength: 30 }),
      walked: fc.constantFrom('seen', 'skipped', null),
    },
    { requiredKeys: [] },
  );
  const single = fc.oneof(
    fc.record({
      type: fc.constant('note-station'),
      station: fc.integer({ min: 1, max: 8 }),
      fields: facts,
    }),
    fc.record({
      type: fc.constant('note'),
      fields: fc.record({ hundredMonth: fc.constantFrom(1, 12, null) }),
    }),
    fc.record({
      type: fc.constant('set-station'),
      station: fc.integer({ min: 1, max: 8 }),
      fields: fc.record({ name: fc.constantFrom('Front lawn', null) }),
    }),
  );
  const step = fc.oneof(
    single,
    fc.record({ type: fc.constant('together'), changes: fc.array(single, { maxLength: 4 }) }),
  );
  fc.assert(
    fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
      const inverses: RecordChange[] = [];
      let record = EMPTY;
      for (const one of steps) {
        const read = readRecordChange(JSON.parse(JSON.stringify(one)));
        if (!read.ok) throw new Error(JSON.stringify(read.faults));
        const result = applied(record, read.value);
        record = result.record;
        inverses.unshift(result.inverse);
        expect(readSurvey(record.survey).ok).toBe(true);
      }
      for (const inverse of inverses) record = applied(record, inverse).record;
      expect(record).toEqual(EMPTY);
    }),
  );
});

test('a step that fails in its middle changes nothing and says where', () => {
  const result = applyRecordChange(EMPTY, {
    type: 'together',
    changes: [
      { type: 'note-station', station: 1, fields: { head: 'drip' } },
      { type: 'set-station', station: 44, fields: { name: 'Nowhere' } },
    ],
  });
  expect(result.ok ? [] : result.faults.map(({ path }) => pathText(path))).toEqual([
    'changes[1].station',
  ]);
});

test.each<[string, object, string]>([
  ['a negative area', { areaSquareMetres: -4 }, 'out-of-range'],
  ['no area', { areaSquareMetres: 0 }, 'out-of-range'],
  ['no cups', { cups: { ...LAWN.cups, millilitres: [] } }, 'wrong-length'],
  ['a cup without a mouth', { cups: { ...LAWN.cups, mouthSquareCentimetres: 0 } }, 'out-of-range'],
  ['no flow', { flow: { by: 'bucket', litres: 0, seconds: 10 } }, 'out-of-range'],
  ['an unknown head', { head: 'fountain' }, 'not-one-of'],
  ['a photo that is no id', { photos: ['../../etc'] }, 'malformed'],
  ['a month for a station', { hundredMonth: 3 }, 'unknown-field'],
])('%s is refused with a code', (_name, fields, code) => {
  const read = readRecordChange({ type: 'note-station', station: 1, fields });
  expect(read.ok ? [] : read.faults.map((fault) => fault.code)).toEqual([code]);
});

test('a meter that ran backwards is told with what is allowed', () => {
  const result = applyRecordChange(EMPTY, {
    type: 'note-station',
    station: 2,
    fields: { flow: { by: 'meter', before: 900, after: 900, minutes: 3 } },
  });
  if (result.ok) throw new Error('it is refused');
  const [fault] = result.faults;
  expect(fault && pathText(fault.path)).toBe('stations[0].flow.after');
  expect(fault && faultSentence(fault)).toContain('900');
});

const walked = applied(EMPTY, {
  type: 'together',
  changes: [
    { type: 'note-station', station: 1, fields: { ...LAWN, group: 'lawn' } },
    {
      type: 'set-station',
      station: 1,
      fields: { name: '=Front lawn', cycleSeconds: 240, soakSeconds: 3600 },
    },
    { type: 'set-station', station: 2, fields: { name: 'Pots, "north"', overhead: false } },
    { type: 'note-station', station: 2, fields: { overruled: { weeklySeconds: 900, rate: 7 } } },
  ],
}).record;

test('stations written as rows change nothing where they are read back', () => {
  const table = readStationTable(stationRows(walked), walked.plan);
  expect(table.faults).toEqual([]);
  expect(table.entries).toHaveLength(8);
  expect(applied(walked, stationTableChange(walked, table)).record).toEqual(walked);
  // They carry everything a row can say into an empty timer.
  const copy = applied(EMPTY, stationTableChange(EMPTY, table)).record;
  expect(stationRows(copy)).toEqual(stationRows(walked));
});

test('a bad cell is told by line and column and takes nothing else with it', () => {
  const rows = [
    ['Number', 'name', 'head', 'area_m2', 'colour', 'week_min'],
    ['1', 'Front', 'Fixed spray', '-3', 'green', '40'],
    ['9', 'Nowhere', '', '', '', ''],
    ['2', "'=2+2", 'sprinkle', '12,5', '', ''],
    ['1', 'Twice', '', '', '', ''],
    ['', '', '', '', '', ''],
  ];
  const table = readStationTable(rows, EMPTY.plan);
  expect(table.faults.map(({ line, column, fault }) => [line, column, fault.code])).toEqual([
    [1, 'colour', 'unknown-field'],
    [2, 'area_m2', 'out-of-range'],
    [3, 'number', 'out-of-range'],
    [4, 'head', 'not-one-of'],
    [5, 'number', 'repeated'],
  ]);
  const { plan, survey } = applied(EMPTY, stationTableChange(EMPTY, table)).record;
  expect(plan.stations.map(({ name }) => name).slice(0, 3)).toEqual(['Front', '=2+2', undefined]);
  expect(survey.stations).toEqual([
    { number: 1, head: 'fixed-spray', overruled: { weeklySeconds: 2400 } },
    { number: 2, areaSquareMetres: 12.5 },
  ]);
});

test('a hundred thousand rows are one fault, not a hundred thousand', () => {
  const rows = [['number'], ...Array.from({ length: 100_000 }, () => ['1'])];
  const { entries, faults } = readStationTable(rows, EMPTY.plan);
  expect(entries).toEqual([]);
  expect(faults.map(({ fault }) => faultSentence(fault)).join()).toContain(
    String(MOST_STATION_ROWS),
  );
});

test('both sides of a conflict are told fact by fact', () => {
  const theirs = applied(walked, {
    type: 'together',
    changes: [
      { type: 'note-station', station: 1, fields: { soil: 'sand', headCount: null } },
      { type: 'note', fields: { hundredMonth: 10 } },
      { type: 'set-station', station: 2, fields: { name: 'Pots' } },
    ],
  }).record;
  expect(recordDifferences(walked, theirs, '24')).toEqual([
    { what: 'Station 2, name', before: 'Pots, "north"', after: 'Pots' },
    { what: 'Month that 100 % stands for', before: '—', after: 'October' },
    { what: 'Station 1, soil', before: 'Clay', after: 'Sand' },
    { what: 'Station 1, number of heads', before: '9', after: '—' },
  ]);
  expect(recordDifferences(walked, walked, '24')).toEqual([]);
});

const WED_SAT = { weekdays: ['wed', 'sat'], mostDaysPerWeek: 2 } as const;
const sourcesOf = (record: TimerRecord) => ({
  minutes: siteMinutes(record.plan, record.survey, SHIPPED_MINUTES, null, WED_SAT),
  rules: WED_SAT,
  mowing: ['fri'] as const,
});

test('the brief has what was found, is sound, and says of which station nothing is known', () => {
  const record = applied(walked, {
    type: 'note',
    fields: { school: 'thumb', dryBeforeMowing: true, wish: { finishBy: '06:30' } },
  }).record;
  const sources = sourcesOf(record);
  const brief = assembleBrief(record, sources);
  expect(readBrief(JSON.parse(JSON.stringify(brief)))).toEqual({ ok: true, value: brief });
  expect(brief.stations.slice(0, 2)).toMatchObject([
    { number: 1, group: 'lawn', cycleSeconds: 240, flowLpm: 23 },
    { number: 2, weeklySeconds: 900, overhead: false },
  ]);
  // A cycle of 4:50 is 4 minutes on a timer set in whole minutes.
  const { plan } = record;
  const measured = {
    ...plan,
    stations: plan.stations.map((one) => (one.number === 1 ? { ...one, cycleSeconds: 290 } : one)),
  };
  const pieceOf = (runStepSeconds: number) => {
    const other = { ...record, plan: { ...measured, timer: { ...plan.timer, runStepSeconds } } };
    return assembleBrief(other, sourcesOf(other)).stations[0]?.cycleSeconds;
  };
  expect([pieceOf(60), pieceOf(1)]).toEqual([240, 290]);
  expect(brief).toMatchObject({
    rules: { mostDaysPerWeek: 2 },
    mowing: { weekdays: ['fri'], dayBefore: true },
    wish: { finishBy: '06:30' },
  });
  expect(unknownNeeds(sources.minutes)).toEqual([3, 4, 5, 6, 7, 8]);
});

test('days for the whole garden come before days that nobody chose, and the lawn can be dry from a time of day', () => {
  const { record } = applied(walked, {
    type: 'note',
    fields: { dryFrom: '18:00', wish: { daysPerWeek: { least: 2, most: 3 } } },
  });
  const brief = assembleBrief(record, sourcesOf(record));
  const daysOf = ({ stations }: typeof brief) => stations.map(({ days }) => days ?? null);
  expect(daysOf(assembleBrief(walked, sourcesOf(walked)))[1]).toEqual({ least: 1, most: 7 });
  expect(daysOf(brief)).toEqual(brief.stations.map(() => null));
  const days = { least: 1, most: 1 };
  const own = applied(record, { type: 'note-station', station: 2, fields: { days } }).record;
  expect(daysOf(assembleBrief(own, sourcesOf(own)))[1]).toEqual(days);
  expect(brief.wish).toMatchObject({ daysPerWeek: { least: 2, most: 3 } });
  expect(brief.mowing).toEqual({ weekdays: ['fri'], dryFrom: '18:00' });
  // Applied elsewhere, it asks for the same.
  const taken = applied(EMPTY, takeBriefChange(EMPTY, brief)).record;
  expect(taken.survey).toMatchObject({ dryFrom: '18:00' });
  expect(withPresentWater(brief, record.plan, [1]).stations[0]?.days).toBeUndefined();
});

test('a time without rules between two announced editions is an edition of its own', () => {
  const [march, may, july] = ['2027-03-01', '2027-05-01', '2027-07-01'].map(
    (date) => parseDate(date) ?? 0,
  );
  if (march === undefined || may === undefined || july === undefined) throw new Error('no dates');
  const rules = { weekdays: ['mon'] } as const;
  expect(
    announcedEditions([
      { from: march, until: may, rules },
      { from: july, until: null, rules },
    ]),
  ).toEqual([
    { from: '2027-03-01', rules },
    { from: '2027-05-01', rules: {} },
    { from: '2027-07-01', rules },
  ]);
  expect(
    announcedEditions([
      { from: march, until: may, rules },
      { from: may, until: null, rules: {} },
    ]),
  ).toHaveLength(2);
});

test('a brief taken over gives the same brief again, on top of anything', () => {
  const brief = assembleBrief(walked, sourcesOf(walked));
  const change = takeBriefChange(EMPTY, brief);
  expect(readRecordChange(JSON.parse(JSON.stringify(change)))).toEqual({ ok: true, value: change });
  const { record, inverse } = applied(EMPTY, change);
  expect(assembleBrief(record, sourcesOf(record))).toEqual(brief);
  expect(record.survey.rules).toEqual(brief.rules);
  expect(applied(record, inverse).record).toEqual(EMPTY);
});

test('the next visits: the day after the last of several times a day, and a year after a battery', () => {
  const { survey } = applied(EMPTY, {
    type: 'together',
    changes: [
      {
        type: 'note-station',
        station: 3,
        fields: { oftenADay: { times: 4, from: '07:00', to: '17:00', until: '2026-12-13' } },
      },
      { type: 'note', fields: { device: { power: 'battery', batteryDate: '2024-02-29' } } },
    ],
  }).record;
  expect(dueVisits(survey).map(({ date, reason }) => [formatDate(date), reason.kind])).toEqual([
    ['2025-02-28', 'battery'],
    ['2026-12-14', 'often-a-day-ends'],
  ]);
  expect(surveyOf(survey, 3).oftenADay?.times).toBe(4);
  expect(parseDate('2026-12-14')).not.toBeNull();
});
