/** What each station of a brief needs, made ready for the search: where it may be wet, and which run comes nearest to its need. */
import type { Brief, BriefStation, OftenADay } from '../brief/brief.ts';
import { wishOf } from '../brief/brief.ts';
import { parseTime } from '../time/calendar.ts';
import { EVERY_WEEKDAY, maskOfWeekdays, type WeekdayMask } from '../time/dayRules.ts';
import type { Plan, Station, Timer } from '../plan/plan.ts';
import { PLAN_FORMAT, PLAN_VERSION } from '../plan/plan.ts';
import { adjustedSeconds } from '../plan/program.ts';
import { laterWeekdays } from './patterns.ts';

/** A station is off its need from this share on (planning.md section 2, too-much and too-little). */
export const TOLERANCE = 0.1;
/** Shares are worked out in binary fractions; so much is not a difference. */
const SMALL = 1e-9;

/** Where a brief names a longest run but no soak, and the timer is to split it: the least that is common in the trade. */
export const USUAL_SOAK_SECONDS = 900;

export interface Need {
  readonly station: BriefStation;
  readonly number: number;
  /** Place in the brief's list. */
  readonly place: number;
  /** Seconds a week at 100 percent, above 0. */
  readonly wanted: number;
  readonly least: number;
  readonly most: number;
  /** The rules bind it. */
  readonly bound: boolean;
  readonly overhead: boolean;
  /** Longest run at a stretch, seconds. */
  readonly cycle: number | null;
  readonly soak: number | null;
  readonly often: OftenADay | null;
  /** It counts for the second and the sixth part of the cost. */
  readonly counted: boolean;
  readonly group: string | null;
  /** Weekdays on which it may be wet: by the rules, and by mowing. */
  readonly allowed: WeekdayMask;
  readonly parity: 'odd' | 'even' | null;
  /** Kept at so many seconds a run. */
  readonly pinned: number | null;
}

/** Weekdays on which what is overhead is to stay dry for the mower. */
export function mowingMask({ mowing }: Brief): WeekdayMask {
  if (!mowing) return 0;
  const days = maskOfWeekdays(mowing.weekdays);
  return mowing.dayBefore ? days | laterWeekdays(days, -1) : days;
}

/** Whether the rules bind a station (planning.md section 1, `dripExempt`). */
export const isBound = ({ rules }: Brief, overhead: boolean): boolean =>
  rules !== undefined && (overhead || rules.dripExempt !== true);

/** Whether a station counts for times of day: not where it waters often a day, nor drip where that may run at any time. */
export const countsForTimes = (
  brief: Brief,
  { oftenADay, overhead = true }: Pick<BriefStation, 'oftenADay' | 'overhead'>,
): boolean => oftenADay === undefined && (overhead || !wishOf(brief).dripAnyTime);

/** The stations that are to be watered, in ascending number. */
export function needsOf(brief: Brief, minutes: ReadonlyMap<number, number>): Need[] {
  const ruled = brief.rules?.weekdays ? maskOfWeekdays(brief.rules.weekdays) : EVERY_WEEKDAY;
  const mown = mowingMask(brief);
  return brief.stations
    .map((station, place): Need => {
      const { overhead = true, days, cycleSeconds, soakSeconds } = station;
      const bound = isBound(brief, overhead);
      return {
        station,
        number: station.number,
        place,
        wanted: station.weeklySeconds,
        least: days?.least ?? 0,
        most: days?.most ?? 7,
        bound,
        overhead,
        cycle: cycleSeconds ?? null,
        soak: soakSeconds ?? null,
        often: station.oftenADay ?? null,
        counted: countsForTimes(brief, station),
        group: station.group ?? null,
        allowed:
          (bound ? ruled : EVERY_WEEKDAY) & (overhead ? EVERY_WEEKDAY & ~mown : EVERY_WEEKDAY),
        parity: bound ? (brief.rules?.parity ?? null) : null,
        pinned: minutes.get(station.number) ?? null,
      };
    })
    .filter(({ wanted }) => wanted > 0)
    .sort((a, b) => a.number - b.number);
}

/** Whether the timer may be left to split a station's run for the soak, by the station's own values or the program's. */
export const splitsByTimer = (brief: Brief, { cycle, often }: Need): boolean =>
  brief.timer.cycleSoak !== 'none' &&
  cycle !== null &&
  often === null &&
  wishOf(brief).starts !== 'repeated';

/** A plan with all that a brief says of the timer and its stations, and no program. */
export function barePlan(brief: Brief): Plan {
  const { timer, settings = {} } = brief;
  const splits = timer.cycleSoak === 'station' && wishOf(brief).starts !== 'repeated';
  return {
    format: PLAN_FORMAT,
    version: PLAN_VERSION,
    timer,
    settings,
    stations: brief.stations.map(
      ({ weeklySeconds: _w, group: _g, days: _d, oftenADay: _o, ...station }): Station =>
        splits && station.cycleSeconds !== undefined && station.soakSeconds === undefined
          ? { ...station, soakSeconds: USUAL_SOAK_SECONDS }
          : station,
    ),
    programs: [],
  };
}

