/** What the search and the drafting exchange: what to try, within which hours, and the result. */
import type { DayPattern } from './patterns.ts';
import type { Placement } from './place.ts';
import type { Draft } from './draftCycle.ts';
import type { SlotKind } from './slots.ts';

/** Kinds of program with their starts; the stations are to be divided among them. */
export interface Candidate {
  readonly kinds: readonly SlotKind[];
  readonly starts: readonly number[];
  /** The least error that the runs can have, in thousandths. */
  readonly off: number;
  /** The least that the first part of the cost can be. */
  readonly steps: number;
}

/** Where in the day watering may be. */
export interface Hours {
  readonly span: { readonly from: number; readonly seconds: number };
  /** All runs as short as they may be, before any is restored. */
  readonly shortest: boolean;
}

export interface Drafted {
  readonly drafts: readonly Draft[];
  readonly placement: Placement;
}

/** How a draft was made, so that others near it can be made. */
export interface Recipe {
  readonly candidate: Candidate;
  readonly patterns: readonly DayPattern[];
  readonly assignment: readonly number[];
}

/** A program's fixed starts and stations. */
export interface Fixed {
  readonly letter: string;
  readonly starts: readonly number[];
  readonly stations: readonly number[];
}
