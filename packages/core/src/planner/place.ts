/**
 * Finds starts for a draft's programs so that no two cycles ever overlap.
 *
 * Time is an axis of 24 hours that ends at the wished finish. Cycles are placed backwards from the end, each as late as possible; for a
 * given order that loses nothing, since a later placement only leaves more room before it. So it is enough to try the orders. Programs that
 * can never overlap are placed separately.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { SECONDS_PER_DAY } from '../time/calendar.ts';
import { modulo } from '../time/dayRules.ts';
import type { Patterns } from './patterns.ts';
import type { DraftCycle } from './draftCycle.ts';

/** A program to place. */
export interface Placeable {
  readonly shape: DraftCycle;
  /** Seconds of the day at which it may start. */
  readonly seconds: readonly number[];
  /** Required starts, seconds of the day. */
  readonly pinned: readonly number[];
}

export interface Placement {
  /** For each program its starts, seconds of the day, ascending. */
  readonly starts: readonly (readonly number[])[];
  /** Seconds from the last counted end to the end of the axis; null: nothing counts. */
  readonly spare: number | null;
  /** All orders were tried. */
  readonly complete: boolean;
}

interface Cycle {
  readonly program: number;
  readonly at: number;
}

/** Orders of cycles tried before the best one is taken. */
const MOST_TURNS = 4000;

class Placing {
  private readonly programs: readonly Placeable[];
  private readonly patterns: Patterns;
  private readonly origin: number;
  /** Positions on the axis, ascending. */
  private readonly positions: readonly (readonly number[])[];
  private readonly days: number;
  private best: { cycles: readonly Cycle[]; spare: number | null } | null = null;
  turns = 0;

  constructor(programs: readonly Placeable[], patterns: Patterns, origin: number) {
    this.programs = programs;
    this.patterns = patterns;
    this.origin = origin;
    this.positions = programs.map(({ seconds }) =>
      seconds.map((second) => this.positionOf(second)).sort((a, b) => a - b),
    );
    const longest = Math.max(...programs.map(({ shape }) => Math.max(shape.reach, shape.apart)));
    this.days = 1 + Math.floor(longest / SECONDS_PER_DAY);
  }

  private positionOf(second: number): number {
    return modulo(second - this.origin, SECONDS_PER_DAY);
  }

  private secondOf(position: number): number {
    return modulo(position + this.origin, SECONDS_PER_DAY);
  }

  private shift(position: number): number {
    return position + this.origin >= SECONDS_PER_DAY ? 1 : 0;
  }

  /** Whether two cycles ever overlap; for one program also whether they are too close for its soaks. */
  private clash(x: Cycle, y: Cycle): boolean {
    const a = this.programs[x.program]?.shape;
    const b = this.programs[y.program]?.shape;
    if (!a || !b) return false;
    const own = x.program === y.program;
    const [lengthA, lengthB] = own ? [a.apart, b.apart] : [a.reach, b.reach];
    for (let days = -this.days; days <= this.days; days++) {
      if (own && days === 0 && x === y) continue;
      const at = y.at + days * SECONDS_PER_DAY;
      if (x.at >= at + lengthB || at >= x.at + lengthA) continue;
      const between = days + this.shift(y.at) - this.shift(x.at);
      if (this.patterns.meet(a.draft.pattern.set, b.draft.pattern.set, between)) return true;
    }
    return false;
  }

  /** Latest position of a program's next cycle, at or before a position, without a conflict. */
  private latest(program: number, limit: number, placed: readonly Cycle[]): Cycle | null {
    const own = assertDefined(this.positions[program], 'positions[program]');
    for (let i = upTo(own, limit); i >= 0; i--) {
      const at = assertDefined(own[i], 'own[i]');
      const cycle = { program, at };
      if (this.clash(cycle, cycle)) return null;
      this.turns++;
      const hit = placed.find((one) => this.clash(cycle, one));
      if (!hit) return cycle;
      // It conflicts with this one until it ends before it, or is due on the previous date.
      const shape = this.programs[program]?.shape;
      const length = hit.program === program ? shape?.apart : shape?.reach;
      if (hit.at >= at) {
        const before = hit.at - assertDefined(length, 'length');
        const midnight = SECONDS_PER_DAY - this.origin;
        i = Math.min(i, upTo(own, at >= midnight ? Math.max(before, midnight - 1) : before) + 1);
      }
    }
    return null;
  }

