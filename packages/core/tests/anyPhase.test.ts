/** Intervals of unknown phase: claims are true for every combination of phases, each tried separately. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  check,
  EMPTY_SURVEY,
  emptyPlan,
  epochDayOf,
  formatDate,
  onAnyDay,
  phaseFields,
  proveAnyPhase,
  simulate,
  TIMER_KINDS,
  unknownPhases,
  verdictWords,
  type Plan,
} from '@water-clock/core';
import { prove } from '../src/engine/verdict.ts';
import { cases } from './cases.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });
const kind = TIMER_KINDS[1];
if (!kind) throw new Error('no kinds');

const interval = (everyDays: number, phase = 0) =>
  ({ rule: 'interval', everyDays, firstDate: formatDate(ON + phase) }) as const;

/** Three programs close together: two by interval, one by weekday, some past midnight. */
const anyGarden = fc
  .record({
    starts: fc.array(fc.constantFrom('23:00', '23:30', '00:15', '01:00', '05:00'), {
      minLength: 3,
      maxLength: 3,
    }),
    minutes: fc.array(fc.integer({ min: 5, max: 100 }), { minLength: 3, maxLength: 3 }),
    every: fc.tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 2, max: 5 })),
  })
  .map(({ starts, minutes, every }): Plan => ({
    ...emptyPlan(kind),
    stations: [1, 2, 3].map((number) => ({ number })),
    programs: ['A', 'B', 'C'].map((letter, i) => ({
      letter,
      starts: [starts[i] ?? '04:00'],
      runs: [{ station: i + 1, seconds: 60 * (minutes[i] ?? 10) }],
      days: i === 2 ? { rule: 'weekdays', weekdays: ['tue', 'sat'] } : interval(every[i] ?? 2),
    })),
  }));

const withPhases = (plan: Plan, phases: readonly number[]): Plan => ({
  ...plan,
  programs: plan.programs.map((program, i) =>
    program.days?.rule === 'interval'
      ? { ...program, days: interval(program.days.everyDays, phases[i]) }
      : program,
  ),
});

test('the verdict is the worst, the headroom the least, and every pair that ever meets is there', () => {
  let overlapping = 0;
  fc.assert(
    fc.property(anyGarden, (plan) => {
      const told = proveAnyPhase(plan, ON, ['A', 'B']);
      const [a, b] = plan.programs.map(({ days }) =>
        days?.rule === 'interval' ? days.everyDays : 1,
      );
      const all = Array.from({ length: a ?? 1 }, (_, i) =>
        Array.from({ length: b ?? 1 }, (_each, k) => prove(withPhases(plan, [i, k]), ON)),
      ).flat();
      const pairs = (overlaps: typeof told.overlaps) =>
        overlaps.map(({ first, second }) => [first.letter, second.letter].sort().join(''));
      expect([...new Set(pairs(told.overlaps))].sort()).toEqual(
        [...new Set(all.flatMap(({ overlaps }) => pairs(overlaps)))].sort(),
      );
      expect(told.verdict).toBe(
        all.some(({ verdict }) => verdict === 'overlap') ? 'overlap' : 'clear',
      );
      const headrooms = all.map(({ headroomPercent }) => headroomPercent);
      expect(told.headroomPercent).toBe(
        headrooms.includes(null) ? null : Math.min(...headrooms.map((one) => one ?? 0)),
      );
      if (told.verdict === 'overlap') overlapping++;
    }),
    { numRuns: cases(40), seed: 11 },
  );
  expect(overlapping).toBeGreaterThan(5);
});

test('a known phase can be clear where an unknown one is not, and the checks and the words say which', () => {
  const plan = withPhases(
    {
      ...emptyPlan(kind),
      stations: [{ number: 1 }, { number: 2 }],
      programs: ['A', 'B'].map((letter, i) => ({
        letter,
        starts: ['04:00'],
        runs: [{ station: i + 1, seconds: 600 }],
        days: interval(2),
      })),
    },
    [0, 1],
  );
  expect(check(plan, ON).verdict).toBe('clear');
  const told = check(plan, ON, { anyPhase: ['B'] });
  expect(told.verdict).toBe('overlap');
  const speech = { on: ON, clock: '24' } as const;
  expect(verdictWords(told, 'queue', speech, { anyPhase: ['B'] }).detail).toMatch(
    /The interval of B could not be read/,
  );
  // Both are drawn on every date some phase waters.
  const drawn = simulate(onAnyDay(plan, ['B']), ON, 4).cycles;
  expect(drawn.filter(({ due }) => due.letter === 'B')).toHaveLength(4);
  expect(drawn.filter(({ due }) => due.letter === 'A')).toHaveLength(2);
});

test('an interval is unknown until it is set anew', () => {
  const plan: Plan = {
    ...emptyPlan(kind),
    programs: [{ letter: 'B', starts: [], runs: [], days: interval(3) }],
  };
  const fields = phaseFields(plan, EMPTY_SURVEY, 'B', true);
  const survey = { ...EMPTY_SURVEY, unknownPhases: fields?.unknownPhases ?? [] };
  expect(unknownPhases(plan, survey)).toEqual(['B']);
  expect(unknownPhases(withPhases(plan, [1]), survey)).toEqual([]);
  expect(phaseFields(plan, survey, 'B', false)).toEqual({ unknownPhases: null });
  expect(phaseFields(plan, EMPTY_SURVEY, 'B', false)).toBeNull();
  expect(phaseFields(plan, EMPTY_SURVEY, 'C', true)).toBeNull();
});
