/**
 * Dates on which two sets of days coincide, k days apart: the first such date, and how often in 400 years.
 *
 * Why it is complete: a date D counts if D is in one set and D + k in the other. The two intervals combine into one (Chinese remainder
 * theorem) or exclude each other. Weekdays repeat every 7 days; conditions on day of the month and month, for D and D + k, repeat with the
 * calendar every 400 years = 146,097 days = 7 × 20,871 days. So the calendar's conditions on D are a set C of remainders modulo 146,097. An
 * interval D ≡ r (mod n) meets a remainder c in C exactly if c ≡ r modulo the greatest common divisor of n and 146,097, and then once in n
 * × 146,097 ÷ that divisor days. 146,097 = 3³ × 7 × 773, and n is a least common multiple of numbers up to 743, so the divisor divides 189
 * = 3³ × 7. It is therefore enough to count the members of C in each class modulo 189: that decides whether there is any date in an endless
 * calendar, and how often. The first date is then searched for up to the end of our calendar.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { civilOf, LAST_DAY, weekdayIndexOf, type EpochDay } from './calendar.ts';
import {
  EVERY_MONTH_DAY,
  greatestCommonDivisor,
  modulo,
  type DaySet,
  type MonthDayMask,
  type WeekdayMask,
} from './dayRules.ts';

/** Counts steps of work and throws if there are too many (the engine's `Effort`). */
export interface StepCounter {
  spend(steps: number): void;
}

/** Twelve bits, bit 0 January. */
export type MonthMask = number;
export const EVERY_MONTH: MonthMask = 0xfff;

/** Days of a set that are in some months. Equal ones have the same `id`; made by `Meetings.classOf`. */
export interface DayClass extends DaySet {
  readonly id: number;
  /** Allowed places in the year, 1 for yes; null: all. */
  readonly yearSlots: Uint8Array | null;
  readonly months: MonthMask;
}

export const DAYS_PER_400_YEARS = 146_097;
const CLASSES = 189;
/** Steps of a search before counting the whole calendar pays off. */
const PATIENCE = 400;
/** Up to this many members, the calendar's dates are tried one by one instead of the interval's. */
const FEW = 4000;

const DAYS_OF_A_MONTH = 31;

/** A place in the year: 31 × month + day of the month, both from 0. */
type YearSlot = number;
const PLACES = 12 * DAYS_OF_A_MONTH;

let placesOnce: Uint16Array | null = null;

/** Place in the year for each day of 400 years, from epoch day 0. */
function yearSlotTable(): Uint16Array {
  if (placesOnce) return placesOnce;
  placesOnce = new Uint16Array(DAYS_PER_400_YEARS);
  for (let at = 0; at < DAYS_PER_400_YEARS; at++) {
    const { month, day } = civilOf(at);
    placesOnce[at] = (month - 1) * DAYS_OF_A_MONTH + day - 1;
  }
  return placesOnce;
}

const yearSlotOf = (day: EpochDay): YearSlot =>
  assertDefined(yearSlotTable()[modulo(day, DAYS_PER_400_YEARS)], 'yearSlotTable()');

/** Month of a day, 0 January; from a table. */
const monthOfDay = (day: EpochDay): number => Math.floor(yearSlotOf(day) / DAYS_OF_A_MONTH);

const MOST_KEPT = 2000;
const allowedOnce = new Map<string, Uint8Array>();

/** Allowed places in the year for some days of some months, 1 for yes; null: all. There are few, so they are cached. */
function allowedSlots(monthDays: MonthDayMask, months: MonthMask): Uint8Array | null {
  if (monthDays === EVERY_MONTH_DAY && months === EVERY_MONTH) return null;
  const key = `${monthDays},${months}`;
  let allowed = allowedOnce.get(key);
  if (!allowed) {
    allowed = new Uint8Array(PLACES);
    for (let place = 0; place < PLACES; place++)
      if (
        months & (1 << Math.floor(place / DAYS_OF_A_MONTH)) &&
        monthDays & (1 << (place % DAYS_OF_A_MONTH))
      )
        allowed[place] = 1;
    // A server checks many plans; its cache must not grow forever.
    if (allowedOnce.size >= MOST_KEPT) allowedOnce.clear();
    allowedOnce.set(key, allowed);
  }
  return allowed;
}

