/** Starts that a clock change moves, doubles or skips. */
import { type Plan, programsByLetter } from '../plan/plan.ts';
import { wateringStations } from '../plan/linked.ts';
import { missingOf } from '../plan/program.ts';
import { startsOf } from '../plan/starts.ts';
import { type EpochDay, type TimeText, SECONDS_PER_DAY } from '../time/calendar.ts';
import { isIn } from '../time/dayRules.ts';

/** A clock change at the site: the hours between the two are skipped or repeated. */
export interface ClockChange {
  readonly day: EpochDay;
  /** Seconds of the day before and after the change. */
  readonly from: number;
  readonly to: number;
}

/** A start affected by a clock change. */
export interface MovedStart {
  readonly letter: string;
  readonly start: TimeText;
  /** Local second of the day at which it then waters. */
  readonly at: number;
}

/**
 * Starts affected by a clock change. A timer that follows it: starts in the skipped hour, which fire on the first second after it, and
 * those in the repeated hour, which fire the first time. A timer that does not: all its starts, an hour off from then on.
 */
export function startsMovedBy(plan: Plan, { day, from, to }: ClockChange): MovedStart[] {
  const watering = wateringStations(plan);
  const complete = programsByLetter(plan).filter(
    (program) => missingOf(program, watering).length === 0,
  );
  return complete.flatMap((program) =>
    startsOf(plan, program).flatMap(({ start, secondOfDay, days }): MovedStart[] => {
      const { letter } = program;
      if (!plan.timer.followsDaylightSaving) {
        const at = (secondOfDay + to - from + SECONDS_PER_DAY) % SECONDS_PER_DAY;
        return [{ letter, start, at }];
      }
      const met = secondOfDay >= Math.min(from, to) && secondOfDay < Math.max(from, to);
      if (!met || !isIn(days, day)) return [];
      return [{ letter, start, at: to > from ? to : secondOfDay }];
    }),
  );
}
