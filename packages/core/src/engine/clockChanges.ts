/** Starts that a change of the clocks moves, doubles or skips. */
import { type Plan, programsByLetter } from '../plan/plan.ts';
import { wateringStations } from '../plan/linked.ts';
import { missingOf } from '../plan/program.ts';
import { startsOf } from '../plan/starts.ts';
import { type EpochDay, type TimeText, SECONDS_PER_DAY } from '../time/calendar.ts';
import { isIn } from '../time/dayRules.ts';

/** A change of the house's clocks: the hours between the two are skipped, or come twice. */
export interface ClockChange {
  readonly day: EpochDay;
  /** Second of the day at which the clocks are moved, and to which. */
  readonly from: number;
  readonly to: number;
}

/** A start that a change of the clocks affects. */
export interface MovedStart {
  readonly letter: string;
  readonly start: TimeText;
  /** Second of the day at which it waters then, by the house's clocks. */
  readonly at: number;
}

/**
 * The starts that a change of the clocks touches. A timer that follows it: those due within the hour that is skipped, which
 * fire on the first second after it, and those within the hour that comes twice, which fire the first time. One that does
 * not: all of its starts, which are an hour off from then on.
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