const EVERY_PLACE = new Uint8Array(PLACES).fill(1);

/** Conditions on the places in the year of D and D + k. */
interface CalendarDemand {
  /** The conditions as text. */
  readonly key: string;
  readonly earlier: Uint8Array;
  readonly later: Uint8Array;
  readonly k: number;
}

const keeps = ({ earlier, later, k }: CalendarDemand, day: EpochDay): boolean =>
  earlier[yearSlotOf(day)] === 1 && later[yearSlotOf(day + k)] === 1;

/** Whether a day is in a class: interval, weekday, month and day of the month. */
export const isInClass = (
  { every, phase, weekdays, yearSlots: allowed }: DayClass,
  day: EpochDay,
): boolean =>
  (every === 1 || modulo(day, every) === phase) &&
  (weekdays & (1 << weekdayIndexOf(day))) !== 0 &&
  (allowed === null || allowed[yearSlotOf(day)] === 1);

/** Dates this few days apart are in the same month or consecutive ones. */
const DAYS_OF_THE_SHORTEST_MONTH = 28;

/** Whether two dates k days apart can be on these weekdays and in these months: a cheap no for most pairs of classes. */
export function canMeet(a: WeekdaysAndMonths, b: WeekdaysAndMonths, k: number): boolean {
  if ((a.weekdays & shiftedWeekdays(b.weekdays, k)) === 0) return false;
  if (Math.abs(k) >= DAYS_OF_THE_SHORTEST_MONTH) return true;
  const before = (b.months >> 1) | ((b.months & 1) << 11);
  const after = ((b.months << 1) & EVERY_MONTH) | (b.months >> 11);
  return (a.months & (k === 0 ? b.months : k > 0 ? b.months | before : b.months | after)) !== 0;
}

interface WeekdaysAndMonths {
  readonly weekdays: WeekdayMask;
  readonly months: MonthMask;
}

/** Days of 400 years that meet the conditions. */
interface Members {
  /** Number in each class modulo 189. */
  readonly counts: Uint32Array;
  /** All of them, ascending, if few. */
  readonly few: readonly number[] | null;
}

/** Two classes as conditions on the date D of the first. */
interface Joint {
  readonly every: number;
  readonly phase: number;
  readonly weekdays: WeekdayMask;
  /** Null: no condition on the calendar. */
  readonly demand: CalendarDemand | null;
  /** Last D to examine. */
  readonly most: EpochDay;
  /** Its dates, by the date from which they were searched. */
  readonly series: Map<EpochDay, Series>;
  /** Whether there is any date in an endless calendar, once determined. */
  possible: boolean | null;
}

/** One date D of a meeting; a cell is 12 × weekday (0 Monday) + month (0 January). */
interface MeetingDate {
  readonly day: EpochDay;
  /** Cell of D. */
  readonly cell: number;
  /** Cell of D + k. */
  readonly laterCell: number;
}

/** Dates of a meeting in order, found on demand. */
export interface Series {
  /** The date at an index from 0; null: there are no more. Indexes are requested in order. */
  at(place: number): MeetingDate | null;
}

const NO_DATES: Series = { at: () => null };

/** Index of a day in a table by weekday and month. */
export const cellOf = (day: EpochDay): number => weekdayIndexOf(day) * 12 + monthOfDay(day);

/** Mask whose bit w is bit w + k of `mask`, modulo the week. */
function shiftedWeekdays(mask: WeekdayMask, k: number): WeekdayMask {
  const shift = modulo(k, 7);
  return ((mask >> shift) | (mask << (7 - shift))) & 0b111_1111;
}

interface Count {
  readonly every: number;
  readonly phase: number;
}

/** The combination of two intervals; null if they exclude each other. */
function joinCounts(a: Count, b: Count): Count | null {
  if (a.every === 1) return b;
  const divisor = greatestCommonDivisor(a.every, b.every);
  if (modulo(a.phase - b.phase, divisor) !== 0) return null;
  let phase = a.phase;
  // At most b.every ÷ divisor iterations.
  while (modulo(phase - b.phase, b.every) !== 0) phase += a.every;
  return { every: (a.every / divisor) * b.every, phase };
}

