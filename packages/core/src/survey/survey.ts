/**
 * What was found at a site about one timer, besides its settings: its stations as walked and measured, the device, and the wishes. Stored
 * with the plan as one record under one version (`record.ts`).
 */
import type { DecoderReading } from '../wiring/line.ts';
import type { Accepted } from '../findings/accepted.ts';
import type { BriefRules, BriefStation, OftenADay, Wish } from '../brief/brief.ts';
import type { FollowUp, NextVisit, Tariff, Undone, Visit } from '../visit/visit.ts';
import type { Power } from '../plan/kind.ts';
import type { Plan } from '../plan/plan.ts';
import type { TimeText } from '../time/calendar.ts';
import type { TriesTaken } from '../water/rate.ts';
import type { HeadType, Plants, SoilType, Surroundings } from '../water/tables.ts';

/** Fault codes that need their own messages. */
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

/** The method for a station's weekly minutes (field guide, Schools). */
export const SCHOOLS = ['thumb', 'weekly', 'balance'] as const;
export type School = (typeof SCHOOLS)[number];

/** How the season is followed. */
export const SEASON_WAYS = ['percent', 'days', 'never'] as const;
export type SeasonWay = (typeof SEASON_WAYS)[number];

/** What stops the timer in rain; one choice for a site. */
export const RAIN_WAYS = ['sensor', 'delay', 'switch-off'] as const;
export type RainWay = (typeof RAIN_WAYS)[number];

/** Attempts of a run-off test. */
export interface RunOffTest {
  /** Seconds of each attempt, to the first puddle or run-off. */
  readonly seconds: readonly number[];
  readonly taken: TriesTaken;
  /** Safety margin, percent, 0 to 90. */
  readonly safetyPercent: number;
}

/** Cup volumes, in rows of `across` cups as placed on the ground. */
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

/** Numbers of a station that override tables or calculations. */
export interface Overruled {
  readonly plantFactor?: number;
  /** Factor for sun, shade and reflected heat. */
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
  /** Share of the available water that may be used, 0 to 1. */
  readonly depletion?: number;
  /** Rule-of-thumb minutes for a watering, before adjustment. */
  readonly thumbMinutes?: number;
  /** Minutes a week in the hottest month, before adjustment. */
  readonly weeklyMinutes?: number;
  /** Weekly need at 100 percent, overriding every method. */
  readonly weeklySeconds?: number;
}

/** A station as walked; everything but its number may be unknown. */
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
  /** Photo ids. */
  readonly photos?: readonly string[];
  readonly note?: string;
  readonly runOff?: RunOffTest;
  readonly cups?: NotedCups;
  readonly flow?: FlowTest;
  readonly drip?: DripLine;
  readonly overruled?: Overruled;
  /** If different from the site's. */
  readonly school?: School;
  /** Waterings a week for the rule of thumb, 1 to 14. */
  readonly waterings?: number;
  readonly oftenADay?: OftenADay;
  /** Two-wire: serial of the assigned decoder. */
  readonly decoder?: string;
  /** Label of the decoder in its valve box. */
  readonly decoderMark?: string;
  /** Tests on its two wires, newest last. */
  readonly decoderReadings?: readonly DecoderReading[];
  /** Whether it opens the master valve, if there is one; absent: yes. */
  readonly masterValve?: boolean;
}

export const SENSOR_KINDS = ['rain', 'freeze', 'flow', 'soil'] as const;
export type SensorKind = (typeof SENSOR_KINDS)[number];
export const CHANGERS = [
  'homeowner',
  'weather-sensor',
  'online-service',
  'other-technician',
] as const;

/** An installed sensor. The rain sensor's switch is `settings.sensor` of the plan. */
export interface TimerSensor {
  readonly kind: SensorKind;
  readonly note?: string;
}

/** Facts of this timer. */
export interface FittedTimer {
  readonly power?: Power;
  readonly batteryKind?: string;
  /** When the battery was installed. */
  readonly batteryDate?: string;
  /** Backup battery, which keeps the clock, and with some kinds the settings, without power. */
  readonly backup?: { readonly kind?: string; readonly date?: string };
  /** Two-wire with decoders; absent: by kind. */
  readonly twoWire?: boolean;
  readonly transformer?: string;
  readonly modules?: string;
  /** Terminals with a wire. */
  readonly liveTerminals?: readonly number[];
  readonly sensors?: readonly TimerSensor[];
  /** A pump started by the timer, and its wiring. */
  readonly pump?: string;
  /** Whether it keeps running with no valve open; absent: not known. */
  readonly pumpRunsOn?: boolean;
  readonly masterValve?: boolean;
  /** A tank's refill time in minutes. */
  readonly tankRefillMinutes?: number;
  /** Closing time of the slowest valve, seconds. */
  readonly slowValveSeconds?: number;
  readonly changers?: readonly (typeof CHANGERS)[number][];
  /** The clock as found: displayed and true time, `YYYY-MM-DDTHH:MM`. */
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
  /** Default of the site; a station may have its own. */
  readonly school?: School;
  /** The month that 100 percent stands for, 1 to 12; absent: the month of highest need. */
  readonly hundredMonth?: number;
  readonly season?: SeasonWay;
  readonly rain?: RainWay;
  /** Run time of each station on the walk, seconds. */
  readonly walkSeconds?: number;
  /** Rules noted for this site, in place of the library's. */
  readonly rules?: BriefRules;
  /** The lawn must be dry the whole day before mowing. */
  readonly dryBeforeMowing?: boolean;
  /** On the day before mowing, the lawn must be dry from this time on. */
  readonly dryFrom?: TimeText;
  readonly wish?: Wish;
  /** Watering must end this many minutes before sunrise, negative: after it; absent: at the wished time. */
  readonly finishBeforeSunrise?: number;
  /** Intervals whose phase could not be read, as they are set; setting one makes it known. */
  readonly unknownPhases?: readonly UnknownPhase[];
  /** Accepted findings. */
  readonly accepted?: readonly Accepted[];
  /** The open visit. */
  readonly visit?: Visit;
  /** Coming visits, with reasons. */
  readonly next?: readonly NextVisit[];
  /** Someone must see the first watering. */
  readonly followUp?: FollowUp;
  /** Left undone by the last visit. */
  readonly undone?: { readonly closed: string; readonly points: readonly Undone[] };
  /** Water tariff. */
  readonly tariff?: Tariff;
}

export type SurveyFields = Omit<Survey, 'stations'>;
export type SurveyStationFields = Omit<SurveyStation, 'number'>;

export const EMPTY_SURVEY: Survey = { stations: [] };

/** Known facts of a station; if there are none, its number. */
export const surveyOf = (survey: Survey, number: number): SurveyStation =>
  survey.stations.find((station) => station.number === number) ?? { number };

/** Station delay for a slow valve: its closing time plus a quarter. */
export const delayForSlowValve = (seconds: number): number => Math.ceil((seconds * 5) / 4);

/** Programs whose interval phase is not known. */
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

/** The change noting that a program's interval phase cannot be read, or now can. Null: nothing changes. */
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
