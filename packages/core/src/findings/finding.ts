/** Findings about a plan: their codes and data (planning.md section 2). */
import type { BriefRules, OftenADay } from '../brief/brief.ts';
import type { Overlap } from '../engine/overlap.ts';
import type { OnOverlap } from '../plan/plan.ts';
import type { ClockSecond, EpochDay } from '../time/calendar.ts';
import type { DrivenPercent } from '../engine/examination.ts';

export type Severity = 'error' | 'warning' | 'note';
/** Where a finding is; `field` is a path in the plan document. */
export interface Where {
  readonly program?: string;
  readonly start?: string;
  readonly station?: number;
  readonly date?: EpochDay;
  readonly field?: string;
}

/** A setting the timer cannot hold. */
export type TimerLimit =
  | { readonly what: 'start-step'; readonly given: string; readonly stepMinutes: number }
  | { readonly what: 'start-count'; readonly given: number; readonly most: number }
  | { readonly what: 'run-step'; readonly given: number; readonly stepSeconds: number }
  | { readonly what: 'run-longest'; readonly given: number; readonly mostSeconds: number }
  | { readonly what: 'day-rule'; readonly given: string; readonly allowed: readonly string[] }
  | { readonly what: 'percent'; readonly given: number; readonly steps: readonly number[] }
  | { readonly what: 'no-percent-here'; readonly given: number }
  | { readonly what: 'no-months' }
  | { readonly what: 'delay'; readonly given: number; readonly mostSeconds: number }
  | { readonly what: 'interval'; readonly given: number; readonly mostDays: number }
  | { readonly what: 'no-soak'; readonly where: 'station' | 'program' }
  | { readonly what: 'no-windows' }
  | { readonly what: 'no-links' }
  | { readonly what: 'at-once'; readonly given: number; readonly most: number };

export type Finding = { readonly severity: Severity; readonly where: Where } & (
  | { readonly code: 'overlap'; readonly overlap: Overlap; readonly onOverlap: OnOverlap }
  | { readonly code: 'missing-starts' | 'missing-runs' | 'missing-days' }
  | { readonly code: 'same-start-twice'; readonly times: number }
  | { readonly code: 'not-on-timer'; readonly limit: TimerLimit }
  | { readonly code: 'little-headroom'; readonly headroom: number | null; readonly wanted: number }
  | { readonly code: 'station-in-two-programs'; readonly programs: readonly string[] }
  | {
      readonly code: 'percent-moves';
      readonly driven: DrivenPercent | null;
      readonly by: 'sensor' | 'service';
    }
  | { readonly code: 'rain-delay'; readonly until: string }
  | {
      readonly code:
        | 'timer-off'
        | 'afternoon-start'
        | 'leftover-program'
        | 'station-in-none'
        | 'odd-then-odd'
        | 'pump-off'
        | 'under-cover-obeys-sensor'
        | 'open-ignores-sensor'
        | 'sensor-bypassed'
        | 'past-midnight'
        | 'forbidden-day'
        | 'mowing-day';
    }
  /** Dates in an average week, and the longest gap in days. */
  | {
      readonly code: 'too-few-days';
      readonly mean: number;
      readonly gap: number;
      readonly least: number;
    }
  | {
      readonly code: 'starts-taken-for-stations';
      readonly starts: readonly string[];
      readonly stations: number;
    }
  /** `times`: starts on a date. */
  | { readonly code: 'leftover-start'; readonly times: number }
  | { readonly code: 'disabled-station'; readonly programs: readonly string[] }
  | { readonly code: 'percent-not-100'; readonly percent: number }
  /** Seconds a valve is open, and the most it may be. */
  | { readonly code: 'runs-off'; readonly seconds: number; readonly most: number }
  /** Seconds between two runs, and the least there should be. */
  | { readonly code: 'soak-too-short'; readonly seconds: number; readonly least: number }
  /** `at`: second of the day at which it is first wet. */
  | { readonly code: 'forbidden-hour'; readonly at: number }
  | { readonly code: 'too-many-days'; readonly days: number; readonly most: number }
  /** `at`: the first moment; litres a minute. `unknown`: stations of unknown flow, if it may be too much. */
  | {
      readonly code: 'supply';
      readonly at: ClockSecond;
      readonly stations: readonly number[];
      readonly litresPerMinute: number;
      readonly unknown: readonly number[];
      readonly supply: number;
    }
  /** Seconds of the station delay, and times a cycle. `isSure`: the pump is known to keep running. */
  | {
      readonly code: 'pump-shut';
      readonly seconds: number;
      readonly times: number;
      readonly isSure: boolean;
    }
  /** Average seconds a week at 100 percent. */
  | { readonly code: 'too-much' | 'too-little'; readonly given: number; readonly wanted: number }
  | { readonly code: 'not-often-enough'; readonly often: OftenADay; readonly times: number }
  /** The current settings break rules that begin on `from`; `breach` is the first. */
  | {
      readonly code: 'coming-rules';
      readonly from: EpochDay;
      readonly rules: BriefRules;
      readonly breach: Finding;
      /** Programs that break them. */
      readonly programs: readonly string[];
    }
  /** `ends`: seconds from 00:00 of the start's date; `notBefore` and `by`: the preferred hours. */
  | {
      readonly code: 'late-finish';
      readonly ends: number;
      readonly notBefore: string;
      readonly by: string;
    }
);

export type RuleChange = Finding & { readonly code: 'coming-rules' };
export type FindingCode = Finding['code'];
/** Every code, as documents name them. */
export const FINDING_CODES = [
  'overlap',
  'missing-starts',
  'missing-runs',
  'missing-days',
  'same-start-twice',
  'not-on-timer',
  'little-headroom',
  'starts-taken-for-stations',
  'leftover-start',
  'leftover-program',
  'station-in-two-programs',
  'station-in-none',
  'runs-off',
  'soak-too-short',
  'afternoon-start',
  'odd-then-odd',
  'pump-off',
  'under-cover-obeys-sensor',
  'past-midnight',
  'percent-not-100',
  'percent-moves',
  'rain-delay',
  'timer-off',
  'sensor-bypassed',
  'open-ignores-sensor',
  'disabled-station',
  'forbidden-day',
  'forbidden-hour',
  'too-many-days',
  'coming-rules',
  'mowing-day',
  'supply',
  'pump-shut',
  'too-much',
  'too-little',
  'too-few-days',
  'not-often-enough',
  'late-finish',
] as const satisfies readonly FindingCode[];