/** Computes and caches meetings; one for each check of a plan. */
export class Meetings {
  private readonly classes = new Map<string, DayClass>();
  /** The same keyed by set, weekdays and months as numbers, without making text. */
  private readonly classesOfSet = new Map<DaySet, Map<number, DayClass>>();
  private readonly joints = new Map<number, Map<number, Joint | null>>();
  private readonly members = new Map<string, Members>();
  private readonly effort: StepCounter;

  constructor(effort: StepCounter) {
    this.effort = effort;
  }

  /** Days of a set on some weekdays and in some months. */
  classOf(set: DaySet, onWeekdays: WeekdayMask, months: MonthMask): DayClass {
    let known = this.classesOfSet.get(set);
    if (!known) this.classesOfSet.set(set, (known = new Map<number, DayClass>()));
    const part = onWeekdays * (EVERY_MONTH + 1) + months;
    let made = known.get(part);
    if (!made) known.set(part, (made = this.madeClass(set, onWeekdays, months)));
    return made;
  }

  private madeClass(set: DaySet, onWeekdays: WeekdayMask, months: MonthMask): DayClass {
    const { every, phase, monthDays } = set;
    const weekdays = set.weekdays & onWeekdays;
    const key = `${every},${phase},${weekdays},${monthDays},${months}`;
    let made = this.classes.get(key);
    if (!made) {
      const id = this.classes.size;
      const allowed = allowedSlots(monthDays, months);
      made = { id, yearSlots: allowed, every, phase, weekdays, monthDays, months };
      this.classes.set(key, made);
    }
    return made;
  }

  /** The first day D ≥ `least` of `a` with D + k in `b`, both within the calendar, or null. */
  first(a: DayClass, b: DayClass, k: number, least: EpochDay): EpochDay | null {
    return this.series(a, b, k, least).at(0)?.day ?? null;
  }

  /** All such days D in order. */
  series(a: DayClass, b: DayClass, k: number, least: EpochDay): Series {
    const joint = this.joint(a, b, k);
    if (!joint) return NO_DATES;
    let series = joint.series.get(least);
    if (!series) joint.series.set(least, (series = this.seriesOf(joint, k, least)));
    return series;
  }

  private seriesOf(joint: Joint, k: number, least: EpochDay): Series {
    const dates: (MeetingDate | null)[] = [];
    return {
      at: (place) => {
        let date = dates[place];
        if (date !== undefined) return date;
        const last = dates.at(-1);
        if (last === null) return null;
        const day = this.search(joint, last === undefined ? least : last.day + 1);
        date = day === null ? null : { day, cell: cellOf(day), laterCell: cellOf(day + k) };
        dates.push(date);
        return date;
      },
    };
  }

  /** First day of a class on or after a date, or null. */
  firstOf(dates: DayClass, least: EpochDay): EpochDay | null {
    return this.first(dates, dates, 0, least);
  }

  /** Average number of days D in 400 years that are in `a` with D + k in `b`, in an endless calendar. */
  inFourCenturies(a: DayClass, b: DayClass, k: number): number {
    const joint = this.joint(a, b, k);
    if (!joint) return 0;
    const { every, phase, weekdays, demand } = joint;
    const counts = demand && this.membersOf(demand).counts;
    const divisor = greatestCommonDivisor(every, CLASSES);
    let sum = 0;
    for (let rest = modulo(phase, divisor); rest < CLASSES; rest += divisor)
      if (weekdays & (1 << weekdayIndexOf(rest)))
        sum += counts ? assertDefined(counts[rest], 'counts[rest]') : DAYS_PER_400_YEARS / CLASSES;
    return (sum * divisor) / every;
  }

  private joint(a: DayClass, b: DayClass, k: number): Joint | null {
    const pair = a.id * 65_536 + b.id;
    let byDays = this.joints.get(pair);
    if (!byDays) this.joints.set(pair, (byDays = new Map<number, Joint | null>()));
    let joint = byDays.get(k);
    if (joint === undefined) byDays.set(k, (joint = this.join(a, b, k)));
    return joint;
  }

