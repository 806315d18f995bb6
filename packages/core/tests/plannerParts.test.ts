/** Parts of the planner alone, each compared with something plainer: counting dates, trying everything, adding up. */
import { describe, expect, test } from '@jest/globals';
import { parseDate, readBriefText, writeBrief, type Brief, type Plan } from '@water-clock/core';
import { wishOf, type BriefStation } from '../src/brief/brief.ts';
import { isIn, weekdaysOfMask } from '../src/time/dayRules.ts';
import { civilOf, weekdayIndexOf } from '../src/time/calendar.ts';
import { Candidates } from '../src/planner/candidates.ts';
import { demandsOf } from '../src/planner/demands.ts';
import { nightChoices } from '../src/planner/nights.ts';
import { LeftOpen } from '../src/planner/proof.ts';
import { setUp } from '../src/planner/setup.ts';
import { mayBeOn, type SlotKind } from '../src/planner/slots.ts';
import { breachOf } from '../src/planner/verify.ts';
import { workOut } from '../src/planner/workOut.ts';
import { realisticBrief } from './plannerBriefs.ts';

const FROM = parseDate('2027-01-04') ?? 0;
const setupOf = (brief: Brief) => setUp(brief, {}, undefined);
const briefs = Array.from({ length: 12 }, (_, seed) =>
  realisticBrief(seed, [4, 9, 14][seed % 3] ?? 4),
);

describe('patterns of days', () => {
  const { patterns } = setupOf(realisticBrief(2, 9)).rules;
  const some = patterns.all.filter((_, i) => i % 7 === 0);

  test('the mean is what sixteen years of dates come to, but for what a count of days leaves over', () => {
    const days = 16 * 1461;
    for (const { set, mean } of some) {
      let dates = 0;
      for (let day = FROM; day < FROM + days; day++) if (isIn(set, day)) dates++;
      expect(Math.abs((dates * 7) / days - mean)).toBeLessThan(0.01);
    }
  });

  test('some days later they keep to weekdays and dates, where each of their dates does', () => {
    let kept = 0;
    for (const { set } of some.slice(0, 30))
      for (const later of [0, 1])
        for (const [allowed, parity] of [
          [0b0011111, null],
          [0b1111111, 'even'],
          [0b1010100, null],
        ] as const) {
          let each = true;
          for (let day = FROM; day < FROM + 1500; day++) {
            if (!isIn(set, day)) continue;
            const isAllowed = (allowed >> weekdayIndexOf(day + later)) & 1;
            const isEven = civilOf(day + later).day % 2 === 0;
            if (!isAllowed || (parity === 'even' && !isEven)) each = false;
          }
          const answer = patterns.keepsTo(set, later, allowed, parity);
          expect([set, later, allowed, parity, answer]).toEqual([
            set,
            later,
            allowed,
            parity,
            each,
          ]);
          if (each) kept++;
        }
    expect(kept).toBeGreaterThan(5);
  });

  test('two meet where a date of one is so many days before a date of the other', () => {
    for (const a of some.slice(0, 12))
      for (const b of some.slice(12, 24))
        for (const k of [0, 1]) {
          let meet = false;
          for (let day = FROM; day < FROM + 3000 && !meet; day++)
            meet = isIn(a.set, day) && isIn(b.set, day + k);
          expect(patterns.meet(a.set, b.set, k)).toBe(meet);
        }
  });

  test('the most dates of a week, Monday to Sunday', () => {
    for (const { set } of some.filter(({ set }) => set.every === 1).slice(0, 20)) {
      let most = 0;
      for (let monday = FROM; monday < FROM + 2800; monday += 7) {
        let dates = 0;
        for (let day = monday; day < monday + 7; day++) if (isIn(set, day)) dates++;
        most = Math.max(most, dates);
      }
      expect([weekdaysOfMask(set.weekdays), patterns.mostInWeek(set, 1)]).toEqual([
        weekdaysOfMask(set.weekdays),
        most,
      ]);
    }
  });
});

