/** What the page of a timer asks, and the answer. Plain data both ways. */
import type {
  Brief,
  Check,
  ClockChange,
  ComingRules,
  EpochDay,
  Night,
  Plan,
  SupplyNoted,
  TimedPress,
  YearDay,
} from '@water-clock/core';

/** How the nights are looked at: as set, or as they would be. */
export interface WhatIf {
  /** Every cycle at this percent; null: as set. */
  readonly percent: number | null;
  /** Seconds by which the timer's clock is ahead of the true hour. */
  readonly ahead: number;
  /** What is done to it, each with the presses that it is, in true time. */
  readonly acts: readonly WhatIfAct[];
  /** What it falls back to without power; null: nobody knows. */
  readonly factory: Plan | null;
}

/** One thing that people, weather or power do: a press, or two where it has an end. */
export type WhatIfAct = readonly TimedPress[];

/** All that is done, in the order of its moments. */
export const pressesOf = ({ acts }: WhatIf): TimedPress[] =>
  acts.flat().sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));

export interface TimerQuestion {
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
  /** Programs of which nobody knows where their interval stands. */
  readonly anyPhase: readonly string[];
  /** Rules of the place that begin later. */
  readonly coming: readonly ComingRules[];
  /** What is known of the water at the timer. */
  readonly supply: SupplyNoted;
  /** Stations of which nobody knows what they need. */
  readonly unknown: readonly number[];
}

export interface TimerAnswer {
  readonly plan: Plan;
  /** The first overlaps only; `check.overlapCount` says how many there are. Their findings are left out. */
  readonly check: Check;
  readonly nights: readonly Night[];
  readonly farNight: Night | null;
  readonly year: readonly YearDay[] | null;
  /** Of the percent looked at: the first night on which cycles overlap; null: none does, or it is looked at as set. */
  readonly firstOverlap: { readonly percent: number; readonly night: EpochDay } | null;
}

/** The night that begins on the afternoon of a day, where it was asked for. */
export const nightAt = ({ nights, farNight }: TimerAnswer, day: EpochDay): Night | undefined =>
  [...nights, farNight].find((night) => night?.day === day) ?? undefined;

/** Where may a start not be moved to? */
export interface BlockedQuestion {
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
