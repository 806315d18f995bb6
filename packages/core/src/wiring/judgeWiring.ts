/**
 * The wiring test: what a station's current, or its resistance at the terminal, says about wire, coil and output, and the next step. Limits
 * are those of ordinary 24-volt coils: 20 to 60 ohms, some 150 to 350 milliamps while holding.
 */
import { assertDefined } from '../document/assertDefined.ts';
import type { DiagnosticStep, StationTest, Wiring } from '../visit/visit.ts';

/** A meter reading. */
export type Reading =
  | { readonly of: 'current'; readonly milliamps: number }
  | { readonly of: 'resistance'; readonly ohms: number }
  | { readonly of: 'voltage'; readonly volts: number };

const UNITS: readonly (readonly [RegExp, (value: number) => Reading])[] = [
  [/^m ?a$/iu, (milliamps) => ({ of: 'current', milliamps })],
  [/^a$/iu, (amps) => ({ of: 'current', milliamps: amps * 1000 })],
  [/^(?:ω|Ω|ohms?)$/iu, (ohms) => ({ of: 'resistance', ohms })],
  [/^k(?:ω|Ω| ?ohms?)$/iu, (kilo) => ({ of: 'resistance', ohms: kilo * 1000 })],
  [/^v$/iu, (volts) => ({ of: 'voltage', volts })],
];

/** A reading as people write it: `0.21 A`, `210 mA`, `38 Ω`, `1.2 kΩ`, `27 V`; null if it cannot be read as one. */
export function parseReading(text: string): Reading | null {
  const match = /^(?<value>\d{1,6}(?:[.,]\d{1,4})?)\s*(?<unit>\D+)$/u.exec(text.trim());
  const { value = '', unit = '' } = match?.groups ?? {};
  const [, make] = UNITS.find(([like]) => like.test(unit.trim())) ?? [];
  return make ? make(Number(value.replace(',', '.'))) : null;
}

/** Below this current, or above this resistance, the circuit is open. */
const OPEN = { milliamps: 30, ohms: 2000 };
/** Above this current, or below this resistance, it is shorted. */
const SHORT = { milliamps: 1000, ohms: 8 };
/** A coil that differs from the others by more than this factor is unusual. */
const UNLIKE = 1.6;
/** With fewer good ones there is no comparison. */
const LEAST_OTHERS = 2;
/** This many open at once have a common cause: the common wire. */
const COMMON_SHARE = 0.7;

export type WireState = Wiring | 'low' | 'high';

/** A station's result in the test. */
export interface WireJudgement {
  readonly station: number;
  readonly state: WireState;
  /** How it was measured; null: the timer reported it. */
  readonly by: Reading['of'] | null;
  /** It is open together with nearly all others. */
  readonly isCommon: boolean;
  /** The next step; null: electrically good, and it waters. */
  readonly next: DiagnosticStep | null;
}

/** The state from a reading alone. */
export function stateOf(reading: Reading): Wiring | null {
  if (reading.of === 'voltage') return null;
  const size = reading.of === 'current' ? reading.milliamps : reading.ohms;
  const limits = reading.of === 'current' ? 'milliamps' : 'ohms';
  const more = reading.of === 'current' ? 'short' : 'open';
  const less = reading.of === 'current' ? 'open' : 'short';
  const [above, below] =
    reading.of === 'current' ? [SHORT[limits], OPEN[limits]] : [OPEN[limits], SHORT[limits]];
  return size > above ? more : size < below ? less : 'good';
}

const sizeOf = (reading: Reading): number | null =>
  reading.of === 'current' ? reading.milliamps : reading.of === 'resistance' ? reading.ohms : null;

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return assertDefined(
    sorted[Math.floor(sorted.length / 2)],
    'sorted[Math.floor(sorted.length / 2)]',
  );
}

type Tested = Pick<StationTest, 'station' | 'result' | 'wiring'> & {
  readonly reading: Reading | null;
};

/** Compares a good coil with the good ones measured the same way: fewer windings, or more. */
function unlike(one: Tested, all: readonly Tested[]): 'low' | 'high' | null {
  const own = one.reading && sizeOf(one.reading);
  if (!one.reading || own === null) return null;
  const others = all.flatMap(({ station, reading }) =>
    station !== one.station &&
    reading?.of === one.reading?.of &&
    reading &&
    stateOf(reading) === 'good'
      ? [assertDefined(sizeOf(reading), 'sizeOf(reading)')]
      : [],
  );
  if (others.length < LEAST_OTHERS) return null;
  const usual = median(others);
  const isMore = own > usual * UNLIKE;
  const isLess = own < usual / UNLIKE;
  if (!isMore && !isLess) return null;
  // Less resistance is more current.
  return isMore === (one.reading.of === 'current') ? 'high' : 'low';
}

function nextOf(
  state: WireState,
  by: Reading['of'] | null,
  isDead: boolean,
): DiagnosticStep | null {
  switch (state) {
    case 'good':
      return isDead ? 'valve' : null;
    case 'open':
    case 'short':
      // Resistance is measured with the wire off the terminal, so it is not the output.
      return by === 'resistance' ? 'valve' : 'wire';
    case 'low':
      return 'wire';
    case 'high':
      return 'valve';
  }
}

/** The wiring test's result for each tested station, in order. */
export function judgeWiring(tests: readonly StationTest[]): WireJudgement[] {
  const tested = tests.map(({ station, result, wiring, reading }): Tested => ({
    ...{ station, reading: reading === undefined ? null : parseReading(reading) },
    ...(result ? { result } : {}),
    ...(wiring ? { wiring } : {}),
  }));
  const found = tested.flatMap((one) => {
    const read = one.reading && stateOf(one.reading);
    const state = one.wiring ?? read;
    if (state === null) return [];
    return [
      {
        station: one.station,
        state: state === 'good' ? (unlike(one, tested) ?? state) : state,
        by: read ? assertDefined(one.reading, 'one.reading').of : null,
        isDead: one.result === 'dead',
      },
    ];
  });
  const open = found.filter(({ state }) => state === 'open').length;
  const isCommon = open > 2 && open >= found.length * COMMON_SHARE;
  return found.map(({ isDead, ...one }) => ({
    ...one,
    isCommon: isCommon && one.state === 'open',
    next: isCommon && one.state === 'open' ? 'wire' : nextOf(one.state, one.by, isDead),
  }));
}
