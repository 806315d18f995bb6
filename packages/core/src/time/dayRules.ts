/**
 * Dates on which a start fires (timing-rules.md section 2), in one form for every day rule. Each rule, with blocked weekdays and off days
 * of the month, is the set of dates that meet three conditions: a phase of an interval, a weekday, a day of the month. What is proven about
 * this form is proven about every combination of rules.
 */
import { assertDefined } from '../document/assertDefined.ts';
import {
  civilOf,
  parseDate,
  parseMoment,
  SECONDS_PER_DAY,
  WEEKDAYS,
  weekdayIndexOf,
  formatTime,
  type EpochDay,
  type Weekday,
  type DateText,
  type TimeText,
} from './calendar.ts';

/** Seven bits, bit 0 Monday. */
export type WeekdayMask = number;
/** 31 bits, bit 0 the first of the month. */
export type MonthDayMask = number;

export const EVERY_WEEKDAY: WeekdayMask = 0b111_1111;
export const EVERY_MONTH_DAY: MonthDayMask = 0x7fff_ffff;

/** Days D with D ≡ `phase` (mod `every`), on a weekday of `weekdays` and a day of the month of `monthDays`. */
export interface DaySet {
  /** 1 or more. */
  readonly every: number;
  /** 0 to `every` − 1. */
  readonly phase: number;
  readonly weekdays: WeekdayMask;
  readonly monthDays: MonthDayMask;
}

/** Remainder of a division, non-negative also for negative `n`. */
export const modulo = (n: number, by: number) => ((n % by) + by) % by;

export function greatestCommonDivisor(a: number, b: number): number {
  return b === 0 ? a : greatestCommonDivisor(b, a % b);
}

export const maskOfWeekdays = (weekdays: readonly Weekday[]): WeekdayMask =>
  weekdays.reduce((mask, weekday) => mask | (1 << WEEKDAYS.indexOf(weekday)), 0);

export const maskOfMonthDays = (days: readonly number[]): MonthDayMask =>
  days.reduce((mask, day) => mask | (1 << (day - 1)), 0);

const ODD_DAYS = maskOfMonthDays(Array.from({ length: 16 }, (_, i) => 2 * i + 1));
const THE_31ST = maskOfMonthDays([31]);

/** What a rule and its blocked weekdays leave (section 2, 1 and 2), without the starts of an `hours` rule. */
export function ruleSet(days: Days | null, oddDaysSkip31: boolean): DaySet {
  const blocked = days !== null && 'blockedWeekdays' in days ? (days.blockedWeekdays ?? []) : [];
  const open = {
    every: 1,
    phase: 0,
    weekdays: EVERY_WEEKDAY & ~maskOfWeekdays(blocked),
    monthDays: EVERY_MONTH_DAY,
  };
  if (days === null) return { ...open, weekdays: 0 };
  switch (days.rule) {
    case 'daily':
    case 'hours':
      return open;
    case 'weekdays':
      return { ...open, weekdays: maskOfWeekdays(days.weekdays) };
    case 'interval':
      return {
        ...open,
        every: days.everyDays,
        phase: modulo(
          assertDefined(parseDate(days.firstDate), 'parseDate(days.firstDate)'),
          days.everyDays,
        ),
      };
    case 'odd':
      return { ...open, monthDays: oddDaysSkip31 ? ODD_DAYS & ~THE_31ST : ODD_DAYS };
    case 'even':
      return { ...open, monthDays: EVERY_MONTH_DAY & ~ODD_DAYS };
  }
}

