/** Positions on the night strip, in pixels. Pure: from a night and a size to shapes. */
import { scaleLinear, type ScaleLinear } from 'd3-scale';
import { SECONDS_PER_DAY, type ClockSecond, type Night } from '@water-clock/core';
import type { NightSun } from './sun.ts';

export interface StripSize {
  readonly width: number;
  readonly rowHeight: number;
  /** Above the rows, for overlap labels. */
  readonly head: number;
}

/** Sizes of the large strip in pixels. */
export const STRIP = {
  /** Column of letters, left of the drawing. */
  letters: 34,
  /** Above the rows, for the sun and overlaps. */
  head: 34,
  foot: 22,
  sunLine: 10,
  overlapLine: 27,
  /** Bar over forbidden hours. */
  edge: 4,
  mowing: 7,
  /** Grip of a short cycle. */
  leastGrip: 24,
  roomForDigit: 14,
  roomForDigits: 22,
  roomForRules: 170,
  roomForMidnight: 560,
} as const;

/** Fewer programs get taller rows; on a phone all rows are lower. */
export const rowHeightOf = (programs: number, room: number): number =>
  programs > 6 || room < 500 ? 26 : 40;

/**
 * Height in pixels of the large strip for a number of programs, without the row of actual runs.
 *
 * @param room available width
 */
export const stripHeight = (programs: number, room: number): number =>
  STRIP.head + programs * rowHeightOf(programs, room) + STRIP.foot;

export interface Span {
  readonly x: number;
  readonly width: number;
}

export interface RunShape extends Span {
  readonly station: number;
  readonly y: number;
  readonly height: number;
}

export interface CycleShape extends Span {
  readonly letter: string;
  readonly start: string;
  readonly begins: ClockSecond;
  readonly ends: ClockSecond;
  readonly y: number;
  readonly height: number;
  readonly runs: readonly RunShape[];
  /** Whether another cycle runs at the same time. */
  readonly overlapped: boolean;
}

interface OverlapShape extends Span {
  readonly y: number;
  readonly height: number;
  readonly seconds: number;
  readonly letters: string;
}

interface RowShape {
  readonly letter: string;
  readonly y: number;
}

interface Tick {
  readonly x: number;
  readonly at: ClockSecond;
  /** Every third hour is labelled. */
  readonly named: boolean;
}

export interface StripGeometry {
  readonly width: number;
  readonly rowHeight: number;
  /** From one moment to another, clipped to the strip. */
  readonly span: (from: ClockSecond, to: ClockSecond) => Span;
  readonly scale: ScaleLinear<number, number>;
  readonly height: number;
  readonly rows: readonly RowShape[];
  readonly cycles: readonly CycleShape[];
  readonly overlaps: readonly OverlapShape[];
  /** What the timer really opens, in one lane; empty if that is what was intended. */
  readonly really: {
    readonly y: number;
    readonly runs: readonly (RunShape & { letter: string | null })[];
  } | null;
  readonly ticks: readonly Tick[];
  /** From sunset to sunrise, clipped to the strip. */
  readonly dark: Span | null;
}

const BLOCK_SHARE = 0.72;

/** Drawing of a cycle: its runs, or one block if there are too many. */
export const blocksOf = ({ runs, x, y, width, height, begins, ends }: CycleShape): RunShape[] =>
  runs.length > 0 || begins === ends ? [...runs] : [{ station: 0, x, y, width, height }];

/** Whether a night differs from the intended one: something waits, is lost, is cut, never starts, or comes from outside. */
export function differsFromIntent(night: Night): boolean {
  return (
    night.isPressed === true ||
    night.served.some(
      ({ intended, outcome, began, ended }) =>
        outcome === 'lost' || began !== intended?.begins || ended !== intended.ends,
    )
  );
}

/** Puts simultaneous runs into lanes of equal height, each in the first free lane. */
function laned<T extends { readonly on: number; readonly off: number }>(
  runs: readonly T[],
  top: number,
  height: number,
): { run: T; y: number; height: number }[] {
  const free: number[] = [];
  const lanes = [...runs]
    .sort((a, b) => a.on - b.on)
    .map((run) => {
      const found = free.findIndex((until) => until <= run.on);
      const lane = found < 0 ? free.length : found;
      free[lane] = run.off;
      return { run, lane };
    });
  const each = height / Math.max(1, free.length);
  return lanes.map(({ run, lane }) => ({ run, y: top + lane * each, height: each }));
}

