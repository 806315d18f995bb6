/** Effect of − and + on each kind of value: values wrap around, − reverses +, and a held key moves in larger steps. */
import { describe, expect, test } from '@jest/globals';
import { emptyPlan, epochDayOf, SHIPPED_KINDS, type PanelValue } from '@water-clock/core';
import type { Page } from '../src/bench/pages.ts';
import { fastSteps, inYear, turned } from '../src/bench/turn.ts';

const KIND = SHIPPED_KINDS.find(
  ({ kind }) => kind.timer.name === 'Twelve-station modular timer',
)?.kind;
if (!KIND) throw new Error('the kind is not there');
const PLAN = {
  ...emptyPlan(KIND.timer),
  programs: [
    {
      letter: 'A',
      starts: [],
      runs: [],
      days: { rule: 'interval' as const, everyDays: 4, firstDate: '2027-06-02' },
    },
  ],
};
const TODAY = epochDayOf({ year: 2027, month: 6, day: 2 });
const AT = { plan: PLAN, today: TODAY, rainDelay: KIND.rainDelay ?? null };

const page = (address: Page['address'], value: PanelValue): Page => ({ id: 'it', address, value });
const start = { of: 'start', program: 'A', slot: 1 } as const;
const run = { of: 'run', program: 'A', station: 1 } as const;
const phase = { of: 'phase', program: 'A' } as const;

describe('a ring', () => {
  test.each<[string, Page]>([
    ['a start', page(start, { kind: 'time', second: 18_000 })],
    ['a run', page(run, { kind: 'run', seconds: 600 })],
    [
      'the rule of the days',
      page({ of: 'days', program: 'A' }, { kind: 'days', rule: 'daily', weekdays: [] }),
    ],
    ['the count of an interval', page({ of: 'count', program: 'A' }, { kind: 'count', every: 4 })],
    ['days left', page(phase, { kind: 'days-left', days: 1 })],
    ['the percent', page({ of: 'percent' }, { kind: 'percent', percent: 100 })],
    ['a delay', page({ of: 'delay' }, { kind: 'length', seconds: 20 })],
    [
      'a longest piece',
      page({ of: 'longest-piece', station: 1 }, { kind: 'length', seconds: 300 }),
    ],
    ['a soak', page({ of: 'soak', station: 1 }, { kind: 'length', seconds: 1200 })],
    ['a switch', page({ of: 'pump', station: 1 }, { kind: 'switch', on: true })],
    ['the sensor', page({ of: 'sensor' }, { kind: 'sensor', state: 'active' })],
    ['a weekday', page({ of: 'weekday' }, { kind: 'weekday', weekday: 6 })],
    ['the hour', page({ of: 'time' }, { kind: 'time', second: 36_000 })],
    ['a rain delay', page({ of: 'rain-delay' }, { kind: 'rain-delay', unit: 'off', count: 0 })],
    ['a link', page({ of: 'linked', station: 2 }, { kind: 'numbers', numbers: [] })],
  ])('%s comes round to where it was, and − takes back what + did', (_, first) => {
    const seen = new Set<string>();
    let { value } = first;
    do {
      const next = turned({ ...first, value }, 1, AT);
      expect(turned({ ...first, value: next }, -1, AT)).toEqual(value);
      value = next;
      seen.add(JSON.stringify(value));
      expect(seen.size).toBeLessThan(2_000);
    } while (JSON.stringify(value) !== JSON.stringify(first.value));
    expect(seen.size).toBeGreaterThan(1);
  });
});

test('a start is off just before midnight, and a run is never longer than the timer allows', () => {
  const last = 86_400 - PLAN.timer.startStepMinutes * 60;
  expect(turned(page(start, { kind: 'time', second: last }), 1, AT)).toEqual({
    kind: 'time',
    second: null,
  });
  expect(turned(page(start, { kind: 'time', second: null }), 1, AT)).toEqual({
    kind: 'time',
    second: 0,
  });
  const { longestRunSeconds } = PLAN.timer;
  expect(turned(page(run, { kind: 'run', seconds: longestRunSeconds }), 1, AT)).toEqual({
    kind: 'run',
    seconds: 0,
  });
});

test('what was found off the steps goes to the next step', () => {
  const odd = page(start, { kind: 'time', second: 18_060 });
  const step = PLAN.timer.startStepMinutes * 60;
  const below = Math.floor(18_060 / step) * step;
  expect(turned(odd, -1, AT)).toEqual({ kind: 'time', second: below });
  expect(turned(odd, 1, AT)).toEqual({ kind: 'time', second: below + step });
});

test('a total and hours without water cannot be turned', () => {
  const total = page({ of: 'total', program: 'A' }, { kind: 'run', seconds: 600 });
  expect(turned(total, 1, AT)).toBe(total.value);
  const hours = page({ of: 'windows' }, { kind: 'hours', from: 0, to: 3600, weekdays: [] });
  expect(turned(hours, -1, AT)).toBe(hours.value);
});

test('a key that is held moves a start and the clock by an hour, and switches one by one', () => {
  expect(
    fastSteps(page(start, { kind: 'time', second: 0 }), PLAN) * PLAN.timer.startStepMinutes,
  ).toBe(60);
  expect(fastSteps(page({ of: 'time' }, { kind: 'time', second: 0 }), PLAN)).toBe(60);
  expect(fastSteps(page({ of: 'mode' }, { kind: 'switch', on: true }), PLAN)).toBe(1);
});

test('the 29th of February is the 28th in a year that has none', () => {
  const leap = epochDayOf({ year: 2028, month: 2, day: 29 });
  expect(inYear(leap, 2029)).toBe(epochDayOf({ year: 2029, month: 2, day: 28 }));
  expect(inYear(TODAY, 2030)).toBe(epochDayOf({ year: 2030, month: 6, day: 2 }));
});
