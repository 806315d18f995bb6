/** Inputs of the planner besides the brief. */
import type { EpochDay, TimeText } from '../time/calendar.ts';
import type { Station } from '../plan/plan.ts';
import type { Days } from '../time/dayRules.ts';

/** Parts to keep while the planner finds the rest. */
export interface Pins {
  /** Letter of the program for a station. */
  readonly stations?: readonly { readonly station: number; readonly program: string }[];
  readonly starts?: readonly { readonly program: string; readonly start: TimeText }[];
  readonly days?: readonly { readonly program: string; readonly days: Days }[];
  /** Seconds of a run, as entered. */
  readonly runs?: readonly { readonly station: number; readonly seconds: number }[];
}

export interface PlannerOptions {
  /** Earliest first date of an interval. */
  readonly on?: EpochDay;
  readonly pins?: Pins;
  /** Avoid starts between two seconds of the day: hours a clock change skips or repeats. */
  readonly avoid?: readonly { readonly from: number; readonly to: number }[];
  /** Stations linked to one of the brief's. A brief does not list them, but their cycles take time. */
  readonly linked?: readonly Station[];
  /** Thoroughness: 1 takes as long as a technician is willing to wait. */
  readonly thoroughness?: number;
  /** Reject plans whose cost part 1 exceeds this; absent: accept any. */
  readonly mostShort?: number;
}
