/** Derives a brief from site, rules, timer, stations and minutes (planning.md section 1), and applies an imported brief. */
import { formatDate, SECONDS_PER_DAY, type Weekday } from '../time/calendar.ts';
import type { FieldsToSet } from '../document/reader.ts';
import { meanWeeklySeconds } from '../engine/weeklyWater.ts';
import type { Plan, Station } from '../plan/plan.ts';
import { datesOfProgram } from '../plan/starts.ts';
import {
  surveyOf,
  type Survey,
  type SurveyStation,
  type SurveyStationFields,
} from '../survey/survey.ts';
import { pieceOnTimer } from '../water/rate.ts';
import { HEADS } from '../water/tables.ts';
import type { RecordChange, TimerRecord } from './record.ts';
import type { Figure } from '../garden/figures.ts';
import type { SiteMinutes } from '../garden/schools.ts';
import {
  BRIEF_FORMAT,
  BRIEF_VERSION,
  type Brief,
  type BriefRules,
  type BriefStation,
  type ComingEdition,
  type Wish,
} from '../brief/brief.ts';
import type { ComingRules } from '../rules/houseRules.ts';
import { say } from '../language/say.ts';

/** Inputs from the site and the calculations. */
export interface BriefSources {
  readonly minutes: SiteMinutes;
  /** The site's rules; null: not known. */
  readonly rules: BriefRules | null;
  readonly mowing: readonly Weekday[];
}

/** A record without fields that have no value. */
const withoutNothing = <T extends object>(fields: { [K in keyof T]: T[K] | undefined }): T =>
  // Safe cast: only optional fields can be missing.
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)) as T;

/**
 * The longest cycle and its soak, measured or from soil, slope and rate (water-need.md section 8); nothing if the soil takes everything. In
 * steps of the timer's run times.
 */
function stretchOf(
  longest: Figure | null | undefined,
  soak: Figure | null | undefined,
  stepSeconds: number,
): Pick<BriefStation, 'cycleSeconds' | 'soakSeconds'> {
  if (!longest || !(longest.value <= SECONDS_PER_DAY)) return {};
  // Table values are no more exact than a minute.
  const step = longest.source === 'table' && longest.value >= 60 ? 60 : 1;
  const whole = Math.max(1, Math.floor(longest.value / step) * step);
  const cycleSeconds = pieceOnTimer(whole, stepSeconds);
  return soak ? { cycleSeconds, soakSeconds: soak.value } : { cycleSeconds };
}

const DAYS_OF_A_WEEK = 7;
const SECONDS_PER_WEEK = DAYS_OF_A_WEEK * SECONDS_PER_DAY;

/** Watering dates a week that the rules allow; three for odd or even dates. */
export const allowedDates = (rules: BriefRules | undefined): number =>
  Math.min(
    rules?.weekdays?.length ?? DAYS_OF_A_WEEK,
    rules?.mostDaysPerWeek ?? DAYS_OF_A_WEEK,
    rules?.parity ? 3 : DAYS_OF_A_WEEK,
  );

/**
 * Default watering dates a week: as many as the roots need in the month of highest need (water-need.md section 9), if known and allowed; at
 * least one.
 */
function usualDays(
  { longestIntervalDays }: Pick<SiteMinutes['stations'][number], 'longestIntervalDays'>,
  rules: BriefRules | null,
): NonNullable<BriefStation['days']> {
  const needed =
    longestIntervalDays === null ? 1 : Math.ceil(DAYS_OF_A_WEEK / Math.max(1, longestIntervalDays));
  const allowed = allowedDates(rules ?? undefined);
  return { least: Math.max(1, Math.min(needed, allowed)), most: DAYS_OF_A_WEEK };
}

/** Rule-of-thumb minutes are those of one watering, so a plan waters as often as they assume. */
function daysOf(
  minutes: SiteMinutes['stations'][number],
  rules: BriefRules | null,
): NonNullable<BriefStation['days']> {
  const { school, overruled, answers } = minutes;
  const waterings = answers.thumb.steps.find(({ what }) => what === 'waterings')?.value;
  if (school !== 'thumb' || overruled || waterings === undefined) return usualDays(minutes, rules);
  const within = (dates: number) => Math.max(1, Math.min(DAYS_OF_A_WEEK, dates));
  return { least: within(Math.floor(waterings)), most: within(Math.ceil(waterings)) };
}

/** Default group of a station, by plants and head; undefined if not known. */
function usualGroup({ head, plants, oftenADay }: SurveyStation): string | undefined {
  if (oftenADay || plants === 'new-seed-or-turf') return say`new planting`;
  if (head !== undefined && !HEADS[head].overhead) return 'drip';
  switch (plants) {
    case 'cool-season-lawn':
    case 'warm-season-lawn':
      return 'lawn';
    case 'annual-flowers':
    case 'vegetables-and-fruit':
      return 'beds';
    case 'trees-and-shrubs':
    case 'trees-and-shrubs-wet':
    case 'desert-adapted':
      return say`trees and shrubs`;
    case undefined:
      return undefined;
  }
}

/** The wishes, with programs by need if the timer has more than one. */
export const usualWish = ({ timer }: Pick<Plan, 'timer'>, { wish }: Pick<Survey, 'wish'>): Wish =>
  timer.programCount > 1 ? { programs: 'by-need', ...wish } : { ...wish };

/** Announced rules for a brief: each edition is valid until the next, and a period without rules is one too. */
export const announcedEditions = (coming: readonly ComingRules[]): ComingEdition[] =>
  coming.flatMap(({ from, until, rules }, i) => {
    const edition = { from: formatDate(from), rules };
    const isFollowed = until === null || coming[i + 1]?.from === until;
    return isFollowed ? [edition] : [edition, { from: formatDate(until), rules: {} }];
  });

