/** What the planner is given besides the brief. */
import type { EpochDay, TimeText } from '../time/calendar.ts';
import type { Station } from '../plan/plan.ts';
import type { Days } from '../time/dayRules.ts';

/** What stays as it is, while the planner works out the rest around it. */
export interface Pins {
  /** Letter of the program that a station is to be in. */
  readonly stations?: readonly { readonly station: number; readonly program: string }[];
  readonly starts?: readonly { readonly program: string; readonly start: TimeText }[];
  readonly days?: readonly { readonly program: string; readonly days: Days }[];
  /** Seconds of a run, as entered. */
  readonly runs?: readonly { readonly station: number; readonly seconds: number }[];
}

export interface PlannerOptions {
  /** The first date of an interval is on or after it. */
  readonly on?: EpochDay;
  readonly pins?: Pins;
  /** Starts from a second of the day up to another are avoided: hours that a clock change skips or repeats. */
  readonly avoid?: readonly { readonly from: number; readonly to: number }[];
  /** Stations that take their runs from one of the brief: a brief does not name them, but their cycles take time. */
  readonly linked?: readonly Station[];
  /** How hard to try: 1 takes as long as a technician is ready to wait. */
  readonly thoroughness?: number;
  /** A plan that leaves more of the garden short than this first part of the cost is not wanted; absent: any is. */
  readonly mostShort?: number;
}
