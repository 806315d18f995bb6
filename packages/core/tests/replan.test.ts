/** Replans: suggestions never overlap, keep the rules and give each station its water, by the slow reference. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  applyRecordChange,
  civilOf,
  EMPTY_SURVEY,
  emptyPlan,
  epochDayOf,
  houseMeetings,
  ruleStatus,
  meanWeeklySeconds,
  replan,
  SECONDS_PER_DAY,
  SHIPPED_MINUTES,
  TIMER_KINDS,
  WEEKDAYS,
  weekdayIndexOf,
  waterChanges,
  type Plan,
  type Replanned,
  type ReplanSources,
  type Rules,
} from '@water-clock/core';
import { cases } from './cases.ts';
import { weeklyPlan } from './randomPlans.ts';
import { referenceSimulate } from './reference.ts';
import { referenceOverlaps } from './referenceCycles.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });
const HOUSE = { houseNumber: '12', supply: null, mowing: [] } as const;
const DAYS = 14;

const rulesFor = (
  clause: Rules['editions'][number]['clauses'][number],
  from = '2026-01-01',
): Rules => ({
  format: 'water-clock-rules',
  version: 1,
  name: 'Dunnock',
  editions: [
    { from: '2025-01-01', clauses: [] },
    { from, clauses: [clause] },
  ],
});

const sourcesOf = (
  plan: Plan,
  rules: Rules | null,
  more: Partial<ReplanSources> = {},
): ReplanSources => ({
  record: { plan, survey: EMPTY_SURVEY },
  house: HOUSE,
  rules,
  table: SHIPPED_MINUTES,
  climate: null,
  others: [],
  finishBy: null,
  today: ON,
  ...more,
});

function made(plan: Plan, replanned: Replanned): Plan {
  if (replanned.outcome !== 'proposed') throw new Error('nothing is proposed');
  const applied = applyRecordChange({ plan, survey: EMPTY_SURVEY }, replanned.change);
  if (!applied.ok) throw new Error('it does not fit');
  return applied.value.record.plan;
}

test('what is proposed keeps the rules on every date, second by second, and waters as much', () => {
  const clauses = fc.record({
    weekdays: fc.subarray([...WEEKDAYS], { minLength: 1, maxLength: 4 }),
    noWaterWindows: fc.constant([{ from: '10:00', to: '18:00' }]),
  });
  let proposals = 0;
  fc.assert(
    fc.property(weeklyPlan, clauses, (plan, clause) => {
      const rules = rulesFor(clause);
      const before = ruleStatus({ plan, survey: EMPTY_SURVEY }, rules, HOUSE, ON);
      const replanned = replan(sourcesOf(plan, rules), { of: 'rules' });
      if (before.breaches.length === 0) expect(replanned.outcome).toBe('fits');
      if (replanned.outcome !== 'proposed') return;
      const after = made(plan, replanned);
      expect(replanned.lines).toBeGreaterThan(0);
      if (after.settings.mode === 'off') return;
      proposals++;
      expect(referenceOverlaps(after, ON, DAYS)).toEqual([]);
      for (const { on, off } of referenceSimulate(after, ON, DAYS).flatMap(({ runs }) => runs)) {
        const day = Math.floor(on / SECONDS_PER_DAY);
        const hour = (on - day * SECONDS_PER_DAY) / 3600;
        const until = (off - day * SECONDS_PER_DAY) / 3600;
        expect(clause.weekdays).toContain(WEEKDAYS[weekdayIndexOf(day)]);
        expect([until <= 10 || hour >= 18, civilOf(day)]).toEqual([true, civilOf(day)]);
      }
      const [was, is] = [meanWeeklySeconds(plan), meanWeeklySeconds(after)];
      const changed = waterChanges(plan, after).map(({ station }) => station);
      expect(replanned.why.includes('the same water')).toBe(changed.length === 0);
      for (const [station, seconds] of was) {
        const given = is.get(station) ?? 0;
        expect([station, replanned.why.includes(`station ${station},`)]).toEqual([
          station,
          changed.includes(station),
        ]);
        // Whole steps of the timer, on another number of dates.
        expect(given).toBeLessThanOrEqual(Math.max(1.15 * seconds, seconds + 420));
      }
    }),
    { seed: 62, numRuns: cases(12) },
  );
  expect(proposals).toBeGreaterThan(0);
});

/** A timer with two lawns, watered from 4:00 on some days. */
const lawns = (
  days: Plan['programs'][number]['days'],
  more: Partial<Plan['settings']> = {},
): Plan => {
  const kind = TIMER_KINDS.find(
    ({ seasonal: { scope, byMonth } }) => scope === 'timer' && !byMonth,
  );
  if (!kind) throw new Error('no kinds');
  return {
    ...emptyPlan(kind),
    settings: more,
    stations: [{ number: 1 }, { number: 2 }],
    programs: [
      {
        ...{ letter: 'A', days, starts: ['04:00'] },
        runs: [
          { station: 1, seconds: 600 },
          { station: 2, seconds: 900 },
        ],
      },
    ],
  };
};

