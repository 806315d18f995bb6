/** Typed display values: every kind, every notation, and what cannot be read. */
import { describe, expect, test } from '@jest/globals';
import { parseDate } from '@water-clock/core';
import { parsePanel } from '../src/panel/parseValue.ts';
import {
  panelHelp,
  panelText,
  sameValue,
  type PanelKind,
  type PanelStyle,
  type PanelValue,
} from '../src/panel/value.ts';

const TODAY = parseDate('2027-06-09') ?? 0;
const NAMES: PanelStyle = { dialect: {}, clock: '24' };
const DIGITS: PanelStyle = {
  dialect: { weekdayKeys: 'digits', intervalCounts: 'between' },
  clock: '12',
};

const day = (text: string) => parseDate(text) ?? NaN;
const week = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const;

const READ: readonly (readonly [PanelKind, string, PanelStyle, PanelValue | null])[] = [
  ['time', '5:30p', NAMES, { kind: 'time', second: 63_000 }],
  ['time', 'OFF', NAMES, { kind: 'time', second: null }],
  ['time', '', NAMES, { kind: 'time', second: null }],
  ['time', '25:00', NAMES, null],
  ['run', '0:22', NAMES, { kind: 'run', seconds: 1320 }],
  ['run', '0:22:30', NAMES, { kind: 'run', seconds: 1350 }],
  ['run', '1h20', NAMES, { kind: 'run', seconds: 4800 }],
  ['run', '2h', NAMES, { kind: 'run', seconds: 7200 }],
  ['run', '22', NAMES, { kind: 'run', seconds: 1320 }],
  ['run', '4m 30s', NAMES, { kind: 'run', seconds: 270 }],
  ['run', '45s', NAMES, { kind: 'run', seconds: 45 }],
  ['run', '--', NAMES, { kind: 'run', seconds: 0 }],
  ['run', '25:00', NAMES, null],
  ['run', 'long', NAMES, null],
  ['length', '5 min', NAMES, { kind: 'length', seconds: 300 }],
  ['days', 'every day', NAMES, { kind: 'days', rule: 'daily', weekdays: [] }],
  ['days', 'Mon, Wed', NAMES, { kind: 'days', rule: 'weekdays', weekdays: ['mon', 'wed'] }],
  ['days', 'thursday tue', NAMES, { kind: 'days', rule: 'weekdays', weekdays: ['tue', 'thu'] }],
  ['days', 'odd, not sun', NAMES, { kind: 'days', rule: 'odd', weekdays: ['sun'] }],
  ['days', 'even', NAMES, { kind: 'days', rule: 'even', weekdays: [] }],
  ['days', 'interval not mon', NAMES, { kind: 'days', rule: 'interval', weekdays: ['mon'] }],
  ['days', 'every 36 hours', NAMES, { kind: 'days', rule: 'hours', weekdays: [] }],
  ['days', 'off', NAMES, { kind: 'days', rule: 'none', weekdays: [] }],
  ['days', '246', DIGITS, { kind: 'days', rule: 'weekdays', weekdays: ['tue', 'thu', 'sat'] }],
  ['days', 'odd, not xx', NAMES, null],
  ['days', 'someday', NAMES, null],
  ['count', '3', NAMES, { kind: 'count', every: 3 }],
  ['count', '3 days', DIGITS, { kind: 'count', every: 4 }],
  ['count', '0', NAMES, null],
  ['count', '0', DIGITS, { kind: 'count', every: 1 }],
  ['days-left', '2', NAMES, { kind: 'days-left', days: 2 }],
  ['days-left', '400', NAMES, null],
  ['date', '25 november', NAMES, { kind: 'date', day: day('2027-11-25') }],
  // The nearest: half a year back rather than more than half a year ahead.
  ['date', 'dec 31', NAMES, { kind: 'date', day: day('2026-12-31') }],
  ['date', 'jan 2', NAMES, { kind: 'date', day: day('2027-01-02') }],
  ['date', '2028-02-29', NAMES, { kind: 'date', day: day('2028-02-29') }],
  ['date', '31 june', NAMES, null],
  ['date', 'soon', NAMES, null],
  ['percent', '80 %', NAMES, { kind: 'percent', percent: 80 }],
  ['percent', '501', NAMES, null],
  ['switch', 'yes', NAMES, { kind: 'switch', on: true }],
  ['switch', 'off', NAMES, { kind: 'switch', on: false }],
  ['switch', '0', NAMES, { kind: 'switch', on: false }],
  ['switch', 'maybe', NAMES, null],
  ['hours', '9:00 to 17:00', NAMES, { kind: 'hours', from: 32_400, to: 61_200, weekdays: week }],
  [
    'hours',
    '9:00 am to 5:00 pm mon',
    NAMES,
    { kind: 'hours', from: 32_400, to: 61_200, weekdays: ['mon'] },
  ],
  ['hours', '9:00', NAMES, null],
  ['hours', '9:00 to 17:00 xx', NAMES, null],
  ['numbers', '13 31', NAMES, { kind: 'numbers', numbers: [13, 31] }],
  ['numbers', 'none', NAMES, { kind: 'numbers', numbers: [] }],
  ['numbers', '1.5', NAMES, null],
  ['year', '27', NAMES, { kind: 'year', year: 2027 }],
  ['year', '2031', NAMES, { kind: 'year', year: 2031 }],
  ['year', '-1', NAMES, null],
  ['weekday', 'wed', NAMES, { kind: 'weekday', weekday: 2 }],
  ['weekday', '3', DIGITS, { kind: 'weekday', weekday: 2 }],
  ['weekday', 'q', NAMES, null],
  ['sensor', 'ACTIVE', NAMES, { kind: 'sensor', state: 'active' }],
  ['sensor', 'bypass', NAMES, { kind: 'sensor', state: 'bypass' }],
  ['sensor', 'none', NAMES, { kind: 'sensor', state: 'none' }],
  ['sensor', 'none fitted', NAMES, { kind: 'sensor', state: 'none' }],
  ['sensor', 'wet', NAMES, null],
];

test.each(READ)('%s: "%s" is read', (kind, typed, style, wanted) => {
  expect(parsePanel(kind, typed, style, TODAY)).toEqual(wanted);
});

test('what is meant by nothing has a help that says what can be typed', () => {
  const kinds = new Set(READ.map(([kind]) => kind));
  for (const kind of kinds)
    for (const style of [NAMES, DIGITS]) {
      expect(panelHelp(kind, style)).toMatch(/^[a-z0-9].{5,}/);
      // The help must not name what cannot be read.
      const example = /(?:such as|, ) ?([\d:p]+)(?:,| or|$)/.exec(panelHelp(kind, style))?.[1];
      if (example && kind !== 'weekday')
        expect(parsePanel(kind, example, style, TODAY)).not.toBeNull();
    }
});

describe('what is read is shown again', () => {
  test.each(READ.filter(([, , , value]) => value !== null))('%s: "%s"', (kind, _, style, value) => {
    if (!value) throw new Error('filtered');
    const shown = panelText(value, style);
    const again = parsePanel(kind, shown, style, TODAY);
    expect([shown, again && sameValue(again, value)]).toEqual([shown, true]);
  });
});
