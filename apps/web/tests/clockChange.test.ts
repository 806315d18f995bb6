/** Clock changes at a place, from its time zone alone. */
import { expect, test } from '@jest/globals';
import { formatDate } from '@water-clock/core';
import { clockChangesAfter } from '../src/app/platform/clockChange.ts';

const change = (after: string, zone: string) => {
  const [found] = clockChangesAfter(new Date(after), zone);
  return found && [formatDate(found.day), found.from / 3600, found.to / 3600];
};

test.each([
  // First Sundays of April and October, with the hours of each side.
  ['2026-11-24T00:00:00Z', 'Australia/Adelaide', ['2027-04-04', 3, 2]],
  ['2027-05-01T12:00:00Z', 'Australia/Adelaide', ['2027-10-03', 2, 3]],
  // Half an hour only.
  ['2027-05-01T12:00:00Z', 'Australia/Lord_Howe', ['2027-10-03', 2, 2.5]],
  ['2027-01-01T00:00:00Z', 'America/Denver', ['2027-03-14', 2, 3]],
  // An hour before the change, and in the hour after it: the next one.
  ['2027-03-28T00:30:00Z', 'Europe/Berlin', ['2027-03-28', 2, 3]],
  ['2027-03-28T01:30:00Z', 'Europe/Berlin', ['2027-10-31', 3, 2]],
  ['2027-01-01T00:00:00Z', 'Australia/Brisbane', undefined],
])('after %s in %s', (after, zone, expected) => {
  expect(change(after, zone)).toEqual(expected);
});

test('a year has both of its changes, and no more', () => {
  const year = clockChangesAfter(new Date('2026-11-24T00:00:00Z'), 'Australia/Adelaide');
  expect(year.map(({ day }) => formatDate(day))).toEqual(['2027-04-04', '2027-10-03']);
});
