/** Question and answer of a timer's page. Plain data both ways. */
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

/** How to show the nights: as set, or what if. */
export interface WhatIf {
  /** Every cycle at this percent; null: as set. */
  readonly percent: number | null;
  /** Seconds by which the timer's clock is ahead of true time. */
  readonly ahead: number;
  /** Events, each with its presses, in true time. */
  readonly acts: readonly WhatIfAct[];
  /** Default program after a power cut; null: not known. */
  readonly factory: Plan | null;
}

/** One event from people, weather or power: a press, or two if it has an end. */
export type WhatIfAct = readonly TimedPress[];

/** All events in order. */
export const pressesOf = ({ acts }: WhatIf): TimedPress[] =>
  acts.flat().sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));

export interface TimerQuestion {
  readonly plan: Plan;
  readonly on: EpochDay;
  readonly firstNight: EpochDay;
  readonly nights: number;
  /** One more night, on any date; null: none. */
  readonly farNight: EpochDay | null;
  /** First date of the year view; null: not wanted. */
  readonly yearFrom: EpochDay | null;
  readonly whatIf: WhatIf;
  /** Coming clock changes at the site. */
  readonly changes: readonly ClockChange[];
  /** The brief, for the findings. */
  readonly brief: Brief;
  /** Programs whose interval phase is not known. */
  readonly anyPhase: readonly string[];
  /** Announced rules of the site. */
  readonly coming: readonly ComingRules[];
  /** Known facts about the water supply. */
  readonly supply: SupplyNoted;
  /** Stations whose water need is not known. */
  readonly unknown: readonly number[];
}

export interface TimerAnswer {
  readonly plan: Plan;
  /** Only the first overlaps, without their findings; `check.overlapCount` has the number. */
  readonly check: Check;
  readonly nights: readonly Night[];
  readonly farNight: Night | null;
  readonly year: readonly YearDay[] | null;
  /** The first night with an overlap at the percent shown; null: none, or shown as set. */
  readonly firstOverlap: { readonly percent: number; readonly night: EpochDay } | null;
}

/** The night that begins on a given afternoon, if asked for. */
export const nightAt = ({ nights, farNight }: TimerAnswer, day: EpochDay): Night | undefined =>
  [...nights, farNight].find((night) => night?.day === day) ?? undefined;

/** Question: to which times may a start not move? */
export interface BlockedQuestion {
  readonly plan: Plan;
  readonly on: EpochDay;
  readonly letter: string;
  readonly start: string;
}

export interface Blocked {
  readonly letter: string;
  /** Seconds of the day, ascending, in the timer's step. */
  readonly times: readonly number[];
}
