/** What is due today if the site and the device have different dates. */
import { expect, test } from '@jest/globals';
import type { CalendarVisit } from '../src/data/api/calendar.ts';
import { dueHere } from '../src/office/today/dueHere.ts';

const TODAY = '2026-11-29';
/** Only what the test looks at. */
const visit = (timerId: string, date: string, overdue = false) =>
  ({ timerId, date, overdue }) as CalendarVisit;
const ids = (visits: readonly CalendarVisit[]) => visits.map(({ timerId }) => timerId);

test('each visit stands once, whatever the date is at its house', () => {
  const dated = [
    visit('yesterday, over there too', '2026-11-28', true),
    visit('yesterday, still going on there', '2026-11-28'),
    visit('today', TODAY),
    visit('today, over there already', TODAY, true),
    visit('tomorrow', '2026-11-30'),
  ];
  const overdue = [visit('last week', '2026-11-20', true), ...dated.filter((one) => one.overdue)];
  const due = dueHere(dated, overdue, TODAY);
  expect(ids(due.overdue)).toEqual(['last week', 'yesterday, over there too']);
  expect(ids(due.now)).toEqual([
    'yesterday, still going on there',
    'today',
    'today, over there already',
  ]);
  expect(ids(due.later)).toEqual(['tomorrow']);
});
