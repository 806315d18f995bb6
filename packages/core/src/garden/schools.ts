/**
 * A station's weekly need by the three methods of the trade (field guide, Schools), each with its numbers. All are for the month that 100
 * percent stands for.
 */
import type { BriefRules } from '../brief/brief.ts';
import { datesSet, wateringsOf } from './waterings.ts';
import { assertDefined } from '../document/assertDefined.ts';
import {
  surveyOf,
  type Overruled,
  type School,
  type Survey,
  type SurveyStation,
} from '../survey/survey.ts';
import type { Plan } from '../plan/plan.ts';
import { allFigures, type Figure, type Source, type StationFigures } from './figures.ts';
import type { HeadMinutes, MinutesTable } from '../water/minutesTable.ts';
import {
  longestIntervalDays,
  peakMonth,
  yearBalance,
  type Climate,
  type MonthBalance,
  type StationDemand,
} from '../water/need.ts';
import { schedulingMultiplier } from '../water/rate.ts';

export type StepUnit =
  'minutes' | 'factor' | 'times' | 'mm-a-day' | 'mm-a-week' | 'mm-an-hour' | 'share';

/** One number of a calculation. */
export interface Step {
  readonly what:
    | 'thumb-minutes'
    | 'weekly-minutes'
    | 'waterings'
    | 'sun'
    | 'soil'
    | 'plants'
    | 'heads'
    | 'month'
    | 'eto'
    | 'plant-factor'
    | 'surroundings'
    | 'rain-share'
    | 'rain'
    | 'net-need'
    | 'rate'
    | 'uniformity'
    | 'multiplier';
  readonly value: number;
  readonly unit: StepUnit;
  readonly source: Source;
  /** Field with which a person can override it. */
  readonly overrule?: keyof Overruled;
}

/** What a method lacks. */
export type Lacking = 'head' | 'waterings' | 'plants' | 'rate' | 'climate';

export interface SchoolAnswer {
  readonly school: School;
  /** Not rounded; null if something is missing. */
  readonly weeklySeconds: number | null;
  readonly lacking: readonly Lacking[];
  readonly steps: readonly Step[];
}

const step = (
  what: Step['what'],
  value: number,
  unit: StepUnit,
  source: Source,
  overrule?: keyof Overruled,
): Step => ({ what, value, unit, source, ...(overrule ? { overrule } : {}) });

const ofFigure = (
  what: Step['what'],
  { value, source }: Figure,
  unit: StepUnit,
  overrule: keyof Overruled,
) => step(what, value, unit, source, overrule);

/** Heads closer together than usual apply more, so they run less; the factor is at most two. */
function headsFactor(
  { headCount, areaSquareMetres }: SurveyStation,
  { headsPerHundred }: HeadMinutes,
) {
  if (headCount === undefined || areaSquareMetres === undefined || headsPerHundred === undefined)
    return null;
  const factor = (headsPerHundred * areaSquareMetres) / (100 * headCount);
  return Math.min(2, Math.max(0.5, factor));
}

/** How the table adjusts minutes: sun, soil, and heads for the area. */
function bends(noted: SurveyStation, table: MinutesTable, head: HeadMinutes): Step[] {
  const { surroundings, soil } = noted;
  const heads = headsFactor(noted, head);
  return [
    ...(surroundings ? [step('sun', table.surroundings[surroundings], 'factor', 'office')] : []),
    ...(soil ? [step('soil', table.soils[soil], 'factor', 'office')] : []),
    ...(heads === null ? [] : [step('heads', heads, 'factor', 'noted')]),
  ];
}

const product = (steps: readonly Step[]) =>
  steps.reduce((all, { value, unit }) => all * (unit === 'share' ? 1 : value), 1);

const lackingAnswer = (school: School, lacking: readonly Lacking[]): SchoolAnswer => ({
  school,
  weeklySeconds: null,
  lacking,
  steps: [],
});

