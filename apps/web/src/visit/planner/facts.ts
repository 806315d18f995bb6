/** A plan in the words of the planner's table. No interface code. */
import {
  cycleShape,
  datesOfProgram,
  meanWeeklySeconds,
  daysWords,
  lengthWords,
  parseTime,
  programsByLetter,
  SECONDS_PER_DAY,
  timeWords,
  type ClockStyle,
  type DateOrder,
  type Days,
  type Plan,
  type Program,
  say,
} from '@water-clock/core';

/** A day rule without the date from which it counts. */
export const ruleWords = (days: Days | null, clock: ClockStyle, order: DateOrder): string =>
  days?.rule === 'interval'
    ? say`every ${days.everyDays === 1 ? say`day` : say`${days.everyDays} days`}${days.blockedWeekdays ? `${say`, not`} ` + daysWords({ rule: 'weekdays', weekdays: days.blockedWeekdays }, clock, order) : ''}`
    : daysWords(days, clock, order);

/** When the cycle of each start ends, seconds of the day. */
export function endsOf(plan: Plan, program: Program): number[] {
  const { seconds } = cycleShape(plan, program, 100);
  return program.starts.map((start) => ((parseTime(start) ?? 0) + seconds) % SECONDS_PER_DAY);
}

/** `5:40 – 7:00`, for each start. */
export const spansWords = (plan: Plan, program: Program, clock: ClockStyle): string[] =>
  endsOf(plan, program).map(
    (end, i) =>
      `${timeWords(parseTime(program.starts[i] ?? '') ?? 0, clock)} – ${timeWords(end, clock)}`,
  );

/** Water of a week, all stations, at 100 percent. */
export function weekWords(plan: Plan): string {
  const seconds = [...meanWeeklySeconds(plan).values()].reduce((sum, own) => sum + own, 0);
  return lengthWords(Math.round(seconds / 60) * 60);
}

export const datesText = (plan: Plan): string =>
  programsByLetter(plan)
    .map(
      (program) => `${program.letter} ${Math.round(datesOfProgram(plan, program).mean * 10) / 10}`,
    )
    .join(', ');
