/** The wiring test: readings as people write them, what they mean in comparison, and the next step. */
import { describe, expect, test } from '@jest/globals';
import {
  emptyPlan,
  judgeWiring,
  LiveBench,
  parseReading,
  SHIPPED_KINDS,
  stateOf,
  wireMeaning,
  wireNext,
  type StationTest,
} from '@water-clock/core';

const read = (...readings: readonly string[]): StationTest[] =>
  readings.map((reading, i) => ({ station: i + 1, reading }));
const states = (...readings: readonly string[]) =>
  judgeWiring(read(...readings)).map(({ state }) => state);

test.each([
  ['0.21 A', { of: 'current', milliamps: 210 }],
  ['0,21A', { of: 'current', milliamps: 210 }],
  ['210 mA', { of: 'current', milliamps: 210 }],
  ['38 Ω', { of: 'resistance', ohms: 38 }],
  ['38 ohms', { of: 'resistance', ohms: 38 }],
  ['1.2 kΩ', { of: 'resistance', ohms: 1200 }],
  ['27 V', { of: 'voltage', volts: 27 }],
  ['38', null],
  ['wet', null],
  ['-3 A', null],
  ['1e9 A', null],
])('%s is read as %j', (text, reading) => {
  expect(parseReading(text)).toEqual(reading);
});

test('the limits of a reading by itself, from both sides', () => {
  const of = (text: string) => {
    const reading = parseReading(text);
    return reading && stateOf(reading);
  };
  expect(['29 mA', '30 mA', '1000 mA', '1001 mA'].map(of)).toEqual([
    ...['open', 'good', 'good', 'short'],
  ]);
  expect(['7 Ω', '8 Ω', '2000 Ω', '2001 Ω'].map(of)).toEqual(['short', 'good', 'good', 'open']);
  expect(of('27 V')).toBeNull();
});

describe('beside each other', () => {
  test('one that draws less or more than its neighbours, in amps and in ohms alike', () => {
    expect(states('200 mA', '210 mA', '120 mA', '220 mA', '420 mA')).toEqual([
      ...['good', 'good', 'low', 'good', 'high'],
    ]);
    expect(states('30 Ω', '32 Ω', '55 Ω', '15 Ω')).toEqual(['good', 'good', 'low', 'high']);
  });

  test('with one neighbour nothing can be compared, nor amps with ohms', () => {
    expect(states('200 mA', '420 mA')).toEqual(['good', 'good']);
    expect(states('200 mA', '210 mA', '38 Ω')).toEqual(['good', 'good', 'good']);
  });

  test('nearly all open: the common, and not each of them', () => {
    const all = judgeWiring(read('0 mA', '0 mA', '1 mA', '0 mA', '210 mA'));
    expect(all.map(({ isCommon }) => isCommon)).toEqual([true, true, true, true, false]);
    expect(judgeWiring(read('0 mA', '210 mA')).some(({ isCommon }) => isCommon)).toBe(false);
    expect(judgeWiring(read('0 mA', '0 mA', '210 mA')).some(({ isCommon }) => isCommon)).toBe(
      false,
    );
  });

  test('what the person said of it goes before its reading; without either it is not judged', () => {
    expect(
      judgeWiring([
        { station: 1, wiring: 'short', reading: '210 mA' },
        { station: 2, result: 'dead' },
        { station: 3, reading: '27 V' },
      ]),
    ).toMatchObject([{ station: 1, state: 'short' }]);
  });
});

test('every state leads to the next step of the ladder, and a good one that stays dry to the valve', () => {
  const lines = judgeWiring([
    { station: 1, reading: '210 mA', result: 'waters' },
    { station: 2, reading: '205 mA', result: 'dead' },
    { station: 3, reading: '0 mA' },
    { station: 4, reading: '2400 mA' },
    { station: 5, reading: '110 mA' },
    { station: 6, reading: '450 mA' },
    { station: 7, reading: '9 kΩ' },
    { station: 8, reading: '2 Ω' },
  ]);
  expect(lines.map(({ next }) => next)).toEqual([
    ...[null, 'valve', 'wire', 'wire', 'wire', 'valve', 'valve', 'valve'],
  ]);
  expect(lines.map((line) => `${wireMeaning(line)} ${wireNext(line) ?? ''}`.trim()))
    .toMatchInlineSnapshot(`
   [
     "Wire and coil are good.",
     "Wire and coil are good. Next: open the valve manually. If it waters, the fault is inside the valve. If not, the water is shut off.",
     "No current: bad output, wire or coil. Next: take its wire off the terminal and measure the resistance to the common. If it reads 20 to 60 Ω, the output is bad.",
     "Too much current: burnt coil or two wires touching. Next: take its wire off the terminal and measure the resistance to the common. If it reads 20 to 60 Ω, the output is bad.",
     "Less current than its neighbours: bad splice or a long, thin wire. Next: measure its resistance at the terminal and check the splices.",
     "More current than its neighbours: two valves on one station, or a failing coil. Next: at the valve, count the coils on this wire and measure each by itself.",
     "Open circuit: broken wire, bad splice or burnt-out coil. Next: measure the coil by itself at the valve. If it reads 20 to 60 Ω, the wire is bad.",
     "Short circuit: burnt coil or two wires touching. Next: measure the coil by itself at the valve. If it reads 20 to 60 Ω, the wire is bad.",
   ]
  `);
});

describe('on the bench', () => {
  const timer = SHIPPED_KINDS.find(({ kind }) => kind.timer.stationCount === 8)?.kind.timer;
  if (!timer) throw new Error('no kind with eight stations');
  const benchWith = (...faults: readonly ('sticks' | 'dead' | 'shorts' | 'shut')[]) => {
    const bench = new LiveBench({
      ...{ plan: emptyPlan(timer), now: 1_812_000_000, ahead: 0, kind: null },
      style: { clock: '24' },
    });
    faults.forEach((fault, i) => bench.act({ garden: { fault, station: i + 1, on: true } }));
    return bench;
  };

  test('the meter tells a broken circuit and a short, and not what is wrong with the valve itself', () => {
    const bench = benchWith('dead', 'shorts', 'shut', 'sticks');
    const found = judgeWiring(bench.wiringTest()).map(({ state }) => state);
    expect(found).toEqual(['open', 'short', ...Array.from({ length: 6 }, () => 'good')]);
  });

  test('none of the three waters, and the box shows the short while it gives it current', () => {
    const bench = benchWith('dead', 'shorts', 'shut');
    bench.act({ world: { do: 'manual', seconds: 60 } });
    const shown = Array.from({ length: 5 }, () => {
      bench.advance(bench.now + 30);
      const { short } = bench.lamps();
      bench.advance(bench.now + 30);
      return short;
    });
    expect(shown).toEqual([false, true, false, false, false]);
    expect(
      bench
        .garden()
        .slice(0, 4)
        .map(({ seconds }) => seconds),
    ).toEqual([0, 0, 0, 60]);
    bench.act({ garden: { fault: 'shorts', station: 2, on: false } });
    expect(judgeWiring(bench.wiringTest())[1]?.state).toBe('good');
  });
});
