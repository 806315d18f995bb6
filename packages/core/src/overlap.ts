/**
 * Whether two nominal cycles ever overlap: a proof for all dates to the end of the calendar, not a sample of weeks
 * (timing-rules.md sections 5 and 7).
 *
 * Why it is complete. A nominal cycle is fixed by its start's time of day and the month of its date, since only the percent
 * depends on the date. So two starts, b's date k days after a's, overlap or not according to their times of day, the two
 * months and k alone; and whether such dates exist at all is a question about the two day rules and k. Day rules here repeat
 * every 7 days, so for a fixed k it is answered by moving one set of weekdays by k and intersecting. It is enough to look
 * at |k| ≤ 7 while the percent is the same all year: where a's cycle reaches b's begun k + 7 days later, it reaches the one
 * begun k days later too, on the same date of a, and that event comes first. Where the percent changes with the month every
 * k that a longest cycle can span is looked at, for each pair of months that lie k days apart.
 */
import {
  civilOf,
  epochDayOf,
  LAST_DAY,
  monthOf,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  type ClockSecond,
  type EpochDay,
} from './calendar.ts';
import type { TimeText } from './plan.ts';
import { firstDayNotDelayed, type WeekdayMask } from './program.ts';

/** A start as people name it: a program has one name for each time of day, listed once or more. */
export interface NamedStart {
  readonly start: TimeText;
  readonly secondOfDay: number;
  /** How often the program lists this time; each is a start of its own. */
  readonly times: number;
}

/** All that the proof needs of one complete program. */
export interface ProgramCycles {
  readonly letter: string;
  readonly weekdays: WeekdayMask;
  /** Ascending by time of day. */
  readonly starts: readonly NamedStart[];
  /** Length of the nominal cycle, for each month of the date on which it was due, January first. */
  readonly secondsByMonth: readonly number[];
}

/** The dates that count: starts due on or after `from`, and not before `resumes`. */
export interface Span {
  readonly from: EpochDay;
  readonly resumes: ClockSecond;
}

export interface CycleRef {
  readonly letter: string;
  readonly start: TimeText;
  /** The date on which the start was due. */
  readonly day: EpochDay;
  readonly begins: ClockSecond;
  /** The end itself is not occupied. */
  readonly ends: ClockSecond;
}

/** Two nominal cycles with at least one second in common; `first` begins earlier (plan-format.md, `check`). */
export interface Overlap {
  readonly first: CycleRef;
  readonly second: CycleRef;
  readonly sharedSeconds: number;
}

const DAYS_PER_400_YEARS = 146_097;

/** Weekdays w such that w is in `a` and the weekday k days after it in `b`. */
function meetingWeekdays(a: WeekdayMask, b: WeekdayMask, k: number): WeekdayMask {
  const shift = ((k % 7) + 7) % 7;
  return a & ((b >> shift) | (b << (7 - shift))) & 0b111_1111;
}

/** The first day of the span `least`…`most` whose weekday is in the mask; null where there is none. */
function firstOnWeekday(mask: WeekdayMask, least: EpochDay, most: EpochDay): EpochDay | null {
  for (let day = least; day < least + 7 && day <= most; day++)
    if (mask & (1 << weekdayIndexOf(day))) return day;
  return null;
}

/** The same, the day being in `month` and the day k days after it in `otherMonth` as well. */
function firstInMonths(
  mask: WeekdayMask,
  k: number,
  month: number,
  otherMonth: number,
  least: EpochDay,
  most: EpochDay,
): EpochDay | null {
  // Weekdays and months together repeat after 400 years, so a day not found by then does not exist.
  const last = Math.min(most, least + DAYS_PER_400_YEARS);
  let day = least;
  while (day <= last) {
    const date = civilOf(day);
    if (date.month !== month) {
      const year = date.month < month ? date.year : date.year + 1;
      day = epochDayOf({ year, month, day: 1 });
      continue;
    }
    if (mask & (1 << weekdayIndexOf(day)) && monthOf(day + k) === otherMonth) return day;
    day++;
  }
  return null;
}

/** Pairs of months (1 to 12) that two dates k days apart can have; four years hold every kind of year boundary. */
function monthsApart(k: number): readonly (readonly [number, number])[] {
  const begin = epochDayOf({ year: 2000, month: 1, day: 1 });
  const seen = new Set<number>();
  for (let day = begin; day < begin + 1461; day++) seen.add(monthOf(day) * 16 + monthOf(day + k));
  return [...seen].map((code) => [code >> 4, code & 15] as const);
}

const longest = ({ secondsByMonth }: ProgramCycles) => Math.max(...secondsByMonth);
const isUniform = ({ secondsByMonth }: ProgramCycles) =>
  secondsByMonth.every((seconds) => seconds === secondsByMonth[0]);

const MOST_DAYS_APART_WHEN_UNIFORM = 7;

