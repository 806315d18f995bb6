/** No-water hours as a week to paint. */
import { expect, test } from '@jest/globals';
import {
  epochDayOf,
  hoursHeld,
  paintedWindows,
  SECONDS_PER_DAY,
  WEEKDAYS,
  type NoWaterWindow,
} from '@water-clock/core';
import { WeekWindows } from '../src/time/windows.ts';
import { randomFrom } from './faultyTimers.ts';

const MONDAY = epochDayOf({ year: 2027, month: 3, day: 1 });
const DAILY = [{ from: '09:00', to: '18:00' }];

test('an hour painted on and off again leaves what was there, in as few windows', () => {
  const thursday = Array.from({ length: 3 }, (_, i) => ({ day: 3, hour: 6 + i }));
  const painted = paintedWindows(DAILY, thursday, true);
  expect(painted).toEqual([
    { from: '06:00', to: '18:00', weekdays: ['thu'] },
    { from: '09:00', to: '18:00', weekdays: WEEKDAYS.filter((day) => day !== 'thu') },
  ]);
  expect(paintedWindows(painted, thursday, false)).toEqual(DAILY);
});

test('over midnight it stays one window, a whole day is one, and half hours outside what is painted stay', () => {
  const night = [22, 23, 0, 1].map((hour) => ({ day: hour > 12 ? 6 : 0, hour }));
  expect(paintedWindows([], night, true)).toEqual([
    { from: '22:00', to: '02:00', weekdays: ['sun'] },
  ]);
  const day = Array.from({ length: 24 }, (_, hour) => ({ day: 2, hour }));
  expect(paintedWindows([], day, true)).toEqual([
    { from: '00:00', to: '00:00', weekdays: ['wed'] },
  ]);
  const half = [{ from: '06:30', to: '08:15', weekdays: ['mon' as const] }];
  expect(paintedWindows(half, [{ day: 0, hour: 7 }], false)).toEqual([
    { from: '06:30', to: '07:00', weekdays: ['mon'] },
    { from: '08:00', to: '08:15', weekdays: ['mon'] },
  ]);
  expect(hoursHeld(half)[0]?.slice(5, 9)).toEqual([0, 0.5, 1, 0.25]);
});

test('what is painted is what the engine keeps free of water, minute by minute', () => {
  const random = randomFrom(7);
  const upTo = (most: number) => Math.floor(random() * most);
  for (let round = 0; round < 60; round++) {
    const windows = Array.from({ length: upTo(4) }, (): NoWaterWindow => ({
      from: `${String(upTo(24)).padStart(2, '0')}:${String(upTo(60)).padStart(2, '0')}`,
      to: `${String(upTo(24)).padStart(2, '0')}:${String(upTo(60)).padStart(2, '0')}`,
      weekdays: WEEKDAYS.filter(() => random() < 0.5),
    }));
    const hours = Array.from({ length: upTo(30) }, () => ({ day: upTo(7), hour: upTo(24) }));
    const isHeld = random() < 0.5;
    const before = new WeekWindows(windows);
    const after = new WeekWindows(paintedWindows(windows, hours, isHeld));
    const wrong: number[] = [];
    for (let minute = 0; minute < 7 * 1440; minute += 5) {
      const [day, hour] = [Math.floor(minute / 1440), Math.floor((minute % 1440) / 60)];
      const isPainted = hours.some((one) => one.day === day && one.hour === hour);
      const at = MONDAY * SECONDS_PER_DAY + minute * 60;
      if (after.isFree(at) !== (isPainted ? !isHeld : before.isFree(at))) wrong.push(minute);
    }
    expect([round, wrong]).toEqual([round, []]);
  }
});
