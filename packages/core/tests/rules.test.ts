/** Watering rules: who may water when, which edition is valid, and the sentence that says so. */
import { expect, test } from '@jest/globals';
import {
  houseRulesOn,
  ruledOut,
  parseDate,
  pathText,
  readRules,
  readTimerKind,
  rulesSentence,
  rulingOn,
  SHIPPED_KINDS,
  SHIPPED_MINUTES,
  readMinutesTable,
  WEEKDAYS,
  type Rules,
  type Supply,
} from '@water-clock/core';
import { nextRuling, rosterNumber } from '../src/rules/ruling.ts';

const day = (text: string) => parseDate(text) ?? 0;

const RULES: Rules = {
  format: 'water-clock-rules',
  version: 1,
  name: 'Ostrelle',
  editions: [
    {
      from: '2026-06-01',
      clauses: [{ noWatering: true, when: { supplies: ['mains'] } }],
    },
    {
      from: '2026-09-01',
      source: 'notice at the depot',
      newPlantingUntil: '2026-12-20',
      clauses: [
        { when: { supplies: ['bore'], lastDigits: [1, 2] }, weekdays: ['mon', 'wed', 'sat'] },
        { when: { lastDigits: [1, 2] }, weekdays: ['wed', 'sat'], mostDaysPerWeek: 2 },
        {
          when: { parity: 'even' },
          parity: 'even',
          noWaterWindows: [{ from: '09:00', to: '18:00' }],
          dripExempt: true,
        },
      ],
    },
    { from: '2027-03-01', clauses: [{ weekdays: ['sun'] }] },
  ],
};

test('the first clause that is about a house holds, on every house number and supply', () => {
  const on = day('2026-11-25');
  const supplies: readonly (Supply | null)[] = ['mains', 'bore', 'pump', 'tank', null];
  let seen = 0;
  for (let number = 0; number < 40; number++)
    for (const supply of supplies) {
      const ruling = rulingOn(RULES, { houseNumber: String(number), supply }, on);
      const last = number % 10;
      const expected =
        last === 1 || last === 2
          ? supply === null
            ? 'unknown'
            : supply === 'bore'
              ? 'mon,wed,sat'
              : 'wed,sat'
          : number % 2 === 0
            ? 'even'
            : 'free';
      const told =
        ruling.kind === 'allowed'
          ? (ruling.rules.parity ?? ruling.rules.weekdays?.join())
          : ruling.kind;
      expect([number, supply, told]).toEqual([number, supply, expected]);
      seen++;
    }
  expect(seen).toBe(200);
});

test('what is not known of a house is asked for only where it matters', () => {
  const on = day('2026-11-25');
  expect(rulingOn(RULES, { houseNumber: null, supply: 'bore' }, on)).toMatchObject({
    kind: 'unknown',
    needs: 'house-number',
  });
  expect(rulingOn(RULES, { houseNumber: null, supply: null }, day('2027-03-01')).kind).toBe(
    'allowed',
  );
  expect(rulingOn(RULES, { houseNumber: '3', supply: null }, day('2026-05-31')).kind).toBe(
    'none-yet',
  );
});

test('an edition holds from its date until the next one, and the next change is found', () => {
  const house = { houseNumber: '8', supply: 'mains' } as const;
  expect(rulingOn(RULES, house, day('2026-08-31')).kind).toBe('forbidden');
  expect(rulingOn(RULES, house, day('2026-09-01')).kind).toBe('allowed');
  expect(nextRuling(RULES, house, day('2026-08-31'))?.from).toBe(day('2026-09-01'));
  expect(nextRuling(RULES, house, day('2026-09-01'))?.from).toBe(day('2027-03-01'));
  expect(nextRuling(RULES, house, day('2027-03-01'))).toBeNull();
});

