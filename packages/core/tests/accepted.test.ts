/** What an accepted finding is about: acceptance ends when that changes, and only then. */
import { expect, test } from '@jest/globals';
import {
  aboutOf,
  emptyPlan,
  parseDate,
  TIMER_KINDS,
  type Brief,
  type Finding,
  type Plan,
  type Program,
} from '@water-clock/core';

const ON = parseDate('2027-06-07') ?? 0;
const kind = TIMER_KINDS[2];
if (!kind) throw new Error('no kinds');
const program = (letter: string, station: number): Program => ({
  letter,
  starts: ['04:00'],
  runs: [{ station, seconds: 600 }],
  days: { rule: 'daily' },
});
const PLAN: Plan = {
  ...emptyPlan(kind),
  programs: [program('A', 1), program('B', 2), program('C', 1)],
};
const BRIEF: Brief = {
  format: 'water-clock-brief',
  version: 1,
  timer: kind,
  stations: [1, 2].map((number) => ({ number, weeklySeconds: 4200 })),
  rules: { weekdays: ['mon'] },
  mowing: { weekdays: ['fri'] },
  wish: { finishBy: '07:00' },
};

const changed = (letter: string): Plan => ({
  ...PLAN,
  programs: PLAN.programs.map((one) =>
    one.letter === letter ? { ...one, starts: ['05:00'] } : one,
  ),
});
const CHANGES: Readonly<Record<string, readonly [Plan, Brief]>> = {
  A: [changed('A'), BRIEF],
  B: [changed('B'), BRIEF],
  C: [changed('C'), BRIEF],
  settings: [{ ...PLAN, settings: { sensor: 'bypass' } }, BRIEF],
  station: [
    { ...PLAN, stations: PLAN.stations.map((one) => ({ ...one, name: `no. ${one.number}` })) },
    BRIEF,
  ],
  need: [
    PLAN,
    { ...BRIEF, stations: BRIEF.stations.map((one) => ({ ...one, weeklySeconds: 60 })) },
  ],
  rules: [PLAN, { ...BRIEF, rules: {} }],
  mowing: [PLAN, { ...BRIEF, mowing: { weekdays: ['sat'] } }],
};

const where = { program: 'A', start: '04:00', station: 1, date: ON };
const warning = { severity: 'warning' } as const;
test.each<readonly [Finding, readonly string[]]>([
  [{ ...warning, code: 'afternoon-start', where: { program: 'A', start: '04:00' } }, ['A']],
  [{ ...warning, code: 'station-in-none', where: { station: 1 } }, ['A', 'C', 'station', 'need']],
  [
    { ...warning, code: 'station-in-two-programs', programs: ['A', 'B'], where: { station: 1 } },
    ['A', 'B', 'station', 'need'],
  ],
  [{ ...warning, code: 'sensor-bypassed', where: { field: 'settings.sensor' } }, ['settings']],
  // A station's need does not matter for the site's rules.
  [{ ...warning, code: 'forbidden-day', where }, ['A', 'station', 'rules']],
  [{ ...warning, code: 'too-many-days', days: 4, most: 2, where }, ['A', 'station', 'rules']],
  [{ ...warning, code: 'mowing-day', where }, ['A', 'station', 'need', 'mowing']],
  [
    { ...warning, code: 'late-finish', ends: 30_000, notBefore: '21:00', by: '07:00', where },
    ['A', 'station', 'need'],
  ],
])('$code', (finding, expected) => {
  const about = aboutOf(finding, PLAN, BRIEF);
  const ending = Object.entries(CHANGES)
    .filter(([, [plan, brief]]) => aboutOf(finding, plan, brief) !== about)
    .map(([what]) => what);
  expect(ending).toEqual(expected);
  // Showing on a later date is no change.
  const later = { ...finding, where: { ...finding.where, date: ON + 7 } };
  expect(aboutOf(later, PLAN, BRIEF)).toBe(about);
  // Other hours are one.
  if (finding.code === 'late-finish')
    expect(aboutOf({ ...finding, by: '06:00' }, PLAN, BRIEF)).not.toBe(about);
});
