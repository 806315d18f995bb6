/** The brief, version 1: what is wanted of a timer (planning.md section 1). Read with `readBrief`. */
import type { Weekday, DateText, TimeText } from '../time/calendar.ts';
import type { Settings, Station, Timer } from '../plan/plan.ts';
import type { NoWaterWindow } from '../time/windows.ts';

export const BRIEF_FORMAT = 'water-clock-brief';
export const BRIEF_VERSION = 1;

export const START_WISHES = ['one', 'repeated', 'timer-soak', 'any'] as const;
export const DAY_WISHES = ['weekdays', 'interval', 'any'] as const;
export const PROGRAM_WISHES = ['one', 'any', 'by-need'] as const;

/** New seed and turf: a number of runs on each of its dates, all between two times of day. */
export interface OftenADay {
  /** 2 to 8. */
  readonly times: number;
  readonly from: TimeText;
  readonly to: TimeText;
  /** Last date with these runs. */
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
  /** Need in seconds a week at 100 percent, 0 to 604,800. */
  readonly weeklySeconds: number;
  readonly group?: string;
  /** Watering dates a week, 1 to 7. */
  readonly days?: { readonly least: number; readonly most: number };
  readonly oftenADay?: OftenADay;
}

/** What the site's rules allow. */
export interface BriefRules {
  readonly weekdays?: readonly Weekday[];
  readonly parity?: 'odd' | 'even';
  readonly noWaterWindows?: readonly NoWaterWindow[];
  readonly mostDaysPerWeek?: number;
  /** False: the rules also bind stations that are not overhead. */
  readonly dripExempt?: boolean;
}

export interface Mowing {
  readonly weekdays: readonly Weekday[];
  /** Stay dry the whole day before as well. */
  readonly dayBefore?: boolean;
  /** On the day before, dry from this time on. */
  readonly dryFrom?: TimeText;
}

/** An announced edition of the rules. */
export interface ComingEdition {
  readonly from: DateText;
  readonly rules: BriefRules;
}

export interface Wish {
  /** 21:00 by default. */
  readonly notBefore?: TimeText;
  /** 07:00 by default. */
  readonly finishBy?: TimeText;
  readonly dripAnyTime?: boolean;
  /** Watering dates a week of stations without their own `days`. */
  readonly daysPerWeek?: NonNullable<BriefStation['days']>;
  readonly starts?: (typeof START_WISHES)[number];
  readonly days?: (typeof DAY_WISHES)[number];
  readonly programs?: (typeof PROGRAM_WISHES)[number];
  /** 130 by default. */
  readonly headroomPercent?: number;
  /** Groups that must not share a program. */
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
  /** Announced editions, ascending by date; each is valid until the next. */
  readonly coming?: readonly ComingEdition[];
  readonly wish?: Wish;
}

/** A wish with its defaults filled in. */
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
