/** Whether what counts fits into the hours that are wished, and which hours would do. */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, wishOf } from '../brief/brief.ts';
import { countsForTimes } from '../brief/wanted.ts';
import { shapeAt } from '../engine/cycle.ts';
import { cycleModel } from '../engine/cycleModel.ts';
import { Effort } from '../engine/effort.ts';
import { atPercent } from '../engine/night.ts';
import type { Plan } from '../plan/plan.ts';
import { startsOf } from '../plan/starts.ts';
import { formatTime, parseTime, SECONDS_PER_DAY, type TimeText } from '../time/calendar.ts';
import { modulo } from '../time/dayRules.ts';
import { listed, startWords, type ClockStyle } from '../words/words.ts';
import { say } from '../language/say.ts';

/** When the water of a cycle that counts begins and ends, seconds of the day of its start; only cycles that have any. */
function counted(brief: Brief, plan: Plan, percent: number) {
  const numbers = new Set(
    brief.stations.filter((station) => countsForTimes(brief, station)).map(({ number }) => number),
  );
  const then = atPercent(plan, percent);
  return then.programs.flatMap((program) => {
    const { runs } = shapeAt(cycleModel(then, program), percent, new Effort());
    const own = runs.filter(({ station }) => numbers.has(station));
    const [first] = own;
    if (!first) return [];
    const end = Math.max(...own.map(({ off }) => off));
    return startsOf(then, program).map(({ secondOfDay }) => ({
      from: secondOfDay + first.on,
      to: secondOfDay + end,
    }));
  });
}

/** Seconds from one time of day to the nearest occurrence of another, within half a day: below 0 where that comes first. */
const nearest = (second: number, other: number) =>
  modulo(second - other + SECONDS_PER_DAY / 2, SECONDS_PER_DAY) - SECONDS_PER_DAY / 2;

/** Seconds by which the last cycle that counts ends after the hour by which all is to be done, at a percent. */
export function lateAt(brief: Brief, plan: Plan, percent: number): number {
  const finish = assertDefined(
    parseTime(wishOf(brief).finishBy),
    'parseTime(wishOf(brief).finishBy)',
  );
  return Math.max(0, ...counted(brief, plan, percent).map(({ to }) => nearest(to, finish)));
}

const QUARTER = 900;

/** Hours into which the garden fits, in place of those that are wished: later in the morning, or earlier in the evening. */
export interface OtherHours {
  readonly finishBy: TimeText | null;
  readonly notBefore: TimeText | null;
}

/**
 * What to wish instead where the best plan waters outside the wished hours: one of the two is enough. Null: it fits.
 *
 * @param outsideMinutes the second part of the plan's cost.
 */
export function otherHours(brief: Brief, plan: Plan, outsideMinutes: number): OtherHours | null {
  if (outsideMinutes === 0) return null;
  const { finishBy, notBefore } = wishOf(brief);
  const [finish, begin] = [
    assertDefined(parseTime(finishBy), 'parseTime(finishBy)'),
    assertDefined(parseTime(notBefore), 'parseTime(notBefore)'),
  ];
  const late = lateAt(brief, plan, 100);
  const early = Math.max(0, ...counted(brief, plan, 100).map(({ from }) => -nearest(from, begin)));
  const quarters = (seconds: number) => Math.ceil(seconds / QUARTER) * QUARTER;
  const at = (second: number) => formatTime(modulo(second, SECONDS_PER_DAY));
  const short = quarters(late > 0 ? late : early);
  return {
    finishBy: late > 0 ? at(finish + short) : null,
    notBefore: short > 0 ? at(begin - short) : null,
  };
}

/** `end by 7:45, or begin at 20:15`. */
export function otherHoursWords({ finishBy, notBefore }: OtherHours, clock: ClockStyle): string {
  return listed(
    [
      ...(finishBy === null ? [] : [say`ends by ${startWords(finishBy, clock)}`]),
      ...(notBefore === null ? [] : [say`may begin at ${startWords(notBefore, clock)}`]),
    ],
    'or',
  );
}
