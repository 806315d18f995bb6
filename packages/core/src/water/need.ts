/** How much water a station needs, by month and by week, and what that comes to in minutes (water-need.md). */
import { assertDefined } from '../document/assertDefined.ts';
import { schedulingMultiplier } from './rate.ts';

/** The climate of a place, January first. */
export interface Climate {
  /** Reference evapotranspiration, mm a day. */
  readonly etoMmPerDay: readonly number[];
  /** mm a month. */
  readonly rainMm: readonly number[];
}

/** What is known of a station's plants and water. */
export interface StationDemand {
  readonly plantFactor: number;
  /** Sun, shade, reflected heat: 0.5 to 1.4. */
  readonly surroundings: number;
  /** Precipitation rate, mm an hour, above 0. */
  readonly rate: number;
  /** Distribution uniformity, 0 to 1. */
  readonly uniformity: number;
  /** Share of the rain that counts, 0 to 1; none reaches a station under cover. */
  readonly effectiveRainShare: number;
}

/** One month of the balance, with every number that it is made of. */
export interface MonthBalance {
  /** 1 to 12. */
  readonly month: number;
  readonly days: number;
  readonly etoMmPerDay: number;
  /** ETo × plant factor × surroundings, mm a week. */
  readonly plantMmPerWeek: number;
  /** Rain that counts, mm a week; never more than the plants ask. */
  readonly rainMmPerWeek: number;
  /** What is left to be watered, mm a week (section 4). */
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

/** The month of the highest net need, 1 to 12; the first of several. */
export const peakMonth = (year: readonly MonthBalance[]): number =>
  year.reduce((best, balance) => (balance.netMmPerWeek > best.netMmPerWeek ? balance : best)).month;

/** What a timer's percent can be: its steps, ascending. */
type Steps = readonly number[];

/** Halfway between two, take the higher one: plants prefer more. */
const nearest = (steps: Steps, wanted: number): number =>
  steps.reduce((best, one) => (Math.abs(one - wanted) <= Math.abs(best - wanted) ? one : best));

/**
 * Seasonal percent of each month (section 10): its net need over that of the month that is 100, rounded to the timer's steps.
 *
 * @param year twelve months of one station, or of several added up.
 * @param hundred the month, 1 to 12, at which run times are entered; null: the one of the highest need. Where that needs
 * nothing, every month is 100.
 * @param steps at least one, ascending.
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
 * Longest interval between two waterings in days, not rounded (section 9); Infinity where the plants use nothing.
 *
 * @param availableMmPerMetre water that the soil holds for plants.
 * @param depletion the share of it that may be used up, 0 to 1.
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