/** @param letters programs that get a row, in order */
export function stripGeometry(
  night: Night,
  letters: readonly string[],
  sun: NightSun | null,
  { width, rowHeight, head }: StripSize,
): StripGeometry {
  const scale = scaleLinear([night.from, night.to], [0, Math.max(1, width)]).clamp(true);
  const span = (from: ClockSecond, to: ClockSecond): Span => {
    const x = scale(from);
    return { x, width: Math.max(0, scale(to) - x) };
  };
  const yOf = (letter: string) => head + letters.indexOf(letter) * rowHeight;
  const inset = (rowHeight * (1 - BLOCK_SHARE)) / 2;
  const blockHeight = rowHeight * BLOCK_SHARE;
  const shownRuns = <T extends { station: number; on: number; off: number }>(runs: readonly T[]) =>
    runs.filter((run) => run.on < night.to && run.off > night.from);

  const cycles = night.intended.map(({ letter, start, begins, ends, runs }): CycleShape => ({
    letter,
    start,
    begins,
    ends,
    ...span(begins, ends),
    y: yOf(letter) + inset,
    height: blockHeight,
    runs: laned(shownRuns(runs), yOf(letter) + inset, blockHeight).map(
      ({ run: { station, on, off }, ...place }) => ({ station, ...span(on, off), ...place }),
    ),
    overlapped: night.overlaps.some(({ first, second }) =>
      [first, second].some((cycle) => cycle.letter === letter && cycle.begins === begins),
    ),
  }));
  const overlaps = night.overlaps.map(({ first, second, from, to }): OverlapShape => {
    const top = Math.min(yOf(first.letter), yOf(second.letter));
    const bottom = Math.max(yOf(first.letter), yOf(second.letter)) + rowHeight;
    const { x, width: seen } = span(from, to);
    return {
      x,
      width: Math.max(3, seen),
      y: top,
      height: bottom - top,
      seconds: to - from,
      letters: `${first.letter}${second.letter}`,
    };
  });
  const bottomOfRows = head + letters.length * rowHeight;
  const really =
    !night.condensed && differsFromIntent(night)
      ? {
          y: bottomOfRows + inset,
          runs: laned(shownRuns(night.runs), bottomOfRows + inset, rowHeight * 0.5).map(
            ({ run: { station, letter, on, off }, ...place }) => ({
              station,
              letter,
              ...span(on, off),
              ...place,
            }),
          ),
        }
      : null;
  const hours = Array.from({ length: SECONDS_PER_DAY / 3600 + 1 }, (_, i) => night.from + i * 3600);
  const darkFrom = sun?.sunset ?? null;
  const darkTo = sun?.sunrise ?? null;
  return {
    width,
    rowHeight,
    span,
    scale,
    height: bottomOfRows + (really ? rowHeight : 0),
    rows: letters.map((letter) => ({ letter, y: yOf(letter) })),
    cycles,
    overlaps,
    really,
    ticks: hours.map((at, i) => ({ x: scale(at), at, named: i % 3 === 0 })),
    dark: darkFrom === null || darkTo === null ? null : span(darkFrom, darkTo),
  };
}

/**
 * Ranges of the strip where a start may not be dropped; each blocked time covers half a step on either side.
 *
 * @param times seconds of the day, ascending, in steps
 */
export function blockedSpans(
  night: Night,
  times: readonly number[],
  stepMinutes: number,
  scale: StripGeometry['scale'],
): Span[] {
  const half = stepMinutes * 30;
  const dayBegins = night.day * SECONDS_PER_DAY;
  const stretches: { from: number; to: number }[] = [];
  for (const at of [...times, ...times.map((time) => time + SECONDS_PER_DAY)]) {
    const [from, to] = [dayBegins + at - half, dayBegins + at + half];
    const last = stretches.at(-1);
    if (last && from <= last.to) last.to = to;
    else stretches.push({ from, to });
  }
  return stretches
    .filter(({ from, to }) => from < night.to && to > night.from)
    .map(({ from, to }) => ({ x: scale(from), width: scale(to) - scale(from) }));
}

/** The start time after a drag by some pixels, in the timer's step; a second of the day. */
export function draggedStart(
  secondOfDay: number,
  pixels: number,
  secondsPerPixel: number,
  stepMinutes: number,
): number {
  const step = stepMinutes * 60;
  const moved = Math.round((secondOfDay + pixels * secondsPerPixel) / step) * step;
  return ((moved % SECONDS_PER_DAY) + SECONDS_PER_DAY) % SECONDS_PER_DAY;
}
