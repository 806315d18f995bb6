/** Notes from a panel, line by line, compared with what the panel then shows. */
import { expect, test } from '@jest/globals';
import { applyChange, panelLines, parseDate, type Plan, type PlanChange } from '@water-clock/core';
import { entryChange } from '../src/panel/entries.ts';
import { programName, type SettingAddress } from '../src/panel/line.ts';
import { sameValue, type PanelStyle, type PanelValue } from '../src/panel/value.ts';
import { gardenFrom, randomFrom } from './faultyTimers.ts';

const TODAY = parseDate('2027-06-09') ?? 0;
const nowFor = ({ timer }: Plan) => {
  const style: PanelStyle = { dialect: timer.dialect ?? {}, clock: '12' };
  return { style, today: TODAY, secondOfDay: 0 };
};

const applied = (plan: Plan, change: PlanChange | null): Plan => {
  if (!change) return plan;
  const made = applyChange(plan, change);
  if (!made.ok) throw new Error(JSON.stringify(made.faults));
  return made.value.plan;
};

test('every line of one panel, noted on another timer of its kind, leaves that showing the same', () => {
  let noted = 0;
  for (let seed = 1; seed <= 40; seed++) {
    const { plan: shown } = gardenFrom(randomFrom(seed));
    // The same kind with nothing set but its stations.
    const bare: Plan = {
      ...shown,
      settings: shown.settings.monthlyPercent
        ? { monthlyPercent: shown.settings.monthlyPercent.map(() => 100) }
        : {},
      stations: shown.stations.map(({ number, name }) => ({ number, ...(name ? { name } : {}) })),
      programs: [],
    };
    let plan = bare;
    const now = nowFor(shown);
    for (const { id, address, value } of panelLines(shown, now)) {
      const here = panelLines(plan, now).find((line) => line.id === id);
      if (here && sameValue(here.value, value)) continue;
      const change = entryChange(plan, address, value, now);
      if (change) noted++;
      plan = applied(plan, change);
    }
    const lines = (each: Plan) =>
      panelLines(each, now)
        .filter(({ setting }) => setting !== 'windows')
        .map(({ id, value }) => `${id} ${JSON.stringify(value)}`);
    expect([seed, lines(plan)]).toEqual([seed, lines(shown)]);
  }
  expect(noted).toBeGreaterThan(300);
});

const { plan } = gardenFrom(randomFrom(9));
const [first] = plan.programs;
if (!first) throw new Error('no program');
const { letter } = first;
const NOW = nowFor(plan);

test('an emptied slot of several closes up: lists of starts have no gaps', () => {
  const three = applied(plan, {
    type: 'set-starts',
    program: letter,
    starts: ['03:00', '04:00', '05:00'],
  });
  const change = entryChange(
    three,
    { of: 'start', program: letter, slot: 2 },
    { kind: 'time', second: null },
    NOW,
  );
  expect(applied(three, change).programs[0]?.starts).toEqual(['03:00', '05:00']);
});

test.each([
  ['a start', { of: 'start', program: letter, slot: 1 }],
  ['a delay', { of: 'delay' }],
  ['a percent', { of: 'percent' }],
  ['the sensor', { of: 'sensor' }],
  ['a pump', { of: 'pump', station: 1 }],
  ['a soak', { of: 'soak', station: 1 }],
  ['on and off', { of: 'mode' }],
  ['the clock, which is no setting of the plan', { of: 'time' }],
] as const)('%s takes no value of another sort', (_, address) => {
  expect(entryChange(plan, address, { kind: 'count', every: 3 }, NOW)).toBeNull();
});

test('a program that the plan does not know is added first, so that one undo takes both back', () => {
  const none: Plan = { ...plan, programs: [] };
  const address = { of: 'run', program: letter, station: 1 } as const;
  const change = entryChange(none, address, { kind: 'run', seconds: 600 }, NOW);
  expect(change).toMatchObject({ type: 'several' });
  expect(applied(none, change).programs).toEqual([
    { letter, starts: [], days: null, runs: [{ station: 1, seconds: 600 }] },
  ]);
});

test('days: a count keeps its rule, and a phase its count', () => {
  const address = { program: letter } as const;
  const every = (days: Plan['programs'][number]['days']) =>
    applied(plan, { type: 'set-days', program: letter, days });
  const daysOf = (each: Plan) => each.programs.find((program) => program.letter === letter)?.days;
  const third = every({ rule: 'interval', everyDays: 2, firstDate: '2027-06-01' });
  const counted = applied(
    third,
    entryChange(third, { of: 'count', ...address }, { kind: 'count', every: 5 }, NOW),
  );
  expect(daysOf(counted)).toMatchObject({ rule: 'interval', everyDays: 5 });
  const phased = applied(
    counted,
    entryChange(counted, { of: 'phase', ...address }, { kind: 'days-left', days: 3 }, NOW),
  );
  expect(daysOf(phased)).toMatchObject({ everyDays: 5, firstDate: '2027-06-12' });
  // A rule without either is unchanged.
  const weekly = every({ rule: 'weekdays', weekdays: ['mon'] });
  for (const value of [
    { kind: 'count', every: 5 },
    { kind: 'days-left', days: 3 },
  ] as const) {
    const change = entryChange(
      weekly,
      { of: value.kind === 'count' ? 'count' : 'phase', ...address },
      value,
      NOW,
    );
    expect(daysOf(applied(weekly, change))).toEqual(daysOf(weekly));
  }
});

