/** What search and drafting exchange: what to try, within which hours, and the result. */
import type { DayPattern } from './patterns.ts';
import type { Placement } from './place.ts';
import type { Draft } from './draftCycle.ts';
import type { SlotKind } from './slots.ts';

/** Kinds of program with their starts; the stations are still to be divided among them. */
export interface Candidate {
  readonly kinds: readonly SlotKind[];
  readonly starts: readonly number[];
  /** Lower bound of the runs' error, in thousandths. */
  readonly off: number;
  /** Lower bound of cost part 1. */
  readonly steps: number;
}

/** Hours in which watering may be. */
export interface Hours {
  readonly span: { readonly from: number; readonly seconds: number };
  /** All runs at their shortest, before any is restored. */
  readonly shortest: boolean;
}

export interface Drafted {
  readonly drafts: readonly Draft[];
  readonly placement: Placement;
}

/** How a draft was made, to make variants of it. */
export interface Recipe {
  readonly candidate: Candidate;
  readonly patterns: readonly DayPattern[];
  readonly assignment: readonly number[];
}

/** A program's pinned starts and stations. */
export interface Fixed {
  readonly letter: string;
  readonly starts: readonly number[];
  readonly stations: readonly number[];
}