describe('kinds of program', () => {
  test.each(briefs.map((brief, seed) => [seed, brief] as const))(
    'hold the stations that may be on their days, and no two groups that are to be apart, brief %i',
    (_, brief) => {
      const { kinds, needs, rules } = setupOf(brief);
      const apart = wishOf(brief).apart;
      for (const kind of kinds) {
        const groups = new Set<string | null>();
        for (const [i, need] of needs.entries()) {
          if (!kind.eligible[i]) continue;
          groups.add(need.group);
          for (const pattern of kind.variants.slice(0, 3))
            expect(mayBeOn(brief, rules.patterns, need, pattern)).toBe(true);
        }
        for (const [a, b] of apart) expect(groups.has(a) && groups.has(b)).toBe(false);
        expect(new Set(kind.variants.map(({ mean }) => mean.toFixed(9))).size).toBe(1);
      }
    },
  );

  test('choices of two leave no station without a program, and none that would do is missing', () => {
    for (const brief of briefs.slice(0, 6)) {
      const setup = setupOf(brief);
      const choices = new Candidates(setup, new LeftOpen()).withPrograms(2);
      const keyOf = (kinds: readonly SlotKind[]) =>
        kinds
          .map(({ id }) => id)
          .sort((a, b) => a - b)
          .join();
      const listed = new Set(choices.map(keyOf));
      for (const kinds of choices)
        for (const [i] of setup.needs.entries())
          expect(kinds.some(({ eligible }) => eligible[i] === 1)).toBe(true);
      // Each is wanted by some station that the other does not serve.
      const wanted = setup.kinds.flatMap((first, j) =>
        setup.kinds.slice(j + 1).flatMap((second) => {
          const serves = setup.needs.every(
            ({ number: _n }, i) =>
              setup.drafting.column(first, 1)[i] !== Infinity ||
              setup.drafting.column(second, 1)[i] !== Infinity,
          );
          const isAlone = (a: SlotKind, b: SlotKind) =>
            setup.needs.some((_n, i) => a.eligible[i] === 1 && b.eligible[i] === 0);
          return serves && isAlone(first, second) && isAlone(second, first)
            ? [keyOf([first, second])]
            : [];
        }),
      );
      if (listed.size < 2000) for (const key of wanted) expect(listed).toContain(key);
    }
  });

  test('shares of the starts are all there are, and each is no better than it can be', () => {
    const setup = setupOf(realisticBrief(4, 9));
    const open = new LeftOpen();
    const candidates = new Candidates(setup, open);
    const choices = candidates.withPrograms(2).slice(0, 20);
    for (const total of [2, 3, 4]) {
      const ranked = candidates.withStarts(choices, total);
      expect(ranked.length).toBeGreaterThan(0);
      for (const { kinds, starts, off } of ranked) {
        expect(starts.reduce((sum, count) => sum + count, 0)).toBe(total);
        const least = setup.needs.map((_, i) =>
          Math.min(...kinds.map((kind, j) => setup.drafting.offOf(i, kind, starts[j] ?? 1))),
        );
        expect(off).toBeLessThanOrEqual(Math.round(least.reduce((a, b) => a + b, 0) * 1000));
      }
    }
    expect(open.complete).toBe(true);
  });

  test('nights of several kinds: as many as kinds, of their own variants, never the same choice twice', () => {
    const setup = setupOf(realisticBrief(5, 14));
    const kinds = setup.kinds.slice(0, 3);
    const { choices, complete } = nightChoices(kinds, setup.rules.brief, setup.rules.patterns);
    expect(complete).toBe(false);
    const keys = choices.map((nights) => nights.map(({ key }) => key).join(' | '));
    expect(new Set(keys).size).toBe(keys.length);
    for (const nights of choices)
      nights.forEach((pattern, j) => expect(kinds[j]?.variants).toContain(pattern));
    // One program alone: if nothing depends on the nights, the most popular is enough.
    const plain = nightChoices(
      kinds.slice(0, 1),
      { ...setup.rules.brief, rules: {}, mowing: undefined } as unknown as Brief,
      setup.rules.patterns,
    );
    expect([plain.choices.length, plain.complete]).toEqual([1, true]);
  });
});

describe('demands', () => {
  test.each(briefs.map((brief, seed) => [seed, brief] as const))(
    'each is at its path, can be left out, and its milder forms are sound, brief %i',
    (_, brief) => {
      const demands = demandsOf(brief);
      expect(demands.length).toBeGreaterThan(0);
      const isSound = (other: Brief) => {
        const read = readBriefText(writeBrief(other));
        return read.ok ? true : read.faults;
      };
      for (const { path, without, milder } of demands) {
        const at = path.reduce<unknown>(
          (part, key) => (part as Record<string | number, unknown> | undefined)?.[key],
          brief,
        );
        expect([path, at === undefined]).toEqual([path, false]);
        expect(isSound(without(brief))).toBe(true);
        let count = 0;
        for (const { brief: other } of milder(brief)) {
          if (++count > 12) break;
          expect(isSound(other)).toBe(true);
          expect(writeBrief(other)).not.toBe(writeBrief(brief));
        }
      }
    },
  );
});