/** @param waterings a week; null: not known */
function thumb(noted: SurveyStation, table: MinutesTable, waterings: Figure | null): SchoolAnswer {
  const { head: name, overruled } = noted;
  if (!name || !waterings)
    return lackingAnswer('thumb', [
      ...(name ? [] : (['head'] as const)),
      ...(waterings ? [] : (['waterings'] as const)),
    ]);
  const head = table.heads[name];
  const said = overruled?.thumbMinutes;
  const steps = [
    said === undefined
      ? step('thumb-minutes', head.watering, 'minutes', 'office', 'thumbMinutes')
      : step('thumb-minutes', said, 'minutes', 'overruled', 'thumbMinutes'),
    ...bends(noted, table, head),
    step('waterings', waterings.value, 'times', waterings.source),
  ];
  return { school: 'thumb', weeklySeconds: 60 * product(steps), lacking: [], steps };
}

function weekly(noted: SurveyStation, table: MinutesTable, month: number | null): SchoolAnswer {
  const { head: name, plants, overruled } = noted;
  if (!name) return lackingAnswer('weekly', ['head']);
  const head = table.heads[name];
  const said = overruled?.weeklyMinutes;
  const percent =
    month === null ? 100 : assertDefined(table.months[month - 1], 'table.months[month - 1]');
  const steps = [
    said === undefined
      ? step('weekly-minutes', head.week, 'minutes', 'office', 'weeklyMinutes')
      : step('weekly-minutes', said, 'minutes', 'overruled', 'weeklyMinutes'),
    ...(plants ? [step('plants', table.plants[plants], 'factor', 'office')] : []),
    ...bends(noted, table, head),
    step('month', percent / 100, 'factor', 'office'),
  ];
  return { school: 'weekly', weeklySeconds: 60 * product(steps), lacking: [], steps };
}

/** What a water balance needs of a station, or what is missing. */
function demandOf(figures: StationFigures): StationDemand | readonly Lacking[] {
  const { plantFactor, surroundings, rate, uniformity, rainShare } = figures;
  const lacking: Lacking[] = [
    ...(plantFactor ? [] : ['plants' as const]),
    ...(rate ? [] : ['rate' as const]),
  ];
  if (!plantFactor || !rate) return lacking;
  return {
    plantFactor: plantFactor.value,
    surroundings: surroundings.value,
    rate: rate.value,
    // Unknown heads count as sprays (water-need.md section 6).
    uniformity: uniformity?.value ?? 0.6,
    effectiveRainShare: rainShare.value,
  };
}

function balance(
  figures: StationFigures,
  year: readonly MonthBalance[] | null,
  month: number | null,
  climate: Climate | null,
): SchoolAnswer {
  const demand = demandOf(figures);
  const lacking = [
    ...(Array.isArray(demand) ? (demand as readonly Lacking[]) : []),
    ...(climate ? [] : (['climate'] as const)),
  ];
  const now = year?.find((balance) => balance.month === month);
  const { plantFactor, rate } = figures;
  if (lacking.length > 0 || !now || !plantFactor || !rate) return lackingAnswer('balance', lacking);
  const uniformity = figures.uniformity ?? { value: 0.6, source: 'assumed' as const };
  return {
    school: 'balance',
    weeklySeconds: now.weeklySeconds,
    lacking: [],
    steps: [
      step('eto', now.etoMmPerDay, 'mm-a-day', 'weather'),
      ofFigure('plant-factor', plantFactor, 'factor', 'plantFactor'),
      ofFigure('surroundings', figures.surroundings, 'factor', 'surroundings'),
      ofFigure('rain-share', figures.rainShare, 'share', 'rainShare'),
      step('rain', now.rainMmPerWeek, 'mm-a-week', 'weather'),
      step('net-need', now.netMmPerWeek, 'mm-a-week', 'weather'),
      ofFigure('rate', rate, 'mm-an-hour', 'rate'),
      ofFigure('uniformity', uniformity, 'share', 'uniformity'),
      step('multiplier', schedulingMultiplier(uniformity.value), 'factor', uniformity.source),
    ],
  };
}

/** One station by all three methods. */
export interface StationMinutes {
  readonly number: number;
  readonly figures: StationFigures;
  readonly answers: Readonly<Record<School, SchoolAnswer>>;
  readonly school: School;
  /** Weekly need at 100 percent, whole seconds: a person's value, otherwise the chosen method's; null without either. */
  readonly weeklySeconds: number | null;
  readonly overruled: boolean;
  /** Its year by the water balance, January first; null if something is missing. */
  readonly year: readonly MonthBalance[] | null;
  /** Longest interval between waterings in the month of highest need, days (water-need.md section 9). */
  readonly longestIntervalDays: number | null;
}

