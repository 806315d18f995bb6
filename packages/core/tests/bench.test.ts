/** The bench timer: a million presses in any order show only what its kind can show; keying in from a card; weather, power and people. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  BENCH_KEYS,
  GARDEN_FAULTS,
  emptyPlan,
  epochDayOf,
  keyInLines,
  LiveBench,
  readPlan,
  SECONDS_PER_DAY,
  SHIPPED_KINDS,
  verdictOf,
  type BenchKey,
  type BenchStart,
  type Plan,
  type TimerKind,
} from '@water-clock/core';
import { cases } from './cases.ts';

const TODAY = epochDayOf({ year: 2027, month: 6, day: 2 });
const NOON = TODAY * SECONDS_PER_DAY + 12 * 3600;

const kindOf = (name: string): TimerKind => {
  const found = SHIPPED_KINDS.find(({ kind }) => kind.timer.name === name);
  if (!found) throw new Error(`no kind ${name}`);
  return found.kind;
};

const startOf = (kind: TimerKind, plan: Plan = emptyPlan(kind.timer)): BenchStart => ({
  plan,
  now: NOON,
  ahead: 0,
  kind,
  style: { clock: '12' },
});

const press = (bench: LiveBench, ...keys: BenchKey[]) => {
  for (const key of keys) {
    bench.act({ key });
    bench.advance(bench.now + 1);
  }
};

const shown = (bench: LiveBench) => {
  const { left, right, big, unit } = bench.display();
  return [left, right, `${big} ${unit}`.trim()].filter(Boolean).join(' | ');
};

/** Goes to the page with these headings. */
function pageTo(bench: LiveBench, headings: string): void {
  for (let n = 0; n < 500 && !shown(bench).startsWith(headings); n++) press(bench, 'page-on');
  expect(shown(bench)).toContain(headings);
}

/** Presses + until the display shows it. */
function turnTo(bench: LiveBench, says: string, key: BenchKey = 'more'): void {
  for (let n = 0; n < 2000 && !shown(bench).endsWith(`| ${says}`); n++) press(bench, key);
  expect(shown(bench)).toContain(`| ${says}`);
}

describe('what its kind can show', () => {
  const act = fc.oneof(
    { weight: 12, arbitrary: fc.constantFrom(...BENCH_KEYS).map((key) => ({ key })) },
    {
      weight: 1,
      arbitrary: fc
        .constantFrom('wet' as const, 'dry' as const, 'powerOff' as const, 'powerOn' as const)
        .map((kind) => ({ world: { do: kind } })),
    },
    {
      weight: 1,
      arbitrary: fc
        .tuple(fc.constantFrom(...GARDEN_FAULTS), fc.boolean())
        .map(([fault, on]) => ({ garden: { fault, station: 1, on } })),
    },
  );

  test.each(SHIPPED_KINDS.map(({ kind }) => [kind.timer.name, kind] as const))(
    '%s: any keys at any moment, and the same again from the log',
    (_, kind) => {
      fc.assert(
        fc.property(
          fc.array(fc.tuple(act, fc.integer({ min: 0, max: 4000 })), {
            minLength: 300,
            maxLength: 400,
          }),
          (acts) => {
            const bench = new LiveBench(startOf(kind));
            for (const [one, later] of acts) {
              bench.act(one);
              bench.advance(bench.now + (later % 4 === 0 ? later : 1));
              const display = bench.display();
              expect(display.isLit).toBe(bench.clock !== null);
              expect(display.big === '').toBe(!display.isLit);
              expect(`${display.big}${display.right}`).not.toMatch(/undefined|NaN|null/u);
            }
            // What was keyed in is a plan this timer can hold.
            expect(readPlan(JSON.parse(JSON.stringify(bench.plan))).ok).toBe(true);
            const again = LiveBench.replay(startOf(kind), bench.log, bench.now);
            expect(again.snapshot()).toEqual(bench.snapshot());
            const kept = new LiveBench(
              startOf(kind),
              JSON.parse(JSON.stringify(bench.snapshot())) as ReturnType<LiveBench['snapshot']>,
            );
            expect(kept.display()).toEqual(bench.display());
          },
        ),
        { seed: 51, numRuns: cases(3) },
      );
    },
  );
});

test('a box is set from the card of the office by its keys alone', () => {
  const kind = kindOf('Four-station wall timer');
  const bench = new LiveBench(startOf(kind));
  pageTo(bench, 'program A | start time 1 of 4');
  expect(shown(bench)).toBe('program A | start time 1 of 4 | OFF');
  press(bench, 'less');
  expect(shown(bench)).toBe('program A | start time 1 of 4 | 11:45 pm');
  press(bench, 'more');
  expect(shown(bench)).toBe('program A | start time 1 of 4 | OFF');
  turnTo(bench, '5:00 am');
  pageTo(bench, 'program A | station 1');
  turnTo(bench, '0:20');
  pageTo(bench, 'program A | station 2');
  turnTo(bench, '0:15');
  pageTo(bench, 'program A | days');
  turnTo(bench, 'EVERY DAY');
  expect(bench.plan.programs).toEqual([
    {
      letter: 'A',
      starts: ['05:00'],
      runs: [
        { station: 1, seconds: 1200 },
        { station: 2, seconds: 900 },
      ],
      days: { rule: 'daily' },
    },
  ]);
  expect(verdictOf(bench.plan, TODAY).verdict).toBe('clear');
  bench.advance(NOON + SECONDS_PER_DAY);
  expect(bench.cycles.map(({ letter, start, outcome }) => [letter, start, outcome])).toEqual([
    ['A', '05:00', 'ran'],
  ]);
  expect(bench.garden().map(({ seconds }) => seconds)).toEqual([1200, 900, 0, 0]);
});

