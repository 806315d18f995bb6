/** Overlaps, headroom and blocked times against the slow reference model, on random plans. Failures print their seed. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  blockedStarts,
  check,
  emptyPlan,
  epochDayOf,
  formatTime,
  readPlan,
  TIMER_KINDS,
  type Check,
  type Days,
  type Plan,
  type Program,
} from '@water-clock/core';
import { LAST_DAY } from '../src/time/calendar.ts';
import { type Overlap } from '../src/engine/overlap.ts';
import { anyPlan, weeklyPlan } from './randomPlans.ts';
import {
  overlapsAmong,
  referenceCycles,
  referenceOverlaps,
  referencePairsBySecond,
  referenceSteps,
} from './referenceCycles.ts';
import { cases, enough, enoughOfFew, fewCases, isLong } from './cases.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });
const line = ({ first: a, second: b, sharedSeconds }: Overlap) =>
  `${a.letter}${a.start}@${a.day} ${b.letter}${b.start}@${b.day} ${sharedSeconds}`;
const lines = ({ overlaps }: Check) => overlaps.map(line).sort();

const uniform = (plan: Plan): Plan => {
  const { monthlyPercent: _dropped, ...settings } = plan.settings;
  return { ...plan, settings };
};

/**
 * Headroom is right if nothing overlaps at it or at a step halfway to it, and something does at the next step. `npm run bench` checks the
 * steps between.
 */
function expectHeadroom(plan: Plan, headroom: number | null, on: number, days: number): void {
  const steps = referenceSteps(plan.timer);
  const at = headroom === null ? -1 : steps.indexOf(headroom);
  expect(headroom === null || at >= 0).toBe(true);
  const free = (step: number | undefined) =>
    step === undefined || referenceOverlaps(plan, on, days, step).length === 0;
  expect(at < 0 || (free(steps[at]) && free(steps[at >> 1]))).toBe(true);
  if (at + 1 < steps.length)
    expect([steps[at + 1], free(steps[at + 1])]).toEqual([steps[at + 1], false]);
}

/** Whether both cycles of an overlap exist on their dates, and share the stated time. */
function isTrue(plan: Plan, { first, second, sharedSeconds }: Overlap, percent?: number): boolean {
  const [a, b] = [first, second].map(({ letter, start, day }) =>
    referenceCycles(plan, day, 1, percent).find(
      (cycle) => cycle.letter === letter && cycle.start === start,
    ),
  );
  return (
    a !== undefined &&
    b !== undefined &&
    Math.min(a.ends, b.ends) - Math.max(a.begins, b.begins) === sharedSeconds
  );
}

describe('overlaps are found on the dates on which a date-by-date search finds them', () => {
  test('with weekly rules and one percent all year: everything shows within five weeks', () => {
    let withOverlap = 0;
    fc.assert(
      fc.property(weeklyPlan, (random) => {
        const plan = uniform(random);
        const found = check(plan, ON);
        expect(lines(found)).toEqual(referenceOverlaps(plan, ON, 35));
        if (found.overlaps.length > 0) withOverlap++;
      }),
      { seed: 20270601, numRuns: cases(250) },
    );
    // Both answers must have occurred.
    expect(withOverlap).toBeGreaterThan(enough(50));
    expect(withOverlap).toBeLessThan(cases(225));
  });

  test('and living through every second of two weeks finds the same pairs', () => {
    let found = 0;
    fc.assert(
      fc.property(weeklyPlan, (random) => {
        const { wateringResumes: _dropped, ...settings } = uniform(random).settings;
        const plan = { ...random, settings };
        const pairs = check(plan, ON).overlaps.map(({ first, second }) =>
          [first, second]
            .map(({ letter, start }) => `${letter}${start}`)
            .sort()
            .join(' '),
        );
        expect(pairs.sort()).toEqual(referencePairsBySecond(plan, ON, 14));
        found += pairs.length;
      }),
      { seed: 3600, numRuns: cases(50) },
    );
    expect(found).toBeGreaterThan(enough(1));
  });

  test('with every rule mixed: in sixteen months the same, and what comes later is true', () => {
    const HORIZON = 500;
    const seen = { soon: 0, later: 0, none: 0 };
    fc.assert(
      fc.property(anyPlan, fc.integer({ min: 0, max: 400 }), (plan, after) => {
        const on = ON + after;
        const found = check(plan, on);
        const soon = found.overlaps.filter(({ first, second }) => {
          return Math.max(first.day, second.day) < on + HORIZON;
        });
        expect(soon.map(line).sort()).toEqual(referenceOverlaps(plan, on, HORIZON));
        for (const overlap of found.overlaps.filter((overlap) => !soon.includes(overlap))) {
          expect([line(overlap), isTrue(plan, overlap)]).toEqual([line(overlap), true]);
          seen.later++;
        }
        seen[soon.length > 0 ? 'soon' : 'none']++;
      }),
      { seed: 400, numRuns: fewCases(60) },
    );
    expect(Math.min(seen.soon, seen.none)).toBeGreaterThan(enoughOfFew(7));
    expect(seen.later).toBeGreaterThan(0);
  });

  test('in the last days of the calendar only dates that are left count', () => {
    fc.assert(
      fc.property(anyPlan, fc.integer({ min: 0, max: 9 }), (plan, left) => {
        const on = LAST_DAY - left;
        const found = check(plan, on);
        expect(lines(found)).toEqual(referenceOverlaps(plan, on, 35));
        expectHeadroom(plan, found.headroomPercent, on, 35);
      }),
      { seed: 9999, numRuns: cases(20) },
    );
  });
});

