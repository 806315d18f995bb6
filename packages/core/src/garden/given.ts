/** What the current programs give a station by month, for comparison with its need. */
import { assertDefined } from '../document/assertDefined.ts';
import {
  civilOf,
  epochDayOf,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  type EpochDay,
} from '../time/calendar.ts';
import { isIn } from '../time/dayRules.ts';
import { resumesAt, startsOf } from '../plan/starts.ts';
import type { Plan } from '../plan/plan.ts';
import { adjustedSeconds, effectivePercent, enabledStations, missingOf } from '../plan/program.ts';
import { runsWithLinked, wateringStations } from '../plan/linked.ts';

/** Seconds a station waters on a date. */
interface Watering {
  readonly date: EpochDay;
  readonly station: number;
  readonly seconds: number;
}

/** A year from a date on. */
function yearAfter(from: EpochDay): EpochDay {
  const { year, month, day } = civilOf(from);
  return epochDayOf({ year: year + 1, month, day: Math.min(day, 28) });
}

/**
 * All watering on some dates, as the programs are set: with percent, rounding, off days and rain delay, but without windows and overlaps,
 * which a check reports. A timer that is off gives nothing.
 */
function* wateringOf(plan: Plan, from: EpochDay, until: EpochDay): Generator<Watering> {
  if (plan.settings.mode === 'off') return;
  const enabled = enabledStations(plan);
  const resumes = resumesAt(plan);
  for (const program of plan.programs) {
    if (missingOf(program, wateringStations(plan)).length > 0) continue;
    const starts = startsOf(plan, program);
    const runs = runsWithLinked(plan, program).filter(({ station }) => enabled.has(station));
    for (let date = from; date < until; date++) {
      const fires = starts.reduce(
        (sum, { days, secondOfDay, times }) =>
          isIn(days, date) && date * SECONDS_PER_DAY + secondOfDay >= resumes ? sum + times : sum,
        0,
      );
      if (fires === 0) continue;
      const percent = effectivePercent(plan, program, civilOf(date).month);
      for (const { station, seconds } of runs)
        yield {
          date,
          station,
          seconds: fires * adjustedSeconds(seconds, percent, plan.timer.seasonal),
        };
    }
  }
}

/** Average weekly seconds of watering by station and month (January first), over the year from a date on. */
export function givenByMonth(plan: Plan, from: EpochDay): ReadonlyMap<number, readonly number[]> {
  const given = new Map<number, number[]>(
    plan.stations.map(({ number }) => [number, new Array<number>(12).fill(0)]),
  );
  const until = yearAfter(from);
  const daysOfMonth = new Array<number>(12).fill(0);
  for (let date = from; date < until; date++) {
    const { month: now } = civilOf(date);
    daysOfMonth[now - 1] = assertDefined(daysOfMonth[now - 1], 'daysOfMonth[now - 1]') + 1;
  }
  for (const { date, station, seconds } of wateringOf(plan, from, until)) {
    const row = given.get(station);
    const month = civilOf(date).month - 1;
    if (row) row[month] = assertDefined(row[month], 'row[month]') + seconds;
  }
  for (const row of given.values())
    row.forEach((seconds, i) => {
      const days = assertDefined(daysOfMonth[i], 'daysOfMonth[i]');
      row[i] = days === 0 ? 0 : (seconds * 7) / days;
    });
  return given;
}

export interface PeakWeek {
  readonly monday: EpochDay;
  readonly litres: number;
}

/**
 * The Monday-to-Sunday week with the highest use in the year from a date on, whole weeks only; null: nothing is used.
 *
 * @param litresPerMinute of each station whose flow is known
 */
export function peakWeekOf(
  plan: Plan,
  from: EpochDay,
  litresPerMinute: ReadonlyMap<number, number>,
): PeakWeek | null {
  const first = from + ((7 - weekdayIndexOf(from)) % 7);
  const weeks = Math.floor((yearAfter(from) - first) / 7);
  const litres = new Array<number>(weeks).fill(0);
  for (const { date, station, seconds } of wateringOf(plan, first, first + weeks * 7)) {
    const week = Math.floor((date - first) / 7);
    litres[week] = (litres[week] ?? 0) + (seconds / 60) * (litresPerMinute.get(station) ?? 0);
  }
  const most = Math.max(0, ...litres);
  // The first of equal ones, regardless of rounding.
  const at = litres.findIndex((one) => one > most - 1e-6);
  return most === 0 ? null : { monday: first + at * 7, litres: most };
}
