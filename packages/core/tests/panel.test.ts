/** A timer's panel: keying in brings any state to any other, reading back is compared, and shown values are worked back. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  adjustedSeconds,
  applyChange,
  applyRecordChange,
  changedSettings,
  EMPTY_SURVEY,
  emptyPlan,
  enteredFromShown,
  entryChange,
  factoryPlan,
  isTicked,
  keyInLines,
  panelLines,
  panelText,
  parsePanel,
  planDifferences,
  readBack,
  settingsWith,
  SHIPPED_KINDS,
  TIMER_KINDS,
  withEqualRuns,
  type KeyLine,
  type PanelNow,
  type Plan,
  type Timer,
} from '@water-clock/core';
import { gardenFrom, randomFrom } from './faultyTimers.ts';

const TODAY = 20_984;
const nowFor = ({ timer }: Plan, clock: '12' | '24' = '12'): PanelNow => ({
  style: { dialect: timer.dialect ?? {}, clock },
  today: TODAY,
  secondOfDay: 37_800,
});

const kind = (name: string): Timer => {
  const found = TIMER_KINDS.find((timer) => timer.name === name);
  if (!found) throw new Error(name);
  return found;
};

/** Applies a card's lines to a plan, as a person would: each place takes its value. */
function keyed(base: Plan, lines: readonly KeyLine[]): Plan {
  let plan = base;
  for (const { stands, value, address: place } of lines)
    // A cleared slot moves the later ones up, so they are cleared from the last one on.
    for (const settingAddress of [...stands].reverse()) {
      if (place.of === 'total' || value.kind === 'weekday' || value.kind === 'year') continue;
      const change = entryChange(plan, settingAddress, value, nowFor(plan));
      if (!change) continue;
      const applied = applyChange(plan, change);
      if (!applied.ok) throw new Error(JSON.stringify(applied.faults));
      plan = applied.value.plan;
    }
  return plan;
}

/** What a panel shows of programs with a start; no one asks for the days of the others. */
const shows = (plan: Plan) =>
  panelLines(plan, nowFor(plan))
    .filter(({ setting, address: place }) => {
      if (setting === 'clock') return false;
      const isDays = place.of === 'days' || place.of === 'count' || place.of === 'phase';
      const program = isDays && plan.programs.find(({ letter }) => letter === place.program);
      return !isDays || (program ? program.starts.length > 0 : false);
    })
    .map(({ id, value }) => `${id} ${JSON.stringify(value)}`)
    .filter((line) => !/"second":null|"seconds":0|"rule":"none"|percent.*100}/.test(line));

test('what differs, keyed in line by line, brings the panel from any state to any other of its kind', () => {
  let pairs = 0;
  for (let seed = 1; pairs < 150; seed++) {
    const random = randomFrom(seed * 31);
    const { plan: target, factory } = gardenFrom(random);
    const other = gardenFrom(randomFrom(seed * 37)).plan;
    const base =
      seed % 3 === 0
        ? factory
        : other.timer.name === target.timer.name
          ? other
          : emptyPlan(target.timer);
    if (!base) continue;
    pairs += 1;
    const lines = keyInLines(target, base, nowFor(target), true);
    expect(lines.every(({ setting }) => setting !== 'clock')).toBe(true);
    expect(shows(keyed(base, lines))).toEqual(shows(target));
    // Then nothing is left to do.
    const left = keyInLines(target, keyed(base, lines), nowFor(target), true);
    expect(left.filter(({ address: place }) => place.of !== 'total')).toEqual([]);
  }
});

