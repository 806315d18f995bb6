/** What screens need besides the verdict: a year of dates, a rule's dates, the clock, totals. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  clockAhead,
  emptyPlan,
  epochDayOf,
  nextCycles,
  nightsFrom,
  ruleDaysFrom,
  SECONDS_PER_DAY,
  startsMovedBy,
  TIMER_KINDS,
  totalOnDisplay,
  yearFrom,
  yearsAhead,
  type Days,
  type Plan,
  type Program,
} from '@water-clock/core';
import { anyPlan } from './randomPlans.ts';
import { referenceCycles } from './referenceCycles.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });
const kind = TIMER_KINDS[3];
if (!kind) throw new Error('there is a fourth kind');

const program = (days: Days | null, more: Partial<Program> = {}): Program => ({
  letter: 'A',
  starts: ['05:00'],
  runs: [{ station: 1, seconds: 600 }],
  days,
  ...more,
});
const plan = (program: Program, more: Partial<Plan> = {}): Plan => ({
  ...emptyPlan(kind),
  programs: [program],
  ...more,
});

test('a year of dates has the programs and the overlaps that a date-by-date search finds', () => {
  fc.assert(
    fc.property(anyPlan, (random) => {
      const { wateringResumes: _dropped, ...settings } = random.settings;
      const cycles = referenceCycles({ ...random, settings }, ON - 8, 50);
      const year = yearFrom({ ...random, settings }, ON, 40);
      for (const { day, programs, overlaps } of year) {
        const mine = cycles.filter((cycle) => cycle.day === day);
        // A start entirely blocked by a window still fires, so the reference may have fewer.
        expect(programs).toEqual(expect.arrayContaining([...new Set(mine.map((c) => c.letter))]));
        const meets = mine.some((a) =>
          cycles.some((b) => b !== a && a.begins < b.ends && b.begins < a.ends),
        );
        expect([day, overlaps]).toEqual([day, meets]);
      }
    }),
    { seed: 366, numRuns: 40 },
  );
});

test('six days, not Saturdays, from the day after tomorrow: the weeks show it, with off days and the delay', () => {
  // 2027-06-01 is a Tuesday; the third and every sixth day after it are the 3rd, 9th, 15th, 21st and so on.
  const rule = program({
    rule: 'interval',
    everyDays: 6,
    firstDate: '2027-06-03',
    blockedWeekdays: ['sat'],
  });
  const states = (settings: Plan['settings']) =>
    ruleDaysFrom(plan(rule, { settings }), rule, ON, 70)
      .filter(({ state }) => state !== 'dry')
      .map(({ day, state }) => `${day - ON} ${state}`);
  expect(states({})).toEqual([
    '2 waters',
    '8 waters',
    '14 waters',
    '20 waters',
    '26 waters',
    '32 blocked',
    '38 waters',
    '44 waters',
    '50 waters',
    '56 waters',
    '62 waters',
    '68 waters',
  ]);
  expect(states({ offDaysOfMonth: [9], wateringResumes: '2027-06-15T06:00' }).slice(0, 5)).toEqual([
    '2 delayed',
    '8 off',
    '14 delayed',
    '20 waters',
    '26 waters',
  ]);
});

test('a year says what is held back on a date, and where nothing at all may water', () => {
  // 2027-06-01 is a Tuesday.
  const one = program({ rule: 'even', blockedWeekdays: ['fri'] });
  const settings: Plan['settings'] = {
    offDaysOfMonth: [8],
    wateringResumes: '2027-06-03T04:00',
    noWaterWindows: [{ from: '00:00', to: '00:00', weekdays: ['sun'] }],
  };
  const year = yearFrom(plan(one, { settings }), ON, 14).map(
    ({ day, programs, held, forbidden }) =>
      `${day - ON + 1} ${programs.join('') || '-'} ${held.join('') || '-'} ${forbidden ?? '-'}`,
  );
  expect(year).toEqual([
    '1 - - delay',
    '2 - A delay',
    '3 - - -',
    '4 - A -',
    '5 - - -',
    '6 A - hours',
    '7 - - -',
    '8 - A off',
    '9 - - -',
    '10 A - -',
    '11 - - -',
    '12 A - -',
    '13 - - hours',
    '14 A - -',
  ]);
});

describe('the clock as it is', () => {
  const now = ON * SECONDS_PER_DAY + 14 * 3600;

  test('a reading of the display is an error to the minute; a weekday alone is the least that it can be', () => {
    expect(clockAhead({ day: ON, secondOfDay: 2 * 3600 }, now)).toBe(-12 * 3600);
    expect(clockAhead({ day: ON + 1, secondOfDay: 14 * 3600 + 60 }, now)).toBe(86_460);
    // It is Tuesday: showing Monday is a day behind, Saturday three days behind, Friday three days ahead.
    const weekday = (index: number) => clockAhead({ weekday: index, secondOfDay: 14 * 3600 }, now);
    expect([1, 0, 5, 4].map((index) => weekday(index) / 86_400)).toEqual([0, -1, -3, 3]);
    expect(yearsAhead(epochDayOf({ year: 2028, month: 2, day: 29 }) * 86_400, -1)).toBe(
      -366 * 86_400,
    );
  });

  test('the nights in true hours are those of the timer, moved by its error', () => {
    fc.assert(
      fc.property(anyPlan, fc.integer({ min: -1500, max: 1500 }), (random, minutes) => {
        const { wateringResumes: _dropped, ...settings } = random.settings;
        const one = { ...random, settings };
        const ahead = minutes * 60;
        const [night] = nightsFrom(one, ON, 1, { ahead });
        const runs = nightsFrom(one, ON - 2, 5).flatMap((each) => each.intended);
        const moved = runs.filter(({ begins, ends }) => {
          return night && begins - ahead < night.to && ends - ahead > night.from;
        });
        const names = new Set(moved.map(({ letter, begins }) => `${letter}${begins - ahead}`));
        expect(new Set(night?.intended.map(({ letter, begins }) => `${letter}${begins}`))).toEqual(
          names,
        );
      }),
      { seed: 1440, numRuns: 40 },
    );
  });

  test('a change of the house’s clocks: skipped, repeated, or not followed', () => {
    const spring = { day: ON, from: 2 * 3600, to: 3 * 3600 };
    const autumn = { day: ON, from: 3 * 3600, to: 2 * 3600 };
    const of = (follows: boolean, days: Days = { rule: 'daily' }) =>
      plan(program(days, { starts: ['02:30', '04:00'] }), {
        timer: { ...kind, followsDaylightSaving: follows },
      });
    const at = (plan: Plan, change: typeof spring) =>
      startsMovedBy(plan, change).map(({ start, at: second }) => `${start} ${second / 3600}`);
    expect(at(of(true), spring)).toEqual(['02:30 3']);
    expect(at(of(true), autumn)).toEqual(['02:30 2.5']);
    expect(at(of(true, { rule: 'weekdays', weekdays: ['fri'] }), spring)).toEqual([]);
    expect(at(of(false), autumn)).toEqual(['02:30 1.5', '04:00 3']);
  });
});

test('a timer that follows the house’s clocks waters what was due in a skipped hour after it, and so meets the next start', () => {
  const change = { day: ON + 1, from: 2 * 3600, to: 3 * 3600 };
  const hour = (follows: boolean, day: number) => {
    const one = program({ rule: 'daily' }, { starts: ['02:30', '03:05'] });
    const timer = { ...kind, followsDaylightSaving: follows };
    const [night] = nightsFrom(plan(one, { timer }), day, 1, { changes: [change] });
    const begins = night?.intended.map((cycle) => (cycle.begins % SECONDS_PER_DAY) / 3600);
    return [begins, night?.overlaps.map(({ from, to }) => (to - from) / 60)];
  };
  const usual = [[2.5, 3 + 5 / 60], []];
  expect(hour(true, ON)).toEqual([[3, 3 + 5 / 60], [5]]);
  expect(hour(true, ON - 1)).toEqual(usual);
  expect(hour(false, ON)).toEqual(usual);
});

test('nights with more valves than anybody could tell apart keep their cycles, and say that valves are left out', () => {
  const letters = ['A', 'B', 'C', 'D'];
  const big = TIMER_KINDS[4];
  if (!big) throw new Error('there is a fifth kind');
  const crowded: Plan = {
    ...emptyPlan({ ...big, stationsAtOnce: 1, onOverlap: 'together' }),
    programs: letters.map((letter, p) => ({
      letter,
      starts: Array.from({ length: 24 }, (_, h) =>
        `${String(h).padStart(2, '0')}:${10 * p}`.padEnd(5, '0'),
      ),
      runs: Array.from({ length: 24 }, (_, i) => ({ station: i + 1, seconds: 60 })),
      days: { rule: 'daily' },
    })),
  };
  const [first] = nightsFrom(crowded, ON, 14);
  const [alone] = nightsFrom(crowded, ON, 1);
  expect([first?.condensed, alone?.condensed]).toEqual([true, false]);
  const bare = (night: typeof first) =>
    night?.intended.map(({ letter, begins, ends }) => [letter, begins, ends]);
  expect(bare(first)).toEqual(bare(alone));
  expect(first?.served).toEqual(alone?.served);
  expect(first?.intended.flatMap(({ runs }) => runs)).toEqual([]);
  expect(alone?.runs.length).toBeGreaterThan(2000);
  const stretches = (night: typeof first) =>
    night?.overlaps.map(({ from, to }) => [from, to]) ?? [];
  expect(stretches(first)).toEqual(stretches(alone).slice(0, stretches(first).length));
  expect(stretches(first).length).toBeGreaterThan(100);
});

test('the total on the display counts what the dialect says', () => {
  const runs = [
    { station: 1, seconds: 600 },
    { station: 2, seconds: 300 },
  ];
  const one = program({ rule: 'daily' }, { runs });
  const total = (percent: boolean, soaks: boolean, delays: boolean) =>
    totalOnDisplay(
      plan(one, {
        timer: { ...kind, dialect: { total: { shown: true, percent, soaks, delays } } },
        settings: { stationDelaySeconds: 10 },
        stations: [{ number: 1, cycleSeconds: 300, soakSeconds: 900 }, { number: 2 }],
      }),
      one,
      200,
    );
  expect(total(false, false, false)).toBe(900);
  expect(total(true, false, false)).toBe(1800);
  // Station 1 in two cycles with station 2 between them: two delays.
  expect(total(false, false, true)).toBe(920);
  // 300, then 300 of station 2, then a wait until 900 after the end of the first run.
  expect(total(false, true, false)).toBe(1500);
  expect(totalOnDisplay(plan(one), one, 100)).toBeNull();
});

test('a start that hours without water hold back says when it will begin', () => {
  const one = program({ rule: 'daily' }, { starts: ['16:00', '20:00'] });
  const timer = { ...kind, inWindow: 'pause' as const };
  const settings = { noWaterWindows: [{ from: '10:00', to: '18:00' }] };
  const begins = nextCycles(plan(one, { timer, settings }), one, ON).map(({ due, cycle }) => {
    return cycle && (cycle.begins - due) / 3600;
  });
  expect(begins).toEqual([2, 0]);
});