test('rules that are announced are planned for from their first date on', () => {
  const plan = lawns({ rule: 'weekdays', weekdays: ['mon', 'wed', 'fri'] });
  const rules = rulesFor({ weekdays: ['tue', 'sat'] }, '2027-07-01');
  const replanned = replan(sourcesOf(plan, rules), { of: 'rules' });
  expect(replanned).toMatchObject({
    outcome: 'proposed',
    from: epochDayOf({ year: 2027, month: 7, day: 1 }),
    why: 'The rules are kept, and each station gets the same water as now.',
  });
  const [program] = made(plan, replanned).programs;
  expect(program?.days).toMatchObject({ rule: 'weekdays', weekdays: ['tue', 'sat'] });
  // Each station stays in its program.
  expect(program?.runs.map(({ station }) => station)).toEqual([1, 2]);
});

test('as little is keyed in as can be: a day that is forbidden moves, and nothing else', () => {
  const plan = lawns({ rule: 'weekdays', weekdays: ['mon', 'fri'] });
  const rules = rulesFor({ weekdays: ['mon', 'wed', 'thu', 'sat', 'sun'] });
  const replanned = replan(sourcesOf(plan, rules), { of: 'rules' });
  expect(replanned).toMatchObject({ outcome: 'proposed', lines: 1 });
  const [before] = plan.programs;
  expect(made(plan, replanned).programs).toEqual([
    { ...before, days: { rule: 'weekdays', weekdays: [expect.any(String), expect.any(String)] } },
  ]);
});

test('the rules in force and those announced are kept by one change', () => {
  const plan = lawns({ rule: 'weekdays', weekdays: ['tue', 'fri'] });
  const rules: Rules = {
    ...rulesFor({ weekdays: ['mon', 'wed', 'thu', 'sat'] }),
    editions: [
      { from: '2026-01-01', clauses: [{ weekdays: ['mon', 'wed', 'thu', 'sat'] }] },
      { from: '2027-07-01', clauses: [{ weekdays: ['wed', 'sat'] }] },
    ],
  };
  const after = made(plan, replan(sourcesOf(plan, rules), { of: 'rules' }));
  expect(after.programs[0]?.days).toEqual({ rule: 'weekdays', weekdays: ['wed', 'sat'] });
});

test('a ban that is announced for later takes no watering date away today', () => {
  const plan = lawns({ rule: 'weekdays', weekdays: ['mon', 'thu', 'sat'] });
  const rules: Rules = {
    ...rulesFor({ weekdays: ['tue', 'sat'] }),
    editions: [
      { from: '2026-01-01', clauses: [{ weekdays: ['tue', 'sat'] }] },
      { from: '2027-12-01', clauses: [{ noWatering: true }] },
    ],
  };
  const after = made(plan, replan(sourcesOf(plan, rules), { of: 'rules' }));
  expect(after.programs[0]?.days).toEqual({ rule: 'weekdays', weekdays: ['tue', 'sat'] });
});

test('where no watering is allowed the timer is switched off, and one that is off is left alone', () => {
  const plan = lawns({ rule: 'daily' });
  const replanned = replan(sourcesOf(plan, rulesFor({ noWatering: true })), { of: 'rules' });
  expect(made(plan, replanned).settings.mode).toBe('off');
  expect(
    replan(sourcesOf(made(plan, replanned), rulesFor({ noWatering: true })), { of: 'rules' }),
  ).toEqual({
    outcome: 'fits',
  });
});

test('it stays out of the hours of the other timers of the house', () => {
  const plan = lawns({ rule: 'daily' });
  const rules = rulesFor({ weekdays: ['tue', 'sat'] });
  const other = made(plan, replan(sourcesOf(plan, rules), { of: 'rules' }));
  const after = made(plan, replan(sourcesOf(plan, rules, { others: [other] }), { of: 'rules' }));
  expect(
    houseMeetings(
      [
        { id: 'a', plan: after, flows: new Map() },
        { id: 'b', plan: other, flows: new Map() },
      ],
      ON,
    ),
  ).toEqual([]);
  expect(after.programs[0]?.starts).not.toEqual(other.programs[0]?.starts);
});

test('the percent of a month is that of its table, and is not proposed where programs would overlap', () => {
  const plan = lawns({ rule: 'daily' }, { seasonalPercent: 100 });
  const month = SHIPPED_MINUTES.months.findIndex((percent) => percent < 70) + 1;
  const replanned = replan(sourcesOf(plan, null), { of: 'percent', month });
  const after = made(plan, replanned);
  expect(after.settings.seasonalPercent).toBeLessThan(80);
  expect(replan(sourcesOf(after, null), { of: 'percent', month })).toEqual({ outcome: 'fits' });
  const [a] = plan.programs;
  const tight: Plan = {
    ...plan,
    settings: { seasonalPercent: 50 },
    programs: a ? [a, { ...a, letter: 'B', starts: ['04:15'] }] : [],
  };
  const highest = SHIPPED_MINUTES.months.indexOf(Math.max(...SHIPPED_MINUTES.months)) + 1;
  expect(replan(sourcesOf(tight, null), { of: 'percent', month: highest })).toMatchObject({
    outcome: 'none',
    why: expect.stringMatching(/would overlap/),
  });
  const never = { plan, survey: { ...EMPTY_SURVEY, season: 'never' as const } };
  expect(replan(sourcesOf(plan, null, { record: never }), { of: 'percent', month })).toEqual({
    outcome: 'fits',
  });
});