/** One start of each of two programs, whose cycles may overlap. */
interface Pair {
  readonly p: ProgramCycles;
  readonly q: ProgramCycles;
  readonly a: NamedStart;
  readonly b: NamedStart;
}

/** What is looked at of a pair: the starts, the days from a date of a's to one of b's, and a's weekdays that allow it. */
type Visit = (pair: Pair, k: number, meeting: WeekdayMask) => void;

/**
 * Goes through the pairs of start names of two programs (or of one with itself) and all numbers of days k from a date of
 * a's to a date of b's for which the day rules have dates and the times of day can overlap at the longest.
 */
function visitProgramPair(p: ProgramCycles, q: ProgramCycles, visit: Visit): void {
  const [reachP, reachQ] = [longest(p), longest(q)];
  if (reachP === 0 || reachQ === 0) return;
  const span = Math.floor(Math.max(reachP, reachQ) / SECONDS_PER_DAY) + 1;
  const uniform = isUniform(p) && isUniform(q);
  const most = uniform ? Math.min(span, MOST_DAYS_APART_WHEN_UNIFORM) : span;
  for (let k = -most; k <= most; k++) {
    const meeting = meetingWeekdays(p.weekdays, q.weekdays, k);
    if (meeting === 0) continue;
    const days = k * SECONDS_PER_DAY;
    p.starts.forEach((a, n) => {
      // Times of day ascend, so b's that can meet a stand together.
      for (let m = p === q ? n : 0; m < q.starts.length; m++) {
        const b = q.starts[m];
        if (b === undefined) continue;
        const gap = b.secondOfDay - a.secondOfDay + days;
        if (gap >= reachP) break;
        if (-gap >= reachQ) continue;
        // A start meets itself on another date; on the same date only where it is listed twice.
        if (a === b && (k < 0 || (k === 0 && a.times < 2))) continue;
        visit({ p, q, a, b }, k, meeting);
      }
    });
  }
}

/** The earliest overlap of one pair, k days apart, for the two lengths; null where no dates allow it. */
function earliest(
  { p, q, a, b }: Pair,
  k: number,
  meeting: WeekdayMask,
  { from, resumes }: Span,
  months: readonly [number, number] | null,
): Overlap | null {
  const secondsA = p.secondsByMonth[(months?.[0] ?? 1) - 1] ?? 0;
  const secondsB = q.secondsByMonth[(months?.[1] ?? 1) - 1] ?? 0;
  if (secondsA === 0 || secondsB === 0) return null;
  const gap = b.secondOfDay - a.secondOfDay + k * SECONDS_PER_DAY;
  if (gap >= secondsA || -gap >= secondsB) return null;
  const least = Math.max(
    firstDayNotDelayed(resumes, a.secondOfDay, from),
    firstDayNotDelayed(resumes, b.secondOfDay, from) - k,
  );
  const most = Math.min(LAST_DAY, LAST_DAY - k);
  const day =
    months === null
      ? firstOnWeekday(meeting, least, most)
      : firstInMonths(meeting, k, months[0], months[1], least, most);
  if (day === null) return null;
  const refA = cycleRef(p, a, day, secondsA);
  const refB = cycleRef(q, b, day + k, secondsB);
  const [first, second] = gap < 0 ? [refB, refA] : [refA, refB];
  return { first, second, sharedSeconds: Math.min(first.ends, second.ends) - second.begins };
}

function cycleRef(p: ProgramCycles, a: NamedStart, day: EpochDay, seconds: number): CycleRef {
  const begins = day * SECONDS_PER_DAY + a.secondOfDay;
  return { letter: p.letter, start: a.start, day, begins, ends: begins + seconds };
}

/** Order of events of one pair of starts: first's beginning, second's, first's date, second's date. */
function compareEvents(x: Overlap, y: Overlap): number {
  return (
    x.first.begins - y.first.begins ||
    x.second.begins - y.second.begins ||
    x.first.day - y.first.day ||
    x.second.day - y.second.day
  );
}

const compareText = (x: string, y: string) => (x < y ? -1 : x > y ? 1 : 0);

/** Order of the entries of `check`: first's beginning, first's letter and start, second's letter and start. */
function compareEntries(x: Overlap, y: Overlap): number {
  return (
    x.first.begins - y.first.begins ||
    compareText(x.first.letter, y.first.letter) ||
    compareText(x.first.start, y.first.start) ||
    compareText(x.second.letter, y.second.letter) ||
    compareText(x.second.start, y.second.start)
  );
}

/**
 * For each pair of start names that ever overlap, the earliest event in the span, in the order of plan-format.md.
 *
 * @param programs complete programs, ascending by letter.
 * Cost: pairs of starts × days that a longest cycle spans (15 at most while the percent is the same all year).
 */