/** The starts of an `hours` rule: with L the least common multiple of its hours and 24, one for each cycle in L. */
export function startsOfHours(days: Extract<Days, { rule: 'hours' }>, open: DaySet): StartDays[] {
  const everyDays = days.everyHours / greatestCommonDivisor(days.everyHours, 24);
  const first = assertDefined(parseMoment(days.first), 'parseMoment(days.first)');
  return Array.from({ length: (everyDays * 24) / days.everyHours }, (_, i) => {
    const moment = first + i * days.everyHours * 3600;
    const day = Math.floor(moment / SECONDS_PER_DAY);
    const secondOfDay = moment - day * SECONDS_PER_DAY;
    return {
      start: formatTime(secondOfDay),
      secondOfDay,
      times: 1,
      days: { ...open, every: everyDays, phase: modulo(day, everyDays) },
    };
  });
}

function reachesWeekday({ every, phase, weekdays }: Omit<DaySet, 'monthDays'>): boolean {
  return every % 7 === 0 ? (weekdays & (1 << weekdayIndexOf(phase))) !== 0 : weekdays !== 0;
}

/** Whether a day is in the set. */
export function isIn({ every, phase, weekdays, monthDays }: DaySet, day: EpochDay): boolean {
  if (every > 1 && modulo(day, every) !== phase) return false;
  if (!(weekdays & (1 << weekdayIndexOf(day)))) return false;
  return monthDays === EVERY_MONTH_DAY || (monthDays & (1 << (civilOf(day).day - 1))) !== 0;
}

/** Days until the next date of an interval, as a timer shows it: 0 on that date (section 2, Days left). */
export function daysLeft(everyDays: number, firstDate: EpochDay, today: EpochDay): number {
  return modulo(firstDate - today, everyDays);
}

export const DAY_RULES = ['daily', 'weekdays', 'interval', 'hours', 'odd', 'even'] as const;

export type DayRuleName = (typeof DAY_RULES)[number];

export type Days =
  | { readonly rule: 'daily' }
  | { readonly rule: 'weekdays'; readonly weekdays: readonly Weekday[] }
  | {
      readonly rule: 'interval';
      readonly everyDays: number;
      readonly firstDate: DateText;
      readonly blockedWeekdays?: readonly Weekday[];
    }
  | {
      readonly rule: 'hours';
      readonly everyHours: number;
      readonly first: string;
      readonly blockedWeekdays?: readonly Weekday[];
    }
  | { readonly rule: 'odd' | 'even'; readonly blockedWeekdays?: readonly Weekday[] };
/** Weekdays of a mask as listed in the plan document. */
export const weekdaysOfMask = (mask: WeekdayMask): Weekday[] =>
  WEEKDAYS.filter((_, i) => mask & (1 << i));

export const bitsOf = (mask: number): number => {
  let count = 0;
  for (let rest = mask; rest; rest &= rest - 1) count++;
  return count;
};

/** A weekday mask shifted by some days. */
export const laterWeekdays = (mask: WeekdayMask, days: number): WeekdayMask => {
  const by = modulo(days, 7);
  return ((mask << by) | (mask >> (7 - by))) & EVERY_WEEKDAY;
};

/** Weekdays a set can fall on: an interval of whole weeks always falls on one. */
export const weekdaysOn = ({ every, phase, weekdays }: DaySet): WeekdayMask =>
  every % 7 === 0 ? weekdays & (1 << weekdayIndexOf(phase)) : weekdays;
/** One start of a program: a time of day on a set of days. A program has one for each time it lists. */
export interface StartDays {
  readonly start: TimeText;
  readonly secondOfDay: number;
  /** How often the program lists this time; each is a start of its own. */
  readonly times: number;
  readonly days: DaySet;
}

/** Whether any date matches a day rule and its blocked weekdays (section 2: completeness). */
export function hasSomeDay(days: Days | null): boolean {
  const { weekdays, every, phase } = ruleSet(days, false);
  // An interval falls on every weekday unless it is a number of whole weeks; so does each start of an `hours` rule.
  if (days?.rule === 'hours')
    return startsOfHours(days, ruleSet(days, false)).some((start) => reachesWeekday(start.days));
  return weekdays !== 0 && reachesWeekday({ every, phase, weekdays });
}
