/** Places the starts of a repaired plan, keeping as many as possible. */
import type { DraftCycle, DraftRules } from '../planner/draftCycle.ts';
import { SECONDS_PER_DAY } from '../time/calendar.ts';
import { modulo } from '../time/dayRules.ts';
import { combinations } from './combinations.ts';

export interface Movable {
  readonly cycle: DraftCycle;
  /** Current starts, seconds of the day. */
  readonly now: readonly number[];
  /** Number of starts it will have. */
  readonly count: number;
  /** Starts that rules and timer allow, seconds of the day. */
  readonly allowed: ReadonlySet<number>;
}

interface Placed {
  readonly program: number;
  readonly second: number;
}

/** Placements tried for one choice of kept starts. */
const MOST_LOOKS = 1200;

/** Placements left to try in the whole repair. */
export interface LooksLeft {
  left: number;
}

const distance = (a: number, b: number) => {
  const apart = modulo(a - b, SECONDS_PER_DAY);
  return Math.min(apart, SECONDS_PER_DAY - apart);
};

export class StartPlacing {
  private readonly rules: DraftRules;
  private readonly programs: readonly Movable[];
  private readonly days: number;
  private looks = 0;
  private readonly all: LooksLeft;
  /** Placements of a program by its kept starts, best first. */
  private readonly places = new Map<string, readonly number[]>();

  constructor(rules: DraftRules, programs: readonly Movable[], all: LooksLeft) {
    this.all = all;
    this.rules = rules;
    this.programs = programs;
    const longest = Math.max(0, ...programs.map(({ cycle }) => Math.max(cycle.reach, cycle.apart)));
    this.days = 1 + Math.floor(longest / SECONDS_PER_DAY);
  }

  /**
   * Starts of each program with a number of current ones moved, nearest placements first.
   *
   * @param moves starts that do not stay, besides those a program loses or gains
   */
  *with(moves: number): Generator<number[][]> {
    for (const kept of this.keepings(0, moves)) {
      if (!this.agree(kept)) continue;
      this.looks = 0;
      for (const placed of this.fill(kept, 0)) {
        yield this.programs.map((_, j) =>
          placed
            .filter(({ program }) => program === j)
            .map(({ second }) => second)
            .sort((a, b) => a - b),
        );
      }
    }
  }

  /** Choices of starts to keep. */
  private *keepings(program: number, moves: number): Generator<Placed[]> {
    const one = this.programs[program];
    if (!one) {
      if (moves === 0) yield [];
      return;
    }
    const own = [...new Set(one.now)].filter((second) => one.allowed.has(second));
    const most = Math.min(one.now.length, one.count);
    for (let away = Math.max(0, most - own.length); away <= Math.min(moves, most); away++)
      for (const chosen of combinations(own, most - away))
        for (const rest of this.keepings(program + 1, moves - away))
          yield [...chosen.map((second) => ({ program, second })), ...rest];
  }

  private agree(placed: readonly Placed[]): boolean {
    return placed.every(
      (one, i) => !placed.slice(0, i + 1).some((other) => this.clash(one, other, true)),
    );
  }

  /**
   * Placements for all missing starts.
   *
   * @param kept starts of the program that stay, possibly with some added
   * @param first of its remaining placements; two that swap are the same
   */
  private *fill(
    placed: readonly Placed[],
    program: number,
    kept?: readonly Placed[],
    first = 0,
  ): Generator<readonly Placed[]> {
    const one = this.programs[program];
    if (!one) {
      yield placed;
      return;
    }
    const own = placed.filter((start) => start.program === program);
    if (own.length === one.count) {
      yield* this.fill(placed, program + 1);
      return;
    }
    const stay = kept ?? own;
    const places = this.placesOf(program, stay);
    for (let i = first; i < places.length; i++) {
      const second = places[i] ?? 0;
      if (++this.looks > MOST_LOOKS || --this.all.left < 0) return;
      const start = { program, second };
      if (this.clash(start, start, false)) return;
      if (placed.some((other) => this.clash(start, other, false))) continue;
      yield* this.fill([...placed, start], program, stay, i + 1);
    }
  }

  /** Where another start of a program may go: inside the wished hours if possible, and as near as possible to where it was. */
  private placesOf(program: number, own: readonly Placed[]): readonly number[] {
    const key = `${program} ${own.map(({ second }) => second).join()}`;
    const known = this.places.get(key);
    if (known) return known;
    const one = this.programs[program];
    if (!one) return [];
    const left = one.now.filter((second) => !own.some((start) => start.second === second));
    const made = [...one.allowed]
      .filter((second) => !one.now.includes(second))
      .map((second) => ({
        second,
        near: Math.min(SECONDS_PER_DAY, ...left.map((was) => distance(second, was))),
        outside: this.rules.isInside(one.cycle, second, this.rules.span) ? 0 : 1,
      }))
      .sort((a, b) => a.outside - b.outside || a.near - b.near || a.second - b.second)
      .map(({ second }) => second);
    this.places.set(key, made);
    return made;
  }

  /**
   * Whether two cycles ever overlap.
   *
   * @param asSet both are current: their effect on each other's soak is unchanged
   */
  private clash(x: Placed, y: Placed, asSet: boolean): boolean {
    const a = this.programs[x.program]?.cycle;
    const b = this.programs[y.program]?.cycle;
    if (!a || !b) return false;
    const isOwn = x.program === y.program;
    const [lengthA, lengthB] = isOwn && !asSet ? [a.apart, b.apart] : [a.reach, b.reach];
    for (let days = -this.days; days <= this.days; days++) {
      if (x === y && days === 0) continue;
      const at = y.second + days * SECONDS_PER_DAY;
      if (x.second >= at + lengthB || at >= x.second + lengthA) continue;
      if (this.rules.patterns.meet(a.draft.pattern.set, b.draft.pattern.set, days)) return true;
    }
    return false;
  }
}