  place(): Placement | null {
    const groups = this.groups();
    const starts: number[][] = this.programs.map(() => []);
    let spare: number | null = null;
    let complete = true;
    for (const group of groups) {
      this.best = null;
      this.turns = 0;
      const left = this.programs.map(({ shape }, i) =>
        group.includes(i) ? shape.draft.starts : 0,
      );
      const fixed: Cycle[] = [];
      for (const program of group)
        for (const second of assertDefined(this.programs[program], 'programs[program]').pinned) {
          fixed.push({ program, at: this.positionOf(second) });
          left[program] = assertDefined(left[program], 'left[program]') - 1;
        }
      if (left.some((n) => n < 0)) return null;
      if (fixed.some((cycle, i) => fixed.slice(0, i + 1).some((other) => this.clash(cycle, other))))
        return null;
      this.go(fixed, left, SECONDS_PER_DAY, this.bound(group));
      const best = this.bestOf();
      if (!best) return null;
      for (const { program, at } of best.cycles) starts[program]?.push(this.secondOf(at));
      if (best.spare !== null) spare = Math.min(spare ?? Infinity, best.spare);
      complete &&= this.turns < MOST_TURNS;
    }
    return { starts: starts.map((list) => list.sort((a, b) => a - b)), spare, complete };
  }

  private bestOf() {
    return this.best;
  }

  /** Groups of programs that could overlap. */
  private groups(): number[][] {
    const groups: number[][] = [];
    this.programs.forEach(({ shape }, i) => {
      const { set } = shape.draft.pattern;
      const near = groups.filter((group) =>
        group.some((j) => {
          const other = this.programs[j]?.shape.draft.pattern.set;
          for (let k = -this.days - 1; k <= this.days + 1; k++)
            if (other && this.patterns.meet(set, other, k)) return true;
          return false;
        }),
      );
      const joined = [...near.flat(), i];
      for (const group of near) groups.splice(groups.indexOf(group), 1);
      groups.push(joined);
    });
    return groups;
  }

  private spareOf({ program, at }: Cycle): number | null {
    const counted = this.programs[program]?.shape.counted ?? null;
    return counted === null ? null : SECONDS_PER_DAY - at - counted.off;
  }

  /** Lower bound of spare seconds: those of a program alone. */
  private bound(group: readonly number[]): number {
    let least = Infinity;
    for (const program of group)
      for (const at of assertDefined(this.positions[program], 'positions[program]')) {
        const spare = this.spareOf({ program, at });
        if (spare !== null && spare >= 0) least = Math.min(least, spare);
      }
    return least;
  }

  private go(
    placed: readonly Cycle[],
    left: readonly number[],
    limit: number,
    bound: number,
  ): void {
    if (left.every((n) => n === 0)) {
      const spares = placed.map((cycle) => this.spareOf(cycle)).filter((one) => one !== null);
      const spare = spares.length > 0 ? Math.min(...spares) : null;
      const { best } = this;
      if (!best || (spare !== null && spare < (best.spare ?? Infinity)))
        this.best = { cycles: placed, spare };
      return;
    }
    const next: Cycle[] = [];
    for (const [program, n] of left.entries()) {
      if (n === 0) continue;
      const cycle = this.latest(program, limit, placed);
      // A cycle that does not fit now does not fit with less room.
      if (!cycle) return;
      next.push(cycle);
    }
    next.sort((x, y) => (this.spareOf(x) ?? Infinity) - (this.spareOf(y) ?? Infinity));
    for (const cycle of next) {
      if (this.turns >= MOST_TURNS) return;
      if (this.best && (this.best.spare ?? 0) <= bound) return;
      const rest = left.map((n, i) => (i === cycle.program ? n - 1 : n));
      this.go([...placed, cycle], rest, cycle.at, bound);
    }
  }
}

/** Index of the last position at or below a limit; −1: none. */
function upTo(positions: readonly number[], limit: number): number {
  let low = 0;
  let high = positions.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (assertDefined(positions[middle], 'positions[middle]') <= limit) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/**
 * Starts for all programs; null: none were found.
 *
 * @param finish second of the day at which the axis ends
 */
export function place(
  programs: readonly Placeable[],
  patterns: Patterns,
  finish: number,
): Placement | null {
  return new Placing(programs, patterns, finish).place();
}
