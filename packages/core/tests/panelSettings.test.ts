/** Panel lines of the whole timer, of stations and of days; and the resulting card. */
import { describe, expect, test } from '@jest/globals';
import {
  emptyPlan,
  factoryPlan,
  keyInLines,
  panelLines,
  parseDate,
  readBackSentence,
  TIMER_KINDS,
  type PanelNow,
  type Plan,
  type Program,
  type Timer,
} from '@water-clock/core';
import { panelText } from '../src/panel/value.ts';

const kind = TIMER_KINDS[2];
if (!kind) throw new Error('no kinds');
const today = parseDate('2027-06-07') ?? 0;
const A: Program = {
  letter: 'A',
  starts: ['04:00'],
  runs: [{ station: 1, seconds: 600 }],
  days: { rule: 'daily' },
};
const planOf = (timer: Partial<Timer>, more: Partial<Plan> = {}): Plan => ({
  ...emptyPlan({ ...kind, stationCount: 2, dialect: {}, ...timer }),
  programs: [A],
  ...more,
});
const nowOf = ({ timer }: Plan): PanelNow => ({
  style: { dialect: timer.dialect ?? {}, clock: '24' },
  today,
  secondOfDay: 36_000,
});
const shown = (plan: Plan, id: RegExp) => {
  const now = nowOf(plan);
  return panelLines(plan, now)
    .filter((line) => id.test(line.id))
    .map(({ name, value }) => `${name}: ${panelText(value, now.style)}`);
};

describe('what a panel shows', () => {
  test('soaks of stations or of programs; without a longest piece there is none', () => {
    const stations = [
      { number: 1, cycleSeconds: 300, soakSeconds: 1200 },
      { number: 2, soakSeconds: 600 },
    ];
    expect(shown(planOf({ cycleSoak: 'station' }, { stations }), /soak|longest/)).toEqual([
      'Station 1 longest cycle: 5 min',
      'Station 1 soak: 20 min',
      'Station 2 longest cycle: 0',
      'Station 2 soak: 0',
    ]);
    const programs = [{ ...A, cycleSeconds: 240 }];
    expect(shown(planOf({ cycleSoak: 'program' }, { programs }), /soak|longest/)).toEqual([
      'A longest cycle: 4 min',
      'A soak: 0',
    ]);
    expect(shown(planOf({ cycleSoak: 'none' }, { stations }), /soak|longest/)).toEqual([]);
  });

  test('hours and dates without water, where the timer knows them', () => {
    const settings = {
      noWaterWindows: [
        { from: '09:00', to: '18:00' },
        { from: '20:00', to: '22:00', weekdays: ['sun' as const] },
      ],
      offDaysOfMonth: [13, 31],
    };
    expect(shown(planOf({ inWindow: 'pause' }, { settings }), /windows|off-days/)).toEqual([
      'No-water hours 1: 9:00 to 18:00',
      'No-water hours 2: 20:00 to 22:00 SUN',
      'No-water dates: 13 31',
    ]);
    expect(shown(planOf({ inWindow: 'ignore' }, { settings: {} }), /windows|off-days/)).toEqual([]);
  });

  test('percents: of the timer, of each month, of each program, or none', () => {
    const seasonal = (scope: Timer['seasonal']['scope'], byMonth = false) => ({
      seasonal: { ...kind.seasonal, scope, byMonth },
    });
    const monthlyPercent = Array.from({ length: 12 }, (_, i) => 50 + 10 * i);
    const monthly = { settings: { monthlyPercent } };
    expect(shown(planOf(seasonal('none')), /percent/)).toEqual([]);
    expect(shown(planOf(seasonal('timer')), /percent/)).toEqual(['Seasonal percent: 100 %']);
    expect(shown(planOf(seasonal('timer', true), monthly), /percent/)).toHaveLength(12);
    expect(shown(planOf(seasonal('timer', true), monthly), /percent/)[6]).toBe(
      'July percent: 110 %',
    );
    const programs = [
      { ...A, seasonalPercent: 80 },
      { ...A, letter: 'B' },
    ];
    expect(shown(planOf(seasonal('program'), { programs }), /percent/)).toEqual([
      'A percent: 80 %',
      'B percent: 100 %',
    ]);
  });

  test('stations at once are as many as the timer can where nobody has set fewer', () => {
    const timer = { stationsAtOnce: 3, longestStationDelaySeconds: 0 };
    expect(shown(planOf(timer), /at-once|^delay$/)).toEqual(['Stations at once: 3']);
    expect(shown(planOf(timer, { settings: { stationsAtOnce: 2 } }), /at-once/)).toEqual([
      'Stations at once: 2',
    ]);
    expect(shown(planOf({ stationsAtOnce: 1 }), /at-once/)).toEqual([]);
  });

  test('a sensor that is not there is obeyed by nobody; a rain delay has a date', () => {
    expect(shown(planOf({}, { settings: { sensor: 'none' } }), /sensor/)).toEqual([
      'Rain sensor: none fitted',
    ]);
    expect(shown(planOf({}), /sensor/)).toHaveLength(3);
    const settings = { wateringResumes: '2027-06-10T05:00', mode: 'off' as const };
    expect(shown(planOf({}, { settings }), /rain-delay|mode/)).toEqual([
      'Rain delay: 10 June',
      'Watering: OFF',
    ]);
  });

  test('days: all seven weekdays are every day; a count keeps its blocked ones; hours have a first start', () => {
    const days = (rule: Program['days']) =>
      shown(planOf({}, { programs: [{ ...A, days: rule }] }), /^(days|count|phase)\.A/);
    expect(
      days({ rule: 'weekdays', weekdays: ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] })[0],
    ).toBe('A days: EVERY DAY');
    expect(
      days({ rule: 'interval', everyDays: 3, firstDate: '2027-06-08', blockedWeekdays: ['fri'] }),
    ).toEqual(
      expect.arrayContaining(['A days: INTERVAL, not FRI', 'A every … days: 3', 'A days left: 1']),
    );
    expect(days({ rule: 'hours', everyHours: 36, first: '2027-06-07T05:30' })).toEqual([
      'A days: EVERY … HOURS',
      'A every … hours: 36',
      'A first start time: 5:30',
    ]);
  });
});

