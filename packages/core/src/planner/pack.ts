/**
 * Divides stations among programs by how full the nights get, when there is little room: a descent by one station or one set of days at a
 * time, until no night is overfull. The result is only a proposal; placing it on the clock decides.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { EVERY_MONTH_DAY } from '../time/dayRules.ts';
import type { DayPattern } from './patterns.ts';
import type { SlotKind } from './slots.ts';

export interface Packing {
  readonly patterns: readonly DayPattern[];
  /** Index of each station's program. */
  readonly assignment: readonly number[];
}

/** How much of each of seven nights a pattern uses, 0 to 1. */
function nightsOf({ set, mean }: DayPattern): readonly number[] {
  return Array.from({ length: 7 }, (_, night) =>
    set.every === 1 && set.monthDays === EVERY_MONTH_DAY ? (set.weekdays >> night) & 1 : mean / 7,
  );
}

const MOST_MOVES = 200;
/** Number of different starting points. */
const BEGINNINGS = 6;
/** Sets of days tried for one program. */
const MOST_VARIANTS = 24;

export interface Load {
  readonly kinds: readonly SlotKind[];
  /** For each station and program, the seconds of a night its runs take; Infinity if it cannot be in it. */
  readonly seconds: readonly (readonly number[])[];
  /** For each station, its possible programs. */
  readonly options: readonly (readonly number[])[];
  /** Length of a night in seconds. */
  readonly room: number;
  /** Seconds of a night that one program can use. */
  readonly longest: readonly number[];
  /** 1.3 for 130 percent. */
  readonly headroom: number;
  /** The same for the last cycle of a night. */
  readonly last: number;
}

/** Null: no way was found that fits every night. */
export function packed(load: Load): Packing | null {
  for (let from = 0; from < BEGINNINGS; from++) {
    const packing = packedFrom(from, load);
    if (packing) return packing;
  }
  return null;
}

/** Moves a station to another program, or a program to another variant. */
type Step =
  | { readonly station: number; readonly to: number }
  | { readonly program: number; readonly variant: number };

/** Each station's program and each program's variant, and how full the nights get; each step can be undone. */
class NightLoads {
  private readonly load: Load;
  private readonly variants: readonly (readonly DayPattern[])[];
  private readonly masks: readonly (readonly (readonly number[])[])[];
  private readonly chosen: number[];
  private readonly assignment: number[];
  /** For each program, the seconds of a night its runs take. */
  private readonly loads: number[];

  /** @param from starting point, from 0 */
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

  /** @returns steps that undo it */
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

  /** Excess seconds, of single programs and of nights; 0: everything fits. */
  excess(): number {
    const { longest: most, room } = this.load;
    const over = (seconds: number) => (seconds > 0 ? seconds + 1 : 0);
    let sum = 0;
    for (const [j, seconds] of this.loads.entries())
      sum += over(seconds - assertDefined(most[j], 'most[j]'));
    for (let night = 0; night < 7; night++) sum += over(this.secondsOf(night) - room);
    return sum;
  }

  /** All cycles of a night at the headroom, except the longest, placed last, which must finish in time at the high percent. */
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

  /** Two steps at once: a station and its new program's days, or two stations swapped. */
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

  /** Null: some program would have no station. */
  packing(): Packing | null {
    const { assignment, chosen } = this;
    if (chosen.some((_, j) => !assignment.includes(j))) return null;
    const patterns = this.variants.map((list, j) =>
      assertDefined(list[assertDefined(chosen[j], 'chosen[j]')], 'list[chosen[j]]'),
    );
    return { patterns, assignment };
  }
}

/** Steepest descent from a starting point. Two steps at once are tried only if no single one helps. */
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
