/**
 * Divides stations among programs by how full the nights get, where there is little room: a downhill search, one station or one set of
 * days at a time, until no night holds more than it can. The result is only a proposal; whether it fits shows on the clock.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { EVERY_MONTH_DAY } from '../time/dayRules.ts';
import type { DayPattern } from './patterns.ts';
import type { SlotKind } from './slots.ts';

export interface Packing {
  readonly patterns: readonly DayPattern[];
  /** For each station the place of its program. */
  readonly assignment: readonly number[];
}

/** How much of each of seven nights a pattern waters, 0 to 1. */
function nightsOf({ set, mean }: DayPattern): readonly number[] {
  return Array.from({ length: 7 }, (_, night) =>
    set.every === 1 && set.monthDays === EVERY_MONTH_DAY ? (set.weekdays >> night) & 1 : mean / 7,
  );
}

const MOST_MOVES = 200;
/** How many different beginnings are tried. */
const BEGINNINGS = 6;
/** Sets of days looked at for one program. */
const MOST_VARIANTS = 24;

export interface Load {
  readonly kinds: readonly SlotKind[];
  /** For each station and program, the seconds of a night that its runs take; Infinity where it cannot be in it. */
  readonly seconds: readonly (readonly number[])[];
  /** For each station the programs that it may be in. */
  readonly options: readonly (readonly number[])[];
  /** Seconds of a night. */
  readonly room: number;
  /** Seconds of a night that a program by itself can take. */
  readonly longest: readonly number[];
  /** 1.3 for 130 percent. */
  readonly headroom: number;
  /** The same of the last cycle of a night. */
  readonly last: number;
}

/** Null: no way was found by which every night has room. */
export function packed(load: Load): Packing | null {
  for (let from = 0; from < BEGINNINGS; from++) {
    const packing = packedFrom(from, load);
    if (packing) return packing;
  }
  return null;
}

/** One station into another program, or one program to another of its variants. */
type Step =
  | { readonly station: number; readonly to: number }
  | { readonly program: number; readonly variant: number };

/** Which program each station is in and which variant each program has, with how full that makes the nights; each step can be undone. */
class NightLoads {
  private readonly load: Load;
  private readonly variants: readonly (readonly DayPattern[])[];
  private readonly masks: readonly (readonly (readonly number[])[])[];
  private readonly chosen: number[];
  private readonly assignment: number[];
  /** For each program, the seconds of a night that its runs take. */
  private readonly loads: number[];

  /** @param from from 0 on: each begins from another choice. */
  constructor(load: Load, from: number) {
    this.load = load;
    this.variants = load.kinds.map((kind) => kind.variants.slice(0, MOST_VARIANTS));
    this.masks = this.variants.map((list) => list.map(nightsOf));
    this.chosen = this.variants.map((list, j) => (from * (j + 1)) % list.length);
    this.assignment = load.options.map(
      (list, i) => list[(from * (1 + (i % 3))) % list.length] ?? 0,
    );
    this.loads = load.kinds.map(() => 0);
    this.assignment.forEach((j, i) => this.pour(i, j, 1));
  }

  private pour(station: number, program: number, sign: 1 | -1): void {
    const seconds = assertDefined(
      assertDefined(this.load.seconds[station], 'load.seconds[station]')[program],
      'load.seconds[station][program]',
    );
    this.loads[program] = assertDefined(this.loads[program], 'loads[program]') + sign * seconds;
  }

  /** @returns the steps that undo it. */
  apply(steps: readonly Step[]): Step[] {
    return steps.map((step): Step => {
      if ('program' in step) {
        const before = assertDefined(this.chosen[step.program], 'chosen[step.program]');
        this.chosen[step.program] = step.variant;
        return { program: step.program, variant: before };
      }
      const before = assertDefined(this.assignment[step.station], 'assignment[step.station]');
      this.pour(step.station, before, -1);
      this.pour(step.station, step.to, 1);
      this.assignment[step.station] = step.to;
      return { station: step.station, to: before };
    });
  }

