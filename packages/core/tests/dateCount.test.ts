/** How dates fall, compared with stepping through every date of a period. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { epochDayOf } from '@water-clock/core';
import { countDates, mostDaysBetween } from '../src/time/dateCount.ts';
import { isIn, ruleSet, type DaySet } from '../src/time/dayRules.ts';
import { cases } from './cases.ts';

const FIRST = epochDayOf({ year: 2027, month: 1, day: 1 });

function walked(sets: readonly DaySet[], period: number) {
  const dates = Array.from({ length: period }, (_, i) => FIRST + i).filter((day) =>
    sets.some((set) => isIn(set, day)),
  );
  const [first = 0] = dates;
  const gaps = dates.map((day, i) => (dates[i + 1] ?? first + period) - day);
  return dates.length === 0
    ? { mean: 0, gap: Infinity }
    : { mean: (dates.length * 7) / period, gap: Math.max(...gaps) };
}

const weekdays = fc.subarray(['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const);
const everyDays = fc.constantFrom(1, 2, 3, 4, 6, 7, 12, 14);
const counted = fc
  .tuple(everyDays, fc.nat({ max: 13 }), weekdays)
  .map(([every, phase, blockedWeekdays]) =>
    ruleSet(
      {
        rule: 'interval',
        everyDays: every,
        firstDate: `2027-03-${String(phase + 1).padStart(2, '0')}`,
        blockedWeekdays,
      },
      false,
    ),
  );

test('counts of days, alone and together, blocked weekdays passed over', () => {
  fc.assert(
    // 84 days are a whole number of each interval and of weeks.
    fc.property(fc.array(counted, { minLength: 1, maxLength: 3 }), (sets) => {
      expect(countDates(sets)).toEqual(walked(sets, 84));
    }),
    { seed: 12, numRuns: cases(300) },
  );
});

test('odd and even dates over 400 years, with what is blocked of them', () => {
  const blockedWeekdays = ['mon', 'tue', 'thu', 'fri', 'sun'] as const;
  for (const set of [
    ruleSet({ rule: 'even', blockedWeekdays }, false),
    ruleSet({ rule: 'odd' }, false),
    ruleSet({ rule: 'odd' }, true),
  ])
    expect(countDates([set])).toEqual(walked([set], 146_097));
  const { mean, gap } = countDates([ruleSet({ rule: 'even', blockedWeekdays }, false)]);
  expect(mean.toFixed(2)).toBe('0.98');
  expect(gap).toBeGreaterThan(14);
});

test('an interval with blocked weekdays waters as seldom as it does, and no days are none', () => {
  const blockedWeekdays = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat'] as const;
  const rare = ruleSet(
    { rule: 'interval', everyDays: 3, firstDate: '2027-03-01', blockedWeekdays },
    false,
  );
  expect(countDates([rare])).toEqual({ mean: 1 / 3, gap: 21 });
  expect(countDates([ruleSet({ rule: 'weekdays', weekdays: [] }, false)]).gap).toBe(Infinity);
});

test('twice the even spacing, rounded up, may lie between two dates', () => {
  expect([1, 2, 3, 4, 5, 6, 7].map(mostDaysBetween)).toEqual([14, 7, 5, 4, 3, 3, 2]);
});
