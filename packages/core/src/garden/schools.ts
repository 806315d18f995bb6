/**
 * What a station needs in a week, by the three schools of the trade (field guide, Schools), each with the numbers that it is made
 * of. All are for the month whose need is called 100 percent.
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

/** One number of a sum. */
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
  /** The field by which a person may overrule it. */
  readonly overrule?: keyof Overruled;
}

/** What a school lacks to say anything. */
export type Lacking = 'head' | 'waterings' | 'plants' | 'rate' | 'climate';

export interface SchoolAnswer {
  readonly school: School;
  /** Not rounded; null where something is lacking. */
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

/** Heads closer together than usual put down more, so they run less; the factor never goes beyond two. */
function headsFactor(
  { headCount, areaSquareMetres }: SurveyStation,
  { headsPerHundred }: HeadMinutes,
) {
  if (headCount === undefined || areaSquareMetres === undefined || headsPerHundred === undefined)
    return null;
  const factor = (headsPerHundred * areaSquareMetres) / (100 * headCount);
  return Math.min(2, Math.max(0.5, factor));
}

/** How the table adjusts minutes to the ground: sun, soil, and heads for the area. */
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

/** @param waterings a week; null: nothing says how often. */
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

/** What a balance needs to know of a station, or what is lacking. */
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

/** One station by all three schools. */
export interface StationMinutes {
  readonly number: number;
  readonly figures: StationFigures;
  readonly answers: Readonly<Record<School, SchoolAnswer>>;
  readonly school: School;
  /** What it needs in a week at 100 percent, whole seconds: a person's value, else the chosen school's; null where there is neither. */
  readonly weeklySeconds: number | null;
  readonly overruled: boolean;
  /** Its year by the water balance, January first; null where something is lacking. */
  readonly year: readonly MonthBalance[] | null;
  /** Longest interval between two waterings in the month of the highest need, days (water-need.md section 9). */
  readonly longestIntervalDays: number | null;
}

export interface SiteMinutes {
  readonly stations: readonly StationMinutes[];
  /** The month that is 100 percent, 1 to 12; null where nothing says. */
  readonly hundredMonth: number | null;
  /** The need of all stations together, weighted by their rates' seconds, January first; empty where no balance is known. */
  readonly year: readonly {
    readonly month: number;
    readonly netMmPerWeek: number;
    readonly weeklySeconds: number;
  }[];
}

const SECONDS_PER_WEEK = 604_800;
const MONTHS = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12] as const;

/** What the whole garden needs in each month: seconds added up, depths averaged over the stations. */
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
 * The minutes of every station by all schools. Cost is linear in the stations.
 *
 * @param climate of the place; null where it is not known.
 * @param rules of the house on the day of the visit; null where it is free.
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
 * Waterings a week in each month for somebody who follows the season by days (field guide, Schools): what the month needs, over what the
 * month of 100 percent gives in one watering, rounded up; 0 where nothing is needed.
 *
 * @param year weekly seconds of each month; @param hundred the month of 100 percent.
 * @param waterings waterings a week in that month, 1 or more.
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
