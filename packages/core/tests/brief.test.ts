/** The brief's reader: valid briefs survive a round trip, faults are reported by path, and nothing makes it throw. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  faultLine,
  pathText,
  readBriefText,
  TIMER_KINDS,
  wishOf,
  writeBrief,
  type Brief,
} from '@water-clock/core';
import { readBrief } from '../src/brief/readBrief.ts';

const kind = TIMER_KINDS[2];
if (!kind) throw new Error('there is a third kind');

const BRIEF: Brief = {
  format: 'water-clock-brief',
  version: 1,
  timer: kind,
  settings: { stationDelaySeconds: 5, offDaysOfMonth: [31] },
  stations: [
    {
      number: 1,
      name: 'Front lawn',
      weeklySeconds: 3600,
      group: 'lawn',
      days: { least: 2, most: 3 },
      cycleSeconds: 420,
      soakSeconds: 1800,
      flowLpm: 14.5,
    },
    {
      number: 4,
      weeklySeconds: 0,
      overhead: false,
      oftenADay: { times: 3, from: '07:00', to: '17:00', until: '2027-04-30' },
    },
  ],
  rules: { weekdays: ['tue', 'fri'], mostDaysPerWeek: 2, dripExempt: true },
  mowing: { weekdays: ['sat'], dayBefore: true },
  wish: { finishBy: '06:30', apart: [['lawn', 'beds']] },
};

test('a brief goes out and in again without loss, and says what holds where nothing is said', () => {
  expect(readBrief(BRIEF)).toEqual({ ok: true, value: BRIEF });
  expect(readBriefText(`\uFEFF${writeBrief(BRIEF)}`)).toEqual({ ok: true, value: BRIEF });
  expect(wishOf(BRIEF)).toMatchObject({
    notBefore: '21:00',
    finishBy: '06:30',
    headroomPercent: 130,
  });
});

const [lawn, drip] = BRIEF.stations;
test.each<[string, unknown, string, string]>([
  ['a plan', { ...BRIEF, format: 'water-clock-plan' }, 'not-one-of', 'format'],
  ['version 2', { ...BRIEF, version: 2 }, 'wrong-version', 'version'],
  ['a station twice', { ...BRIEF, stations: [lawn, lawn] }, 'repeated', 'stations[1].number'],
  [
    'a station beyond the timer',
    { ...BRIEF, stations: [{ ...lawn, number: 9 }] },
    'beyond-timer',
    'stations[0].number',
  ],
  [
    'more than a week in a week',
    { ...BRIEF, stations: [{ ...lawn, weeklySeconds: 604_801 }] },
    'out-of-range',
    'stations[0].weeklySeconds',
  ],
  [
    'days the wrong way round',
    { ...BRIEF, stations: [{ ...lawn, days: { least: 4, most: 2 } }] },
    'out-of-range',
    'stations[0].days.most',
  ],
  [
    'seed hours that end before they begin',
    { ...BRIEF, stations: [{ ...drip, oftenADay: { times: 3, from: '17:00', to: '07:00' } }] },
    'malformed',
    'stations[0].oftenADay.to',
  ],
  [
    'a station that the plan alone may switch off',
    { ...BRIEF, stations: [{ ...lawn, enabled: false }] },
    'unknown-field',
    'stations[0].enabled',
  ],
  [
    'three groups apart',
    { ...BRIEF, wish: { apart: [['a', 'b', 'c']] } },
    'wrong-length',
    'wish.apart[0]',
  ],
  [
    'no hour of the week',
    { ...BRIEF, rules: { noWaterWindows: [{ from: '00:00', to: '00:00' }] } },
    'no-free-second',
    'rules.noWaterWindows',
  ],
])('%s is refused by its path', (_name, document, code, path) => {
  const read = readBrief(document);
  expect(read.ok ? [] : read.faults.map((fault) => [fault.code, pathText(fault.path)])).toEqual([
    [code, path],
  ]);
});

test('whatever stands in a field, the answer is a brief or a path with words', () => {
  const counts = { ok: 0, refused: 0 };
  fc.assert(
    fc.property(
      fc.constantFrom('timer', 'settings', 'stations', 'rules', 'mowing', 'wish'),
      fc.jsonValue({ maxDepth: 3 }),
      (field, value) => {
        const read = readBrief({ ...BRIEF, [field]: value });
        counts[read.ok ? 'ok' : 'refused']++;
        if (!read.ok)
          for (const fault of read.faults) expect(faultLine(fault)).toMatch(/^[a-z]+.*: .{10,}/s);
      },
    ),
    { seed: 7, numRuns: 1000 },
  );
  expect(counts.ok).toBeGreaterThan(3);
  expect(counts.refused).toBeGreaterThan(500);
});