describe('the card', () => {
  const keypad = SHIPPED_KINDS.find(
    ({ kind: one }) => one.timer.name === 'Six-station keypad timer',
  );
  const plan: Plan = {
    ...emptyPlan(kind('Six-station keypad timer')),
    settings: { seasonalPercent: 140 },
    programs: [
      {
        letter: 'B',
        starts: ['04:40'],
        runs: [{ station: 2, seconds: 1200 }],
        days: { rule: 'interval', everyDays: 3, firstDate: '2027-06-17' },
      },
    ],
  };

  test('speaks the dialect of the box, in its order', () => {
    const now = nowFor(plan);
    const card = keyInLines(plan, null, now, false).map(
      ({ name, value }) => `${name}: ${panelText(value, now.style)}`,
    );
    expect(card).toEqual([
      'Day of the week (Tue): 3',
      'Time: 10:30 AM',
      'Seasonal percent, while keying in run times: 100 %',
      'Program 1 start times 1 to 3: OFF',
      'Program 1 stations 1 to 6: 0:00',
      'Program 2 start time 1: 4:40 AM',
      'Program 2 start times 2 and 3: OFF',
      'Program 2 station 1: 0:00',
      'Program 2 station 2: 0:20',
      'Program 2 stations 3 to 6: 0:00',
      'Program 2 total should say: 0:20',
      'Program 2 days: INTERVAL',
      'Program 2 days between: 2',
      'Program 2 days left: 2',
      'Seasonal percent: 140 %',
      'Watering: ON',
    ]);
  });

  test('a rain sensor that is not fitted, or not looked at, is nothing to key in', () => {
    const { sensor: _sensor, ...others } = plan.settings;
    const lineOf = (sensor?: 'none' | 'active') =>
      keyInLines(
        { ...plan, settings: { ...others, ...(sensor ? { sensor } : {}) } },
        null,
        nowFor(plan),
        false,
      ).find(({ address }) => address.of === 'sensor');
    expect(lineOf('none')).toBeUndefined();
    expect(lineOf()).toBeUndefined();
    expect(lineOf('active')?.value).toEqual({ kind: 'sensor', state: 'active' });
  });

  test('after a reset it takes out what the timer has from the factory', () => {
    const factory = factoryPlan(plan, keypad?.kind ?? null);
    expect(factory?.programs[0]?.starts).toEqual(['06:00']);
    const card = keyInLines(plan, factory, nowFor(plan), false);
    expect(card.find(({ id }) => id === 'start.A.1')).toMatchObject({
      value: { kind: 'time', second: null },
      was: { kind: 'time', second: 21_600 },
    });
  });

  test.each([
    ['start.B.1', '4:40p', 'half-a-day'],
    ['start.B.1', 'off', 'left-off'],
    ['start.B.1', '4:40', null],
    ['start.B.2', '3:10p', 'left-on'],
    ['run.B.2', '20:00', 'hours-for-minutes'],
    ['run.B.2', '0:02', 'ten-fold'],
    ['run.B.2', '0:20', null],
    ['run.B.2', 'twenty', 'not-understood'],
    ['count.B', '3', 'count-or-between'],
    ['count.B', '2', null],
    ['time', '10:31', null],
    ['time', '10:31p', 'half-a-day'],
    ['weekday', '4', 'other'],
  ])('read back %s as %s: %s', (id, typed, slip) => {
    const now = nowFor(plan);
    const card = keyInLines(plan, null, now, false);
    const line = card.find((line) => line.id === id);
    if (!line) throw new Error(`${id}: ${card.map((line) => line.id).join()}`);
    const answer = readBack(line, typed, card, now.style, TODAY);
    expect(answer.ok ? null : answer.slip).toBe(slip);
  });
});

describe('on a timer with a percent by month', () => {
  const byMonth = TIMER_KINDS.find(({ seasonal }) => seasonal.byMonth);
  if (!byMonth) throw new Error('no kind has a percent by month');
  const monthly = (monthlyPercent: readonly number[]): Plan => ({
    ...emptyPlan(byMonth),
    stations: [{ number: 1 }],
    programs: [
      {
        letter: 'A',
        starts: ['04:00'],
        runs: [{ station: 1, seconds: 600 }],
        days: { rule: 'daily' },
      },
    ],
    settings: { ...emptyPlan(byMonth).settings, monthlyPercent: [...monthlyPercent] },
  });
  const at = (january: number) => [january, ...Array<number>(11).fill(100)];
  const monthsOf = (base: Plan | null, target: Plan) =>
    keyInLines(target, base, nowFor(target), true).flatMap(({ address, value }) =>
      address.of === 'percent' && address.month !== undefined && value.kind === 'percent'
        ? [[address.month, value.percent]]
        : [],
    );

  test('everything has all twelve, those at 100 too: a used timer may hold another', () => {
    expect(monthsOf(null, monthly(at(100)))).toEqual(at(100).map((percent, i) => [i + 1, percent]));
  });

  test('changes has the one the timer holds otherwise', () => {
    expect(monthsOf(monthly(at(60)), monthly(at(100)))).toEqual([[1, 100]]);
    expect(monthsOf(monthly(at(100)), monthly(at(100)))).toEqual([]);
  });
});

describe('a card for many stations', () => {
  const thirty = Array.from({ length: 30 }, (_, i) => i + 1);
  const [kind] = TIMER_KINDS.filter(({ stationCount }) => stationCount >= 30);
  if (!kind) throw new Error('no kind has thirty stations');
  const many: Plan = {
    ...emptyPlan(kind),
    stations: thirty.map((number) => ({ number })),
    programs: [
      {
        letter: 'A',
        starts: ['04:00'],
        runs: thirty.slice(0, 8).map((station) => ({ station, seconds: 720 })),
        days: { rule: 'daily' },
      },
    ],
  };
  const now = nowFor(many);
  const lines = keyInLines(many, null, now, true);

  test('ticks each station of a group, which a record takes, also for twenty-two that are off', () => {
    const off = lines.find(({ name }) => /stations 9 to 30$/.test(name));
    expect(off?.ticks).toHaveLength(22);
    const visit = { began: '2027-06-15T09:00' };
    const ticked = lines.flatMap(({ ticks }) => ticks);
    expect(new Set(ticked).size).toBe(ticked.length);
    const noted = applyRecordChange(
      { plan: many, survey: { ...EMPTY_SURVEY, visit } },
      { type: 'note-visit', fields: { keyIn: { scope: 'everything', ticked } } },
    );
    expect(noted.ok && noted.value.record.survey.visit?.keyIn?.ticked).toEqual(ticked);
    for (const line of lines) expect(isTicked(line, new Set(ticked))).toBe(true);
    // One of them short, the group is open.
    expect(off && isTicked(off, new Set(ticked.filter((one) => one !== off.ticks[3])))).toBe(false);
  });

  test('has equal run times of neighbours in one line, without losing a tick', () => {
    const short = withEqualRuns(lines, now);
    expect(short.map(({ name }) => name)).toContain('A stations 1 to 8');
    expect(short.flatMap(({ ticks }) => ticks)).toEqual(lines.flatMap(({ ticks }) => ticks));
    expect(lines.length - short.length).toBe(7);
  });
});