test('each pair of day rules, with the second start before, at and after the end of the first, on every distance of dates', () => {
  const rules: Days[] = [
    { rule: 'daily' },
    { rule: 'weekdays', weekdays: ['mon', 'thu'] },
    { rule: 'interval', everyDays: 2, firstDate: '2027-06-02' },
    { rule: 'interval', everyDays: 5, firstDate: '2027-05-31', blockedWeekdays: ['sat'] },
    { rule: 'odd' },
    { rule: 'odd', blockedWeekdays: ['sun', 'mon'] },
    { rule: 'even' },
  ];
  const [kind] = TIMER_KINDS;
  if (!kind) throw new Error('there is a first kind');
  // An hour from 22:30, 23:30 or 23:59; when the second one comes, five minutes of it are left, or over.
  const startPairs = [
    ['22:30', '23:29'],
    ['22:30', '23:30'],
    ['23:30', '00:29'],
    ['23:30', '00:30'],
    ['23:59', '23:59'],
  ] as const;
  const STATION = [{ number: 1 }];
  const timers = [false, true].map((skips) => emptyPlan({ ...kind, oddDaysSkip31: skips }));
  // Each rule's dates are listed once for each start.
  const listed = new Map<string, ReturnType<typeof referenceCycles>>();
  const listOf = (plan: Plan, program: Program) => {
    const key = JSON.stringify([plan.timer.oddDaysSkip31, program]);
    // Weekdays, intervals of 10 days and months of 31 days all occur within four years.
    const list = listed.get(key) ?? referenceCycles({ ...plan, programs: [program] }, ON, 1462);
    listed.set(key, list);
    return list;
  };
  let overlapping = 0;
  let compared = 0;
  for (const timer of timers)
    for (const first of rules)
      for (const second of rules)
        for (const [earlier, later] of startPairs) {
          const programs: Program[] = [
            { letter: 'A', starts: [earlier], runs: [{ station: 1, seconds: 3600 }], days: first },
            { letter: 'B', starts: [later], runs: [{ station: 1, seconds: 300 }], days: second },
          ];
          const plan: Plan = { ...timer, stations: STATION, programs };
          const found = lines(check(plan, ON));
          const slow = overlapsAmong(programs.flatMap((program) => listOf(plan, program)));
          expect([first, second, earlier, later, found]).toEqual([
            first,
            second,
            earlier,
            later,
            slow,
          ]);
          compared++;
          if (found.length > 0) overlapping++;
        }
  expect(compared).toBe(490);
  // At the very second the first ends nothing overlaps, whatever the rules.
  expect(overlapping).toBeGreaterThan(150);
  expect(overlapping).toBeLessThan(294);
});

test('how often in a mean year is what four hundred years of dates have', () => {
  let compared = 0;
  fc.assert(
    fc.property(anyPlan, (random) => {
      const { wateringResumes: _dropped, ...settings } = random.settings;
      const plan = { ...random, settings };
      const { overlaps, perYear } = check(plan, ON);
      const [overlap] = overlaps;
      fc.pre(overlap !== undefined);
      // This plan's intervals repeat with the 400 years only after many of them; 40 years are close enough to the average.
      const names = [overlap.first, overlap.second].map(
        (cycleRef) => `${cycleRef.letter}${cycleRef.start}`,
      );
      const cycles = referenceCycles(plan, ON, 14_610).filter((cycle) =>
        names.includes(`${cycle.letter}${cycle.start}`),
      );
      cycles.sort((a, b) => a.begins - b.begins);
      let events = 0;
      cycles.forEach((a, i) => {
        for (let k = i + 1; k < cycles.length && (cycles[k]?.begins ?? 0) < a.ends; k++)
          if (
            new Set([a, cycles[k]].map((b) => `${b?.letter}${b?.start}`)).size ===
            new Set(names).size
          )
            events++;
      });
      const mean = perYear[0] ?? 0;
      expect(Math.abs(events / 40 - mean)).toBeLessThan(0.3 + mean / 50);
      compared++;
    }),
    { seed: 365, numRuns: cases(4) },
  );
  expect(compared).toBeGreaterThan(enough(2));
});