/** The brief of a timer. A station of unknown need has 0 seconds in it; `unknownNeeds` lists them. */
export function assembleBrief({ plan, survey }: TimerRecord, sources: BriefSources): Brief {
  const { stationDelaySeconds, stationsAtOnce, flowLimitLpm, offDaysOfMonth } = plan.settings;
  const settings = withoutNothing<NonNullable<Brief['settings']>>({
    stationDelaySeconds,
    stationsAtOnce,
    flowLimitLpm,
    offDaysOfMonth,
  });
  const stations = plan.stations
    // A linked station waters with the one it is linked to.
    .filter(({ enabled, linkedTo }) => enabled !== false && linkedTo === undefined)
    .map((station): BriefStation => {
      const { enabled: _enabled, linkedTo: _linkedTo, ...facts } = station;
      const noted = surveyOf(survey, station.number);
      const { group = usualGroup(noted), days, oftenADay } = noted;
      const minutes = sources.minutes.stations.find(({ number }) => number === station.number);
      const { flow, longestRun, soakSeconds } = minutes?.figures ?? {};
      return withoutNothing<BriefStation>({
        ...facts,
        flowLpm: facts.flowLpm ?? (flow ? Math.round(flow.value * 100) / 100 : undefined),
        weeklySeconds: minutes?.weeklySeconds ?? 0,
        ...stretchOf(longestRun, soakSeconds, plan.timer.runStepSeconds),
        group,
        days:
          days ??
          // A choice for the whole garden comes before defaults.
          (minutes?.weeklySeconds && !survey.wish?.daysPerWeek
            ? daysOf(minutes, sources.rules)
            : undefined),
        oftenADay,
      });
    });
  const { mowing, rules } = sources;
  const { dryBeforeMowing, dryFrom } = survey;
  return {
    format: BRIEF_FORMAT,
    version: BRIEF_VERSION,
    timer: plan.timer,
    ...(Object.keys(settings).length > 0 ? { settings } : {}),
    stations,
    ...(rules ? { rules } : {}),
    ...(mowing.length > 0
      ? {
          mowing: {
            weekdays: mowing,
            ...(dryBeforeMowing ? { dayBefore: true } : {}),
            ...(dryFrom === undefined ? {} : { dryFrom }),
          },
        }
      : {}),
    wish: usualWish(plan, survey),
  };
}

/**
 * A brief in which stations of unknown need get what a plan's programs give them, no more often and at least half as often: the best guess.
 *
 * @throws TooMuchWork
 */
export function withPresentWater(brief: Brief, plan: Plan, numbers: readonly number[]): Brief {
  const given = meanWeeklySeconds(plan);
  return {
    ...brief,
    stations: brief.stations.map((station): BriefStation => {
      const seconds = Math.min(SECONDS_PER_WEEK, Math.round(given.get(station.number) ?? 0));
      if (!numbers.includes(station.number) || seconds === 0) return station;
      const dates = plan.programs
        .filter(({ runs }) => runs.some((run) => run.station === station.number && run.seconds > 0))
        .reduce((sum, program) => sum + datesOfProgram(plan, program).mean, 0);
      const allowed = allowedDates(
        station.overhead !== false || !brief.rules?.dripExempt ? brief.rules : undefined,
      );
      const most = Math.max(1, Math.min(allowed, Math.ceil(dates)));
      return {
        ...station,
        weeklySeconds: seconds,
        ...(station.days === undefined && brief.wish?.daysPerWeek === undefined
          ? { days: { least: Math.max(1, Math.min(most, Math.floor(dates / 2))), most } }
          : {}),
      };
    }),
  };
}

/** Stations of unknown need, by number. */
export const unknownNeeds = ({ stations }: SiteMinutes): number[] =>
  stations.filter(({ weeklySeconds }) => weeklySeconds === null).map(({ number }) => number);

/**
 * The change that applies a brief in one step: the timer, its stations and wishes. Programs stay, and so do the site's mowing days and
 * stations the brief does not list.
 */
export function takeBriefChange({ plan, survey }: TimerRecord, brief: Brief): RecordChange {
  const { settings = {}, rules, mowing, wish } = brief;
  return {
    type: 'together',
    changes: [
      { type: 'set-timer', timer: brief.timer },
      ...(Object.keys(settings).length > 0 ? [{ type: 'set-settings', settings } as const] : []),
      ...brief.stations.flatMap(({ number, weeklySeconds, group, days, oftenADay, ...station }) => {
        const fields: FieldsToSet<Omit<Station, 'number'>> = station;
        const facts: FieldsToSet<SurveyStationFields> = {
          group: group ?? null,
          days: days ?? null,
          oftenADay: oftenADay ?? null,
          overruled: { ...surveyOf(survey, number).overruled, weeklySeconds },
        };
        return [
          ...(plan.stations.some((station) => station.number === number)
            ? []
            : [{ type: 'add-station', station: { number } } as const]),
          ...(Object.keys(fields).length > 0
            ? [{ type: 'set-station', station: number, fields } as const]
            : []),
          { type: 'note-station', station: number, fields: facts } as const,
        ];
      }),
      {
        type: 'note',
        fields: {
          rules: rules ?? null,
          wish: wish ?? null,
          dryBeforeMowing: mowing?.dayBefore === true ? true : null,
          dryFrom: mowing?.dryFrom ?? null,
        },
      },
    ],
  };
}
