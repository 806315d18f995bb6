/** A start by name with the dates, periods and beginnings of all its cycles. */
import type { ClockSecond, EpochDay } from '../time/calendar.ts';
import { EVERY_WEEKDAY, type StartDays, type WeekdayMask } from '../time/dayRules.ts';
import { EVERY_MONTH, type DayClass, type Meetings, type MonthMask } from '../time/meetings.ts';
import { firstDayNotDelayed } from '../plan/starts.ts';
import type { CycleClass, PercentChoices, ProgramCycles } from './nominal.ts';

/** The dates that count: due on or after `from`, and not before `resumes`. */
export interface Span {
  readonly from: EpochDay;
  readonly resumes: ClockSecond;
}

/** Dates of a start with the same period. */
export interface Stretch extends CycleClass {
  readonly dates: DayClass;
}

/** Dates of a start on which its cycle begins at the same time of day, whatever its length. */
export interface Opening {
  readonly begins: number;
  /** Seconds of its longest cycle. */
  readonly longest: number;
  /** Cycles with this beginning, on one of its weekdays, longest first. */
  readonly stretches: readonly Stretch[];
  readonly weekdays: WeekdayMask;
  readonly months: MonthMask;
  readonly dates: DayClass;
}

/** A start by name with all its cycles. */
export interface Named {
  readonly letter: string;
  readonly start: StartDays;
  /** All its dates. */
  readonly dates: DayClass;
  /** Its first date that counts. */
  readonly least: EpochDay;
  readonly stretches: readonly Stretch[];
  readonly openings: readonly Opening[];
  /** The period for each weekday (0 Monday) and month (0 January), at 12 × weekday + month. */
  readonly stretchAt: readonly (Stretch | null)[];
  /** The first date of all. */
  readonly firstDay: EpochDay | null;
  readonly firstBegins: number;
  readonly lastBegins: number;
  readonly lastEnds: number;
  readonly longest: number;
}

/**
 * A start with all its cycles.
 *
 * @param choices percents that the program's months may have
 */
export function namedStart(
  program: ProgramCycles,
  start: StartDays,
  choices: PercentChoices,
  { resumes, from }: Span,
  meetings: Meetings,
): Named {
  const stretches = program
    .classesOf(start, choices)
    .filter(({ begins, ends }) => ends > begins)
    .map((dates) => ({
      ...dates,
      dates: meetings.classOf(start.days, dates.weekdays, dates.months),
    }));
  const dates = meetings.classOf(start.days, EVERY_WEEKDAY, EVERY_MONTH);
  const least = firstDayNotDelayed(resumes, start.secondOfDay, from);
  return {
    letter: program.letter,
    start,
    dates,
    least,
    stretches,
    openings: openingsOf(start, stretches, meetings),
    stretchAt: stretchTable(stretches),
    firstDay: meetings.firstOf(dates, least),
    firstBegins: Math.min(...stretches.map(({ begins }) => begins)),
    lastBegins: Math.max(...stretches.map(({ begins }) => begins)),
    lastEnds: Math.max(...stretches.map(({ ends }) => ends)),
    longest: Math.max(...stretches.map(({ begins, ends }) => ends - begins)),
  };
}

/**
 * Groups weekdays on which a start begins at the same time of day. Whether it begins depends on the weekday (a window may block it) and
 * independently on the month (0 percent), so each of these weekdays has a cycle in each of these months.
 */
function openingsOf(
  { days }: StartDays,
  stretches: readonly Stretch[],
  meetings: Meetings,
): Opening[] {
  const groups = new Map<number, Stretch[]>();
  for (const stretch of stretches) {
    const like = groups.get(stretch.begins);
    if (like) like.push(stretch);
    else groups.set(stretch.begins, [stretch]);
  }
  return [...groups].map(([begins, own]) => {
    own.sort((a, b) => b.ends - b.begins - (a.ends - a.begins));
    const weekdays = own.reduce((mask, stretch) => mask | stretch.weekdays, 0);
    const months = own.reduce((mask, stretch) => mask | stretch.months, 0);
    const [first] = own;
    const longest = first ? first.ends - first.begins : 0;
    const dates = meetings.classOf(days, weekdays, months);
    return { begins, longest, stretches: own, weekdays, months, dates };
  });
}

function stretchTable(stretches: readonly Stretch[]): (Stretch | null)[] {
  const table = new Array<Stretch | null>(84).fill(null);
  for (const stretch of stretches)
    for (let at = 0; at < 84; at++)
      if (stretch.weekdays & (1 << Math.floor(at / 12)) && stretch.months & (1 << (at % 12)))
        table[at] = stretch;
  return table;
}
