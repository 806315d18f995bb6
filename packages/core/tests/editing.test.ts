/** Typed input, the calendar under it, and the resulting changes. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  applyChange,
  civilOf,
  emptyPlan,
  epochDayOf,
  formatDate,
  parseDate,
  parseRunEntry,
  parseTimeEntry,
  planDifferences,
  removeStationChange,
  runEntryText,
  samePlan,
  startWords,
  stepped,
  steppedStart,
  TIMER_KINDS,
  weekdayIndexOf,
  WEEKDAYS,
  type Plan,
  writePlan,
  type PlanChange,
} from '@water-clock/core';
import { LAST_DAY } from '../src/time/calendar.ts';
import { readChange } from '../src/plan/change.ts';
import { anyPlan } from './randomPlans.ts';
import { cases, enough } from './cases.ts';

describe('a typed time', () => {
  const table: [string, string | null][] = [
    ['5', '05:00'],
    ['5:30', '05:30'],
    ['530', '05:30'],
    ['5p', '17:00'],
    ['17:30', '17:30'],
    ['1730', '17:30'],
    ['0530', '05:30'],
    ['5.30', '05:30'],
    ['5:30 pm', '17:30'],
    ['530P', '17:30'],
    ['12', '12:00'],
    ['12a', '00:00'],
    ['12am', '00:00'],
    ['12:15 a.m.', '00:15'],
    ['12p', '12:00'],
    ['0', '00:00'],
    ['00:00', '00:00'],
    ['23:59', '23:59'],
    [' 6 ', '06:00'],
    ['6h', '06:00'],
    ['24', null],
    ['24:00', null],
    ['5:60', null],
    ['5:3', null],
    ['13p', null],
    ['0a', null],
    ['', null],
    ['abc', null],
    ['5:30:10', null],
    ['-5', null],
    ['99999', null],
    ['５', null],
  ];
  test.each(table)('%j is %j', (typed, time) => expect(parseTimeEntry(typed)).toBe(time));

  test('every minute of the day, written either way, is read back', () => {
    for (let minute = 0; minute < 1440; minute++) {
      const time = `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
      expect(parseTimeEntry(startWords(time, '12'))).toBe(time);
      expect(parseTimeEntry(startWords(time, '24'))).toBe(time);
    }
  });
});

describe('typed run minutes', () => {
  const table: [string, number | null][] = [
    ['12', 720],
    ['12:30', 750],
    ['7.5', 450],
    ['7,5', 450],
    ['0', 0],
    ['', 0],
    ['off', 0],
    ['1h20', 4800],
    ['1h', 3600],
    ['90s', 90],
    ['12 min', 720],
    ['1440', 86_400],
    ['1441', null],
    ['-3', null],
    ['12:60', null],
    ['x', null],
    ['1e3', null],
    ['99999999', null],
  ];
  test.each(table)('%j is %j seconds', (typed, seconds) =>
    expect(parseRunEntry(typed)).toBe(seconds),
  );

  test('every length is read back as it stands in a cell', () => {
    const wrong: number[] = [];
    for (let seconds = 0; seconds <= 86_400; seconds += 7)
      if (parseRunEntry(runEntryText(seconds)) !== seconds) wrong.push(seconds);
    expect(wrong).toEqual([]);
  });
});

test('arrows step onto the multiples of the step, within bounds, round midnight for starts', () => {
  expect([stepped(7, 1, 5, 0, 60), stepped(7, -1, 5, 0, 60), stepped(60, 1, 5, 0, 60)]).toEqual([
    10, 5, 60,
  ]);
  expect([steppedStart(85_500, 1, 15), steppedStart(0, -1, 15), steppedStart(60, -1, 15)]).toEqual([
    0, 85_500, 0,
  ]);
});

test('the calendar agrees with the one of the language on every day to the end of it', () => {
  for (let day = 0; day <= LAST_DAY; day += 1) {
    if (day > 60_000 && day < LAST_DAY - 1000 && day % 97 !== 0) continue;
    const date = new Date(day * 86_400_000);
    const civil = {
      year: date.getUTCFullYear(),
      month: date.getUTCMonth() + 1,
      day: date.getUTCDate(),
    };
    const { year, month, day: dayOfMonth } = civilOf(day);
    const agrees =
      epochDayOf(civil) === day &&
      weekdayIndexOf(day) === (date.getUTCDay() + 6) % 7 &&
      year === civil.year &&
      month === civil.month &&
      dayOfMonth === civil.day &&
      (day % 31 !== 0 || parseDate(formatDate(day)) === day);
    // `expect` for each of a hundred thousand days would take longer than everything else.
    if (!agrees) throw new Error(`day ${day}`);
  }
  for (const text of [
    '1969-12-31',
    '2027-02-29',
    '2100-02-29',
    '2027-13-01',
    '2027-1-1',
    '10000-01-01',
  ])
    expect(parseDate(text)).toBeNull();
});

describe('changes', () => {
  const anyChange: fc.Arbitrary<PlanChange> = fc.oneof(
    fc.record({
      type: fc.constant('set-starts' as const),
      program: fc.constantFrom('A', 'B', 'C', 'D'),
      starts: fc.array(fc.constantFrom('05:00', '23:45'), { maxLength: 3 }),
    }),
    fc.record({
      type: fc.constant('set-runs' as const),
      program: fc.constantFrom('A', 'B', 'C'),
      runs: fc.uniqueArray(
        fc.record({
          station: fc.integer({ min: 1, max: 4 }),
          seconds: fc.option(fc.integer({ min: 0, max: 900 })),
        }),
        { selector: (run) => run.station },
      ),
    }),
    fc.record({
      type: fc.constant('set-days' as const),
      program: fc.constantFrom('A', 'B', 'C'),
      days: fc.option(
        fc.subarray([...WEEKDAYS]).map((weekdays) => ({ rule: 'weekdays' as const, weekdays })),
      ),
    }),
    fc.record({
      type: fc.constant('remove-program' as const),
      program: fc.constantFrom('A', 'B', 'C'),
    }),
    fc.constantFrom('A', 'B', 'C').map((letter): PlanChange => ({
      type: 'add-program',
      program: { letter, starts: [], runs: [], days: null },
    })),
    fc.record({
      type: fc.constant('set-station' as const),
      station: fc.integer({ min: 1, max: 4 }),
      fields: fc.record(
        {
          name: fc.option(fc.constantFrom('Lawn', '')),
          cycleSeconds: fc.option(fc.constantFrom(60, 300)),
          pump: fc.option(fc.boolean()),
        },
        { requiredKeys: [] },
      ),
    }),
    fc.record({
      type: fc.constant('set-program' as const),
      program: fc.constantFrom('A', 'B', 'C'),
      fields: fc.record(
        { seasonalPercent: fc.option(fc.constantFrom(50, 120)), soakSeconds: fc.option(fc.nat(9)) },
        { requiredKeys: [] },
      ),
    }),
    fc.record({
      type: fc.constant('set-settings' as const),
      settings: fc.record(
        {
          seasonalPercent: fc.option(fc.constantFrom(80, 140)),
          offDaysOfMonth: fc.option(fc.constantFrom([], [1, 31])),
          noWaterWindows: fc.option(fc.constantFrom([], [{ from: '10:00', to: '18:00' }])),
        },
        { requiredKeys: [] },
      ),
    }),
    fc.record({
      type: fc.constant('remove-station' as const),
      station: fc.integer({ min: 1, max: 3 }),
    }),
    fc
      .integer({ min: 1, max: 4 })
      .map((number): PlanChange => ({ type: 'add-station', station: { number } })),
  );
  const several = fc.oneof(
    { weight: 4, arbitrary: anyChange },
    {
      weight: 1,
      arbitrary: fc
        .array(anyChange, { maxLength: 4 })
        .map((changes): PlanChange => ({ type: 'several', changes })),
    },
    {
      weight: 1,
      arbitrary: anyPlan.map((plan): PlanChange => ({ type: 'replace-plan', plan })),
    },
  );

  test('each is taken back by its inverse, to the letter; a refused one says why', () => {
    let applied = 0;
    fc.assert(
      fc.property(anyPlan, several, (plan, change) => {
        expect(readChange(JSON.parse(JSON.stringify(change)))).toEqual({ ok: true, value: change });
        const result = applyChange(plan, change);
        if (!result.ok) {
          expect(result.faults.length).toBeGreaterThan(0);
          return;
        }
        applied++;
        const back = applyChange(result.value.plan, result.value.inverse);
        // In the format's order: a newly set field is last in its object.
        expect(back.ok && writePlan(back.value.plan)).toBe(writePlan(plan));
        // And it reports a difference exactly if there is one.
        const told = planDifferences(plan, result.value.plan, '24').length > 0;
        expect(told).toBe(!samePlan(plan, result.value.plan));
      }),
      { seed: 77, numRuns: cases(1000) },
    );
    expect(applied).toBeGreaterThan(enough(500));
  });

  const kind = TIMER_KINDS[1];
  if (!kind) throw new Error('no kinds');
  const plan: Plan = {
    ...emptyPlan(kind),
    programs: [
      { letter: 'A', starts: ['05:00'], runs: [{ station: 2, seconds: 600 }], days: null },
    ],
  };

  test('a station in use goes only together with its runs, and comes back with them', () => {
    expect(applyChange(plan, { type: 'remove-station', station: 2 })).toMatchObject({
      faults: [{ code: 'still-used', programs: ['A'] }],
    });
    const removed = applyChange(plan, removeStationChange(plan, 2));
    expect(removed.ok && removed.value.plan.programs[0]?.runs).toEqual([]);
    const back = removed.ok && applyChange(removed.value.plan, removed.value.inverse);
    expect(back && back.ok && back.value.plan).toEqual(plan);
  });

  test('a timer cannot become smaller than what is set on it', () => {
    const smaller = applyChange(plan, { type: 'set-timer', timer: { ...kind, stationCount: 3 } });
    expect(smaller).toMatchObject({
      faults: [{ code: 'beyond-timer', path: ['stations', 3, 'number'] }],
    });
  });

  test('fields that stand in another order are no difference', () => {
    const turned = (value: unknown): unknown =>
      typeof value !== 'object' || value === null || Array.isArray(value)
        ? value
        : Object.fromEntries(
            Object.entries(value)
              .reverse()
              .map(([key, child]) => [key, turned(child)]),
          );
    const other = { ...(turned(plan) as Plan), stations: plan.stations };
    expect(JSON.stringify(other)).not.toBe(JSON.stringify(plan));
    expect(planDifferences(plan, other, '24')).toEqual([]);
  });

  test('differences are told setting by setting, in words', () => {
    const after = applyChange(plan, {
      type: 'several',
      changes: [
        { type: 'set-starts', program: 'A', starts: ['16:15'] },
        { type: 'set-days', program: 'A', days: { rule: 'weekdays', weekdays: ['mon', 'fri'] } },
        {
          type: 'set-runs',
          program: 'A',
          runs: [
            { station: 2, seconds: null },
            { station: 3, seconds: 450 },
          ],
        },
        { type: 'set-station', station: 1, fields: { name: 'Lawn' } },
      ],
    });
    expect(after.ok && planDifferences(plan, after.value.plan, '12')).toEqual([
      { what: 'Station 1, name', before: '—', after: 'Lawn' },
      { what: 'A start times', before: '5:00 am', after: '4:15 pm' },
      { what: 'A days', before: 'not set', after: 'Mon Fri' },
      { what: 'A station 2', before: '10 min', after: '—' },
      { what: 'A station 3', before: '—', after: '7 min 30 s' },
    ]);
  });
});
