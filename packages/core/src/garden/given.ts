/** What the present programs give a station, month by month: for the curve of the year, beside what it needs. */
import { assertDefined } from '../document/assertDefined.ts';
import { civilOf, epochDayOf, SECONDS_PER_DAY, type EpochDay } from '../time/calendar.ts';
import { isIn } from '../time/dayRules.ts';
import { resumesAt, startsOf } from '../plan/starts.ts';
import type { Plan } from '../plan/plan.ts';
import { adjustedSeconds, effectivePercent, enabledStations, missingOf } from '../plan/program.ts';
import { runsWithLinked, wateringStations } from '../plan/linked.ts';

/**
 * Mean weekly seconds of watering by station number and month (January first), over the year from a date on, as the programs
 * are set: percent, rounding, days off and a rain delay taken into account; windows and overlaps not, which a check tells of.
 * A timer that is off gives nothing.
 */
export function givenByMonth(plan: Plan, from: EpochDay): ReadonlyMap<number, readonly number[]> {
  const enabled = enabledStations(plan);
  const given = new Map<number, number[]>(
    plan.stations.map(({ number }) => [number, new Array<number>(12).fill(0)]),
  );
  if (plan.settings.mode === 'off') return given;
  const { year, month, day } = civilOf(from);
  const until = epochDayOf({ year: year + 1, month, day: Math.min(day, 28) });
  const daysOfMonth = new Array<number>(12).fill(0);
  for (let date = from; date < until; date++) {
    const { month: now } = civilOf(date);
    daysOfMonth[now - 1] = assertDefined(daysOfMonth[now - 1], 'daysOfMonth[now - 1]') + 1;
  }
  const resumes = resumesAt(plan);
  for (const program of plan.programs) {
    if (missingOf(program, wateringStations(plan)).length > 0) continue;
    const starts = startsOf(plan, program);
    for (let date = from; date < until; date++) {
      const fires = starts.reduce(
        (sum, { days, secondOfDay, times }) =>
          isIn(days, date) && date * SECONDS_PER_DAY + secondOfDay >= resumes ? sum + times : sum,
        0,
      );
      if (fires === 0) continue;
      const { month: now } = civilOf(date);
      const percent = effectivePercent(plan, program, now);
      for (const { station, seconds } of runsWithLinked(plan, program)) {
        const row = given.get(station);
        if (!row || !enabled.has(station)) continue;
        row[now - 1] =
          assertDefined(row[now - 1], 'row[now - 1]') +
          fires * adjustedSeconds(seconds, percent, plan.timer.seasonal);
      }
    }
  }
  for (const row of given.values())
    row.forEach((seconds, i) => {
      const days = assertDefined(daysOfMonth[i], 'daysOfMonth[i]');
      row[i] = days === 0 ? 0 : (seconds * 7) / days;
    });
  return given;
}
