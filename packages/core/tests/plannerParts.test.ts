/** The parts of the planner by themselves, each against something plainer: counting dates, trying all, adding up. */
import { describe, expect, test } from '@jest/globals';
import {
  applyChange,
  parseDate,
  readBriefText,
  writeBrief,
  type Brief,
  type Plan,
} from '@water-clock/core';
import { wishOf, type BriefStation } from '../src/brief/brief.ts';
import { leastRun, nearestRun, runChoice } from '../src/brief/runChoices.ts';
import { Effort } from '../src/engine/effort.ts';
import { isIn, weekdaysOfMask } from '../src/time/dayRules.ts';
import { civilOf, weekdayIndexOf } from '../src/time/calendar.ts';
import { Candidates } from '../src/planner/candidates.ts';
import { compareCosts, type Cost } from '../src/planner/cost.ts';
import { demandsOf } from '../src/planner/demands.ts';
import type { Drafted } from '../src/planner/drafted.ts';
import { lengthened, restored, type Fitting } from '../src/planner/fitRuns.ts';
import type { Need } from '../src/planner/needs.ts';
import { nightChoices } from '../src/planner/nights.ts';
import { packed, type Load } from '../src/planner/pack.ts';
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
      // Both are asked for by some station that the other does not serve.
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
    // One program by itself: where nothing asks on which nights, the best liked is enough.
    const plain = nightChoices(
      kinds.slice(0, 1),
      { ...setup.rules.brief, rules: {}, mowing: undefined } as unknown as Brief,
      setup.rules.patterns,
    );
    expect([plain.choices.length, plain.complete]).toEqual([1, true]);
  });
});

describe('packing nights', () => {
  /** Kinds with every two days of three for a night, as if there were no more. */
  const kindsOf = (variants: readonly (readonly number[])[]): SlotKind[] =>
    [0, 1].map((id) => ({
      id,
      mean: 2,
      eligible: new Uint8Array(4).fill(1),
      variants: variants.map((nights, rank) => ({
        key: nights.join(),
        set: {
          every: 1,
          phase: 0,
          weekdays: nights.reduce((mask, night) => mask | (1 << night), 0),
          monthDays: 0xffff_fffe | 0,
        },
        days: () => ({ rule: 'daily' as const }),
        isHours: false,
        dates: nights.length,
        mean: nights.length,
        rank,
      })),
    }));
  const { patterns } = setupOf(realisticBrief(2, 9)).rules;
  const monthDays = patterns.all.find(({ set }) => set.every === 1)?.set.monthDays ?? 0;
  const kinds = kindsOf([
    [0, 3],
    [1, 4],
    [0, 1],
  ]).map((kind) => ({
    ...kind,
    variants: kind.variants.map((v) => ({ ...v, set: { ...v.set, monthDays } })),
  }));
  const loadOf = (seconds: readonly number[], room: number, most: number): Load => ({
    kinds,
    seconds: seconds.map((each) => [each, each]),
    options: seconds.map((_, i) => (i === 0 ? [0] : [0, 1])),
    room,
    longest: [most, most],
    headroom: 1.3,
  });
  /** The same in its plainest form: each night's cycles, added up. */
  const hasRoom = (load: Load, assignment: readonly number[], variants: readonly number[]) => {
    const totals = [0, 1].map((j) =>
      assignment.reduce((sum, own, i) => sum + (own === j ? (load.seconds[i]?.[j] ?? 0) : 0), 0),
    );
    if (![0, 1].every((j) => assignment.includes(j))) return false;
    if (totals.some((total, j) => total > (load.longest[j] ?? 0))) return false;
    return Array.from({ length: 7 }, (_, night) => {
      const own = totals.filter(
        (_t, j) => ((kinds[j]?.variants[variants[j] ?? 0]?.set.weekdays ?? 0) >> night) & 1,
      );
      const sum = own.reduce((a, b) => a + b, 0);
      return sum * 1.3 - 0.3 * Math.max(0, ...own) <= load.room;
    }).every(Boolean);
  };

  test('what it proposes has room; where trying all finds nothing it proposes nothing', () => {
    const outcomes = { packed: 0, none: 0, missed: 0 };
    for (let seed = 0; seed < 120; seed++) {
      const seconds = [0, 1, 2, 3].map((i) => 300 + ((seed * 7919 + i * 104_729) % 17) * 100);
      const load = loadOf(seconds, 2000 + (seed % 5) * 600, 3000);
      const found = packed(load);
      if (found) {
        const variants = found.patterns.map((pattern, j) =>
          (kinds[j]?.variants ?? []).findIndex(({ key }) => key === pattern.key),
        );
        expect(found.assignment.every((j, i) => load.options[i]?.includes(j))).toBe(true);
        expect(hasRoom(load, found.assignment, variants)).toBe(true);
        outcomes.packed++;
        continue;
      }
      let any = false;
      for (let way = 0; way < 8 * 9 && !any; way++) {
        const assignment = [0, way & 1, (way >> 1) & 1, (way >> 2) & 1];
        const days = Math.floor(way / 8);
        any = hasRoom(load, assignment, [days % 3, Math.floor(days / 3)]);
      }
      outcomes[any ? 'missed' : 'none']++;
    }
    // It may miss what is there, but not in a case as small as this.
    expect(outcomes.missed).toBe(0);
    expect(Math.min(outcomes.packed, outcomes.none)).toBeGreaterThan(15);
  });
});