  private join(a: DayClass, b: DayClass, k: number): Joint | null {
    this.effort.spend(20);
    if (!canMeet(a, b, k)) return null;
    const weekdays = a.weekdays & shiftedWeekdays(b.weekdays, k);
    const count = joinCounts(a, { every: b.every, phase: modulo(b.phase - k, b.every) });
    if (!count) return null;
    if (count.every % 7 === 0 && !(weekdays & (1 << weekdayIndexOf(count.phase)))) return null;
    const demand =
      a.yearSlots === null && b.yearSlots === null
        ? null
        : {
            key: `${a.monthDays},${a.months},${b.monthDays},${b.months},${k}`,
            earlier: a.yearSlots ?? EVERY_PLACE,
            later: b.yearSlots ?? EVERY_PLACE,
            k,
          };
    const most = Math.min(LAST_DAY, LAST_DAY - k);
    return { ...count, weekdays, demand, most, series: new Map(), possible: null };
  }

  private search(joint: Joint, least: EpochDay): EpochDay | null {
    const { every, phase, weekdays, demand, most } = joint;
    const begin = least + modulo(phase - least, every);
    let day = begin;
    // After seven steps every weekday has been tried.
    const patience = demand ? PATIENCE : 7;
    for (let step = 0; step < patience; step++, day += every) {
      if (day > most) return null;
      if (weekdays & (1 << weekdayIndexOf(day)) && (!demand || keeps(demand, day))) return day;
    }
    this.effort.spend(patience);
    if (!demand) return null;
    joint.possible ??= this.isPossible(joint, demand);
    if (!joint.possible) return null;
    const { few } = this.membersOf(demand);
    if (few) return this.searchAmong(few, joint, day);
    for (; day <= most; day += every) {
      this.effort.spend(1);
      if (weekdays & (1 << weekdayIndexOf(day)) && keeps(demand, day)) return day;
    }
    return null;
  }

  /** Tries the calendar's dates, 400 years at a time. */
  private searchAmong(
    few: readonly number[],
    { every, phase, weekdays, most }: Joint,
    least: EpochDay,
  ): EpochDay | null {
    let era = Math.floor(least / DAYS_PER_400_YEARS) * DAYS_PER_400_YEARS;
    for (; era <= most; era += DAYS_PER_400_YEARS) {
      this.effort.spend(few.length);
      for (const member of few) {
        const day = era + member;
        if (day < least || modulo(day - phase, every) !== 0) continue;
        if (day > most) return null;
        if (weekdays & (1 << weekdayIndexOf(day))) return day;
      }
    }
    return null;
  }

  /** Whether some calendar member is in the interval's class and on its weekdays; otherwise there is no date. */
  private isPossible({ every, phase, weekdays }: Joint, demand: CalendarDemand): boolean {
    const { counts } = this.membersOf(demand);
    this.effort.spend(CLASSES);
    const divisor = greatestCommonDivisor(every, CLASSES);
    for (let rest = modulo(phase, divisor); rest < CLASSES; rest += divisor)
      if (weekdays & (1 << weekdayIndexOf(rest)) && assertDefined(counts[rest], 'counts[rest]') > 0)
        return true;
    return false;
  }

  private membersOf({ key, earlier, later, k }: CalendarDemand): Members {
    let known = this.members.get(key);
    if (known) return known;
    this.effort.spend(DAYS_PER_400_YEARS / 10);
    const place = yearSlotTable();
    const counts = new Uint32Array(CLASSES);
    const few: number[] = [];
    let at = modulo(k, DAYS_PER_400_YEARS);
    for (let day = 0; day < DAYS_PER_400_YEARS; day++) {
      if (
        earlier[assertDefined(place[day], 'place[day]')] === 1 &&
        later[assertDefined(place[at], 'place[at]')] === 1
      ) {
        const rest = day % CLASSES;
        counts[rest] = assertDefined(counts[rest], 'counts[rest]') + 1;
        if (few.length <= FEW) few.push(day);
      }
      if (++at === DAYS_PER_400_YEARS) at = 0;
    }
    known = { counts, few: few.length <= FEW ? few : null };
    this.members.set(key, known);
    return known;
  }
}
