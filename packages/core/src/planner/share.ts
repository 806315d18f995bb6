/** Ways to divide stations among a plan's programs, by how much water they need. */
import { assertDefined } from '../document/assertDefined.ts';
import type { Need } from './needs.ts';
import type { RunChoices, SlotKind } from './slots.ts';

/** A possible program of a station, by index, and how far off its need it then is. */
export interface Option {
  readonly j: number;
  readonly off: number;
}

/** Shares of the water for the programs, and number of choices tried. */
const WEIGHTS = [0, 1, 2, 3];
const MOST_WEIGHTS = 16;

export const sumOf = (list: readonly number[]) => list.reduce((sum, one) => sum + one, 0);

export class Sharing {
  private readonly needs: readonly Need[];
  private readonly runs: RunChoices;
  private readonly weightsOf = new Map<string, readonly (readonly number[])[]>();
  private ordersOnce: readonly (readonly number[])[] | null = null;

  constructor(needs: readonly Need[], runs: RunChoices) {
    this.needs = needs;
    this.runs = runs;
  }

  /** Ways to divide the stations: for each need the index of its program. */
  ways(
    options: readonly (readonly Option[])[],
    kinds: readonly SlotKind[],
    starts: readonly number[],
  ): (readonly number[])[] {
    if (kinds.length === 1) return [options.map(() => 0)];
    const nearest = options.map((list) => {
      const least = Math.min(...list.map(({ off }) => off));
      return list.filter(({ off }) => off <= least + 1e-9).map(({ j }) => j);
    });
    const any = options.map((list) => list.map(({ j }) => j));
    const ways = [
      nearest.map(([first = 0]) => first),
      this.inOrder(
        nearest,
        kinds.map(() => 1),
      ),
      this.evenly(nearest, kinds, starts),
      this.evenly(any, kinds, starts),
      ...this.weights(any, kinds.length).flatMap((weights) =>
        this.orders().map((order) => this.inOrder(any, weights, order)),
      ),
    ].map((way) => this.filled(way, any, kinds.length));
    const seen = new Set<string>();
    return ways.filter((way): way is number[] => {
      if (!way || seen.has(way.join())) return false;
      seen.add(way.join());
      return true;
    });
  }

  /** Each program's share of the water; a program that some station requires, and few can use, gets no more than theirs. */
  private weights(
    options: readonly (readonly number[])[],
    count: number,
  ): readonly (readonly number[])[] {
    const own = Array.from({ length: count }, (_, j) =>
      options.some((list, i) => list.length === 1 && list[0] === j && this.needs[i]?.often),
    );
    const key = own.join();
    let known = this.weightsOf.get(key);
    if (known) return known;
    let made: number[][] = [[]];
    for (const isOwn of own)
      made = made
        .flatMap((left) => (isOwn ? [0] : WEIGHTS).map((one) => [...left, one]))
        .slice(0, 4096);
    known = made
      .filter((weights) => Math.max(...weights) > 0 && !weights.every((one) => one % 2 === 0))
      .sort((a, b) => sumOf(a) - sumOf(b))
      .slice(0, MOST_WEIGHTS);
    this.weightsOf.set(key, known);
    return known;
  }

  /** Stations in order, by need: fill the first program with its share, then the next. */
  private inOrder(
    options: readonly (readonly number[])[],
    weights: readonly number[],
    order: readonly number[] = options.map((_, i) => i),
  ): number[] {
    const all = sumOf(weights);
    const shared = this.needs.filter((_, i) => assertDefined(options[i], 'options[i]').length > 1);
    const total = sumOf(shared.map(({ wanted }) => wanted));
    let before = 0;
    const way = options.map(([first = 0]) => first);
    for (const i of order) {
      const list = assertDefined(options[i], 'options[i]');
      if (list.length < 2) continue;
      const wanted = assertDefined(this.needs[i], 'needs[i]').wanted;
      const at = ((before + wanted / 2) * all) / total;
      before += wanted;
      let aim = 0;
      let until = assertDefined(weights[0], 'weights[0]');
      while (until <= at && aim < weights.length - 1)
        until += assertDefined(weights[++aim], 'weights[++aim]');
      const near = (j: number) =>
        Math.abs(j - aim) + (assertDefined(weights[j], 'weights[j]') > 0 ? 0 : weights.length);
      way[i] = list.reduce(
        (best, j) => (near(j) < near(best) ? j : best),
        assertDefined(list[0], 'list[0]'),
      );
    }
    return way;
  }

  /** Orders of filling: by number, and by number of cycles, most first. */
  private orders(): readonly (readonly number[])[] {
    return (this.ordersOnce ??= this.workedOrders());
  }

  private workedOrders(): (readonly number[])[] {
    const numbers = this.needs.map((_, i) => i);
    const pieces = ({ cycle, wanted }: Need) => (cycle === null ? 0 : wanted / cycle);
    const byPieces = [...numbers].sort((a, b) => {
      return (
        pieces(assertDefined(this.needs[b], 'needs[b]')) -
          pieces(assertDefined(this.needs[a], 'needs[a]')) || a - b
      );
    });
    return byPieces.join() === numbers.join() ? [numbers] : [numbers, byPieces];
  }

  /** Longest first, each into the program that then takes the least time. */
  private evenly(
    options: readonly (readonly number[])[],
    kinds: readonly SlotKind[],
    starts: readonly number[],
  ): number[] {
    const load = kinds.map(() => 0);
    const way = options.map(([first = 0]) => first);
    const order = this.needs
      .map(({ wanted }, i) => ({ i, wanted }))
      .sort((a, b) => b.wanted - a.wanted || a.i - b.i);
    for (const { i } of order) {
      const need = assertDefined(this.needs[i], 'needs[i]');
      let best = assertDefined(way[i], 'way[i]');
      let least = Infinity;
      for (const j of assertDefined(options[i], 'options[i]')) {
        const run = this.runs.at(
          need,
          assertDefined(kinds[j], 'kinds[j]').mean,
          assertDefined(starts[j], 'starts[j]'),
        );
        const then =
          assertDefined(load[j], 'load[j]') +
          (run?.seconds ?? 0) * assertDefined(starts[j], 'starts[j]');
        if (then < least) {
          least = then;
          best = j;
        }
      }
      way[i] = best;
      load[best] = least;
    }
    return way;
  }

  /** Leaves no program empty; null: one stays so. */
  private filled(
    way: readonly number[],
    options: readonly (readonly number[])[],
    count: number,
  ): number[] | null {
    const filled = [...way];
    for (let j = 0; j < count; j++) {
      if (filled.includes(j)) continue;
      const i = filled.findIndex(
        (from, at) => options[at]?.includes(j) && filled.filter((one) => one === from).length > 1,
      );
      if (i < 0) return null;
      filled[i] = j;
    }
    return filled;
  }
}
