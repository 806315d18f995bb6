/** A site's fields, differences between two records, due visits, and totals in a visit. */
import { describe, expect, test } from '@jest/globals';
import {
  documentSite,
  EMPTY_SURVEY,
  emptyPlan,
  expectedTotal,
  recordDifferences,
  SHIPPED_KINDS,
  siteFields,
  visitFindings,
  visitSentence,
  type Plan,
  type Survey,
  type Visit,
} from '@water-clock/core';
import { parseDate } from '../src/time/calendar.ts';
import type { VisitReason } from '../src/record/dueVisits.ts';
import { oftenWords } from '../src/engine/overlapWords.ts';

const ON = parseDate('2027-06-07') ?? 0;

describe('the fields of a site', () => {
  const bare = siteFields({ name: ' Thistle Corner ', timeZone: 'Etc/UTC' });

  test('what is not given stands for nothing; what is given is trimmed and in order', () => {
    expect(bare).toMatchObject({ name: 'Thistle Corner', latitude: null, mowing: [], people: [] });
    const given = siteFields({
      ...bare,
      latitude: 0,
      mowing: ['fri', 'mon'],
      notes: ' gate code 7 ',
      people: [{ name: ' Ada ', role: 'owner ', phone: ' 555' }],
    });
    expect(given).toMatchObject({
      latitude: 0,
      mowing: ['mon', 'fri'],
      notes: 'gate code 7',
      people: [{ name: 'Ada', role: 'owner', phone: '555' }],
    });
  });

  test('a document has only those that are known; 0 degrees are known', () => {
    expect(documentSite(bare)).toEqual({ name: 'Thistle Corner', timeZone: 'Etc/UTC' });
    const known = { latitude: 0, longitude: -3.5, houseNumber: '12 b' };
    expect(documentSite({ ...bare, ...known })).toEqual({
      name: 'Thistle Corner',
      timeZone: 'Etc/UTC',
      ...known,
    });
  });
});

const KIND = SHIPPED_KINDS.find(({ kind }) => kind.timer.dialect?.total?.shown)?.kind;
if (!KIND) throw new Error('no kind shows a total');
const plan: Plan = {
  ...emptyPlan(KIND.timer),
  programs: [
    {
      letter: 'A',
      starts: ['04:00'],
      runs: [
        { station: 1, seconds: 600 },
        { station: 2, seconds: 300 },
      ],
      days: { rule: 'weekdays', weekdays: ['mon'] },
    },
  ],
};
const at = '2027-06-07T09:00';
const visiting = (more: Partial<Visit> = {}): Survey => ({
  ...EMPTY_SURVEY,
  visit: { began: at, ...more },
});

test('two records differ in their visit as a whole, or fact by fact', () => {
  const differences = (before: Survey, after: Survey) =>
    recordDifferences({ plan, survey: before }, { plan, survey: after }, '24');
  expect(differences(EMPTY_SURVEY, EMPTY_SURVEY)).toEqual([]);
  const begun = { what: 'Visit', before: '—', after: 'under way' };
  expect(differences(EMPTY_SURVEY, visiting())).toEqual([begun]);
  expect(differences(visiting(), EMPTY_SURVEY)).toEqual([
    { ...begun, before: 'under way', after: '—' },
  ]);
  // What has parts is not written out.
  expect(
    differences(
      visiting({ minutesSpent: 30, keyIn: { scope: 'changes', ticked: ['a'] } }),
      visiting({ minutesSpent: 75, keyIn: { scope: 'changes', ticked: [] } }),
    ),
  ).toEqual([
    { what: 'Visit, time on site', before: '30 min', after: '1 h 15 min' },
    { what: 'Visit, key-in card', before: 'recorded', after: 'changed' },
  ]);
});

test('why somebody has to come back, and whether they should have been there', () => {
  const followUp = { program: 'B', due: '2027-06-08T05:10', stations: [1, 4] };
  const reasons: readonly VisitReason[] = [
    { kind: 'battery' },
    { kind: 'often-a-day-ends', station: 3 },
    { kind: 'planned', visit: { date: '2027-06-09', reason: 'battery', note: 'size AA' } },
    { kind: 'planned', visit: { date: '2027-06-09', reason: 'battery' } },
    { kind: 'follow-up', followUp },
  ];
  const told = reasons.map((reason, i) =>
    visitSentence({ date: ON - 1 + i, reason }, { on: ON, clock: '12' }),
  );
  expect(told).toMatchInlineSnapshot(`
   [
     "Sun 6 June (overdue): replace the battery, which is a year old, and clean the inlet screen if there is one",
     "Mon 7 June: station 3 no longer needs several waterings a day",
     "Tue 8 June: new battery: size AA",
     "Wed 9 June: new battery",
     "Thu 10 June: watch the first watering: program B at 5:10 am, stations 1 and 4",
   ]
  `);
});

describe('a total on the display', () => {
  const totals = (seconds: number, asFound?: Plan): string[] =>
    visitFindings(
      plan,
      visiting({
        totals: [{ program: 'A', seconds }],
        ...(asFound ? { asFound: { at, plan: asFound, hidden: 'none-found' } } : {}),
      }),
      ON,
    ).map(({ code }) => code);

  test('that differs by a minute is told; without a visit nothing is', () => {
    expect(expectedTotal(plan, 'A', ON)).toBe(900);
    expect(totals(900)).toEqual([]);
    expect(totals(859)).toEqual([]);
    expect(totals(840)).toEqual(['total-differs']);
    expect(totals(3000)).toEqual(['total-differs']);
    expect(visitFindings(plan, EMPTY_SURVEY, ON)).toEqual([]);
  });

  test('is compared with what was found, where that was noted', () => {
    const found = {
      ...plan,
      programs: plan.programs.map((one) => ({ ...one, runs: [{ station: 1, seconds: 2400 }] })),
    };
    expect(totals(2400, found)).toEqual([]);
    expect(totals(900, found)).toEqual(['total-differs']);
  });

  test('of a program that is not there, or on a box without one, is compared with nothing', () => {
    expect(expectedTotal(plan, 'C', ON)).toBeNull();
    const silent = { ...plan, timer: { ...plan.timer, dialect: {} } };
    expect(expectedTotal(silent, 'A', ON)).toBeNull();
  });
});

test('how often, from every night to once in a lifetime', () => {
  expect([365, 1.5, 1.4, 0.75, 0.5, 1 / 28, 0].map(oftenWords)).toEqual([
    'about 365 times a year',
    'about 2 times a year',
    'about once a year',
    'about once a year',
    'about once every 2 years',
    'about once every 28 years',
    'never again',
  ]);
});