test('headroom is the last step before a date-by-date search finds an overlap', () => {
  const answers = new Set<number | null>();
  const agree = (plans: fc.Arbitrary<Plan>, horizon: number, numRuns: number) =>
    fc.assert(
      fc.property(plans, (plan) => {
        const found = check(plan, ON);
        answers.add(found.headroomPercent);
        const { beyond } = found;
        // Dates beyond the search may coincide first; then the date is named and must be true.
        const later = beyond !== null && beyond.meets.second.day >= ON + horizon;
        if (later) expect(isTrue(plan, beyond.meets, beyond.percent)).toBe(true);
        else expectHeadroom(plan, found.headroomPercent, ON, horizon);
        if (beyond && !later)
          expect(referenceOverlaps(plan, ON, horizon, beyond.percent)).toContain(
            line(beyond.meets),
          );
      }),
      { seed: 140, numRuns },
    );
  agree(weeklyPlan.map(uniform), 35, cases(60));
  agree(anyPlan, 300, cases(15));
  // The few cases of a short run have one answer each.
  if (isLong) expect(answers).toContain(null);
  expect(answers.size).toBeGreaterThan(enough(8));
});

test('a percent that others move overlaps where some two percents of its range bring cycles together', () => {
  const answers = { overlap: 0, clear: 0 };
  const RANGE = { lowest: 95, highest: 105 };
  fc.assert(
    fc.property(weeklyPlan, (random) => {
      const seasonal = { ...random.timer.seasonal, scope: 'timer' as const };
      const settings = {
        ...uniform(random).settings,
        percentDrivenBy: 'sensor' as const,
        percentRange: RANGE,
      };
      const plan: Plan = { ...random, settings, timer: { ...random.timer, seasonal } };
      const { driven } = check(plan, ON);
      const lengths = Array.from({ length: 11 }, (_, i) => referenceCycles(plan, ON, 35, 95 + i));
      const all = lengths.flat().sort((a, b) => a.begins - b.begins);
      // Cycles of one start on one date are the same cycle at another percent, unless the start is listed twice.
      const twice = plan.programs.some(({ starts }) => new Set(starts).size < starts.length);
      fc.pre(!twice);
      const overlap = all.some((a, i) => {
        for (let k = i + 1; k < all.length; k++) {
          const b = all[k];
          if (!b || b.begins >= a.ends) return false;
          if (a.letter !== b.letter || a.start !== b.start || a.day !== b.day) return true;
        }
        return false;
      });
      expect(driven?.overlap !== null).toBe(overlap);
      answers[overlap ? 'overlap' : 'clear']++;
    }),
    { seed: 95, numRuns: cases(30) },
  );
  expect(Math.min(answers.overlap, answers.clear)).toBeGreaterThan(enough(7));
});

test('the times to which a start may not be moved are those at which a check then finds it overlapping', () => {
  const answers = { blocked: 0, free: 0 };
  fc.assert(
    fc.property(anyPlan, fc.nat({ max: 287 }), (random, fives) => {
      const plan = { ...random, timer: { ...random.timer, startStepMinutes: 5 as const } };
      const [first] = plan.programs;
      const [start, ...others] = first?.starts ?? [];
      fc.pre(first !== undefined && start !== undefined);
      const to = formatTime(fives * 300);
      const moved = { ...first, starts: [to, ...others] };
      const after = check({ ...plan, programs: [moved, ...plan.programs.slice(1)] }, ON);
      const overlaps = after.overlaps.some(({ first: a, second: b }) =>
        [a, b].some((cycleRef) => cycleRef.letter === first.letter && cycleRef.start === to),
      );
      const blocked = blockedStarts(plan, first.letter, start, ON).includes(fives * 300);
      expect([to, blocked]).toEqual([to, overlaps]);
      answers[overlaps ? 'blocked' : 'free']++;
    }),
    { seed: 288, numRuns: cases(120) },
  );
  expect(Math.min(answers.blocked, answers.free)).toBeGreaterThan(enough(20));
});

test('random plans are sound, so that the comparisons above compare something', () => {
  for (const plans of [weeklyPlan, anyPlan])
    fc.assert(
      fc.property(plans, (plan) => {
        expect(readPlan(plan)).toEqual({ ok: true, value: plan });
      }),
      { seed: 1, numRuns: cases(100) },
    );
});
