/**
 * A plan through the year: whether one set of programs with a percent a month gives every station what it needs, and where it does not, what is
 * to be changed in that month.
 */
import { sure } from '../document/sure.ts';
import { type Brief, wishOf } from '../brief/brief.ts';
import { parseTime, SECONDS_PER_DAY } from '../time/calendar.ts';
import { shapeAt } from '../engine/cycle.ts';
import { cycleModel } from '../engine/cycleModel.ts';
import { modulo } from '../time/dayRules.ts';
import { startsOf } from '../plan/starts.ts';
import { Effort } from '../engine/effort.ts';
import { meanWeeklySeconds } from '../engine/weeklyWater.ts';
import { Meetings } from '../time/meetings.ts';
import { atPercent } from '../engine/night.ts';
import type { Plan } from '../plan/plan.ts';
import { adjustedSeconds, percentSteps } from '../plan/program.ts';
import { countsForTimes, NEED_TOLERANCE } from '../brief/wanted.ts';
import type { PlannerOptions } from './options.ts';
import { searchPlan } from './searchPlan.ts';
import { datesOfProgram } from '../plan/starts.ts';

/** What one month asks for. */
export interface MonthNeed {
  /** 1 to 12. */
  readonly month: number;
  /** Share of what each station needs at 100 percent, by its number; 1 is all of it. */
  readonly shares: ReadonlyMap<number, number>;
  /** The time by which watering has to end; null: as wished. */
  readonly finishBy: string | null;
}

export interface SeasonMonth {
  readonly month: number;
  /** The timer's step nearest to the need; null: nothing is needed. */
  readonly percent: number | null;
  /** Stations that are then further off their need of the month than a tenth of their need at 100 percent. */
  readonly off: readonly number[];
  /** Seconds by which the last cycle would be late. */
  readonly late: number;
  /** The percent is above what the programs are clear up to. */
  readonly tight: boolean;
  /** The programs of the year serve with that percent. */
  readonly serves: boolean;
  /** What to set in this month instead; null where the programs serve, nothing is needed, or nothing was found. */
  readonly plan: Plan | null;
}

/** Less than this share of a week at 100 percent is nothing worth watering for. */
const NOTHING = 0.02;
const BESIDE = 0.25;

const meanShare = ({ shares }: MonthNeed, { stations }: Brief): number => {
  let wanted = 0;
  let needed = 0;
  for (const { number, weeklySeconds } of stations) {
    wanted += weeklySeconds;
    needed += weeklySeconds * (shares.get(number) ?? 1);
  }
  return wanted === 0 ? 0 : needed / wanted;
};

/** A brief with the needs and the finishing hour of a month. */
function briefOf(brief: Brief, { shares, finishBy }: MonthNeed): Brief {
  return {
    ...brief,
    ...(finishBy === null ? {} : { wish: { ...brief.wish, finishBy } }),
    stations: brief.stations.map((station) => ({
      ...station,
      weeklySeconds: Math.round(station.weeklySeconds * (shares.get(station.number) ?? 1)),
    })),
  };
}

/** Seconds by which the last cycle that counts ends after the hour by which all is to be done, at a percent. */
function lateAt(brief: Brief, plan: Plan, percent: number): number {
  const finish = sure(parseTime(wishOf(brief).finishBy));
  const counted = new Set(
    brief.stations.filter((station) => countsForTimes(brief, station)).map(({ number }) => number),
  );
  const then = atPercent(plan, percent);
  let late = 0;
  for (const program of then.programs) {
    const { runs } = shapeAt(cycleModel(then, program), percent, new Effort());
    const end = Math.max(
      0,
      ...runs.filter(({ station }) => counted.has(station)).map(({ off }) => off),
    );
    for (const { secondOfDay } of startsOf(then, program)) {
      // The nearest `finishBy`: a cycle that begins shortly before it runs past it, and is not a day early.
      const since = modulo(secondOfDay + end - finish + SECONDS_PER_DAY / 2, SECONDS_PER_DAY);
      if (end > 0) late = Math.max(late, since - SECONDS_PER_DAY / 2);
    }
  }
  return late;
}

