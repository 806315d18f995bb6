/**
 * What was found out at a house about one timer, beside what is set on it: its stations as they were walked and measured, the
 * device itself, and what is wanted of it. Kept together with the plan, as one record under one version (`record.ts`).
 */
import type { Accepted } from '../judge/accepted.ts';
import type { BriefRules, BriefStation, OftenADay, Wish } from '../brief/brief.ts';
import type { FollowUp, NextVisit, Tariff, Visit } from '../visit/visit.ts';
import type { TriesTaken } from '../water/rate.ts';
import type { HeadType, Plants, SoilType, Surroundings } from '../water/tables.ts';

/** Faults that a record needs words for, by where they are found. */
export const DEFECTS = [
  'broken-head',
  'clogged-head',
  'tilted-head',
  'sunken-head',
  'overspray',
  'leak',
  'pooling',
  'low-pressure',
  'high-pressure',
  'valve-stuck-closed',
  'valve-stuck-open',
  'valve-slow-to-close',
  'open-circuit',
  'short-circuit',
  'common-broken',
  'solenoid',
  'decoder',
] as const;
export type Defect = (typeof DEFECTS)[number];

export const URGENCIES = ['can-wait', 'soon', 'at-once'] as const;
export type Urgency = (typeof URGENCIES)[number];

export interface NotedDefect {
  readonly fault: Defect;
  readonly severity: Urgency;
  readonly note?: string;
}

/** How a station's weekly minutes are found (field guide, Schools). */
export const SCHOOLS = ['thumb', 'weekly', 'balance'] as const;
export type School = (typeof SCHOOLS)[number];

/** How the season is followed. */
export const SEASON_WAYS = ['percent', 'days', 'never'] as const;
export type SeasonWay = (typeof SEASON_WAYS)[number];

/** What stops the timer in the rain: one way for a house. */
export const RAIN_WAYS = ['sensor', 'delay', 'switch-off'] as const;
export type RainWay = (typeof RAIN_WAYS)[number];

/** The attempts of a run-off test. */
export interface RunOffTest {
  /** Seconds of each attempt, to the first puddle or the first water leaving the bed. */
  readonly seconds: readonly number[];
  readonly taken: TriesTaken;
  /** Taken off for safety, percent, 0 to 90. */
  readonly safetyPercent: number;
}

/** What cups caught, in rows of `across` cups as they stood on the ground. */
export interface NotedCups {
  readonly mouthSquareCentimetres: number;
  readonly minutes: number;
  readonly millilitres: readonly number[];
  readonly across: number;
}

export type FlowTest =
  | {
      readonly by: 'meter';
      readonly before: number;
      readonly after: number;
      readonly minutes: number;
    }
  | { readonly by: 'bucket'; readonly litres: number; readonly seconds: number }
  | { readonly by: 'timer'; readonly litresPerMinute: number };

export interface DripLine {
  readonly emitterLitresPerHour: number;
  readonly emitterSpacingMetres: number;
  readonly rowSpacingMetres: number;
}

/** Numbers of a station that a person may put in place of a table's or of what was worked out. */
export interface Overruled {
  readonly plantFactor?: number;
  /** Factor of sun, shade and reflected heat. */
  readonly surroundings?: number;
  /** mm an hour. */
  readonly rate?: number;
  /** 0 to 1. */
  readonly uniformity?: number;
  /** Share of the rain that counts, 0 to 1. */
  readonly rainShare?: number;
  /** mm an hour. */
  readonly intake?: number;
  /** Allowable surface accumulation, mm. */
  readonly allowance?: number;
  /** mm a metre. */
  readonly available?: number;
  readonly rootMetres?: number;
  /** Share of the available water that may be used up, 0 to 1. */
  readonly depletion?: number;
  /** Minutes a watering by rule of thumb, before any adjustment. */
  readonly thumbMinutes?: number;
  /** Minutes a week at the height of summer, before any adjustment. */
  readonly weeklyMinutes?: number;
  /** What it needs in a week at 100 percent, whatever a school says. */
  readonly weeklySeconds?: number;
}

