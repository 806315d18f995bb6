/**
 * What the proof relies on, compared with plain enumeration: on which dates two sets of days coincide, and where a week's free time is.
 * Failures print their seed.
 */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { civilOf, weekdayIndexOf, WEEKDAYS, type NoWaterWindow } from '@water-clock/core';
import { LAST_DAY } from '../src/time/calendar.ts';
import { EVERY_MONTH_DAY, EVERY_WEEKDAY, isIn, type DaySet } from '../src/time/dayRules.ts';
import { Effort } from '../src/engine/effort.ts';
import { EVERY_MONTH, Meetings } from '../src/time/meetings.ts';
import { WeekWindows } from '../src/time/windows.ts';
import { cases, enough } from './cases.ts';

const SECONDS_PER_DAY = 86_400;

/** Random days: an interval, weekdays, days of the month, and months with only some of them. */
interface Some {
  readonly set: DaySet;
  readonly months: number;
}

const some = (mostEvery: number): fc.Arbitrary<Some> =>
  fc
    .record({
      every: fc.oneof(fc.constant(1), fc.integer({ min: 1, max: mostEvery })),
      phase: fc.nat(),
      weekdays: fc.oneof(fc.constant(EVERY_WEEKDAY), fc.nat({ max: EVERY_WEEKDAY })),
      monthDays: fc.oneof(
        fc.constant(EVERY_MONTH_DAY),
        fc.constantFrom(1 << 30, 1 << 28, 1, 3, 0x5555_5555 & EVERY_MONTH_DAY),
      ),
      months: fc.oneof(fc.constant(EVERY_MONTH), fc.constantFrom(2, 4, 0x0f0, 0xffd)),
    })
    .map(({ months, phase, ...set }) => ({ months, set: { ...set, phase: phase % set.every } }));

const belongs = ({ set, months }: Some, day: number) =>
  isIn(set, day) && (months & (1 << (civilOf(day).month - 1))) !== 0;

/** The first date by examining each, up to a horizon; undefined: none so far. */
function slowFirst(a: Some, b: Some, k: number, least: number, horizon: number) {
  for (let day = least; day < least + horizon && day <= LAST_DAY && day + k <= LAST_DAY; day++)
    if (belongs(a, day) && belongs(b, day + k)) return day;
  return undefined;
}

describe('meetings of two sets of days', () => {
  test('the first dates are those that looking at each date finds', () => {
    const seen = { found: 0, later: 0, never: 0 };
    fc.assert(
      fc.property(
        some(31),
        some(31),
        fc.integer({ min: -9, max: 9 }),
        fc.integer({ min: 20_000, max: 30_000 }),
        (a, b, k, least) => {
          const meetings = new Meetings(new Effort());
          const classOf = ({ set, months }: Some) => meetings.classOf(set, EVERY_WEEKDAY, months);
          const series = meetings.series(classOf(a), classOf(b), k, least);
          let from = least;
          for (let place = 0; place < 4; place++) {
            const date = series.at(place);
            const slow = slowFirst(a, b, k, from, 1500);
            if (slow === undefined) {
              // Beyond the horizon or never; what is predicted must be true.
              expect(date === null || date.day >= from + 1500).toBe(true);
              if (date) expect(belongs(a, date.day) && belongs(b, date.day + k)).toBe(true);
              seen[date ? 'later' : 'never']++;
              return;
            }
            expect(date?.day).toBe(slow);
            expect(date?.cell).toBe(weekdayIndexOf(slow) * 12 + civilOf(slow).month - 1);
            seen.found++;
            from = slow + 1;
          }
        },
      ),
      { seed: 146_097, numRuns: cases(1500) },
    );
    expect(seen.found).toBeGreaterThan(enough(1000));
    expect(seen.later).toBeGreaterThan(enough(10));
    expect(seen.never).toBeGreaterThan(enough(200));
  });

  test('how many there are in 400 years is what counting them gives, where the count of days divides them', () => {
    fc.assert(
      fc.property(
        // 146,097 days = 27 × 7 × 773: such intervals repeat with the calendar itself.
        fc.constantFrom(1, 3, 7, 9, 21, 27),
        some(1),
        some(1),
        fc.integer({ min: -3, max: 3 }),
        (every, some, b, k) => {
          const a = { ...some, set: { ...some.set, every, phase: some.set.phase % every } };
          const meetings = new Meetings(new Effort());
          const classOf = ({ set, months }: Some) => meetings.classOf(set, EVERY_WEEKDAY, months);
          let counted = 0;
          for (let day = 0; day < 146_097; day++)
            if (belongs(a, day) && belongs(b, day + k)) counted++;
          expect(meetings.inFourCenturies(classOf(a), classOf(b), k)).toBeCloseTo(counted, 6);
        },
      ),
      { seed: 400, numRuns: cases(12) },
    );
  });

  test('29 February on a Monday, in a count of 28 years’ days, and what never comes', () => {
    const meetings = new Meetings(new Effort());
    const leap = meetings.classOf(
      { every: 1, phase: 0, weekdays: 1, monthDays: 1 << 28 },
      EVERY_WEEKDAY,
      2,
    );
    const first = meetings.firstOf(leap, 20_000);
    expect(first).not.toBeNull();
    expect(civilOf(first ?? 0)).toMatchObject({ year: 2044, month: 2, day: 29 });
    const thirtieth = meetings.classOf(
      { every: 1, phase: 0, weekdays: EVERY_WEEKDAY, monthDays: 1 << 29 },
      EVERY_WEEKDAY,
      2,
    );
    expect(meetings.firstOf(thirtieth, 20_000)).toBeNull();
    // Every 7 days from a Tuesday is never a Monday, and two intervals of 4 days, one apart, never coincide.
    const of = (every: number, phase: number, weekdays = EVERY_WEEKDAY) =>
      meetings.classOf(
        { every, phase, weekdays, monthDays: EVERY_MONTH_DAY },
        EVERY_WEEKDAY,
        EVERY_MONTH,
      );
    // Epoch day 5 was a Tuesday.
    expect(meetings.firstOf(of(7, 5, 1), 20_000)).toBeNull();
    expect(meetings.first(of(4, 0), of(4, 2), 1, 20_000)).toBeNull();
    expect(meetings.first(of(4, 0), of(4, 2), 2, 20_000)).toBe(20_000);
    expect(meetings.firstOf(of(1, 0), LAST_DAY)).toBe(LAST_DAY);
    expect(meetings.first(of(1, 0), of(1, 0), 1, LAST_DAY)).toBeNull();
  });
});

