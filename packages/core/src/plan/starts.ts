/** A program's starts, and the first date that counts for them. */
import { assertDefined } from '../document/assertDefined.ts';
import {
  type TimeText,
  parseTime,
  type ClockSecond,
  parseMoment,
  type EpochDay,
  SECONDS_PER_DAY,
} from '../time/calendar.ts';
import { ruleSet, maskOfMonthDays, startsOfHours, type StartDays } from '../time/dayRules.ts';
import { countDates, type DateCount } from '../time/dateCount.ts';
import type { Plan, Program } from './plan.ts';

const byTimeOfDay = (a: StartDays, b: StartDays) => a.secondOfDay - b.secondOfDay;
/** A program's starts by time of day, each with its dates; without off days of the month, but including days of a rain delay. */
export function startsOf(plan: Plan, { days, starts }: Program): StartDays[] {
  const rule = ruleSet(days, plan.timer.oddDaysSkip31);
  const off = maskOfMonthDays(plan.settings.offDaysOfMonth ?? []);
  const open = { ...rule, monthDays: rule.monthDays & ~off };
  if (days?.rule === 'hours') return startsOfHours(days, open).sort(byTimeOfDay);
  const times = new Map<TimeText, number>();
  for (const start of starts) times.set(start, (times.get(start) ?? 0) + 1);
  return [...times]
    .map(([start, count]) => ({
      start,
      secondOfDay: assertDefined(parseTime(start), 'parseTime(start)'),
      times: count,
      days: open,
    }))
    .sort(byTimeOfDay);
}

/** A program's dates, without off days of the month. */
export const datesOfProgram = (plan: Plan, program: Program): DateCount =>
  countDates(startsOf(plan, withSomeStart(program)).map(({ days }) => days));

/** The days count even before a start is set. */
const withSomeStart = (program: Program): Program =>
  program.starts.length > 0 || program.days?.rule === 'hours'
    ? program
    : { ...program, starts: ['00:00'] };

/** The moment before which no start fires (rain delay); before all time if none is set. */
export function resumesAt(plan: Plan): ClockSecond {
  const { wateringResumes } = plan.settings;
  return wateringResumes === undefined
    ? -Infinity
    : assertDefined(parseMoment(wateringResumes), 'parseMoment(wateringResumes)');
}

/** First epoch day from `from` on, on which the rain delay does not hold back a start at `secondOfDay`. */
export function firstDayNotDelayed(
  resumes: ClockSecond,
  secondOfDay: number,
  from: EpochDay,
): EpochDay {
  if (resumes === -Infinity) return from;
  return Math.max(from, Math.ceil((resumes - secondOfDay) / SECONDS_PER_DAY));
}
