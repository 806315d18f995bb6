/** What announced rules mean for a site: breaches, bans by month, and rules as a grid. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  bansByMonth,
  banSpans,
  banSpanSentence,
  banWords,
  check,
  comingRules,
  dueVisits,
  EMPTY_SURVEY,
  emptyPlan,
  ruleStatus,
  isRoster,
  parseDate,
  rosterOf,
  rulingOn,
  SUPPLIES,
  TIMER_KINDS,
  visitSentence,
  WEEKDAYS,
  withRoster,
  type Plan,
  type Rules,
  type RulesEdition,
  type Survey,
} from '@water-clock/core';
import { aboutOf } from '../src/findings/accepted.ts';
import { ruleBreaches } from '../src/findings/ruleBreaches.ts';

const day = (text: string) => parseDate(text) ?? 0;
const [kind] = TIMER_KINDS;
if (!kind) throw new Error('no kinds');

const HOUSE = { houseNumber: '21', supply: 'mains' } as const;
const ON = day('2026-11-28');
const rulesOf = (...editions: RulesEdition[]): Rules => ({
  format: 'water-clock-rules',
  version: 1,
  name: 'Ostrelle',
  editions,
});
const MON_THU: RulesEdition = { from: '2026-01-01', clauses: [{ weekdays: ['mon', 'thu'] }] };
const plan: Plan = {
  ...emptyPlan(kind),
  stations: [{ number: 1 }, { number: 2, overhead: false }],
  programs: [
    {
      letter: 'A',
      starts: ['04:00'],
      runs: [{ station: 1, seconds: 600 }],
      days: { rule: 'weekdays', weekdays: ['mon', 'thu'] },
    },
    {
      letter: 'B',
      starts: ['06:00'],
      runs: [{ station: 2, seconds: 600 }],
      days: { rule: 'weekdays', weekdays: ['mon'] },
    },
  ],
};
const status = (rules: Rules, survey: Survey = EMPTY_SURVEY, of = plan) =>
  ruleStatus({ plan: of, survey }, rules, HOUSE, ON);

describe('rules that begin later', () => {
  const ban = rulesOf(MON_THU, { from: '2026-12-10', clauses: [{ noWatering: true }] });

  test('a ban is told with its date and the programs that still water, and is due', () => {
    const { breaches, coming } = status(ban);
    expect(breaches).toEqual([]);
    expect(coming).toMatchObject({
      code: 'coming-rules',
      severity: 'warning',
      from: day('2026-12-10'),
      programs: ['A', 'B'],
      breach: { code: 'forbidden-day', where: { date: day('2026-12-10') } },
    });
    const [due] = dueVisits(EMPTY_SURVEY, coming);
    expect(due && visitSentence(due, { on: ON, clock: '24' })).toMatch(
      /^Thu 10 December: no watering by timer is allowed here, and A and B still water then/,
    );
    // The checks say the same.
    const { findings } = check(plan, ON, { coming: comingRules(undefined, ban, HOUSE, ON) });
    expect(findings.filter(({ code }) => code === 'coming-rules')).toEqual([coming]);
  });

  test('a change that the settings keep is not told, nor one that is over before they break it', () => {
    const later = (...clauses: RulesEdition['clauses']) => ({ from: '2026-12-10', clauses });
    expect(status(rulesOf(MON_THU, later({ weekdays: ['mon', 'thu', 'sat'] }))).coming).toBeNull();
    expect(status(rulesOf(MON_THU, later({ weekdays: ['mon'] }))).coming?.programs).toEqual(['A']);
    // Nothing waters from Friday to Sunday anyway.
    const weekend = rulesOf(
      MON_THU,
      { from: '2026-12-11', clauses: [{ noWatering: true }] },
      { ...MON_THU, from: '2026-12-14' },
    );
    expect(status(weekend).coming).toBeNull();
    // Exempt drip continues; the site's own rules do not change.
    const exempt = rulesOf(MON_THU, later({ weekdays: ['thu'], dripExempt: true }));
    expect(status(exempt).coming?.programs).toEqual(['A']);
    expect(status(ban, { ...EMPTY_SURVEY, rules: {} }).coming).toBeNull();
  });

  test('what is broken today stands first; what was accepted, and a timer that is off, break nothing', () => {
    const tue = rulesOf({ from: '2026-01-01', clauses: [{ weekdays: ['tue'] }] });
    const { breaches } = status(tue);
    expect(breaches.map(({ where: { program, date } }) => [program, date])).toEqual([
      ['A', day('2026-11-30')],
      ['B', day('2026-11-30')],
    ]);
    const brief = {
      format: 'water-clock-brief',
      version: 1,
      timer: plan.timer,
      // What the stations need does not matter for keeping the rules.
      stations: [{ number: 1, weeklySeconds: 900 }],
      rules: { weekdays: ['tue'] },
    } as const;
    const accepted = breaches.map((finding) => ({
      code: finding.code,
      about: aboutOf(finding, plan, brief),
      reason: 'the council said so',
    }));
    expect(status(tue, { ...EMPTY_SURVEY, accepted }).breaches).toEqual([]);
    const off = { ...plan, settings: { mode: 'off' as const } };
    expect(status(tue, EMPTY_SURVEY, off)).toEqual({ breaches: [], coming: null });
  });

  test('breaches of a plan by itself are those that a brief with the same rules brings', () => {
    const rules = { weekdays: ['wed'], noWaterWindows: [{ from: '05:00', to: '18:00' }] } as const;
    const stations = plan.stations.map((one) => ({ ...one, weeklySeconds: 900 }));
    const brief = {
      format: 'water-clock-brief',
      version: 1,
      timer: kind,
      stations,
      rules,
    } as const;
    const codes = ['forbidden-day', 'forbidden-hour', 'too-many-days'];
    const found = check(plan, ON, { brief }).findings.filter(({ code }) => codes.includes(code));
    expect(ruleBreaches(plan, rules, ON)).toEqual(found);
    expect(found.length).toBeGreaterThan(2);
  });
});

test('bans month by month, whole and in part', () => {
  const rules = rulesOf(
    MON_THU,
    { from: '2027-05-01', clauses: [{ noWatering: true }] },
    { ...MON_THU, from: '2027-07-11' },
    { from: '2027-09-20', clauses: [{ noWatering: true }] },
    { ...MON_THU, from: '2027-09-21' },
  );
  const bans = bansByMonth(undefined, rules, HOUSE, ON);
  expect(bans.map((ban) => `${ban.month}: ${banWords(ban, { on: ON, clock: '24' })}`)).toEqual([
    '5: off, banned from 1 May',
    '6: off, banned from 1 June',
    '7: banned from 1 July to 10 July',
    '9: banned on 20 September',
  ]);
  expect(banSpans(bans).map((span) => banSpanSentence(span, { on: ON, clock: '24' }))).toEqual([
    'Off from 1 May to 10 July (banned). Switch the timer off before this and back on afterwards.',
    'Banned on 20 September.',
  ]);
  expect(bansByMonth({}, rules, HOUSE, ON)).toEqual([]);
});

describe('a roster', () => {
  const anyDays = fc.subarray([...WEEKDAYS]);
  const meaning = (edition: RulesEdition) =>
    SUPPLIES.flatMap((supply) =>
      Array.from({ length: 10 }, (_, digit) => {
        const ruling = rulingOn(
          rulesOf(edition),
          { houseNumber: `3${digit}`, supply },
          parseDate(edition.from) ?? 0,
        );
        return ruling.kind === 'allowed' ? (ruling.rules.weekdays ?? WEEKDAYS) : [];
      }),
    );

  test('says for each last digit and supply what was entered, and reads back as it was', () => {
    fc.assert(
      fc.property(
        fc.array(anyDays, { minLength: 10, maxLength: 10 }),
        fc.array(anyDays, { minLength: 10, maxLength: 10 }),
        (mains, bore) => {
          const rest = { mostDaysPerWeek: 2 };
          const roster = {
            kind: 'digits' as const,
            tables: [
              { supplies: ['bore' as const], days: bore, rest },
              { supplies: [], days: mains, rest },
            ],
          };
          const edition = withRoster({ from: '2026-01-01', clauses: [] }, roster);
          expect(meaning(edition)).toEqual(
            SUPPLIES.flatMap((supply) => (supply === 'bore' ? bore : mains)),
          );
          expect(isRoster(edition, 'digits')).toBe(true);
          const again = rosterOf(edition, 'digits');
          expect(meaning(withRoster(edition, again))).toEqual(meaning(edition));
        },
      ),
      { seed: 65, numRuns: 60 },
    );
  });

  test('odd and even are two rows; clauses that a grid cannot say are told', () => {
    const parity: RulesEdition = {
      from: '2026-01-01',
      clauses: [
        // In no order.
        { when: { parity: 'odd' }, weekdays: ['sat', 'tue'] },
        { when: { parity: 'even' }, weekdays: ['wed', 'sun'] },
      ],
    };
    expect(rosterOf(parity, 'parity').tables).toEqual([
      {
        supplies: [],
        days: [
          ['tue', 'sat'],
          ['wed', 'sun'],
        ],
        rest: {},
      },
    ]);
    expect(isRoster(parity, 'parity')).toBe(true);
    // Hours that differ by digit cannot be a grid.
    const hours: RulesEdition = {
      from: '2026-01-01',
      clauses: [
        { when: { lastDigits: [1] }, noWaterWindows: [{ from: '09:00', to: '17:00' }] },
        { noWaterWindows: [{ from: '10:00', to: '16:00' }] },
      ],
    };
    expect(isRoster(hours, 'digits')).toBe(false);
  });
});
