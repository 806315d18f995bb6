/** Every choice of program kinds and starts, with a lower bound of its error. */
import { assertDefined } from '../document/assertDefined.ts';
import { stepsOff } from './cost.ts';
import type { Candidate } from './drafted.ts';
import type { LeftOpen } from './proof.ts';
import type { Setup } from './setup.ts';
import { choicesOf, type SlotKind } from './slots.ts';

/** One kind for each program. */
export type Kinds = readonly SlotKind[];

interface Level {
  readonly choices: readonly Kinds[];
  readonly complete: boolean;
}

interface Ranked extends Candidate {
  /** Unpopularity of its nights. */
  readonly rank: number;
}

/** Most choices of kinds and starts considered. */
const MOST_LOOKS = 400_000;
/** Most compositions of starts considered for one choice of kinds. */
const MOST_COMPOSITIONS = 24;

export class Candidates {
  private readonly levels = new Map<number, Level>();
  private readonly lists = new Map<string, readonly Ranked[]>();
  /** Compositions by the programs' limits and the total. */
  private readonly divided = new Map<string, readonly (readonly number[])[]>();
  private looks = 0;
  private readonly setup: Setup;
  private readonly open: LeftOpen;

  constructor(setup: Setup, open: LeftOpen) {
    this.setup = setup;
    this.open = open;
  }

  mostStartsOf(kind: SlotKind): number {
    return kind.variants[0]?.isHours ? 1 : this.setup.mostStarts;
  }

  /** Choices of a number of kinds with which every station can meet its need. */
  withPrograms(count: number): readonly Kinds[] {
    let level = this.levels.get(count);
    if (!level) {
      level = choicesOf(count, this.setup.kinds, this.setup.slots, this.setup.needs.length);
      this.levels.set(count, level);
    }
    if (!level.complete) this.open.add(count, count);
    return level.choices.filter((kinds) => this.servesAll(kinds));
  }

  /** All choices with a total number of starts, each with a lower bound of its error. */
  withStarts(choices: readonly Kinds[], total: number): readonly Ranked[] {
    const count = assertDefined(choices[0], 'choices[0]').length;
    const key = `${count} ${total} ${this.setup.drafting.starvedText}`;
    const known = this.lists.get(key);
    if (known) return known;
    const made: Ranked[] = [];
    for (const kinds of choices) {
      if (this.looks >= MOST_LOOKS) {
        this.open.add(count, total);
        break;
      }
      for (const starts of this.compositions(kinds, total)) {
        this.looks++;
        const least = this.leastOff(kinds, starts);
        if (least === null) continue;
        const rank = kinds.reduce(
          (sum, { variants }) => sum + assertDefined(variants[0], 'variants[0]').rank,
          0,
        );
        made.push({ kinds, starts, ...least, rank });
      }
    }
    this.lists.set(key, made);
    return made;
  }

  /** Whether every station can meet its need in one of the kinds, with any number of starts. */
  private servesAll(kinds: Kinds): boolean {
    const columns = kinds.map((kind) =>
      Array.from({ length: this.mostStartsOf(kind) }, (_, k) =>
        this.setup.drafting.column(kind, k + 1),
      ),
    );
    return this.setup.needs.every(({ number }, i) => {
      const slot = this.setup.fixed.findIndex(({ stations }) => stations.includes(number));
      return columns.some(
        (column, j) =>
          (slot < 0 || slot === j) &&
          column.some((offs) => assertDefined(offs[i], 'offs[i]') < Infinity),
      );
    });
  }

  /** Ways to divide a number of starts among the programs. */
  private compositions(kinds: Kinds, total: number): readonly (readonly number[])[] {
    const mosts = kinds.map((kind) => this.mostStartsOf(kind));
    const key = `${mosts.join()} ${total}`;
    const known = this.divided.get(key);
    if (known) return known;
    const made: number[][] = [];
    this.divided.set(key, made);
    /** Most starts of the programs after the j-th. */
    const room = mosts.map((_, j) => mosts.slice(j + 1).reduce((sum, most) => sum + most, 0));
    const go = (chosen: readonly number[], left: number) => {
      if (made.length >= MOST_COMPOSITIONS) return;
      const j = chosen.length;
      if (j === kinds.length) {
        if (left === 0) made.push([...chosen]);
        return;
      }
      const least = Math.max(1, this.setup.fixed[j]?.starts.length ?? 0, left - (room[j] ?? 0));
      const most = Math.min(mosts[j] ?? 0, left - (kinds.length - 1 - j));
      for (let own = least; own <= most; own++) go([...chosen, own], left - own);
    };
    go([], total);
    return made;
  }

  /** Error of a choice if time were unlimited; null: some station fits nowhere in it. */
  private leastOff(
    kinds: Kinds,
    starts: readonly number[],
  ): Pick<Candidate, 'off' | 'steps'> | null {
    const columns = kinds.map((kind, j) =>
      this.setup.drafting.column(kind, assertDefined(starts[j], 'starts[j]')),
    );
    let sum = 0;
    let steps = 0;
    for (let i = 0; i < this.setup.needs.length; i++) {
      let least = Infinity;
      for (const column of columns) least = Math.min(least, assertDefined(column[i], 'column[i]'));
      if (least === Infinity) return null;
      sum += least;
      steps += stepsOff(least);
    }
    return { off: Math.round(sum * 1000 - 1e-9), steps };
  }
}
