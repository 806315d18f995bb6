/** Timer status for lists: the same verdict as the check's, also after being stored as JSON, and in the reader's language. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
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
  type TimerStatus,
} from '@water-clock/core';
import { cases } from './cases.ts';
import { anyPlan } from './randomPlans.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });
const HOUSE: RuledHouse = { houseNumber: '12', supply: null };
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
