/** Each station's need, prepared for the search: when it may be wet, and which run is closest to the need. */
import { type Brief, type BriefStation, type OftenADay, wishOf } from '../brief/brief.ts';
import { EVERY_WEEKDAY, maskOfWeekdays, type WeekdayMask } from '../time/dayRules.ts';
import { type Plan, type Station, PLAN_FORMAT, PLAN_VERSION } from '../plan/plan.ts';
import { mowingMask, isBound, countsForTimes, daysWanted } from '../brief/wanted.ts';

/** Default for a brief with a longest run but no soak, on a timer that is to split it: the shortest soak usual in the trade. */
export const USUAL_SOAK_SECONDS = 900;

export interface Need {
  readonly station: BriefStation;
  readonly number: number;
  /** Index in the brief's list. */
  readonly index: number;
  /** Seconds a week at 100 percent, above 0. */
  readonly wanted: number;
  readonly least: number;
  readonly most: number;
  /** Bound by the rules. */
  readonly bound: boolean;
  readonly overhead: boolean;
  /** Longest run without a break, seconds. */
  readonly cycle: number | null;
  readonly soak: number | null;
  readonly often: OftenADay | null;
  /** Whether it counts for cost parts 2 and 7. */
  readonly counted: boolean;
  readonly group: string | null;
  /** Weekdays on which it may be wet, by the rules and mowing. */
  readonly allowed: WeekdayMask;
  readonly parity: 'odd' | 'even' | null;
  /** Its run in seconds, if pinned. */
  readonly pinned: number | null;
}

/** Stations to water, ascending. */
export function needsOf(brief: Brief, minutes: ReadonlyMap<number, number>): Need[] {
  const ruled = brief.rules?.weekdays ? maskOfWeekdays(brief.rules.weekdays) : EVERY_WEEKDAY;
  const mown = mowingMask(brief);
  return brief.stations
    .map((station, place): Need => {
      const { overhead = true, cycleSeconds, soakSeconds } = station;
      const days = daysWanted(brief, station);
      const bound = isBound(brief, overhead);
      return {
        station,
        number: station.number,
        index: place,
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

/** Whether the timer can split a station's run for the soak, by its own values or the program's. */
export const splitsByTimer = (brief: Brief, { cycle, often }: Need): boolean =>
  brief.timer.cycleSoak !== 'none' &&
  cycle !== null &&
  often === null &&
  wishOf(brief).starts !== 'repeated';

/** A plan with everything a brief says of the timer and its stations, including linked ones, and no program. */
export function barePlan(brief: Brief, linked: readonly Station[] = []): Plan {
  const { timer, settings = {} } = brief;
  const splits = timer.cycleSoak === 'station' && wishOf(brief).starts !== 'repeated';
  return {
    format: PLAN_FORMAT,
    version: PLAN_VERSION,
    timer,
    settings,
    stations: [
      ...brief.stations.map(
        ({ weeklySeconds: _w, group: _g, days: _d, oftenADay: _o, ...station }): Station =>
          splits && station.cycleSeconds !== undefined && station.soakSeconds === undefined
            ? { ...station, soakSeconds: USUAL_SOAK_SECONDS }
            : station,
      ),
      ...linked,
    ],
    programs: [],
  };
}
