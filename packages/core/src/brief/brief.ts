/** The brief, version 1, as typed data: what is wanted of a timer (planning.md section 1). Read with `readBrief`. */
import type { Weekday, DateText, TimeText } from '../time/calendar.ts';
import type { Settings, Station, Timer } from '../plan/plan.ts';
import type { NoWaterWindow } from '../time/windows.ts';

export const BRIEF_FORMAT = 'water-clock-brief';
export const BRIEF_VERSION = 1;

export const START_WISHES = ['one', 'repeated', 'timer-soak', 'any'] as const;
export const DAY_WISHES = ['weekdays', 'interval', 'any'] as const;
export const PROGRAM_WISHES = ['one', 'any', 'by-need'] as const;

/** New seed and turf: so many runs on each of its dates, all between two times of day. */
export interface OftenADay {
  /** 2 to 8. */
  readonly times: number;
  readonly from: TimeText;
  readonly to: TimeText;
  /** The last date on which it is to be so. */
  readonly until?: DateText;
}

export interface BriefStation extends Pick<
  Station,
  | 'number'
  | 'name'
  | 'cycleSeconds'
  | 'soakSeconds'
  | 'flowLpm'
  | 'overhead'
  | 'pump'
  | 'obeysRainSensor'
  | 'needsPump'
  | 'underCover'
  | 'flowSensor'
> {
  /** What it needs in a week at 100 percent, 0 to 604,800. */
  readonly weeklySeconds: number;
  readonly group?: string;
  /** Watering dates in a week, 1 to 7. */
  readonly days?: { readonly least: number; readonly most: number };
  readonly oftenADay?: OftenADay;
}

/** What the place allows. */
export interface BriefRules {
  readonly weekdays?: readonly Weekday[];
  readonly parity?: 'odd' | 'even';
  readonly noWaterWindows?: readonly NoWaterWindow[];
  readonly mostDaysPerWeek?: number;
  /** False: the rules bind stations that are not overhead as well. */
  readonly dripExempt?: boolean;
}

export interface Mowing {
  readonly weekdays: readonly Weekday[];
  /** The whole day before is to stay dry as well. */
  readonly dayBefore?: boolean;
  /** On the day before, dry from this time on. */
  readonly dryFrom?: TimeText;
}

/** An edition of the rules that is announced. */
export interface ComingEdition {
  readonly from: DateText;
  readonly rules: BriefRules;
}

export interface Wish {
  /** 21:00 where not said. */
  readonly notBefore?: TimeText;
  /** 07:00 where not said. */
  readonly finishBy?: TimeText;
  readonly dripAnyTime?: boolean;
  /** Watering dates in a week of every station without `days` of its own. */
  readonly daysPerWeek?: NonNullable<BriefStation['days']>;
  readonly starts?: (typeof START_WISHES)[number];
  readonly days?: (typeof DAY_WISHES)[number];
  readonly programs?: (typeof PROGRAM_WISHES)[number];
  /** 130 where not said. */
  readonly headroomPercent?: number;
  /** Groups that are never to be in one program. */
  readonly apart?: readonly (readonly [string, string])[];
}

export interface Brief {
  readonly format: typeof BRIEF_FORMAT;
  readonly version: typeof BRIEF_VERSION;
  readonly timer: Timer;
  readonly settings?: Pick<
    Settings,
    'stationDelaySeconds' | 'stationsAtOnce' | 'flowLimitLpm' | 'offDaysOfMonth'
  >;
  readonly stations: readonly BriefStation[];
  readonly rules?: BriefRules;
  readonly mowing?: Mowing;
  /** Editions already announced, ascending by date; each holds until the next one. */
  readonly coming?: readonly ComingEdition[];
  readonly wish?: Wish;
}

/** A wish with what holds where nothing is said. */
export const wishOf = ({ wish = {} }: Pick<Brief, 'wish'>) => ({
  notBefore: '21:00',
  finishBy: '07:00',
  dripAnyTime: false,
  starts: 'any' as const,
  days: 'any' as const,
  programs: 'any' as const,
  headroomPercent: 130,
  apart: [],
  ...wish,
});