describe('fitting runs', () => {
  const [brief] = briefs;
  if (!brief) throw new Error('no brief');
  const timer = { ...brief.timer, runStepSeconds: 60, longestRunSeconds: 14_400 };
  const wanted = [3600, 2400, 1800];
  // The casts hold: fitting asks of a need only what it wants and whether it is pinned, and of a plan only its spare time.
  const needs = wanted.map((seconds) => ({ wanted: seconds, pinned: null }) as Need);
  const drafted = (spare: number) => ({ drafts: [], placement: { spare } }) as unknown as Drafted;
  const fittingOf = (room: number, assignment = [0, 0, 0]): Fitting => ({
    timer,
    needs,
    full: wanted.map((seconds) => nearestRun(timer, seconds, 3, Infinity)),
    runsAWeek: [3, 3, 3],
    assignment,
    build: (runs) => {
      const total = runs.reduce((sum, run) => sum + (run?.seconds ?? 0), 0);
      return total <= room ? drafted(room - total) : null;
    },
  });
  const least = wanted.map((seconds) => leastRun(timer, seconds, 3));
  const secondsOf = (runs: readonly ({ seconds: number } | null)[]) =>
    runs.reduce((sum, run) => sum + (run?.seconds ?? 0), 0);

  test('as little is cut as leaves all with room, to the step', () => {
    const full = secondsOf(fittingOf(0).full);
    for (let room = secondsOf(least); room <= full; room += 60)
      expect(restored(fittingOf(room), least)?.placement.spare).toBe(0);
    expect(restored(fittingOf(secondsOf(least) - 60), least)).toBeNull();
  });

  test('where only one of two programs has too little room the other keeps its runs', () => {
    const runsOf: number[][] = [];
    const fitting: Fitting = {
      ...fittingOf(0, [0, 1, 1]),
      build: (runs) => {
        const seconds = runs.map((run) => run?.seconds ?? 0);
        if ((seconds[0] ?? 0) > 1140) return null;
        runsOf.push(seconds);
        return drafted(0);
      },
    };
    expect(restored(fitting, least)).not.toBeNull();
    expect(runsOf.at(-1)).toEqual(
      [1140, 800, 600].map((s, i) => (i === 0 ? s : Math.round(s / 60) * 60)),
    );
  });

  test('a run that is as near but longer is taken where it leaves less to spare, and never one beyond the longest', () => {
    // 50 min a week in three runs: 16 or 17 min are 48 and 51; half way between two steps both are as near.
    const need = { wanted: 2970, pinned: null } as Need;
    const full = [nearestRun(timer, 2970, 3, Infinity)];
    const fitting: Fitting = {
      ...fittingOf(2000),
      needs: [need],
      full,
      runsAWeek: [3],
      assignment: [0],
    };
    const whole = fitting.build(full);
    if (!whole) throw new Error('no room');
    const short = whole.placement.spare ?? 0;
    expect(full[0]?.seconds).toBe(960);
    expect(lengthened(whole, fitting, () => Infinity).placement.spare).toBe(short - 60);
    expect(lengthened(whole, fitting, () => 960).placement.spare).toBe(short);
    // Nothing to win where nothing is to spare.
    expect(lengthened(drafted(0), fitting, () => Infinity).placement.spare).toBe(0);
  });

  test('a run gives what is set, at 100 percent, so many times a week', () => {
    expect(runChoice(timer, 3600, 1200, 3)).toEqual({
      seconds: 1200,
      given: 3600,
      off: 0,
      fits: true,
    });
    expect(runChoice(timer, 3600, 1080, 3)).toMatchObject({ off: 0.1, fits: true });
    expect(runChoice(timer, 3600, 1020, 3)).toMatchObject({ given: 3060, fits: false });
  });
});

describe('what is proven', () => {
  const brief = realisticBrief(1, 4);
  const needs = [{ wanted: 3600 }] as unknown as readonly Need[];
  const cost: Cost = [0, 0, 2, 4, 12, 300];
  const proofWith = (...passed: readonly (readonly [number, number, number?])[]) => {
    const open = new LeftOpen();
    for (const [programs, starts, off] of passed) open.add(programs, starts, off);
    return open.proofOf(cost, 0, brief, needs);
  };

  test('nothing left open: the plan is the cheapest', () => {
    expect(proofWith()).toEqual({ optimal: true, bound: cost });
  });

  test('the cheapest that was passed over is the bound, in whatever order it was', () => {
    expect(proofWith([2, 3, 5], [2, 2, 9], [3, 3, 0])).toEqual({
      optimal: false,
      bound: [0, 0, 2, 2, 9, 0],
    });
    expect(proofWith([3, 3, 0])).toEqual({ optimal: true, bound: cost });
  });

  test('what is as good but for the end of watering leaves that open alone', () => {
    const { optimal, bound } = proofWith([2, 4, 12]);
    expect([optimal, compareCosts(bound, cost) <= 0]).toEqual([false, true]);
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
    // Ten minutes of room between two cycles of twenty: free at 100 %, not at 160 %.
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

  test('the engine counts its work, and stops where there is too much', () => {
    const effort = new Effort(10);
    expect(() => effort.spend(11)).toThrow();
    expect(applyChange(good, { type: 'several', changes: [] }).ok).toBe(true);
  });
});
