/** Dates of day rules as they fall: how many in an average week, and how far apart (planning.md section 3). */
import { civilOf, weekdayIndexOf } from './calendar.ts';
import { EVERY_MONTH_DAY, greatestCommonDivisor, modulo, type DaySet } from './dayRules.ts';
import { DAYS_PER_400_YEARS } from './meetings.ts';

/** For a union of sets, over a whole common period. */
export interface DateCount {
  /** Average dates a week. */
  readonly mean: number;
  /** Most days between consecutive dates; Infinity if there are none. */
  readonly gap: number;
}

const NONE: DateCount = { mean: 0, gap: Infinity };

/** Sets with a longer common period are counted over this many days only; their intervals hardly ever coincide. */
const MOST_DAYS = DAYS_PER_400_YEARS;
const MOST_KEPT = 20_000;
const countsOnce = new Map<string, DateCount>();

let monthDaysOnce: Uint8Array | null = null;

/** For each day of 400 years, its day of the month minus one. */
function monthDayTable(): Uint8Array {
  monthDaysOnce ??= Uint8Array.from({ length: DAYS_PER_400_YEARS }, (_, at) => civilOf(at).day - 1);
  return monthDaysOnce;
}

const leastCommonMultiple = (a: number, b: number) => (a / greatestCommonDivisor(a, b)) * b;

/** @returns for any day, equal for equal sets */
export function countDates(sets: readonly DaySet[]): DateCount {
  const different = new Map<string, DaySet>();
  for (const set of sets) {
    const { every, phase, weekdays, monthDays } = set;
    if (weekdays !== 0 && monthDays !== 0)
      different.set(`${every},${phase},${weekdays},${monthDays}`, set);
  }
  const key = [...different.keys()].sort().join(' ');
  let count = countsOnce.get(key);
  if (!count) {
    count = counted([...different.values()]);
    if (countsOnce.size >= MOST_KEPT) countsOnce.clear();
    countsOnce.set(key, count);
  }
  return count;
}

function counted(sets: readonly DaySet[]): DateCount {
  const [first] = sets;
  if (!first) return NONE;
  const byCalendar = sets.some(({ monthDays }) => monthDays !== EVERY_MONTH_DAY);
  const table = byCalendar ? monthDayTable() : null;
  const days = sets.reduce(
    (period, { every }) => leastCommonMultiple(period, every),
    byCalendar ? DAYS_PER_400_YEARS : 7,
  );
  // A single interval goes only through its own days, so its period is never too long.
  const period = sets.length === 1 ? days : Math.min(days, MOST_DAYS);
  const isIn = ({ every, phase, weekdays, monthDays }: DaySet, day: number) =>
    (every === 1 || day % every === phase) &&
    (weekdays & (1 << weekdayIndexOf(day))) !== 0 &&
    (table === null || (monthDays & (1 << (table[day % DAYS_PER_400_YEARS] ?? 0))) !== 0);
  // For a single interval, only its own days are examined.
  const [begin, step] =
    sets.length === 1 ? [modulo(first.phase, first.every), first.every] : [0, 1];
  let dates = 0;
  let gap = 0;
  let earliest = -1;
  let last = -1;
  for (let day = begin; day < period; day += step) {
    if (!sets.some((set) => isIn(set, day))) continue;
    dates++;
    if (last < 0) earliest = day;
    else gap = Math.max(gap, day - last);
    last = day;
  }
  if (dates === 0) return NONE;
  return { mean: (dates * 7) / period, gap: Math.max(gap, earliest + period - last) };
}

/** Most days between two dates of a station watered a number of times a week (planning.md section 3). */
export const mostDaysBetween = (least: number): number => Math.ceil(14 / least);