describe('hard rules, asked of the engine alone', () => {
  const brief: Brief = {
    ...realisticBrief(2, 4),
    timer: {
      ...realisticBrief(2, 4).timer,
      dayRules: ['daily', 'weekdays'],
      programCount: 3,
      startsPerProgram: 3,
      startStepMinutes: 1,
      cycleSoak: 'none',
      seasonal: { ...realisticBrief(2, 4).timer.seasonal, scope: 'timer' },
    },
    settings: {},
    stations: [1, 2].map((number): BriefStation => ({
      number,
      weeklySeconds: 3600,
      group: number === 1 ? 'lawn' : 'beds',
      days: { least: 2, most: 4 },
    })),
    rules: { noWaterWindows: [{ from: '09:00', to: '18:00' }] },
    mowing: { weekdays: ['fri'] },
    wish: { headroomPercent: 120, apart: [['lawn', 'beds']] },
  };
  const { plan: good } = workOut(brief);
  if (!good) throw new Error('the brief has a plan');
  const edited = (change: (program: Plan['programs'][number], i: number) => object): Plan => ({
    ...good,
    programs: good.programs.map((program, i) => ({ ...program, ...change(program, i) })),
  });
  const codeOf = (plan: Plan, wanted = brief) => breachOf(wanted, plan)?.code ?? null;

  test('the plan of the planner keeps them all', () => {
    expect(good.programs).toHaveLength(2);
    expect(breachOf(brief, good)).toBeNull();
  });

  test('groups that are to be apart share no program; nothing asks so of others', () => {
    const [a] = good.programs;
    const shared: Plan = {
      ...good,
      programs: [
        {
          ...a,
          letter: 'A',
          starts: a?.starts ?? [],
          days: a?.days ?? null,
          runs: good.programs.flatMap(({ runs }) => runs).sort((x, y) => x.station - y.station),
        },
      ],
    };
    expect(codeOf(shared)).toBe('apart');
    const other = { ...brief, wish: { ...brief.wish, apart: [['lawn', 'pots']] as const } };
    expect(
      codeOf(shared, { ...other, wish: { ...other.wish, apart: [['lawn', 'pots']] } }),
    ).not.toBe('apart');
  });

  test.each([
    [
      'overlap',
      edited(() => ({ starts: ['03:00'], days: { rule: 'weekdays', weekdays: ['mon', 'wed'] } })),
    ],
    ['forbidden-hour', edited((_, i) => (i === 0 ? { starts: ['08:59'] } : {}))],
    ['days', edited((_, i) => (i === 0 ? { days: { rule: 'daily' } } : {}))],
    [
      'mowing-day',
      edited((_, i) => (i === 0 ? { days: { rule: 'weekdays', weekdays: ['mon', 'fri'] } } : {})),
    ],
    ['program-of-station', edited((_, i) => (i === 0 ? { runs: [] } : {}))],
    [
      'not-on-timer',
      edited((_, i) => (i === 0 ? { starts: ['01:00', '02:00', '03:00', '04:00'] } : {})),
    ],
  ] as const)('%s is told', (code, plan) => {
    expect(codeOf(plan)).toBe(code);
  });

  test('wishes: one program, one start, days of one rule', () => {
    const wishing = (wish: Brief['wish']) =>
      codeOf(good, { ...brief, wish: { ...brief.wish, ...wish } });
    expect(wishing({ programs: 'one' })).toBe('wish');
    expect(wishing({ days: 'interval' })).toBe('wish');
    expect(wishing({ starts: 'one' })).toBe(
      good.programs.some(({ starts }) => starts.length > 1) ? 'wish' : null,
    );
  });

  test('an overlap beyond 100 percent counts up to the wished headroom, and tells the percent', () => {
    // Ten minutes between two cycles of twenty: free at 100 %, not at 160 %.
    const tight = edited((program, i) => ({
      days: { rule: 'weekdays', weekdays: ['mon', 'wed', 'thu'] },
      starts: [i === 0 ? '03:00' : '03:24'],
      runs: program.runs.map((run) => ({ ...run, seconds: run.seconds > 0 ? 1200 : 0 })),
    }));
    const wanted = {
      ...brief,
      timer: { ...brief.timer, seasonal: { ...brief.timer.seasonal, highestPercent: 200 } },
    };
    const plan = { ...tight, timer: wanted.timer };
    expect(breachOf({ ...wanted, wish: { ...brief.wish, headroomPercent: 120 } }, plan)).toBeNull();
    expect(breachOf({ ...wanted, wish: { ...brief.wish, headroomPercent: 150 } }, plan)).toEqual({
      code: 'overlap',
      percent: 130,
    });
  });
});
