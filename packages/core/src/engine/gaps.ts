/** Time from each cycle's beginning to the next beginning of any: shorter cycles never overlap. */
import { assertDefined } from '../document/assertDefined.ts';
import { LAST_DAY, SECONDS_PER_DAY, type EpochDay } from '../time/calendar.ts';
import type { StartDays } from '../time/dayRules.ts';
import { EVERY_MONTH, type DayClass, type Meetings } from '../time/meetings.ts';
import { firstDayNotDelayed } from '../plan/starts.ts';
import type { Effort } from './effort.ts';
import type { Span } from './namedStarts.ts';
import { lowestWeekday, type ProgramCycles } from './nominal.ts';

/** A beginning of a start, on the weekdays on which it has the same time of day. */
interface Beginning {
  readonly program: ProgramCycles;
  readonly start: StartDays;
  readonly dates: DayClass;
  readonly least: EpochDay;
  readonly begins: number;
  readonly timeOfDay: number;
  /** One of its weekdays. */
  readonly weekday: number;
}

/** A beginning, and the minimum seconds to the next one of any start on any date; Infinity if none is in reach. */
export interface Gap {
  readonly beginning: Beginning;
  readonly seconds: number;
}

/** The maximum percent (plan-format.md). */
const HIGHEST_PERCENT = 500;

/**
 * The gap from each beginning to the next, if within reach of the longest possible cycle. It does not depend on the percent, so it is
 * computed once.
 */
export function gapsOf(
  programs: readonly ProgramCycles[],
  span: Span,
  meetings: Meetings,
  effort: Effort,
): readonly Gap[] {
  const all = beginningsOf(programs, span, meetings);
  const reaches = new Map(programs.map((program) => [program, program.longestAt(HIGHEST_PERCENT)]));
  return all.map((beginning, at) => {
    const reach = assertDefined(reaches.get(beginning.program), 'reaches.get(beginning.program)');
    for (const { next, seconds } of nextInOrder(all, at, reach)) {
      effort.spend(2);
      if (comeTogether(beginning, next, seconds, meetings)) return { beginning, seconds };
    }
    return { beginning, seconds: Infinity };
  });
}

/** A beginning that may follow another, and how many seconds later. */
interface NextBeginning {
  readonly next: Beginning;
  readonly seconds: number;
}

/** All beginnings after a given one, in order, day after day, as far as cycles or dates reach. */
function* nextInOrder(
  all: readonly Beginning[],
  at: number,
  reach: number,
): Generator<NextBeginning> {
  const own = all[at];
  if (!own) return;
  // Beginnings at the same time of day are adjacent, so start with the first of them.
  let from = at;
  while (from > 0 && all[from - 1]?.timeOfDay === own.timeOfDay) from--;
  const mostRounds = LAST_DAY - own.least + 9;
  for (let step = 0; step <= mostRounds * all.length; step++) {
    const next = all[(from + step) % all.length];
    if (!next) return;
    const days = Math.floor((from + step) / all.length);
    const seconds = next.timeOfDay - own.timeOfDay + days * SECONDS_PER_DAY;
    if (seconds >= reach) return;
    yield { next, seconds };
  }
}

/** Whether there are dates on which one beginning follows another by this many seconds. */
function comeTogether(
  own: Beginning,
  next: Beginning,
  seconds: number,
  meetings: Meetings,
): boolean {
  const days = (seconds + own.begins - next.begins) / SECONDS_PER_DAY;
  const isItself = own.start === next.start && (days < 0 || (days === 0 && own.start.times < 2));
  if (isItself) return false;
  const least = Math.max(own.least, next.least - days);
  return meetings.first(own.dates, next.dates, days, least) !== null;
}

function beginningsOf(
  programs: readonly ProgramCycles[],
  { resumes, from }: Span,
  meetings: Meetings,
): Beginning[] {
  const all: Beginning[] = [];
  for (const program of programs)
    for (const start of program.starts)
      for (const weekdays of program.weekdayMasks()) {
        if (!(weekdays & start.days.weekdays)) continue;
        const weekday = lowestWeekday(weekdays);
        const monday = (weekday - 3) * SECONDS_PER_DAY;
        const begin = program.beginOf(monday + start.secondOfDay);
        if (begin === null) continue;
        const begins = begin - monday;
        all.push({
          program,
          start,
          dates: meetings.classOf(start.days, weekdays, EVERY_MONTH),
          least: firstDayNotDelayed(resumes, start.secondOfDay, from),
          begins,
          timeOfDay: begins % SECONDS_PER_DAY,
          weekday,
        });
      }
  return all.sort((a, b) => a.timeOfDay - b.timeOfDay);
}
