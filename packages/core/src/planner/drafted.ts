/** What the search and the drafting tell each other: what to try, within which hours, and what came of it. */
import type { DayPattern } from './patterns.ts';
import type { Placement } from './place.ts';
import type { Draft } from './draftCycle.ts';
import type { SlotKind } from './slots.ts';

/** Kinds of program with their starts, that the stations are to be shared out to. */
export interface Candidate {
  readonly kinds: readonly SlotKind[];
  readonly starts: readonly number[];
  /** Thousandths that the runs cannot be less off than. */
  readonly off: number;
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

/** How a plan to be was made, so that others near it can be. */
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