export function findOverlaps(programs: readonly ProgramCycles[], span: Span): Overlap[] {
  if (programs.every(isUniform) && isFarFromTheEnd(span)) {
    const lengths = programs.map(longest);
    if (!weekOverlaps(weekOf(programs), lengths)) return [];
  }
  const earliestOf = new Map<string, Overlap>();
  const events = eventFinder(span);
  programs.forEach((p, i) => {
    for (const q of programs.slice(i))
      visitProgramPair(p, q, (pair, k, meeting) => {
        const names = `${p.letter}${pair.a.start}${q.letter}${pair.b.start}`;
        for (const found of events(pair, k, meeting)) {
          const known = earliestOf.get(names);
          if (!known || compareEvents(found, known) < 0) earliestOf.set(names, found);
        }
      });
  });
  return [...earliestOf.values()].sort(compareEntries);
}

/** The earliest overlap of a pair k days apart, for each pair of months where the percent changes with them. */
function eventFinder(span: Span) {
  const monthPairs = new Map<number, readonly (readonly [number, number])[]>();
  return (pair: Pair, k: number, meeting: WeekdayMask): Overlap[] => {
    let choices: readonly (readonly [number, number] | null)[] = [null];
    if (!isUniform(pair.p) || !isUniform(pair.q)) {
      let months = monthPairs.get(k);
      if (!months) monthPairs.set(k, (months = monthsApart(k)));
      choices = months;
    }
    return choices.flatMap((months) => earliest(pair, k, meeting, span, months) ?? []);
  };
}

/**
 * The times of day to which a start may not be moved: there its cycle would at some time overlap another one, or itself.
 *
 * @param programs complete programs, ascending by letter, as they are now.
 * @param start the start to be moved, one of those of the program `letter`.
 * @param candidates seconds of the day to look at.
 * @returns those of `candidates` that overlap, in their order.
 */
export function blockedTimes(
  programs: readonly ProgramCycles[],
  letter: string,
  start: TimeText,
  candidates: readonly number[],
  span: Span,
): number[] {
  const own = programs.find((one) => one.letter === letter);
  if (!own) return [];
  const left = own.starts
    .map((one) => (one.start === start ? { ...one, times: one.times - 1 } : one))
    .filter((one) => one.times > 0);
  const others = programs.map((one) => (one === own ? { ...own, starts: left } : one));
  const events = eventFinder(span);
  return candidates.filter((secondOfDay) => {
    const moved = { ...own, starts: [{ start, secondOfDay, times: 1 }] };
    let blocked = false;
    for (const other of [...others, moved])
      visitProgramPair(moved, other, (pair, k, meeting) => {
        blocked ||= events(pair, k, meeting).length > 0;
      });
    return blocked;
  });
}

/** One start on one weekday: when it comes, in seconds from Monday 00:00. */
interface WeekStart {
  readonly at: number;
  /** Index of its program. */
  readonly program: number;
}

const SECONDS_PER_WEEK = 7 * SECONDS_PER_DAY;

/** Every start of a week, in the order in which they come. It does not depend on the percent. */
export function weekOf(programs: readonly ProgramCycles[]): WeekStart[] {
  const week: WeekStart[] = [];
  programs.forEach(({ weekdays, starts }, program) => {
    for (let weekday = 0; weekday < 7; weekday++)
      if (weekdays & (1 << weekday))
        for (const { secondOfDay, times } of starts)
          for (let n = 0; n < times; n++)
            week.push({ at: weekday * SECONDS_PER_DAY + secondOfDay, program });
  });
  return week.sort((a, b) => a.at - b.at);
}

/**
 * Whether any two cycles of a week that comes again for ever overlap, each program's cycle having one length all year.
 *
 * It is enough to compare each cycle with the next that begins, round the week: if a cycle reaches any later one, it
 * reaches the next one too, which begins no later. Those that take no time are passed over, for they overlap nothing.
 *
 * @param seconds the length of each program's cycle, by its index. Cost: starts in a week.
 */
export function weekOverlaps(week: readonly WeekStart[], seconds: readonly number[]): boolean {
  let first: WeekStart | null = null;
  let last: WeekStart | null = null;
  for (const start of week) {
    if (seconds[start.program] === 0) continue;
    if (last && start.at - last.at < (seconds[last.program] ?? 0)) return true;
    first ??= start;
    last = start;
  }
  return (
    first !== null &&
    last !== null &&
    first.at + SECONDS_PER_WEEK - last.at < (seconds[last.program] ?? 0)
  );
}

/** Whether so much of the calendar is left that whatever a week can do it does before the end. */
export function isFarFromTheEnd({ from, resumes }: Span): boolean {
  return Math.max(from, resumes / SECONDS_PER_DAY) + 28 < LAST_DAY;
}

/**
 * Whether any two cycles ever overlap in the span, each program's cycle having one length all year.
 *
 * @param programs complete programs, ascending by letter, with equal `secondsByMonth`.
 */
export function everOverlaps(programs: readonly ProgramCycles[], span: Span): boolean {
  return isFarFromTheEnd(span)
    ? weekOverlaps(weekOf(programs), programs.map(longest))
    : findOverlaps(programs, span).length > 0;
}