  /** Seconds that are too many, of single programs and of nights; 0: all has room. */
  excess(): number {
    const { longest: most, room } = this.load;
    const over = (seconds: number) => (seconds > 0 ? seconds + 1 : 0);
    let sum = 0;
    for (const [j, seconds] of this.loads.entries())
      sum += over(seconds - assertDefined(most[j], 'most[j]'));
    for (let night = 0; night < 7; night++) sum += over(this.secondsOf(night) - room);
    return sum;
  }

  /** All cycles of a night at the headroom, but for the longest, the last one, which has to be done in time at the high percent. */
  private secondsOf(night: number): number {
    const { headroom, last } = this.load;
    let seconds = 0;
    let longest = 0;
    for (const [j, whole] of this.loads.entries()) {
      const own =
        whole *
        assertDefined(
          assertDefined(
            assertDefined(this.masks[j], 'masks[j]')[assertDefined(this.chosen[j], 'chosen[j]')],
            'masks[j][chosen[j]]',
          )[night],
          "chosen[j], 'chosen[j]')], 'masks[j][chos",
        );
      seconds += own * headroom;
      longest = Math.max(longest, own);
    }
    return seconds - (headroom - last) * longest;
  }

  /** Every single step that changes something. */
  *singleSteps(): Generator<Step[]> {
    for (const step of this.stationSteps()) yield [step];
    for (const program of this.variants.keys())
      for (const step of this.variantSteps(program))
        if (step.variant !== this.chosen[program]) yield [step];
  }

  /** Two steps at a time: a station and the days of its new program, or two stations that change places. */
  *doubleSteps(kind: 'station and days' | 'two stations'): Generator<Step[]> {
    const { options } = this.load;
    if (kind === 'station and days') {
      for (const step of this.stationSteps())
        for (const days of this.variantSteps(step.to)) yield [step, days];
      return;
    }
    for (let a = 0; a < options.length; a++)
      for (let b = a + 1; b < options.length; b++) {
        const [p, q] = [
          assertDefined(this.assignment[a], 'assignment[a]'),
          assertDefined(this.assignment[b], 'assignment[b]'),
        ];
        if (p === q || !options[a]?.includes(q) || !options[b]?.includes(p)) continue;
        yield [
          { station: a, to: q },
          { station: b, to: p },
        ];
      }
  }

  private *stationSteps(): Generator<{ readonly station: number; readonly to: number }> {
    for (const [station, list] of this.load.options.entries()) {
      const from = this.assignment[station];
      for (const to of list) if (to !== from) yield { station, to };
    }
  }

  private *variantSteps(program: number) {
    const count = assertDefined(this.variants[program], 'variants[program]').length;
    for (let variant = 0; variant < count; variant++) yield { program, variant };
  }

  /** Null: some program is left without a station. */
  packing(): Packing | null {
    const { assignment, chosen } = this;
    if (chosen.some((_, j) => !assignment.includes(j))) return null;
    const patterns = this.variants.map((list, j) =>
      assertDefined(list[assertDefined(chosen[j], 'chosen[j]')], 'list[chosen[j]]'),
    );
    return { patterns, assignment };
  }
}

/** Downhill from a beginning: each time the move that helps most. Two steps at once are tried only where no single one helps. */
function packedFrom(from: number, load: Load): Packing | null {
  const loads = new NightLoads(load, from);
  let least = loads.excess();
  for (let move = 0; move < MOST_MOVES && least > 0; move++) {
    let best: readonly Step[] | null = null;
    for (const moves of [
      () => loads.singleSteps(),
      () => loads.doubleSteps('station and days'),
      () => loads.doubleSteps('two stations'),
    ]) {
      if (best) break;
      for (const steps of moves()) {
        const back = loads.apply(steps);
        const then = loads.excess();
        loads.apply(back);
        if (then >= least - 1e-6) continue;
        least = then;
        best = steps;
      }
    }
    if (!best) return null;
    loads.apply(best);
  }
  return least > 0 ? null : loads.packing();
}
