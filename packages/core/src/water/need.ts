/** A station's water need by month and week, and the minutes it comes to (water-need.md). */
import { assertDefined } from '../document/assertDefined.ts';
import { schedulingMultiplier } from './rate.ts';

/** The climate of a place, January first. */
export interface Climate {
  /** Reference evapotranspiration, mm a day. */
  readonly etoMmPerDay: readonly number[];
  /** mm a month. */
  readonly rainMm: readonly number[];
}

/** Known facts of a station's plants and water. */
export interface StationDemand {
  readonly plantFactor: number;
  /** Sun, shade, reflected heat: 0.5 to 1.4. */
  readonly surroundings: number;
  /** Precipitation rate, mm an hour, above 0. */
  readonly rate: number;
  /** Distribution uniformity, 0 to 1. */
  readonly uniformity: number;
  /** Share of the rain that counts, 0 to 1; none under cover. */
  readonly effectiveRainShare: number;
}

/** One month of the balance, with all its numbers. */
export interface MonthBalance {
  /** 1 to 12. */
  readonly month: number;
  readonly days: number;
  readonly etoMmPerDay: number;
  /** ETo × plant factor × surroundings, mm a week. */
  readonly plantMmPerWeek: number;
  /** Effective rain, mm a week; never more than the plants need. */
  readonly rainMmPerWeek: number;
  /** Net need, mm a week (section 4). */
  readonly netMmPerWeek: number;
  /** Section 7, in seconds, not rounded. */
  readonly weeklySeconds: number;
}

const DAYS_OF_MONTHS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31] as const;

/** The twelve months of a station (sections 2 to 7). */
export function yearBalance(climate: Climate, demand: StationDemand): MonthBalance[] {
  const { plantFactor, surroundings, rate, uniformity, effectiveRainShare } = demand;
  const multiplier = schedulingMultiplier(uniformity);
  return DAYS_OF_MONTHS.map((days, i) => {
    const etoMmPerDay = assertDefined(climate.etoMmPerDay[i], 'climate.etoMmPerDay[i]');
    const plantMmPerWeek = 7 * etoMmPerDay * plantFactor * surroundings;
    const rain =
      (assertDefined(climate.rainMm[i], 'climate.rainMm[i]') * effectiveRainShare * 7) / days;
    const rainMmPerWeek = Math.min(rain, plantMmPerWeek);
    const netMmPerWeek = plantMmPerWeek - rainMmPerWeek;
    return {
      month: i + 1,
      days,
      etoMmPerDay,
      plantMmPerWeek,
      rainMmPerWeek,
      netMmPerWeek,
      weeklySeconds: ((3600 * netMmPerWeek) / rate) * multiplier,
    };
  });
}

/** The month of highest net need, 1 to 12; the first of equal ones. */
export const peakMonth = (year: readonly MonthBalance[]): number =>
  year.reduce((best, balance) => (balance.netMmPerWeek > best.netMmPerWeek ? balance : best)).month;

/** Possible percents of a timer, ascending. */
type Steps = readonly number[];

/** Halfway between two, take the higher one: plants prefer more. */
const nearest = (steps: Steps, wanted: number): number =>
  steps.reduce((best, one) => (Math.abs(one - wanted) <= Math.abs(best - wanted) ? one : best));

/**
 * Seasonal percent of each month (section 10): its net need divided by that of the month that is 100, rounded to the timer's steps.
 *
 * @param year twelve months of one station, or of several added up
 * @param hundred month, 1 to 12, for which run times are entered; null: the month of highest need. If that needs nothing, every month is
 * 100.
 * @param steps at least one, ascending
 */
export function percentByMonth(
  year: readonly { readonly month: number; readonly netMmPerWeek: number }[],
  hundred: number | null,
  steps: Steps,
): number[] {
  const highest = Math.max(...year.map(({ netMmPerWeek }) => netMmPerWeek));
  const base =
    hundred === null
      ? highest
      : (year.find(({ month }) => month === hundred)?.netMmPerWeek ?? highest);
  return year.map(({ netMmPerWeek }) =>
    nearest(steps, base === 0 ? 100 : Math.round((100 * netMmPerWeek) / base)),
  );
}

/**
 * Longest interval between waterings in days, not rounded (section 9); Infinity if the plants use nothing.
 *
 * @param availableMmPerMetre available water of the soil
 * @param depletion share of it that may be used, 0 to 1
 */
export function longestIntervalDays(
  availableMmPerMetre: number,
  rootMetres: number,
  depletion: number,
  useMmPerDay: number,
): number {
  return useMmPerDay === 0
    ? Infinity
    : (availableMmPerMetre * rootMetres * depletion) / useMmPerDay;
}
