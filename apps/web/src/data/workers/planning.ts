/** Question and answer of the planner's worker. Plain data both ways. */
import type {
  AlternativeKind,
  Brief,
  Claims,
  ClockStyle,
  EpochDay,
  Fault,
  MonthNeed,
  Plan,
  PlannerOptions,
  SeasonMonth,
  Solved,
  Verdict,
  WaterChange,
} from '@water-clock/core';

export interface PlanRequest {
  readonly brief: Brief;
  readonly options: PlannerOptions;
  /** The hour for "done by sunrise"; null: not known. */
  readonly sunrise: string | null;
  /** Percents by month; empty: the plan does not follow the season. */
  readonly months: readonly MonthNeed[];
  readonly season: 'percent' | 'days';
  /** Only the plan for the brief, without other kinds: when something is kept or tried. */
  readonly alone: boolean;
  readonly clock: ClockStyle;
  /** Language and formats of its messages. */
  readonly language: string;
}

/** A demand in conflict, and what would help. */
interface ConflictShown {
  readonly path: string;
  readonly demand: string;
  readonly change: string;
  /** The brief with that change, or null. */
  readonly brief: Brief | null;
}

/** A plan's claims and conflicts as messages. */
interface ClaimsShown extends Omit<Claims, 'conflicts'> {
  readonly conflicts: readonly ConflictShown[];
}

export interface PlanResult extends Solved {
  readonly kind: AlternativeKind;
  readonly brief: Brief;
  /** Highest percent without an overlap; null if there is no plan or the percent does not matter. */
  readonly headroom: number | null;
  /** Null: not tried yet. */
  readonly claims: ClaimsShown | null;
}

/** Equal for plans with the same programs. */
export const programsText = ({ plan }: Pick<PlanResult, 'plan'>): string =>
  JSON.stringify(plan?.programs ?? null);

/** A finding about the current settings. */
export interface SettingsRequest {
  /** With the announced rules. */
  readonly brief: Brief;
  readonly plan: Plan;
  readonly on: EpochDay;
}

/** The smallest change that keeps the rules and leaves no overlap. */
export interface RepairShown {
  /** Null: none was found. */
  readonly plan: Plan | null;
  readonly coming: Solved['coming'];
  /** Stations that get more or less water than now. */
  readonly water: readonly WaterChange[];
}

/** Proof about the current programs. */
export interface Present {
  readonly verdict: Verdict;
  readonly headroom: number | null;
  readonly coming: Solved['coming'];
}

export type PlanNews =
  /** A plan replaces the earlier one of its kind. */
  | { readonly kind: 'result'; readonly result: PlanResult }
  | { readonly kind: 'season'; readonly months: readonly SeasonMonth[] }
  | { readonly kind: 'refused'; readonly faults: readonly Fault[] }
  | { readonly kind: 'end' };
