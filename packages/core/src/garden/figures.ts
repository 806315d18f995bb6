/**
 * A station's numbers used in the calculations, each with its source: a person's value first, then a measurement, then a note, then a table
 * (water-need.md: a measured value always beats a table's).
 */
import { surveyOf, type Survey, type SurveyStation } from '../survey/survey.ts';
import type { Plan, Station } from '../plan/plan.ts';
import {
  cupResult,
  flowFromBucket,
  flowFromMeter,
  longestRunSeconds,
  rateFromFlow,
  rateOfDripLine,
} from '../water/rate.ts';
import {
  allowanceOf,
  HEADS,
  PLANT_FACTORS,
  ROOT_METRES,
  SOILS,
  soakSecondsOf,
  SURROUNDINGS,
} from '../water/tables.ts';

export type Source =
  | 'overruled'
  | 'measured'
  | 'noted'
  | 'table'
  | 'office'
  | 'weather'
  | 'rules'
  | 'programs'
  | 'assumed';

export interface Figure {
  readonly value: number;
  readonly source: Source;
}

/** Null: not known, and not in a table. */
export interface StationFigures {
  readonly plantFactor: Figure | null;
  readonly surroundings: Figure;
  /** mm an hour. */
  readonly rate: Figure | null;
  readonly uniformity: Figure | null;
  /** Share of the rain that counts; 0 under cover. */
  readonly rainShare: Figure;
  /** mm an hour. */
  readonly intake: Figure | null;
  /** mm. */
  readonly allowance: Figure | null;
  /** mm a metre. */
  readonly available: Figure | null;
  readonly rootMetres: Figure | null;
  readonly depletion: Figure;
  /** Longest run without a break, seconds; Infinity if the soil takes everything. */
  readonly longestRun: Figure | null;
  readonly soakSeconds: Figure | null;
  /** Litres a minute. */
  readonly flow: Figure | null;
}

/** Default for rain (water-need.md section 3). */
const USUAL_RAIN_SHARE = 0.5;
/** Default (section 9). */
const USUAL_DEPLETION = 0.5;

const figure = (value: number | null | undefined, source: Source): Figure | null =>
  value === null || value === undefined ? null : { value, source };

function flowOf({ flow }: SurveyStation, station: Station): Figure | null {
  switch (flow?.by) {
    case 'meter':
      return figure(flowFromMeter(flow.before, flow.after, flow.minutes), 'measured');
    case 'bucket':
      return figure(flowFromBucket(flow.litres, flow.seconds), 'measured');
    case 'timer':
      return figure(flow.litresPerMinute, 'measured');
    case undefined:
      return figure(station.flowLpm, 'noted');
  }
}

function rateOf(noted: SurveyStation, flow: Figure | null): Figure | null {
  const { cups, drip, areaSquareMetres, head } = noted;
  const caught = cups && cupResult(cups);
  if (caught) return figure(caught.rate, 'measured');
  if (flow && flow.value > 0 && areaSquareMetres !== undefined)
    return figure(rateFromFlow(flow.value, areaSquareMetres), flow.source);
  if (drip)
    return figure(
      rateOfDripLine(drip.emitterLitresPerHour, drip.emitterSpacingMetres, drip.rowSpacingMetres),
      'noted',
    );
  return figure(head && HEADS[head].rate, 'table');
}

/** All figures of one station. */
export function figuresOf(noted: SurveyStation, station: Station): StationFigures {
  const { overruled = {}, plants, surroundings, soil, slopePercent = 0, cups, head } = noted;
  const said = (key: Exclude<keyof typeof overruled, never>) => figure(overruled[key], 'overruled');
  const flow = flowOf(noted, station);
  const rate = said('rate') ?? rateOf(noted, flow);
  const caught = cups && cupResult(cups);
  const intake = said('intake') ?? figure(soil && SOILS[soil].intake, 'table');
  const allowance = said('allowance') ?? figure(soil && allowanceOf(soil, slopePercent), 'table');
  const worked =
    rate && intake && allowance
      ? longestRunSeconds(rate.value, intake.value, allowance.value)
      : null;
  return {
    plantFactor: said('plantFactor') ?? figure(plants && PLANT_FACTORS[plants], 'table'),
    surroundings: said('surroundings') ??
      figure(surroundings && SURROUNDINGS[surroundings], 'table') ?? {
        value: 1,
        source: 'assumed',
      },
    rate,
    uniformity:
      said('uniformity') ??
      figure(caught?.uniformity, 'measured') ??
      figure(head && HEADS[head].uniformity, 'table'),
    rainShare:
      station.underCover === true
        ? { value: 0, source: 'noted' }
        : (said('rainShare') ?? { value: USUAL_RAIN_SHARE, source: 'assumed' }),
    intake,
    allowance,
    available: said('available') ?? figure(soil && SOILS[soil].available, 'table'),
    rootMetres: said('rootMetres') ?? figure(plants && ROOT_METRES[plants], 'table'),
    depletion: said('depletion') ?? { value: USUAL_DEPLETION, source: 'assumed' },
    longestRun: station.cycleSeconds
      ? { value: station.cycleSeconds, source: noted.runOff ? 'measured' : 'noted' }
      : figure(worked, 'table'),
    soakSeconds:
      figure(station.soakSeconds, 'noted') ??
      figure(soil && soakSecondsOf(soil, slopePercent), 'table'),
    flow,
  };
}

/** Whether two stations can run at once: their flow against the supply. Litres a minute. */
export const canRunAtOnce = (one: number, other: number, supply: number): boolean =>
  one + other <= supply;

/** Figures of every station of a plan, by number. */
export const allFigures = (plan: Plan, survey: Survey): ReadonlyMap<number, StationFigures> =>
  new Map(
    plan.stations.map((station) => [
      station.number,
      figuresOf(surveyOf(survey, station.number), station),
    ]),
  );