/** One run of a station, as entered, and what comes of it. */
export interface RunChoice {
  /** As entered. */
  readonly seconds: number;
  /** What the station then gets in a mean week at 100 percent. */
  readonly given: number;
  /** |given − wanted| ÷ wanted. */
  readonly off: number;
  /** Within the tolerance. */
  readonly fits: boolean;
}

/** What a run as entered gives, with so many of them in a mean week. */
export function runChoice(
  timer: Timer,
  wanted: number,
  seconds: number,
  runsAWeek: number,
): RunChoice {
  const given = adjustedSeconds(seconds, 100, timer.seasonal) * runsAWeek;
  const off = Math.abs(given - wanted) / wanted;
  return { seconds, given, off, fits: off <= TOLERANCE + SMALL };
}

/**
 * The run that comes nearest to a need, the shorter of two that are equally near; null: the timer cannot be set to any.
 *
 * @param longest seconds at 100 percent that no run may exceed.
 */
export function nearestRun(
  timer: Timer,
  wanted: number,
  runsAWeek: number,
  longest: number,
): RunChoice | null {
  const { runStepSeconds: step, seasonal } = timer;
  const mostSteps = Math.floor(timer.longestRunSeconds / step);
  const ideal = wanted / runsAWeek;
  // What is entered is rounded to `roundToSeconds`, so the nearest may be that much to either side.
  const reach = Math.ceil(seasonal.roundToSeconds / step) + 1;
  const middle = Math.round(ideal / step);
  let best: RunChoice | null = null;
  for (
    let steps = Math.max(1, Math.min(middle, mostSteps) - reach);
    steps <= middle + reach;
    steps++
  ) {
    if (steps > mostSteps) break;
    const choice = runChoice(timer, wanted, steps * step, runsAWeek);
    if (choice.given > longest * runsAWeek + SMALL) break;
    if (!best || choice.off < best.off - SMALL || isPlainer(choice, best, runsAWeek)) best = choice;
  }
  if (best) return best;
  // All that is near is too long at a stretch: the longest that is not.
  for (let steps = Math.min(mostSteps, Math.floor(longest / step) + reach); steps >= 1; steps--) {
    const choice = runChoice(timer, wanted, steps * step, runsAWeek);
    if (choice.given <= longest * runsAWeek + SMALL) return choice;
  }
  return null;
}

/** Whether of two entries that give the same one says what it gives. */
const isPlainer = (a: RunChoice, b: RunChoice, runsAWeek: number) =>
  Math.abs(a.given - b.given) <= SMALL &&
  Math.abs(a.seconds - a.given / runsAWeek) < Math.abs(b.seconds - b.given / runsAWeek) - SMALL;

/** The next longer run that gives more; null: there is none. */
export function longerRun(
  timer: Timer,
  wanted: number,
  runsAWeek: number,
  { seconds, given }: RunChoice,
): RunChoice | null {
  for (
    let more = seconds + timer.runStepSeconds;
    more <= timer.longestRunSeconds;
    more += timer.runStepSeconds
  ) {
    const choice = runChoice(timer, wanted, more, runsAWeek);
    if (choice.given > given + SMALL) return choice;
  }
  return null;
}

/** The shortest run that is within the tolerance; null: none is. */
export function leastRun(timer: Timer, wanted: number, runsAWeek: number): RunChoice | null {
  const { runStepSeconds: step, longestRunSeconds, seasonal } = timer;
  const ideal = ((1 - TOLERANCE) * wanted) / runsAWeek;
  const reach = Math.ceil(seasonal.roundToSeconds / step) + 1;
  const from = Math.max(1, Math.floor(ideal / step) - reach);
  for (
    let steps = from;
    steps <= from + 2 * reach + 2 && steps * step <= longestRunSeconds;
    steps++
  ) {
    const choice = runChoice(timer, wanted, steps * step, runsAWeek);
    if (choice.fits) return choice;
  }
  return null;
}

/** The next shorter run that gives less; null: there is none. */
export function shorterRun(
  timer: Timer,
  wanted: number,
  runsAWeek: number,
  { seconds, given }: RunChoice,
): RunChoice | null {
  for (let less = seconds - timer.runStepSeconds; less > 0; less -= timer.runStepSeconds) {
    const choice = runChoice(timer, wanted, less, runsAWeek);
    if (choice.given < given - SMALL) return choice;
  }
  return null;
}

/** A span of the day from a time to another, round midnight where the second is not after the first; all day where equal. */
export function spanOf(
  from: string,
  to: string,
): { readonly from: number; readonly seconds: number } {
  const begin = parseTime(from) ?? 0;
  const end = parseTime(to) ?? 0;
  return { from: begin, seconds: end > begin ? end - begin : end - begin + 86_400 };
}
