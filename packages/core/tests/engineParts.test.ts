/** Parts of the engine alone: gaps between beginnings, cycles with many runs, each limit of a timer. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { emptyPlan, epochDayOf, TIMER_KINDS, type Plan, type Program } from '@water-clock/core';
import { cycleSecondsAt, shapeAt } from '../src/engine/cycle.ts';
import { cycleModel } from '../src/engine/cycleModel.ts';
import { Effort } from '../src/engine/effort.ts';
import { gapsOf } from '../src/engine/gaps.ts';
import { ProgramCycles } from '../src/engine/nominal.ts';
import type { TimerLimit } from '../src/findings/finding.ts';
import { notFitting, notOnTimer } from '../src/findings/limits.ts';
import { Meetings } from '../src/time/meetings.ts';
import { cases, enough } from './cases.ts';
import { weeklyPlan } from './randomPlans.ts';
import { referenceCycles } from './referenceCycles.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });
const [kind] = TIMER_KINDS;
if (!kind) throw new Error('there is a first kind');

describe('the gap from a beginning to the next', () => {
  test('is what a list of all beginnings has, start by start', () => {
    let compared = 0;
    fc.assert(
      fc.property(weeklyPlan, (random) => {
        // Not held back by anything, and at a percent that omits no cycle.
        const plan: Plan = {
          ...random,
          settings: {},
          timer: {
            ...random.timer,
            inWindow: 'ignore',
            seasonal: { ...random.timer.seasonal, scope: 'none' },
          },
          programs: random.programs.map(({ noWaterWindows: _windows, ...program }) => program),
        };
        const effort = new Effort();
        const programs = plan.programs.map((program) => new ProgramCycles(plan, program, effort));
        const runs = new Set(referenceCycles(plan, ON, 35).map(({ letter }) => letter));
        const complete = programs.filter(({ letter }) => runs.has(letter));
        const gaps = gapsOf(
          complete,
          { from: ON, resumes: -Infinity },
          new Meetings(effort),
          effort,
        );
        const begins = referenceCycles(plan, ON, 35).sort((a, b) => a.begins - b.begins);
        for (const { letter, starts } of complete)
          for (const { start } of starts) {
            const own = gaps.filter(
              ({ beginning }) =>
                beginning.program.letter === letter && beginning.start.start === start,
            );
            const least = Math.min(...own.map(({ seconds }) => seconds));
            let plain = Infinity;
            begins.forEach((cycle, i) => {
              const isOwn = cycle.letter === letter && cycle.start === start;
              const isEarly = cycle.day < ON + 28;
              const next = begins[i + 1];
              if (isOwn && isEarly && next) plain = Math.min(plain, next.begins - cycle.begins);
              // One that begins at the same second is before it in the list, or after it.
              const before = begins[i - 1];
              if (isOwn && isEarly && before?.begins === cycle.begins) plain = 0;
            });
            // Nothing asks beyond the longest possible cycle.
            if (least === Infinity) continue;
            expect([letter, start, least]).toEqual([letter, start, plain]);
            compared++;
          }
      }),
      { seed: 1410, numRuns: cases(40) },
    );
    expect(compared).toBeGreaterThan(enough(20));
  });
});

describe('a cycle in many pieces', () => {
  test('is as long where rounds are skipped as where each piece is worked through', () => {
    let pieces = 0;
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            seconds: fc.integer({ min: 600, max: 20_000 }),
            cycleSeconds: fc.integer({ min: 3, max: 60 }),
            soakSeconds: fc.integer({ min: 0, max: 90 }),
            flowLpm: fc.integer({ min: 0, max: 40 }),
          }),
          { minLength: 1, maxLength: 5 },
        ),
        fc.integer({ min: 1, max: 3 }),
        fc.integer({ min: 0, max: 20 }),
        fc.constantFrom(undefined, 40, 60),
        (stations, atOnce, delay, flowLimitLpm) => {
          const program: Program = {
            letter: 'A',
            starts: ['04:00'],
            days: { rule: 'daily' },
            runs: stations.map(({ seconds }, i) => ({ station: i + 1, seconds })),
          };
          const plan: Plan = {
            ...emptyPlan({
              ...kind,
              cycleSoak: 'station',
              stationsAtOnce: 3,
              stationCount: 5,
              seasonal: { ...kind.seasonal, scope: 'none', roundToSeconds: 1 },
            }),
            settings: {
              stationDelaySeconds: delay,
              stationsAtOnce: atOnce,
              ...(flowLimitLpm === undefined ? {} : { flowLimitLpm }),
            },
            stations: stations.map(({ seconds: _seconds, ...station }, i) => ({
              number: i + 1,
              ...station,
            })),
            programs: [program],
          };
          const model = cycleModel(plan, program);
          const { seconds, runs } = shapeAt(model, 100, new Effort());
          expect(cycleSecondsAt(model, 100, new Effort())).toBe(seconds);
          // Each station gets its run time to the second, in runs no longer than allowed, with its soak between them.
          for (const [i, { seconds: wanted, cycleSeconds, soakSeconds }] of stations.entries()) {
            const own = runs.filter(({ station }) => station === i + 1);
            expect(own.reduce((sum, { on, off }) => sum + off - on, 0)).toBe(wanted);
            own.forEach(({ on, off }, k) => {
              expect(off - on).toBeLessThanOrEqual(cycleSeconds);
              const next = own[k + 1];
              if (next) expect(next.on - off).toBeGreaterThanOrEqual(soakSeconds);
            });
          }
          pieces += runs.length;
        },
      ),
      { seed: 1411, numRuns: cases(20) },
    );
    expect(pieces).toBeGreaterThan(enough(4000));
  });
});

describe('each limit of a timer', () => {
  const timer = {
    ...kind,
    programCount: 2,
    startsPerProgram: 2,
    startStepMinutes: 15 as const,
    runStepSeconds: 60,
    longestRunSeconds: 3600,
    dayRules: ['weekdays' as const],
    longestIntervalDays: 14,
    cycleSoak: 'station' as const,
    longestStationDelaySeconds: 60,
    inWindow: 'ignore' as const,
    stationsAtOnce: 1,
    seasonal: {
      ...kind.seasonal,
      scope: 'timer' as const,
      lowestPercent: 10,
      highestPercent: 150,
      stepPercent: 10,
      byMonth: false,
    },
  };
  const A: Program = {
    letter: 'A',
    starts: ['04:00'],
    runs: [{ station: 1, seconds: 600 }],
    days: { rule: 'weekdays', weekdays: ['mon'] },
  };
  const good: Plan = { ...emptyPlan(timer), programs: [A] };
  const withA = (fields: Partial<Program>): Plan => ({ ...good, programs: [{ ...A, ...fields }] });
  const withSettings = (settings: Plan['settings']): Plan => ({ ...good, settings });
  const window = [{ from: '09:00', to: '17:00' }];

  test('a plan within all of them has none', () => {
    expect(notOnTimer(good)).toEqual([]);
    expect(
      notOnTimer(
        withSettings({ seasonalPercent: 150, stationDelaySeconds: 60, stationsAtOnce: 1 }),
      ),
    ).toEqual([]);
    expect(
      notOnTimer(withA({ starts: ['04:00', '05:15'], runs: [{ station: 1, seconds: 3600 }] })),
    ).toEqual([]);
  });

  test.each<readonly [TimerLimit['what'], string, Plan]>([
    ['percent', 'settings.seasonalPercent', withSettings({ seasonalPercent: 155 })],
    [
      'no-months',
      'settings.monthlyPercent',
      withSettings({ monthlyPercent: new Array<number>(12).fill(90) }),
    ],
    ['delay', 'settings.stationDelaySeconds', withSettings({ stationDelaySeconds: 61 })],
    ['no-windows', 'settings.noWaterWindows', withSettings({ noWaterWindows: window })],
    ['at-once', 'settings.stationsAtOnce', withSettings({ stationsAtOnce: 2 })],
    ['start-count', 'programs[0].starts', withA({ starts: ['04:00', '05:00', '06:00'] })],
    ['start-step', 'programs[0].starts[1]', withA({ starts: ['04:00', '05:07'] })],
    [
      'run-longest',
      'programs[0].runs[0].seconds',
      withA({ runs: [{ station: 1, seconds: 3660 }] }),
    ],
    ['run-step', 'programs[0].runs[0].seconds', withA({ runs: [{ station: 1, seconds: 90 }] })],
    ['day-rule', 'programs[0].days.rule', withA({ days: { rule: 'odd' } })],
    ['no-percent-here', 'programs[0].seasonalPercent', withA({ seasonalPercent: 90 })],
    ['no-soak', 'programs[0].cycleSeconds', withA({ cycleSeconds: 60, soakSeconds: 60 })],
    ['at-once', 'programs[0].stationsAtOnce', withA({ stationsAtOnce: 2 })],
    ['no-windows', 'programs[0].noWaterWindows', withA({ noWaterWindows: window })],
  ])('%s at %s', (what, field, plan) => {
    const found = notOnTimer(plan);
    expect(found).toMatchObject([
      { code: 'not-on-timer', severity: 'error', limit: { what }, where: { field } },
    ]);
    // A program's limits name the program; those of the settings do not.
    expect(found[0]?.where.program).toBe(field.startsWith('programs') ? 'A' : undefined);
  });

  test('an interval beyond the longest is told beside the rule that the timer does not have', () => {
    const plan = withA({ days: { rule: 'interval', everyDays: 20, firstDate: '2027-06-01' } });
    expect(notOnTimer(plan).map(({ where }) => where.field)).toEqual([
      'programs[0].days.rule',
      'programs[0].days.everyDays',
    ]);
  });

  test('a plan for another timer is held against that one', () => {
    const wider = { ...timer, startStepMinutes: 1 as const };
    const plan: Plan = { ...withA({ starts: ['04:07'] }), timer: wider };
    expect(notOnTimer(plan)).toEqual([]);
    expect(notFitting(plan, timer)).toMatchObject([{ where: { program: 'A', start: '04:07' } }]);
  });
});
