/** The plan document, version 1, as typed data (plan-format.md). Read with `readPlan`, written with `writePlan`. */
import type { TimeText } from '../time/calendar.ts';
import type { DayRuleName, Days } from '../time/dayRules.ts';
import type { NoWaterWindow } from '../time/windows.ts';

export const PLAN_FORMAT = 'water-clock-plan';
export const PLAN_VERSION = 1;
export const PLAN_MEDIA_TYPE = 'application/vnd.water-clock.plan+json';
export const START_STEPS_MINUTES = [1, 5, 10, 15, 20, 30, 60] as const;
export const SEASONAL_SCOPES = ['none', 'timer', 'program'] as const;
export const ROUNDINGS = ['nearest', 'down', 'up'] as const;
export const CYCLE_SOAKS = ['none', 'station', 'program'] as const;
export const ON_OVERLAPS = ['queue', 'drop', 'cut', 'together', 'share'] as const;
export const IN_WINDOWS = ['ignore', 'cut', 'pause'] as const;
export const DIALECT_ORDER = [
  'clock',
  'percent',
  'starts',
  'runs',
  'days',
  'soak',
  'delay',
  'windows',
  'pump',
  'sensor',
  'mode',
] as const;
export type OnOverlap = (typeof ON_OVERLAPS)[number];

export interface PlanSite {
  readonly name: string;
  readonly timeZone?: string;
  readonly latitude?: number;
  readonly longitude?: number;
  readonly houseNumber?: string;
}

export interface Seasonal {
  readonly scope: (typeof SEASONAL_SCOPES)[number];
  readonly lowestPercent: number;
  readonly highestPercent: number;
  readonly stepPercent: number;
  readonly byMonth: boolean;
  readonly roundToSeconds: 1 | 60;
  readonly rounding: (typeof ROUNDINGS)[number];
}

export interface Dialect {
  readonly programLabels?: 'letters' | 'numbers';
  readonly weekOrder?: 'mon' | 'sun';
  readonly weekdayKeys?: 'names' | 'digits';
  readonly clock?: 'date' | 'weekday';
  readonly clockStyle?: '12' | '24' | 'either';
  readonly runPage?: 'entered' | 'adjusted';
  readonly total?: {
    readonly shown: boolean;
    readonly percent: boolean;
    readonly soaks: boolean;
    readonly delays: boolean;
  };
  readonly intervalPhase?: 'daysLeft' | 'firstDate' | 'none';
  readonly intervalCounts?: 'every' | 'between';
  readonly confirms?: boolean;
  readonly order?: readonly (typeof DIALECT_ORDER)[number][];
}

/** Abilities of the timer. */
export interface Timer {
  readonly name: string;
  readonly stationCount: number;
  readonly programCount: number;
  readonly startsPerProgram: number;
  readonly startStepMinutes: (typeof START_STEPS_MINUTES)[number];
  readonly runStepSeconds: number;
  readonly longestRunSeconds: number;
  readonly dayRules: readonly DayRuleName[];
  readonly longestIntervalDays: number;
  readonly oddDaysSkip31: boolean;
  readonly seasonal: Seasonal;
  readonly cycleSoak: (typeof CYCLE_SOAKS)[number];
  readonly longestStationDelaySeconds: number;
  readonly onOverlap: OnOverlap;
  readonly inWindow: (typeof IN_WINDOWS)[number];
  readonly stationsAtOnce: number;
  readonly followsDaylightSaving: boolean;
  /** Effect of a manual start on what is running; `replace` by default. */
  readonly manualDuring?: 'replace' | 'refuse';
  /** Effect of rain on a cycle; `dry-run` by default. */
  readonly onRain?: 'dry-run' | 'lose';
  readonly powerLoss?: {
    readonly clock?: 'kept' | 'stops' | 'resets';
    readonly settings?: 'kept' | 'factory';
  };
  readonly clockAfterReset?: string;
  /** Whether stations can be linked. */
  readonly linksStations?: boolean;
  readonly dialect?: Dialect;
}

/** Settings of the timer, without programs. */
export interface Settings {
  readonly mode?: 'run' | 'off';
  readonly sensor?: 'active' | 'bypass' | 'none';
  readonly percentDrivenBy?: 'person' | 'sensor' | 'service';
  readonly percentRange?: { readonly lowest: number; readonly highest: number };
  readonly seasonalPercent?: number;
  readonly monthlyPercent?: readonly number[];
  readonly stationDelaySeconds?: number;
  readonly noWaterWindows?: readonly NoWaterWindow[];
  readonly offDaysOfMonth?: readonly number[];
  readonly wateringResumes?: string;
  readonly stationsAtOnce?: number;
  readonly flowLimitLpm?: number;
}

export interface Station {
  readonly number: number;
  readonly name?: string;
  readonly enabled?: boolean;
  readonly cycleSeconds?: number;
  readonly soakSeconds?: number;
  readonly flowLpm?: number;
  readonly pump?: boolean;
  readonly obeysRainSensor?: boolean;
  readonly needsPump?: boolean;
  readonly underCover?: boolean;
  readonly flowSensor?: boolean;
  readonly overhead?: boolean;
  /** The station whose run times, cycles and soak it uses. */
  readonly linkedTo?: number;
}

export interface Run {
  readonly station: number;
  /** As entered, before any seasonal percent. */
  readonly seconds: number;
}

export interface Program {
  /** A to Z. */
  readonly letter: string;
  readonly starts: readonly TimeText[];
  readonly runs: readonly Run[];
  /** Null: not set. */
  readonly days: Days | null;
  readonly seasonalPercent?: number;
  readonly cycleSeconds?: number;
  readonly soakSeconds?: number;
  readonly stationsAtOnce?: number;
  readonly noWaterWindows?: readonly NoWaterWindow[];
}

export interface Plan {
  readonly format: typeof PLAN_FORMAT;
  readonly version: typeof PLAN_VERSION;
  readonly site?: PlanSite;
  readonly timer: Timer;
  readonly settings: Settings;
  readonly stations: readonly Station[];
  readonly programs: readonly Program[];
}

/** Programs in letter order, which is the order in which a timer serves them. */
export function programsByLetter(plan: Plan): readonly Program[] {
  return [...plan.programs].sort((a, b) => (a.letter < b.letter ? -1 : 1));
}

/** Letter of a timer's n-th program, n from 0. */
export function letterAt(index: number): string {
  return String.fromCharCode(65 + index);
}
