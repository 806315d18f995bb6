/** Timer status for lists: the same verdict as the check's, also after being stored as JSON, and in the reader's language. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  aboutOf,
  check,
  EMPTY_SURVEY,
  emptyPlan,
  epochDayOf,
  timerStatusWords,
  timerStatus,
  weekOf,
  TIMER_KINDS,
  type Plan,
  type Rules,
  type RuledHouse,
  type SiteWater,
  type TimerStatus,
} from '@water-clock/core';
import { cases } from './cases.ts';
import { anyPlan } from './randomPlans.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });
const HOUSE: RuledHouse & SiteWater = { houseNumber: '12', supply: null, supplyFlow: null };
const SPEECH = { on: ON, clock: '24', order: 'day-month' } as const;

const kept = (status: TimerStatus) => JSON.parse(JSON.stringify(status)) as TimerStatus;

/** One station for ten minutes, every day at four. */
function daily(): Plan {
  const [kind] = TIMER_KINDS;
  if (!kind) throw new Error('no kinds');
  return {
    ...emptyPlan(kind),
    stations: [{ number: 1 }],
    programs: [
      {
        ...{ letter: 'A', days: { rule: 'daily' }, starts: ['04:00'] },
        runs: [{ station: 1, seconds: 600 }],
      },
    ],
  };
}

test('is what the check says, and keeps as JSON', () => {
  fc.assert(
    fc.property(anyPlan, (plan) => {
      const status = timerStatus({ plan, survey: EMPTY_SURVEY }, null, HOUSE, ON);
      expect(kept(status)).toEqual(status);
      const words = timerStatusWords(kept(status), SPEECH);
      expect(words).toEqual(timerStatusWords(status, SPEECH));
      const { verdict } = check(plan, ON);
      // A percent that others change may cause overlaps where nothing overlaps as set.
      if (words.verdict !== 'overlap' || verdict === 'overlap') expect(words.verdict).toBe(verdict);
      for (const { date, programs } of weekOf(status, ON)) {
        expect(date >= '2027-06-01' && date <= '2027-06-07').toBe(true);
        expect(programs).toMatch(/^[A-Z]*$/);
      }
    }),
    { seed: 63, numRuns: cases(60) },
  );
});

test('is a breach where nothing overlaps and the rules of the place are broken', () => {
  const rules: Rules = {
    format: 'water-clock-rules',
    version: 1,
    name: 'Ostrelle',
    editions: [{ from: '2026-01-01', clauses: [{ weekdays: ['mon', 'thu'] }] }],
  };
  const said = (own: Rules | null, on = ON) => {
    const status = timerStatus({ plan: daily(), survey: EMPTY_SURVEY }, own, HOUSE, on);
    return timerStatusWords(kept(status), { ...SPEECH, on });
  };
  expect(said(null).verdict).toBe('clear');
  expect(said(rules)).toMatchObject({
    verdict: 'breach',
    headline: expect.stringMatching(/do not allow/),
  });
});

const RULES: Rules = {
  format: 'water-clock-rules',
  version: 1,
  name: 'Ostrelle',
  editions: [
    { from: '2026-01-01', clauses: [{ weekdays: ['mon', 'thu', 'sat'] }] },
    { from: '2027-06-18', clauses: [{ weekdays: ['tue', 'fri', 'sun'] }] },
  ],
};

test('is so on every date until the last one that it names, and is worked out anew after that', () => {
  fc.assert(
    fc.property(anyPlan, fc.boolean(), (plan, isRuled) => {
      const record = { plan, survey: EMPTY_SURVEY };
      const on = (day: number) => timerStatus(record, isRuled ? RULES : null, HOUSE, day);
      const said = (status: TimerStatus, day: number) => ({
        words: timerStatusWords(status, { ...SPEECH, on: day }),
        breaches: status.breaches,
        coming: status.coming,
        week: weekOf(status, day),
      });
      const status = on(ON);
      expect(status.until).toBeGreaterThanOrEqual(ON);
      for (let day = ON + 1; day <= status.until; day++)
        expect([day, said(status, day)]).toEqual([day, said(on(day), day)]);
    }),
    { seed: 64, numRuns: cases(15) },
  );
});

test('a breach of the days of a week, which has the date of a Monday that is over, still holds for the day it is worked out on', () => {
  const rules: Rules = {
    ...RULES,
    editions: [{ from: '2026-01-01', clauses: [{ mostDaysPerWeek: 2 }] }],
  };
  for (let day = ON; day < ON + 7; day++) {
    const record = { plan: daily(), survey: EMPTY_SURVEY };
    const { breaches, until } = timerStatus(record, rules, HOUSE, day);
    expect(breaches.length).toBeGreaterThan(0);
    expect([day, until >= day]).toEqual([day, true]);
  }
});

test('says that stations take more than the supply gives, until that is accepted or the supply changes', () => {
  const base = daily();
  const plan: Plan = {
    ...base,
    timer: { ...base.timer, stationsAtOnce: 2, stationCount: 2 },
    settings: { stationsAtOnce: 2 },
    stations: [
      { number: 1, flowLpm: 30 },
      { number: 2, flowLpm: 25 },
    ],
    programs: base.programs.map((program) => ({
      ...program,
      runs: [1, 2].map((station) => ({ station, seconds: 600 })),
    })),
  };
  const of = (supplyFlow: number | null, survey = EMPTY_SURVEY, one = plan) =>
    timerStatus({ plan: one, survey }, null, { ...HOUSE, supplyFlow }, ON);
  const { verdict, headline } = timerStatusWords(kept(of(40)), SPEECH);
  expect([verdict, headline]).toEqual(['supply', expect.stringMatching(/55 .*40/u)]);
  for (const supplyFlow of [55, null])
    expect(timerStatusWords(of(supplyFlow), SPEECH).verdict).toBe('clear');
  const [finding] = of(40).supply ?? [];
  if (!finding) throw new Error('no finding');
  const about = aboutOf(finding, plan, null);
  const survey = {
    ...EMPTY_SURVEY,
    accepted: [{ code: 'supply' as const, about, reason: 'measured low' }],
  };
  expect(timerStatusWords(of(40, survey), SPEECH).verdict).toBe('clear');
  // Of a smaller supply nothing was accepted.
  expect(timerStatusWords(of(39, survey), SPEECH).verdict).toBe('supply');
  // Nothing flows while it is off; an overlap comes first.
  const off = { ...plan, settings: { ...plan.settings, mode: 'off' as const } };
  expect(of(40, EMPTY_SURVEY, off).supply).toEqual([]);
  const twice = plan.programs.flatMap((program) => [program, { ...program, letter: 'B' }]);
  const both = of(40, EMPTY_SURVEY, { ...plan, programs: twice });
  expect(timerStatusWords(both, SPEECH).verdict).toBe('overlap');
  // What an earlier release stored has no such field.
  const { supply: _supply, ...earlier } = of(40);
  expect(timerStatusWords(earlier, SPEECH).verdict).toBe('clear');
});