/**
 * How a plan is brought through the year.
 *
 * @param way `percent`: the minutes follow the season; `days`: the minutes stay, and the days do.
 * @throws TooMuchWork
 */
export function seasonOf(
  brief: Brief,
  plan: Plan,
  months: readonly MonthNeed[],
  way: 'percent' | 'days',
  options: PlannerOptions = {},
): SeasonMonth[] {
  const { timer } = plan;
  const steps =
    timer.seasonal.scope === 'none' ? [100] : percentSteps(timer).filter((step) => step > 0);
  const whole = meanWeeklySeconds(plan, new Meetings(new Effort()));
  return months.map((need): SeasonMonth => {
    const share = meanShare(need, brief);
    const { month } = need;
    if (share < NOTHING)
      return { month, percent: null, off: [], late: 0, tight: false, serves: true, plan: null };
    const wanted = briefOf(brief, need);
    const percent =
      way === 'days'
        ? 100
        : steps.reduce((best, step) =>
            Math.abs(step - share * 100) < Math.abs(best - share * 100) ? step : best,
          );
    const given = givenAt(plan, percent);
    const off = wanted.stations
      .filter(({ number, weeklySeconds }) => {
        const full = sure(
          brief.stations.find((station) => station.number === number),
        ).weeklySeconds;
        // Roots count the water, not the percent. A station that is off its need at 100 percent already is reported there.
        const wasOff = Math.abs((whole.get(number) ?? 0) - full);
        const off = Math.abs((given.get(number) ?? 0) - weeklySeconds);
        return full > 0 && off > Math.max(NEED_TOLERANCE * full, wasOff) + 30;
      })
      .map(({ number }) => number);
    const late = lateAt(wanted, plan, percent);
    const tight = percent > Math.max(100, wishOf(brief).headroomPercent);
    const serves = off.length === 0 && late === 0 && !tight;
    return {
      month,
      percent,
      off,
      late,
      tight,
      serves,
      plan: serves ? null : otherPlan(brief, wanted, plan, share, way, options),
    };
  });
}

function givenAt(plan: Plan, percent: number): Map<number, number> {
  // Mean water at a percent: that of runs which are already as long as the percent makes them.
  const { seasonal } = plan.timer;
  return meanWeeklySeconds({
    ...plan,
    programs: plan.programs.map((program) => ({
      ...program,
      runs: program.runs.map(({ station, seconds }) => ({
        station,
        seconds: adjustedSeconds(seconds, percent, seasonal),
      })),
    })),
  });
}

/** What to set in a month in place of the programs of the year. */
function otherPlan(
  brief: Brief,
  wanted: Brief,
  plan: Plan,
  share: number,
  way: 'percent' | 'days',
  options: PlannerOptions,
): Plan | null {
  const beside = { ...options, thoroughness: BESIDE };
  if (way === 'percent') return searchPlan(wanted, beside).found?.plan ?? null;
  const runs = plan.programs.flatMap(({ runs: own }) => own);
  const byDays: Brief = {
    ...wanted,
    stations: wanted.stations.map((station) => {
      const own = plan.programs.find((program) =>
        program.runs.some((run) => run.station === station.number),
      );
      if (!own?.days) return station;
      const dates = Math.max(1, Math.min(7, Math.round(datesOfProgram(plan, own).mean * share)));
      return { ...station, days: { least: dates, most: dates } };
    }),
  };
  const found = searchPlan(byDays, { ...beside, pins: { runs } }).found;
  return (
    (
      found ??
      searchPlan(
        { ...byDays, stations: wanted.stations.map(({ days: _days, ...one }) => one) },
        { ...beside, pins: { runs } },
      ).found
    )?.plan ?? null
  );
}