test('every value that a panel shows is read again as itself', () => {
  for (let seed = 1; seed <= 120; seed++) {
    const { plan } = gardenFrom(randomFrom(seed));
    for (const clock of ['12', '24'] as const) {
      const now = nowFor(plan, clock);
      for (const { id, value } of panelLines(plan, now)) {
        const text = panelText(value, now.style);
        expect({ id, read: parsePanel(value.kind, text, now.style, TODAY) }).toEqual({
          id,
          read: value,
        });
      }
    }
  }
});

test('what was entered is worked back from an adjusted run page: all that is shown so, and nothing else', () => {
  const timers = TIMER_KINDS.filter(({ seasonal }) => seasonal.scope !== 'none');
  fc.assert(
    fc.property(
      fc.constantFrom(...timers),
      fc.integer({ min: 1, max: 30 }),
      fc.integer({ min: 1, max: 90 }),
      (timer, tenths, steps) => {
        const percent = tenths * 10;
        const seconds = Math.min(timer.longestRunSeconds, steps * timer.runStepSeconds);
        const shown = adjustedSeconds(seconds, percent, timer.seasonal);
        // Slow and obvious: every possible entry of the timer, one by one.
        const all: number[] = [];
        const most = Math.min(timer.longestRunSeconds, 120 * timer.runStepSeconds);
        for (let one = timer.runStepSeconds; one <= most; one += timer.runStepSeconds)
          if (adjustedSeconds(one, percent, timer.seasonal) === shown) all.push(one);
        const found = enteredFromShown(shown, percent, timer);
        expect(found?.least).toBe(all[0]);
        if (all.at(-1) !== most) expect(found?.most).toBe(all.at(-1));
      },
    ),
    { numRuns: 400, seed: 6 },
  );
});

test('what turns out to be set otherwise is noted as found, and then keyed in as planned', () => {
  const { plan } = gardenFrom(randomFrom(9));
  const [program] = plan.programs;
  if (!program) throw new Error('no program');
  const slip = { type: 'extra-start', program: program.letter, start: '15:15' } as const;
  const found = settingsWith(plan, [{ type: 'clock', ahead: 43_200 }, slip]);
  expect(found?.programs[0]?.starts).toEqual([...program.starts, '15:15']);
  const lines = keyInLines(plan, found, nowFor(plan), true);
  expect(lines.map(({ id, value }) => [id, value])).toEqual([
    [`start.${program.letter}.${program.starts.length + 1}`, { kind: 'time', second: null }],
  ]);
  expect(settingsWith(plan, [{ type: 'clock', ahead: 43_200 }])).toBeNull();
});

test('a state that is brought back leaves no difference', () => {
  const { plan } = gardenFrom(randomFrom(3));
  const { plan: other } = gardenFrom(randomFrom(4));
  const applied = applyChange(other, { type: 'replace-plan', plan });
  expect(applied.ok && planDifferences(applied.value.plan, plan, '24')).toEqual([]);
});

test('settings that change are named as on the panel, each once, with what stood there', () => {
  const before: Plan = {
    ...emptyPlan({ ...kind('Eight-station wall timer'), startsPerProgram: 3 }),
    programs: [
      {
        letter: 'A',
        starts: ['04:00'],
        runs: [{ station: 1, seconds: 1320 }],
        days: { rule: 'weekdays', weekdays: ['mon', 'thu'] },
      },
    ],
  };
  const [a] = before.programs;
  const after: Plan = {
    ...before,
    settings: { stationDelaySeconds: 30 },
    programs: a
      ? [
          {
            ...a,
            starts: ['02:05', '03:30'],
            runs: [{ station: 1, seconds: 1110 }],
            days: { rule: 'weekdays', weekdays: ['tue', 'sat'] },
          },
        ]
      : [],
  };
  expect(changedSettings(before, after, nowFor(before))).toEqual([
    { what: 'A start time 1', before: '4:00 am', after: '2:05 am' },
    { what: 'A start time 2', before: 'off', after: '3:30 am' },
    { what: 'A station 1', before: '22 min', after: '18 min 30 s' },
    { what: 'A days', before: 'Mon Thu', after: 'Tue Sat' },
    { what: 'Station delay', before: 'off', after: '30 s' },
  ]);
  expect(changedSettings(before, before, nowFor(before))).toEqual([]);
});