test('what is not allowed, second by second, is what dates and hours say', () => {
  const house = { houseNumber: '8', supply: 'mains' } as const;
  const rulesOn = (on: number) => houseRulesOn(undefined, RULES, house, on);
  // Across the date on which the rules change from even dates with hours to Sundays.
  const [from, to] = [day('2027-02-26') * 86_400 + 54_000, day('2027-03-09') * 86_400];
  const spans = ruledOut(rulesOn, from, to);
  spans.slice(1).forEach((span, i) => expect(span.from).toBeGreaterThan(spans[i]?.to ?? Infinity));
  let out = 0;
  for (let at = from; at < to; at += 600) {
    const on = Math.floor(at / 86_400);
    const hour = (at % 86_400) / 3600;
    const date = new Date(on * 86_400_000);
    const allowed =
      on < day('2027-03-01')
        ? date.getUTCDate() % 2 === 0 && !(hour >= 9 && hour < 18)
        : date.getUTCDay() === 0;
    expect(spans.some((span) => span.from <= at && at < span.to)).toBe(!allowed);
    if (!allowed) out++;
  }
  expect(out).toBeGreaterThan(500);
  // The site's own rules come first; a ban leaves no date.
  expect(houseRulesOn({ parity: 'odd' }, RULES, house, day('2027-03-01'))).toEqual({
    parity: 'odd',
  });
  expect(houseRulesOn(undefined, RULES, house, day('2026-08-01'))).toEqual({ weekdays: [] });
  expect(houseRulesOn(undefined, null, house, day('2026-08-01'))).toBeNull();
});

test.each([
  ['17a', 17],
  ['8-10', 10],
  ['Unit 3, 41', 41],
  ['The Old Dairy', null],
  [null, null],
])('%p goes by %p', (written, number) => expect(rosterNumber(written)).toBe(number));

test('one sentence says what holds today and from when it changes', () => {
  const speech = { on: day('2026-11-25'), clock: '24' } as const;
  expect(rulesSentence(RULES, { houseNumber: '8', supply: 'mains' }, speech)).toBe(
    'Today: only on even dates; not from 9:00 to 18:00; drip is exempt; new planting is exempt until Sun 20 December. From Mon 1 March 2027: only on Sun.',
  );
  expect(rulesSentence(RULES, { houseNumber: '1', supply: null }, speech)).toContain(
    'enter the supply',
  );
});

test.each<[string, unknown, string]>([
  [
    'editions out of order',
    { ...RULES, editions: RULES.editions.toReversed() },
    'editions[1].from',
  ],
  [
    'a digit of 10',
    { ...RULES, editions: [{ from: '2026-01-01', clauses: [{ when: { lastDigits: [10] } }] }] },
    'editions[0].clauses[0].when.lastDigits[0]',
  ],
  [
    'code in place of data',
    { ...RULES, editions: [{ from: '2026-01-01', clauses: [{ script: 'x' }] }] },
    'editions[0].clauses[0].script',
  ],
  [
    'no hour left',
    {
      ...RULES,
      editions: [
        { from: '2026-01-01', clauses: [{ noWaterWindows: [{ from: '00:00', to: '00:00' }] }] },
      ],
    },
    'editions[0].clauses[0].noWaterWindows',
  ],
])('%s is refused by path', (_name, value, path) => {
  const read = readRules(value);
  expect(read.ok ? [] : read.faults.map((fault) => pathText(fault.path))).toContain(path);
});

test('what ships can be read: the kinds, the table of minutes, and the rules above', () => {
  expect(readRules(JSON.parse(JSON.stringify(RULES)))).toEqual({ ok: true, value: RULES });
  expect(readMinutesTable(SHIPPED_MINUTES).ok).toBe(true);
  for (const { kind } of SHIPPED_KINDS)
    expect(readTimerKind(kind)).toEqual({ ok: true, value: kind });
  expect(new Set(SHIPPED_KINDS.map(({ id }) => id)).size).toBe(12);
  expect(WEEKDAYS).toHaveLength(7);
});