test('a program is named as its box names it', () => {
  expect(programName('B', {})).toBe('B');
  expect(programName('B', { programLabels: 'numbers' })).toBe('Program 2');
});

test.each<readonly [SettingAddress, PanelValue, PlanChange]>([
  [
    { of: 'percent' },
    { kind: 'percent', percent: 80 },
    { type: 'set-settings', settings: { seasonalPercent: 80 } },
  ],
  [
    { of: 'percent' },
    { kind: 'percent', percent: 100 },
    { type: 'set-settings', settings: { seasonalPercent: null } },
  ],
  [
    { of: 'percent', program: letter },
    { kind: 'percent', percent: 70 },
    { type: 'set-program', program: letter, fields: { seasonalPercent: 70 } },
  ],
  [
    { of: 'delay' },
    { kind: 'length', seconds: 10 },
    { type: 'set-settings', settings: { stationDelaySeconds: 10 } },
  ],
  [
    { of: 'sensor' },
    { kind: 'sensor', state: 'bypass' },
    { type: 'set-settings', settings: { sensor: 'bypass' } },
  ],
  [
    { of: 'mode' },
    { kind: 'switch', on: false },
    { type: 'set-settings', settings: { mode: 'off' } },
  ],
  [
    { of: 'rain-delay' },
    { kind: 'rain-delay', unit: 'date', count: TODAY },
    { type: 'set-settings', settings: { wateringResumes: '2027-06-09' } },
  ],
  [
    { of: 'rain-delay' },
    { kind: 'rain-delay', unit: 'off', count: 0 },
    { type: 'set-settings', settings: { wateringResumes: null } },
  ],
  [
    { of: 'obeys-sensor', station: 1 },
    { kind: 'switch', on: false },
    { type: 'set-station', station: 1, fields: { obeysRainSensor: false } },
  ],
  [
    { of: 'enabled', station: 1 },
    { kind: 'switch', on: true },
    { type: 'set-station', station: 1, fields: { enabled: null } },
  ],
  [
    { of: 'longest-piece', station: 1 },
    { kind: 'length', seconds: 420 },
    { type: 'set-station', station: 1, fields: { cycleSeconds: 420 } },
  ],
  [
    { of: 'soak', program: letter },
    { kind: 'length', seconds: 0 },
    { type: 'set-program', program: letter, fields: { soakSeconds: null } },
  ],
])('%j noted as %j', (address, value, change) => {
  expect(entryChange(plan, address, value, NOW)).toEqual(change);
});

test('one month of twelve', () => {
  const byMonth = applied(plan, {
    type: 'set-settings',
    settings: { monthlyPercent: new Array<number>(12).fill(100) },
  });
  const value = { kind: 'percent', percent: 60 } as const;
  const change = entryChange(byMonth, { of: 'percent', month: 5 }, value, NOW);
  const { monthlyPercent } = applied(byMonth, change).settings;
  expect(monthlyPercent).toEqual([100, 100, 100, 100, 60, 100, 100, 100, 100, 100, 100, 100]);
});

test.each(['odd', 'even', 'interval', 'hours', 'daily', 'none'] as const)(
  'the rule %s from nothing, and again from itself',
  (rule) => {
    const value: PanelValue = {
      kind: 'days',
      rule,
      weekdays: rule === 'daily' || rule === 'none' ? [] : ['sun'],
    };
    const address = { of: 'days', program: letter } as const;
    // An hourly rule replaces starts, so those must be removed first.
    const bare = applied(plan, {
      type: 'several',
      changes: [
        { type: 'set-days', program: letter, days: null },
        ...(rule === 'hours' ? [{ type: 'set-starts', program: letter, starts: [] } as const] : []),
      ],
    });
    const once = applied(bare, entryChange(bare, address, value, NOW));
    const daysOf = (each: Plan) => each.programs.find((program) => program.letter === letter)?.days;
    expect(daysOf(once)?.rule ?? 'none').toBe(rule);
    // What else is known, the interval and its phase, is kept.
    const twice = applied(once, entryChange(once, address, value, NOW));
    expect(daysOf(twice)).toEqual(daysOf(once));
  },
);