/** A station as it was walked; everything but its number may be unknown. */
export interface SurveyStation extends Pick<BriefStation, 'group' | 'days'> {
  readonly number: number;
  readonly walked?: 'seen' | 'skipped';
  readonly head?: HeadType;
  readonly plants?: Plants;
  readonly surroundings?: Surroundings;
  readonly soil?: SoilType;
  readonly slopePercent?: number;
  readonly areaSquareMetres?: number;
  readonly headCount?: number;
  readonly faults?: readonly NotedDefect[];
  /** Ids of photos. */
  readonly photos?: readonly string[];
  readonly note?: string;
  readonly runOff?: RunOffTest;
  readonly cups?: NotedCups;
  readonly flow?: FlowTest;
  readonly drip?: DripLine;
  readonly overruled?: Overruled;
  /** Where it differs from the one of the site. */
  readonly school?: School;
  /** Waterings a week of the thumb school, 1 to 14. */
  readonly waterings?: number;
  readonly oftenADay?: OftenADay;
  /** Two-wire: the decoder that was assigned to it. */
  readonly decoder?: string;
}

export const POWERS = ['mains', 'adapter', 'battery'] as const;
export const SENSOR_KINDS = ['rain', 'freeze', 'flow', 'soil'] as const;
export const BYPASSES = ['active', 'bypass', 'none'] as const;
export const CHANGERS = [
  'homeowner',
  'weather-sensor',
  'online-service',
  'other-technician',
] as const;

export interface DeviceSensor {
  readonly kind: (typeof SENSOR_KINDS)[number];
  /** The position of its switch. */
  readonly bypass: (typeof BYPASSES)[number];
  readonly note?: string;
}

/** Facts of this very timer. */
export interface Device {
  readonly power?: (typeof POWERS)[number];
  readonly batteryKind?: string;
  /** When the battery was put in. */
  readonly batteryDate?: string;
  readonly transformer?: string;
  readonly modules?: string;
  /** Numbers of the terminals that have a wire on them. */
  readonly liveTerminals?: readonly number[];
  readonly sensors?: readonly DeviceSensor[];
  /** A pump that the timer starts, and how it is wired. */
  readonly pump?: string;
  readonly masterValve?: boolean;
  /** A tank that has to fill again: so many minutes. */
  readonly tankRefillMinutes?: number;
  /** How long the slowest valve takes to close, seconds. */
  readonly slowValveSeconds?: number;
  readonly changers?: readonly (typeof CHANGERS)[number][];
  /** The clock as found: what it showed, and what it really was; `YYYY-MM-DDTHH:MM`. */
  readonly clockShown?: string;
  readonly clockReally?: string;
  readonly note?: string;
}

export interface Survey {
  readonly stations: readonly SurveyStation[];
  readonly device?: Device;
  /** The one of the site; a station may have its own. */
  readonly school?: School;
  /** The month whose need is 100 percent, 1 to 12; none: the one of the highest need. */
  readonly hundredMonth?: number;
  readonly season?: SeasonWay;
  readonly rain?: RainWay;
  /** How long each station runs on the walk, seconds. */
  readonly walkSeconds?: number;
  /** Rules noted for this house by hand, in place of the library's. */
  readonly rules?: BriefRules;
  readonly dryBeforeMowing?: boolean;
  readonly wish?: Wish;
  /** Watering is to be done so many minutes before sunrise, below 0 after it; none: at the time of day that is wished. */
  readonly finishBeforeSunrise?: number;
  /** Findings that were accepted. */
  readonly accepted?: readonly Accepted[];
  /** The visit that is under way. */
  readonly visit?: Visit;
  /** Visits to come, with why. */
  readonly next?: readonly NextVisit[];
  /** Somebody is to see the first real watering. */
  readonly followUp?: FollowUp;
  /** What water costs here. */
  readonly tariff?: Tariff;
}

export type SurveyFields = Omit<Survey, 'stations'>;
export type SurveyStationFields = Omit<SurveyStation, 'number'>;

export const EMPTY_SURVEY: Survey = { stations: [] };

/** What is known of a station; where nothing is, its number. */
export const surveyOf = (survey: Survey, number: number): SurveyStation =>
  survey.stations.find((station) => station.number === number) ?? { number };

/** Seconds before the next valve opens: the time a slow valve takes to close, and a quarter more. */
export const delayForSlowValve = (seconds: number): number => Math.ceil((seconds * 5) / 4);