test('a panel that wants to be told forgets what is not stored', () => {
  const bench = new LiveBench(startOf(kindOf('Six-station keypad timer')));
  pageTo(bench, 'program 1 | start time 1 of');
  press(bench, 'more', 'more');
  expect(bench.display()).toMatchObject({ isDraft: true });
  press(bench, 'page-on', 'page-back');
  expect(shown(bench)).toMatch(/start time 1 of \d \| OFF$/u);
  press(bench, 'more', 'store');
  expect(bench.display()).toMatchObject({ isDraft: false });
  expect(bench.plan.programs[0]?.starts).toEqual(['00:00']);
  // The second start appears only once the first is set.
  press(bench, 'page-on');
  expect(shown(bench)).toContain('start time 2 of');
});

test('programs above the fourth are hidden until they are opened', () => {
  const bench = new LiveBench(startOf(kindOf('Twenty-four-station two-wire timer')));
  const letters = () => {
    const seen = new Set<string>();
    for (let n = 0; n < 30; n++) {
      press(bench, 'program');
      seen.add(bench.display().left);
    }
    return seen.size;
  };
  expect(letters()).toBe(4);
  press(bench, 'page-back');
  for (let n = 0; n < 400 && bench.display().right !== 'more programs'; n++)
    press(bench, 'page-back');
  turnTo(bench, 'ON');
  expect(letters()).toBe(bench.plan.timer.programCount);
});

test('power, rain and a sticking valve do to box and garden what they do', () => {
  const usual = kindOf('Eight-station wall timer');
  const powerLoss = { clock: 'resets', settings: 'factory' } as const;
  const kind = { ...usual, timer: { ...usual.timer, powerLoss } };
  const plan = emptyPlan(kind.timer);
  const bench = new LiveBench(
    startOf(kind, { ...plan, stations: plan.stations.map((one) => ({ ...one, flowLpm: 10 })) }),
  );
  press(bench, 'by-hand', 'store');
  expect(bench.lamps()).toMatchObject({ stations: [1], pump: true, main: true });
  expect(shown(bench)).toBe('WED 2 June | station 1, 9:59 left | 12:00 pm');
  bench.act({ world: { do: 'wet' } });
  bench.advance(bench.now + 60);
  expect(bench.lamps()).toMatchObject({ stations: [], rain: true });
  expect(bench.garden()[0]).toMatchObject({ isWet: false });
  bench.act({ world: { do: 'dry' } });
  bench.act({ garden: { fault: 'sticks', station: 1, on: true } });
  bench.advance(NOON + 3600);
  // The cycle is over, and the valve is still open.
  expect(bench.lamps().stations).toEqual([]);
  expect(bench.garden()[0]).toMatchObject({ isWet: true, secondsLeft: null });
  bench.act({ garden: { fault: 'sticks', station: 1, on: false } });
  expect(bench.garden()[0]?.isWet).toBe(false);
  expect(bench.garden()[0]?.litres).toBeCloseTo(((3600 - 2 - 60) / 60) * 10, 0);
  bench.act({ world: { do: 'powerOff' } });
  press(bench, 'page-on', 'more', 'rest');
  expect(bench.display()).toMatchObject({ isLit: false, big: '' });
  bench.act({ world: { do: 'powerOn' } });
  // The clock restarts and blinks, and the factory program is back.
  expect(shown(bench)).toMatch(/^WED 1 January \| 12:00 am/u);
  expect(bench.display().flashes).toBe(true);
  expect(bench.plan.programs).toMatchObject([{ letter: 'A', starts: ['06:00'] }]);
  pageTo(bench, 'clock');
  press(bench, 'more');
  expect(bench.display().flashes).toBe(false);
});

test('at rest nothing starts; left alone the panel shows the time again', () => {
  const kind = kindOf('Eight-station wall timer');
  const plan: Plan = {
    ...emptyPlan(kind.timer),
    programs: [
      {
        letter: 'A',
        starts: ['13:00'],
        runs: [{ station: 3, seconds: 600 }],
        days: { rule: 'daily' },
      },
    ],
  };
  const bench = new LiveBench(startOf(kind, plan));
  press(bench, 'rest');
  expect(shown(bench)).toContain('resting');
  bench.advance(NOON + 3600 + 60);
  expect(bench.lamps().stations).toEqual([]);
  press(bench, 'by-hand', 'store');
  expect(bench.lamps().stations).toEqual([]);
  press(bench, 'rest', 'page-on');
  expect(bench.display().place).not.toBe('');
  bench.advance(bench.now + 121);
  expect(bench.display().place).toBe('');
});

test('keyed in as its pages say, nothing is left on the key-in card', () => {
  const kind = kindOf('Eight-station wall timer');
  const bench = new LiveBench(startOf(kind));
  pageTo(bench, 'program A | start time 2 of');
  turnTo(bench, '4:00 am');
  const style = { dialect: kind.timer.dialect ?? {}, clock: '12' as const };
  const now = { style, today: TODAY, secondOfDay: 43_200 };
  expect(keyInLines(bench.plan, bench.plan, now, true)).toEqual([]);
});
