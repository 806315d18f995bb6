/**
 * What was found out at a house about one timer, beside what is set on it: its stations as they were walked and measured, the
 * device itself, and what is wanted of it. Kept together with the plan, as one record under one version (`record.ts`).
 */
import type { DecoderReading } from '../wiring/line.ts';
import type { Accepted } from '../findings/accepted.ts';
import type { BriefRules, BriefStation, OftenADay, Wish } from '../brief/brief.ts';
import type { FollowUp, NextVisit, Tariff, Undone, Visit } from '../visit/visit.ts';
import type { Plan } from '../plan/plan.ts';
import type { TimeText } from '../time/calendar.ts';
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
  /** Two-wire: the decoder that was assigned to it, its address or serial. */
  readonly decoder?: string;
  /** How the decoder is marked in its box in the ground. */
  readonly decoderMark?: string;
  /** Each time it was tried on its two wires, the last last. */
  readonly decoderReadings?: readonly DecoderReading[];
  /** It opens the master valve, where there is one; absent: yes. */
  readonly masterValve?: boolean;
}

export const POWERS = ['mains', 'adapter', 'battery'] as const;
export const SENSOR_KINDS = ['rain', 'freeze', 'flow', 'soil'] as const;
export type SensorKind = (typeof SENSOR_KINDS)[number];
export const CHANGERS = [
  'homeowner',
  'weather-sensor',
  'online-service',
  'other-technician',
] as const;

/** A sensor that is fitted. The switch of the rain sensor is `settings.sensor` of the plan. */
export interface TimerSensor {
  readonly kind: SensorKind;
  readonly note?: string;
}

/** Facts of this very timer. */
export interface FittedTimer {
  readonly power?: (typeof POWERS)[number];
  readonly batteryKind?: string;
  /** When the battery was put in. */
  readonly batteryDate?: string;
  /** The battery that keeps the clock, and with some kinds the settings, while the power is off. */
  readonly backup?: { readonly kind?: string; readonly date?: string };
  /** Stations hang on two wires, each by its decoder; absent: as its kind says. */
  readonly twoWire?: boolean;
  readonly transformer?: string;
  readonly modules?: string;
  /** Numbers of the terminals that have a wire on them. */
  readonly liveTerminals?: readonly number[];
  readonly sensors?: readonly TimerSensor[];
  /** A pump that the timer starts, and how it is wired. */
  readonly pump?: string;
  /** Whether it keeps running while no valve is open; absent: not known. */
  readonly pumpRunsOn?: boolean;
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

export interface UnknownPhase {
  readonly program: string;
  readonly everyDays: number;
  readonly firstDate: string;
}

export interface Survey {
  readonly stations: readonly SurveyStation[];
  readonly device?: FittedTimer;
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
  /** The lawn is to be dry the whole day before mowing. */
  readonly dryBeforeMowing?: boolean;
  /** On the day before mowing, the lawn is to be dry from this time on. */
  readonly dryFrom?: TimeText;
  readonly wish?: Wish;
  /** Watering is to be done so many minutes before sunrise, below 0 after it; none: at the time of day that is wished. */
  readonly finishBeforeSunrise?: number;
  /** Intervals of which nobody could read where they stand, as they are set: one that is set anew is known. */
  readonly unknownPhases?: readonly UnknownPhase[];
  /** Findings that were accepted. */
  readonly accepted?: readonly Accepted[];
  /** The visit that is under way. */
  readonly visit?: Visit;
  /** Visits to come, with why. */
  readonly next?: readonly NextVisit[];
  /** Somebody is to see the first real watering. */
  readonly followUp?: FollowUp;
  /** What the last visit left undone. */
  readonly undone?: { readonly closed: string; readonly points: readonly Undone[] };
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

/** The programs of which nobody knows where their interval stands. */
export const unknownPhases = ({ programs }: Pick<Plan, 'programs'>, survey: Survey): string[] =>
  (survey.unknownPhases ?? [])
    .filter(({ program: letter, everyDays, firstDate }) =>
      programs.some(
        ({ letter: one, days }) =>
          one === letter &&
          days?.rule === 'interval' &&
          days.everyDays === everyDays &&
          days.firstDate === firstDate,
      ),
    )
    .map(({ program }) => program);

/** What is to be noted of a program's interval: that nobody can read where it stands, or that somebody could. Null: nothing changes. */
export function phaseFields(
  { programs }: Pick<Plan, 'programs'>,
  { unknownPhases: before = [] }: Survey,
  letter: string,
  isUnknown: boolean,
): { readonly unknownPhases: readonly UnknownPhase[] | null } | null {
  const days = programs.find((program) => program.letter === letter)?.days;
  const others = before.filter(({ program }) => program !== letter);
  if (days?.rule !== 'interval' || (!isUnknown && others.length === before.length)) return null;
  const { everyDays, firstDate } = days;
  const next = isUnknown ? [...others, { program: letter, everyDays, firstDate }] : others;
  return { unknownPhases: next.length > 0 ? next : null };
}
