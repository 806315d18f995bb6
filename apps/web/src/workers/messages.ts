/** What the page asks of the worker and what it answers. Plain data both ways. */
import type { Check, EpochDay, Night, Plan } from '@water-clock/core';

export interface ReckonRequest {
  readonly kind: 'reckon';
  readonly id: number;
  readonly plan: Plan;
  readonly on: EpochDay;
  readonly firstNight: EpochDay;
  readonly nights: number;
  /** One more night, on any date; null for none. */
  readonly farNight: EpochDay | null;
}

export interface Reckoning {
  readonly plan: Plan;
  readonly check: Check;
  readonly nights: readonly Night[];
  readonly farNight: Night | null;
}

export type ReckonAnswer = { readonly kind: 'reckon'; readonly id: number } & Omit<
  Reckoning,
  'plan'
>;

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
