import { expect, test } from '@jest/globals';
import {
  dateWords,
  formatDate,
  parseDate,
  parseDateEntry,
  type DateOrder,
} from '@water-clock/core';
import { assertDefined } from '../src/document/assertDefined.ts';
import { randomFrom } from './faultyTimers.ts';

/** A Tuesday. */
const today = assertDefined(parseDate('2026-12-01'), 'today');
const read = (typed: string, order: DateOrder = 'month-day') => {
  const day = parseDateEntry(typed, order, today);
  return day === null ? null : formatDate(day);
};

test.each([
  ['2027-12-01', '2027-12-01'],
  ['12/1/2027', '2027-12-01'],
  ['1/12/27', '2027-01-12'],
  ['13/2/2027', '2027-02-13'],
  ['12/1', '2026-12-01'],
  ['1/2', '2027-01-02'],
  ['Dec 1', '2026-12-01'],
  ['1 December', '2026-12-01'],
  ['Thu 3 Dec', '2026-12-03'],
  ['January 5, 2028', '2028-01-05'],
  ['march 3rd', '2027-03-03'],
  ['29 Feb 2028', '2028-02-29'],
  ['today', '2026-12-01'],
  [' Tomorrow ', '2026-12-02'],
  ['yesterday', '2026-11-30'],
  ['Thu', '2026-12-03'],
  ['tuesday', '2026-12-01'],
  ['mon', '2026-12-07'],
  ['29 Feb 2027', null],
  ['31 April', null],
  ['0/5', null],
  ['12/1/202', null],
  ['5', null],
  ['soon', null],
  ['Dec', null],
  ['1 2 December', null],
  ['1 Dec 2027 2028', null],
  ['', null],
])('%j is %j', (typed, date) => expect(read(typed)).toBe(date));

test('day and month stand in the reader’s order', () => {
  expect(read('1/12/2027', 'day-month')).toBe('2027-12-01');
  expect(read('1.12.', 'day-month')).toBe('2026-12-01');
  expect(read('2/13/2027', 'day-month')).toBe('2027-02-13');
});

test('every date reads back from the words in which it is written', () => {
  const random = randomFrom(20_261_201);
  for (let i = 0; i < 500; i++) {
    const day = Math.floor(random() * 40_000);
    for (const order of ['day-month', 'month-day'] as const) {
      expect(parseDateEntry(dateWords(day, null, order), order, today)).toBe(day);
      const near = today + Math.floor(random() * 360) - 180;
      expect(parseDateEntry(dateWords(near, near, order), order, today)).toBe(near);
    }
  }
});