export interface SiteMinutes {
  readonly stations: readonly StationMinutes[];
  /** The month that 100 percent stands for, 1 to 12; null: not known. */
  readonly hundredMonth: number | null;
  /** Need of all stations together, weighted by their rates' seconds, January first; empty if no balance is known. */
  readonly year: readonly {
    readonly month: number;
    readonly netMmPerWeek: number;
    readonly weeklySeconds: number;
  }[];
}

const SECONDS_PER_WEEK = 604_800;
const MONTHS = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12] as const;

/** The whole garden's need by month: seconds added up, depths averaged over stations. */
function siteYear(years: readonly (readonly MonthBalance[])[]) {
  if (years.length === 0) return [];
  return MONTHS.map((month, i) => ({
    month,
    netMmPerWeek:
      years.reduce((sum, year) => sum + assertDefined(year[i], 'year[i]').netMmPerWeek, 0) /
      years.length,
    weeklySeconds: years.reduce(
      (sum, year) => sum + assertDefined(year[i], 'year[i]').weeklySeconds,
      0,
    ),
  }));
}

/**
 * The minutes of every station by all methods. Linear in the stations.
 *
 * @param climate of the site; null: not known
 * @param rules of the site on the day of the visit; null: none
 */
export function siteMinutes(
  plan: Plan,
  survey: Survey,
  table: MinutesTable,
  climate: Climate | null,
  rules: BriefRules | null = null,
): SiteMinutes {
  const figures = allFigures(plan, survey);
  const set = datesSet(plan);
  const rows = plan.stations.flatMap((station) => {
    const { number } = station;
    const stationFigures = figures.get(number);
    if (!stationFigures) return [];
    const demand = demandOf(stationFigures);
    const year = climate && 'rate' in demand ? yearBalance(climate, demand) : null;
    const noted = surveyOf(survey, number);
    const waterings = wateringsOf(station, noted, set.get(number) ?? 0, rules);
    return [{ number, figures: stationFigures, year, noted, waterings }];
  });
  const year = siteYear(rows.flatMap((row) => (row.year ? [row.year] : [])));
  const peak =
    year.length > 0
      ? year.reduce((best, one) => (one.weeklySeconds > best.weeklySeconds ? one : best)).month
      : null;
  const month = survey.hundredMonth ?? peak;
  const stations = rows.map(
    ({ number, figures: one, year: own, noted, waterings }): StationMinutes => {
      const answers = {
        thumb: thumb(noted, table, waterings),
        weekly: weekly(noted, table, survey.hundredMonth ?? null),
        balance: balance(one, own, month, climate),
      };
      const school = noted.school ?? survey.school ?? 'balance';
      const said = noted.overruled?.weeklySeconds;
      const chosen = answers[school].weeklySeconds;
      const { available, rootMetres, depletion } = one;
      const top = own?.[peakMonth(own) - 1];
      return {
        number,
        figures: one,
        answers,
        school,
        weeklySeconds:
          said ?? (chosen === null ? null : Math.min(SECONDS_PER_WEEK, Math.round(chosen))),
        overruled: said !== undefined,
        year: own,
        longestIntervalDays:
          top && available && rootMetres
            ? longestIntervalDays(
                available.value,
                rootMetres.value,
                depletion.value,
                top.plantMmPerWeek / 7,
              )
            : null,
      };
    },
  );
  return { stations, hundredMonth: month, year };
}

/**
 * Waterings a week by month for someone who follows the season by days (field guide, Schools): the month's need divided by one watering of
 * the 100-percent month, rounded up; 0 if nothing is needed.
 *
 * @param year weekly seconds of each month; `hundred`: the month 100 percent stands for
 * @param waterings a week in that month, 1 or more
 */
export function daysByMonth(
  year: readonly { readonly month: number; readonly weeklySeconds: number }[],
  hundred: number,
  waterings: number,
): number[] {
  const base = year.find(({ month }) => month === hundred)?.weeklySeconds ?? 0;
  const perWatering = base / waterings;
  return year.map(({ weeklySeconds }) =>
    perWatering === 0 ? 0 : Math.min(7, Math.ceil(weeklySeconds / perWatering - 1e-9)),
  );
}
