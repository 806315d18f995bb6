/** What the planner's page asks its worker, and the answer. Plain data both ways. */
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
  /** The hour by which watering would be done by sunrise; null: not known. */
  readonly sunrise: string | null;
  /** What each month asks for; empty: the season is not followed. */
  readonly months: readonly MonthNeed[];
  readonly season: 'percent' | 'days';
  /** Only the brief itself, no other kinds of plan: where something is kept, or tried. */
  readonly alone: boolean;
  readonly clock: ClockStyle;
  /** Of its sentences. */
  readonly language: string;
}

/** A demand that stands in the way, and what would help. */
interface ConflictShown {
  readonly path: string;
  readonly demand: string;
  readonly change: string;
  /** The brief with that change, or null. */
  readonly brief: Brief | null;
}

/** Claims about a plan, its conflicts in words. */
interface ClaimsShown extends Omit<Claims, 'conflicts'> {
  readonly conflicts: readonly ConflictShown[];
}

export interface PlanResult extends Solved {
  readonly kind: AlternativeKind;
  readonly brief: Brief;
  /** The highest percent without an overlap; null where there is no plan, or where a percent makes no difference. */
  readonly headroom: number | null;
  /** Null: not tried yet. */
  readonly claims: ClaimsShown | null;
}

/** Equal for plans with the same programs. */
export const programsText = ({ plan }: Pick<PlanResult, 'plan'>): string =>
  JSON.stringify(plan?.programs ?? null);

/** Something about the settings of now. */
export interface SettingsRequest {
  /** With the rules that are announced. */
  readonly brief: Brief;
  readonly plan: Plan;
  readonly on: EpochDay;
}

/** The smallest change that keeps the rules and lets nothing overlap. */
export interface RepairShown {
  /** Null: none was found. */
  readonly plan: Plan | null;
  readonly coming: Solved['coming'];
  /** Stations that get more or less water than now. */
  readonly water: readonly WaterChange[];
}

/** What is proven of the programs that are set. */
export interface Present {
  readonly verdict: Verdict;
  readonly headroom: number | null;
  readonly coming: Solved['coming'];
}

export type PlanNews =
  /** One of its kind takes the place of the one before. */
  | { readonly kind: 'result'; readonly result: PlanResult }
  | { readonly kind: 'season'; readonly months: readonly SeasonMonth[] }
  | { readonly kind: 'refused'; readonly faults: readonly Fault[] }
  | { readonly kind: 'end' };
