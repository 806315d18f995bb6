/**
 * A plan through the year: whether one set of programs with a percent for each month meets every station's need, and otherwise what to
 * change in that month.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, wishOf } from '../brief/brief.ts';
import { Effort } from '../engine/effort.ts';
import { meanWeeklyRuns, meanWeeklySeconds } from '../engine/weeklyWater.ts';
import { Meetings } from '../time/meetings.ts';
import type { Plan } from '../plan/plan.ts';
import { adjustedSeconds, percentSteps } from '../plan/program.ts';
import { NEED_TOLERANCE } from '../brief/wanted.ts';
import { lateAt } from './hours.ts';
import type { MonthBan } from '../rules/houseRules.ts';
import type { PlannerOptions } from './options.ts';
import { searchPlan } from './searchPlan.ts';
import { datesOfProgram } from '../plan/starts.ts';

/** Requirements of a month. */
export interface MonthNeed {
  /** 1 to 12. */
  readonly month: number;
  /** Share of each station's need at 100 percent, by number; 1 is all of it. */
  readonly shares: ReadonlyMap<number, number>;
  /** Time by which watering must end; null: as wished. */
  readonly finishBy: string | null;
  /** Dates of a watering ban; absent: none. */
  readonly ban?: MonthBan | undefined;
}

export interface SeasonMonth {
  readonly month: number;
  /** The timer's step closest to the need; null: no need, or a ban. */
  readonly percent: number | null;
  /** Stations that are then off their need of the month by more than a tenth of their need at 100 percent. */
  readonly off: readonly number[];
  /** Stations that are off only through rounding of their runs, with the extra seconds a week: nothing to change. */
  readonly rounded: readonly { readonly number: number; readonly seconds: number }[];
  readonly ban: MonthBan | null;
  /** Seconds by which the last cycle is late. */
  readonly late: number;
  /** The percent exceeds the programs' headroom. */
  readonly tight: boolean;
  /** The year's programs work with that percent. */
  readonly serves: boolean;
  /** What to set in this month instead; null if the programs work, nothing is needed, or nothing was found. */
  readonly plan: Plan | null;
}

/** A need below this share of a week at 100 percent is not worth watering for. */
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

/** A brief with the needs and finishing hour of a month. */
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

/**
 * How to use a plan through the year.
 *
 * @param way `percent`: minutes follow the season; `days`: minutes stay, days follow
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
  const runs = meanWeeklyRuns(plan, new Meetings(new Effort()));
  return months.map((need): SeasonMonth => {
    const share = meanShare(need, brief);
    const { month, ban = null } = need;
    const nothing = { month, percent: null, off: [], rounded: [], ban, late: 0, tight: false };
    if (ban?.isWhole === true || share < NOTHING) return { ...nothing, serves: true, plan: null };
    const wanted = briefOf(brief, need);
    const percent =
      way === 'days'
        ? 100
        : steps.reduce((best, step) =>
            Math.abs(step - share * 100) < Math.abs(best - share * 100) ? step : best,
          );
    const given = givenAt(plan, percent);
    const differences = wanted.stations.flatMap(({ number, weeklySeconds }) => {
      const full = assertDefined(
        brief.stations.find((station) => station.number === number),
        'find',
      ).weeklySeconds;
      // Plants need water, not a percent. A station off its need at 100 percent is already reported there.
      const wasOff = Math.abs((whole.get(number) ?? 0) - full);
      const seconds = Math.round((given.get(number) ?? 0) - weeklySeconds);
      const isOff = full > 0 && Math.abs(seconds) > Math.max(NEED_TOLERANCE * full, wasOff) + 30;
      return isOff ? [{ number, seconds }] : [];
    });
    // A run that rounds by one step is no reason to key anything in.
    const isRounding = ({ number, seconds }: { number: number; seconds: number }) =>
      Math.abs(seconds) <= timer.seasonal.roundToSeconds * (runs.get(number) ?? 0) + 30;
    const rounded = differences.filter(isRounding);
    const off = differences.filter((one) => !isRounding(one)).map(({ number }) => number);
    const late = lateAt(wanted, plan, percent);
    const tight = percent > Math.max(100, wishOf(brief).headroomPercent);
    const serves = off.length === 0 && late === 0 && !tight;
    return {
      month,
      percent,
      off,
      rounded,
      ban,
      late,
      tight,
      serves,
      plan: serves ? null : otherPlan(brief, wanted, plan, share, way, options),
    };
  });
}

function givenAt(plan: Plan, percent: number): Map<number, number> {
  // Average water at a percent: that of runs already adjusted by it.
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

/** What to set in a month in place of the year's programs. */
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
        {
          ...byDays,
          wish: { ...byDays.wish, daysPerWeek: { least: 1, most: 7 } },
          stations: wanted.stations.map(({ days: _days, ...one }) => one),
        },
        { ...beside, pins: { runs } },
      ).found
    )?.plan ?? null
  );
}
