/** Reading back from the display: each kind of mistake is made on purpose and must be named. */
import { expect, test } from '@jest/globals';
import { keyInLines, parseDate, readBack, type Plan } from '@water-clock/core';
import type { KeyLine } from '../src/panel/keyIn.ts';
import type { PanelStyle, PanelValue } from '../src/panel/value.ts';
import { panelText } from '../src/panel/value.ts';
import { gardenFrom, randomFrom } from './faultyTimers.ts';

const TODAY = parseDate('2027-06-09') ?? 0;
const style: PanelStyle = { dialect: {}, clock: '24' };
const { plan } = gardenFrom(randomFrom(9));
const now = { style, today: TODAY, secondOfDay: 10 * 3600 };
const [first] = keyInLines(plan, null, now, false);
if (!first) throw new Error('an empty card');

const lineOf = (
  value: PanelValue,
  of: 'start' | 'run' | 'time' | 'days' | 'count' | 'mode' | 'percent',
): KeyLine => ({
  ...first,
  id: `line.${of}`,
  name: `the ${of}`,
  address: { of, program: 'A', slot: 1, station: 1 },
  value,
});
const time = (second: number | null): PanelValue => ({ kind: 'time', second });
const run = (seconds: number): PanelValue => ({ kind: 'run', seconds });
const days = (...weekdays: readonly ('mon' | 'tue' | 'wed')[]): PanelValue => ({
  kind: 'days',
  rule: 'weekdays',
  weekdays,
});

const SLIPS: readonly (readonly [string, KeyLine, PanelValue, string | null])[] = [
  ['the same', lineOf(time(18_000), 'start'), time(18_000), null],
  ['afternoon for morning', lineOf(time(18_000), 'start'), time(61_200), 'half-a-day'],
  ['morning for afternoon', lineOf(time(61_200), 'start'), time(18_000), 'half-a-day'],
  ['a start that must be off', lineOf(time(null), 'start'), time(18_000), 'left-on'],
  ['a start that is off', lineOf(time(18_000), 'start'), time(null), 'left-off'],
  ['another start', lineOf(time(18_000), 'start'), time(18_300), 'other'],
  ['a clock two minutes on', lineOf(time(36_000), 'time'), time(36_120), null],
  ['a clock three minutes on', lineOf(time(36_000), 'time'), time(36_180), 'other'],
  ['a clock half a day out', lineOf(time(36_000), 'time'), time(79_260), 'half-a-day'],
  ['a clock at midnight', lineOf(time(60), 'time'), time(86_340), null],
  ['hours for minutes', lineOf(run(1200), 'run'), run(72_000), 'hours-for-minutes'],
  ['minutes for hours', lineOf(run(7200), 'run'), run(120), 'hours-for-minutes'],
  ['ten times', lineOf(run(600), 'run'), run(6000), 'ten-fold'],
  ['a tenth', lineOf(run(6000), 'run'), run(600), 'ten-fold'],
  ['a run that must be none', lineOf(run(0), 'run'), run(600), 'left-on'],
  ['no run', lineOf(run(600), 'run'), run(0), 'left-off'],
  ['another run', lineOf(run(600), 'run'), run(660), 'other'],
  ['a day too many', lineOf(days('mon'), 'days'), days('mon', 'tue'), 'days-too-many'],
  ['a day too few', lineOf(days('mon', 'tue'), 'days'), days('mon'), 'days-too-few'],
  ['another day', lineOf(days('mon', 'tue'), 'days'), days('mon', 'wed'), 'other'],
  [
    'another rule',
    lineOf(days('mon'), 'days'),
    { kind: 'days', rule: 'odd', weekdays: [] },
    'other',
  ],
  [
    'days between',
    lineOf({ kind: 'count', every: 3 }, 'count'),
    { kind: 'count', every: 2 },
    'count-or-between',
  ],
  [
    'another count',
    lineOf({ kind: 'count', every: 3 }, 'count'),
    { kind: 'count', every: 6 },
    'other',
  ],
  [
    'still off',
    lineOf({ kind: 'switch', on: true }, 'mode'),
    { kind: 'switch', on: false },
    'left-off',
  ],
  [
    'still on',
    lineOf({ kind: 'switch', on: false }, 'mode'),
    { kind: 'switch', on: true },
    'left-on',
  ],
  [
    'another percent',
    lineOf({ kind: 'percent', percent: 100 }, 'percent'),
    { kind: 'percent', percent: 90 },
    'other',
  ],
];

test.each(SLIPS)('%s', (_, line, shown, slip) => {
  const answer = readBack(line, panelText(shown, style), [line], style, TODAY);
  expect(answer.ok ? null : answer.slip).toBe(slip);
  if (!answer.ok) expect(answer.shown).toEqual(shown);
});

test('what belongs on another line of the card is said so, by that line’s name', () => {
  const line = lineOf(run(600), 'run');
  const other = { ...lineOf(run(660), 'run'), id: 'line.other', name: 'A station 2' };
  expect(readBack(line, '0:11', [line, other], style, TODAY)).toMatchObject({
    slip: 'other-line',
    of: 'A station 2',
  });
  // Not of another kind.
  const start = { ...lineOf(run(660), 'start'), id: 'line.start' };
  expect(readBack(line, '0:11', [line, start], style, TODAY)).toMatchObject({ slip: 'other' });
});

test('what nobody can mean is not understood, and shows nothing', () => {
  for (const typed of ['twenty', '99:99', '?'])
    expect(readBack(lineOf(run(600), 'run'), typed, [], style, TODAY)).toEqual({
      ok: false,
      slip: 'not-understood',
      shown: null,
    });
});

test('every line of every card is read back as right', () => {
  for (let seed = 1; seed <= 25; seed++) {
    const garden: Plan = gardenFrom(randomFrom(seed)).plan;
    const box = { ...now, style: { dialect: garden.timer.dialect ?? {}, clock: '12' as const } };
    const card = keyInLines(garden, null, box, false);
    for (const line of card) {
      const answer = readBack(line, panelText(line.value, box.style), card, box.style, TODAY);
      expect([line.id, answer]).toEqual([line.id, { ok: true }]);
    }
  }
});