describe('the free time of a week', () => {
  const quarter = fc
    .integer({ min: 0, max: 95 })
    .map(
      (n) =>
        `${String(Math.floor(n / 4)).padStart(2, '0')}:${String((n % 4) * 15).padStart(2, '0')}`,
    );
  const windows: fc.Arbitrary<NoWaterWindow[]> = fc.array(
    fc.record(
      { from: quarter, to: quarter, weekdays: fc.subarray([...WEEKDAYS]) },
      { requiredKeys: ['from', 'to'] },
    ),
    { maxLength: 4 },
  );

  /** Whether a second is inside a window, by the wording of the rule. */
  const held = (all: readonly NoWaterWindow[], moment: number) =>
    all.some(({ from, to, weekdays }) =>
      [0, 1].some((back) => {
        const day = Math.floor(moment / SECONDS_PER_DAY) - back;
        const weekday = WEEKDAYS[weekdayIndexOf(day)];
        if (weekdays && weekday && !weekdays.includes(weekday)) return false;
        const second = (text: string) =>
          Number(text.slice(0, 2)) * 3600 + Number(text.slice(3)) * 60;
        const begin = day * SECONDS_PER_DAY + second(from);
        const length = second(to) - second(from);
        return begin <= moment && moment < begin + (length > 0 ? length : length + SECONDS_PER_DAY);
      }),
    );

  test('the next free moment, the next window and so many free seconds on are those of going on quarter by quarter', () => {
    const QUARTER = 900;
    let met = 0;
    fc.assert(
      fc.property(
        windows,
        fc.nat({ max: 7 * 96 }),
        fc.nat({ max: 899 }),
        fc.nat({ max: 9000 }),
        (all, at, more, free) => {
          const week = Array.from({ length: 7 * 96 }, (_, i) => held(all, i * QUARTER));
          fc.pre(week.some((one) => !one));
          const made = new WeekWindows(all);
          const moment = 20_000 * SECONDS_PER_DAY + at * QUARTER + more;
          let next = moment;
          while (held(all, next)) next = (Math.floor(next / QUARTER) + 1) * QUARTER;
          expect(made.nextFree(moment)).toBe(next);
          expect(made.isFree(moment)).toBe(next === moment);
          let window = next;
          const limit = next + 9 * SECONDS_PER_DAY;
          while (!held(all, window) && window < limit)
            window = (Math.floor(window / QUARTER) + 1) * QUARTER;
          if (window < limit) expect(made.nextWindow(next)).toBe(window);
          else expect(made.nextWindow(next)).toBe(Infinity);
          // The free seconds up to the answer are as many as requested, and its last second is free.
          const seconds = free + 1;
          const end = made.afterFree(next, seconds);
          let counted = 0;
          for (let from = next; from < end;) {
            const to = Math.min(end, (Math.floor(from / QUARTER) + 1) * QUARTER);
            if (!held(all, from)) counted += to - from;
            from = to;
          }
          expect(counted).toBe(seconds);
          expect(held(all, end - 1)).toBe(false);
          if (end > next + seconds) met++;
        },
      ),
      { seed: 96, numRuns: cases(1000) },
    );
    expect(met).toBeGreaterThan(enough(50));
  });
});