describe('the card', () => {
  test('sets the percent once before runs, and again afterwards, where it comes late in the order', () => {
    const order = ['starts', 'runs', 'days', 'percent', 'mode'] as const;
    const card = (percentAt: 'early' | 'late') => {
      const plan = planOf(
        {
          seasonal: { ...kind.seasonal, scope: 'timer', byMonth: true },
          dialect: {
            order:
              percentAt === 'late'
                ? [...order]
                : ['percent', ...order.filter((one) => one !== 'percent')],
          },
        },
        { settings: { monthlyPercent: Array.from({ length: 12 }, () => 80) } },
      );
      return keyInLines(plan, null, nowOf(plan), true)
        .map(({ id }) => id)
        .filter((id) => /percent|run\.A\.1/.test(id));
    };
    const months = Array.from({ length: 12 }, (_, i) => `percent.${i + 1}`);
    for (const ids of [card('late'), card('early')]) {
      expect(ids.slice(0, 2)).toEqual(['percent.timer.100', 'run.A.1']);
      expect(ids.slice(2)).toEqual(months);
    }
  });

  test('of a kind whose factory settings nobody has noted there is no card after a reset; with a run preset every station has it', () => {
    const plan = planOf(
      {},
      {
        stations: [
          { number: 1, name: 'Lawn', overhead: true },
          { number: 2, needsPump: true, underCover: false },
        ],
      },
    );
    expect(factoryPlan(plan, null)).toBeNull();
    expect(factoryPlan(plan, {})).toBeNull();
    const preset = (runSeconds: number) => ({
      preset: {
        settings: {},
        programs: [
          { letter: 'A', starts: ['06:00'], days: { rule: 'daily' } as const, runSeconds },
        ],
      },
    });
    expect(factoryPlan(plan, preset(600))).toMatchObject({
      stations: plan.stations,
      programs: [
        {
          runs: [
            { station: 1, seconds: 600 },
            { station: 2, seconds: 600 },
          ],
        },
      ],
    });
    expect(factoryPlan(plan, preset(0))?.programs[0]?.runs).toEqual([]);
  });

  test('a slip is told with what must stand there, and whose value it is', () => {
    const plan = planOf({});
    const now = nowOf(plan);
    const line = keyInLines(plan, null, now, true).find(({ id }) => id === 'start.A.1');
    if (!line) throw new Error('no line');
    const said = (slip: Parameters<typeof readBackSentence>[0]) =>
      readBackSentence(slip, line, now.style);
    expect(said({ ok: false, slip: 'not-understood', shown: null })).toMatch(
      /^We cannot read this\. Type /,
    );
    expect(said({ ok: false, slip: 'half-a-day', shown: null })).toBe(
      'am and pm are swapped. It should say 4:00.',
    );
    expect(said({ ok: false, slip: 'other-line', shown: null, of: 'Program A start 2' })).toBe(
      'That belongs on another line. This is the value for Program A start 2. It should say 4:00.',
    );
  });
});
