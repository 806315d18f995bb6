/** What the page asks of the worker and what it answers. Plain data both ways. */
import type {
  Brief,
  Check,
  ClockChange,
  EpochDay,
  Fault,
  Night,
  Plan,
  YearDay,
} from '@water-clock/core';

/** How the nights are looked at: as set, or as they would be. */
export interface WhatIf {
  /** Every cycle at this percent; null: as set. */
  readonly percent: number | null;
  /** Seconds by which the timer's clock is ahead of the true hour. */
  readonly ahead: number;
}

export interface ReckonRequest {
  readonly kind: 'reckon';
  readonly id: number;
  readonly plan: Plan;
  readonly on: EpochDay;
  readonly firstNight: EpochDay;
  readonly nights: number;
  /** One more night, on any date; null for none. */
  readonly farNight: EpochDay | null;
  /** First date of a year of dates; null: not wanted. */
  readonly yearFrom: EpochDay | null;
  readonly whatIf: WhatIf;
  /** Of the house's clocks, to come. */
  readonly changes: readonly ClockChange[];
  /** What was wanted, for the findings. */
  readonly brief: Brief;
  /** Stations of which nobody knows what they need. */
  readonly unknown: readonly number[];
}

export interface Reckoning {
  readonly plan: Plan;
  /** The first overlaps only; `check.overlapCount` says how many there are. Their findings are left out. */
  readonly check: Check;
  readonly nights: readonly Night[];
  readonly farNight: Night | null;
  readonly year: readonly YearDay[] | null;
}

/** The night that begins on the afternoon of a day, where it was asked for. */
export const nightAt = ({ nights, farNight }: Reckoning, day: EpochDay): Night | undefined =>
  [...nights, farNight].find((one) => one?.day === day) ?? undefined;

export type ReckonAnswer = { readonly kind: 'reckon'; readonly id: number } & Omit<
  Reckoning,
  'plan'
>;

/** How far the check is; only sent where it takes long. */
export interface ProgressAnswer {
  readonly kind: 'progress';
  /** 0 to 1. */
  readonly share: number;
}

/** The plan asks for too much work. */
export interface RefusedAnswer {
  readonly kind: 'refused';
  readonly id: number;
  readonly faults: readonly Fault[];
}

/** Where a start may not be moved to. */
export interface BlockedRequest {
  readonly kind: 'blocked';
  readonly plan: Plan;
  readonly on: EpochDay;
  readonly letter: string;
  readonly start: string;
}

export interface Blocked {
  readonly letter: string;
  /** Seconds of the day, ascending, on the timer's step. */
  readonly times: readonly number[];
}

export type BlockedAnswer = { readonly kind: 'blocked' } & Blocked;

export type Answer = ReckonAnswer | ProgressAnswer | RefusedAnswer | BlockedAnswer;
