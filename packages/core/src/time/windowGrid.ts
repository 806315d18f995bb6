/** No-water windows as a week of hours to paint (timing-rules.md section 6). */
import { assertDefined } from '../document/assertDefined.ts';
import { formatTime, parseTime, WEEKDAYS, type Weekday } from './calendar.ts';
import type { NoWaterWindow } from './windows.ts';

const MINUTES_PER_DAY = 1440;
const MINUTES_PER_WEEK = 7 * MINUTES_PER_DAY;
export const HOURS_PER_DAY = 24;

const minuteOf = (time: string): number => assertDefined(parseTime(time), 'parseTime(time)') / 60;

/** Every minute of the week from Monday 00:00: 1 inside a window. */
function minutesHeld(windows: readonly NoWaterWindow[]): Uint8Array {
  const held = new Uint8Array(MINUTES_PER_WEEK);
  for (const { from, to, weekdays } of windows) {
    const begin = minuteOf(from);
    const end = minuteOf(to);
    const length = end > begin ? end - begin : end - begin + MINUTES_PER_DAY;
    for (const weekday of weekdays ?? WEEKDAYS) {
      const first = WEEKDAYS.indexOf(weekday) * MINUTES_PER_DAY + begin;
      for (let i = 0; i < length; i++) held[(first + i) % MINUTES_PER_WEEK] = 1;
    }
  }
  return held;
}

/** Share of each hour inside windows: 7 days from Monday, 24 hours each, 0 to 1. */
export function hoursHeld(windows: readonly NoWaterWindow[]): number[][] {
  const held = minutesHeld(windows);
  return WEEKDAYS.map((_, day) =>
    Array.from({ length: HOURS_PER_DAY }, (__, hour) => {
      const first = day * MINUTES_PER_DAY + hour * 60;
      return held.subarray(first, first + 60).reduce((sum, minute) => sum + minute, 0) / 60;
    }),
  );
}

/** Periods of the week inside windows; one across the end of the week is one period. */
function stretchesOf(held: Uint8Array): { from: number; length: number }[] {
  const free = held.indexOf(0);
  if (free < 0) return [{ from: 0, length: MINUTES_PER_WEEK }];
  const stretches: { from: number; length: number }[] = [];
  let length = 0;
  // From a free minute on, around the week and back to it.
  for (let i = 1; i <= MINUTES_PER_WEEK; i++) {
    if (held[(free + i) % MINUTES_PER_WEEK] === 1) length++;
    else if (length > 0) {
      stretches.push({
        from: (free + i - length + MINUTES_PER_WEEK) % MINUTES_PER_WEEK,
        length,
      });
      length = 0;
    }
  }
  return stretches;
}

export interface HourOfWeek {
  /** 0: Monday. */
  readonly day: number;
  /** 0 to 23. */
  readonly hour: number;
}

/**
 * Windows after painting hours; others stay as they were. As few windows as possible, none longer than a day.
 *
 * @param isHeld whether the painted hours become no-water hours
 */
export function paintedWindows(
  windows: readonly NoWaterWindow[],
  hours: readonly HourOfWeek[],
  isHeld: boolean,
): NoWaterWindow[] {
  const held = minutesHeld(windows);
  for (const { day, hour } of hours) {
    const first = day * MINUTES_PER_DAY + hour * 60;
    held.fill(isHeld ? 1 : 0, first, first + 60);
  }
  const byTimes = new Map<string, { from: string; to: string; days: Set<Weekday> }>();
  const add = (from: number, length: number) => {
    const at = from % MINUTES_PER_WEEK;
    const [begin, end] = [at, at + length].map((minute) =>
      formatTime((minute % MINUTES_PER_DAY) * 60),
    );
    const times = { from: assertDefined(begin, 'begin'), to: assertDefined(end, 'end') };
    const key = `${times.from} ${times.to}`;
    const known = byTimes.get(key) ?? { ...times, days: new Set<Weekday>() };
    known.days.add(assertDefined(WEEKDAYS[Math.floor(at / MINUTES_PER_DAY)], 'WEEKDAYS'));
    byTimes.set(key, known);
  };
  for (const { from, length } of stretchesOf(held)) {
    // Longer than a day: split at every midnight.
    let at = from;
    for (let left = length; left > 0;) {
      const piece = left <= MINUTES_PER_DAY ? left : MINUTES_PER_DAY - (at % MINUTES_PER_DAY);
      add(at, piece);
      at += piece;
      left -= piece;
    }
  }
  return [...byTimes.values()]
    .sort((a, b) => (a.from < b.from ? -1 : a.from > b.from ? 1 : a.to < b.to ? -1 : 1))
    .map(({ from, to, days }) => ({
      from,
      to,
      ...(days.size < WEEKDAYS.length ? { weekdays: WEEKDAYS.filter((day) => days.has(day)) } : {}),
    }));
}
