/** What a plan has wrong against a brief: the rules of the place, mowing, the water that was wanted, and the hour by which it was to be done (planning.md section 2). */
import { sure } from '../document/sure.ts';
import { type Brief, type BriefStation, type OftenADay, wishOf } from '../brief/brief.ts';
import { parseDate, parseTime, SECONDS_PER_DAY, type EpochDay } from '../time/calendar.ts';
import type { CycleRun } from '../engine/cycleModel.ts';
import {
  EVERY_WEEKDAY,
  maskOfWeekdays,
  modulo,
  ruleSet,
  type WeekdayMask,
  laterWeekdays,
  bitsOf,
} from '../time/dayRules.ts';
import { countDates, mostDaysBetween } from '../time/dateCount.ts';
import type { Effort } from '../engine/effort.ts';
import { EVERY_MONTH, isInClass } from '../time/meetings.ts';
import type { Plan } from '../plan/plan.ts';
import { outsideSpan, spanOf } from '../brief/span.ts';
import { countsForTimes, isBound, mowingMask, NEED_TOLERANCE } from '../brief/wanted.ts';
import { WeekWindows } from '../time/windows.ts';
import type { Finding } from './finding.ts';
import { meanWeeklySeconds } from '../engine/weeklyWater.ts';
import { daysOf, runsOfStation, type WetStart, type WetStarts } from '../engine/wetStarts.ts';

/** Weeks that are looked through for one with too many dates: longer than two counts of days take to come round. */
const WEEKS = 1000;
/** Dates of a station that is to be watered often a day. */
const DATES = 400;
const MONDAY = -3;

/** What the checks need of a brief. */
interface Asked {
  readonly brief: Brief;
  readonly on: EpochDay;
  readonly stations: ReadonlyMap<number, BriefStation>;
  readonly wets: WetStarts;
  readonly effort: Effort;
}

/** @throws TooMuchWork */
export function briefFindings(
  plan: Plan,
  brief: Brief,
  wets: WetStarts,
  on: EpochDay,
  effort: Effort,
): Finding[] {
  const stations = new Map(brief.stations.map((station) => [station.number, station]));
  const asked: Asked = { brief, on, stations, wets, effort };
  return [
    ...ruleFindings(asked),
    ...weekFindings(asked),
    ...waterFindings(plan, asked),
    ...fewDaysFindings(asked),
    ...oftenFindings(asked),
  ];
}

const isOverhead = ({ stations }: Asked, station: number) =>
  stations.get(station)?.overhead !== false;

/** Whether any bound station is ever wet on a date or at a time that the rules exclude. */
export function isForbiddenAnywhere(
  brief: Brief,
  wets: WetStarts,
  on: EpochDay,
  effort: Effort,
): boolean {
  const stations = new Map(brief.stations.map((station) => [station.number, station]));
  const asked: Asked = { brief, on, stations, wets, effort };
  const windows = new WeekWindows(brief.rules?.noWaterWindows ?? []);
  return wets.all.some((wet) =>
    wet.runs.some(
      (run) =>
        stations.has(run.station) &&
        isBound(brief, isOverhead(asked, run.station)) &&
        (forbiddenDay(asked, wet, run) !== null ||
          (!windows.isEmpty && forbiddenHour(wet, run, windows, wets) !== null)),
    ),
  );
}

/** The first of each kind for every start. */
function ruleFindings(asked: Asked): Finding[] {
  const { brief, wets } = asked;
  const findings = new Map<string, Finding>();
  const windows = new WeekWindows(brief.rules?.noWaterWindows ?? []);
  const add = (finding: Finding) => {
    const key = `${finding.code} ${finding.where.program} ${finding.where.start}`;
    const known = findings.get(key);
    if (!known || sure(known.where.date) > sure(finding.where.date)) findings.set(key, finding);
  };
  const { notBefore, finishBy } = wishOf(brief);
  const span = spanOf(notBefore, finishBy);
  for (const wet of wets.all) {
    const { start } = wet.start;
    for (const run of wet.runs) {
      const station = asked.stations.get(run.station);
      if (!station) continue;
      const where = { program: wet.program.letter, start, station: run.station };
      if (isBound(brief, isOverhead(asked, run.station))) {
        const day = forbiddenDay(asked, wet, run);
        if (day !== null)
          add({ code: 'forbidden-day', severity: 'error', where: { ...where, date: day } });
        const hour = windows.isEmpty ? null : forbiddenHour(wet, run, windows, wets);
        if (hour)
          add({
            code: 'forbidden-hour',
            severity: 'error',
            at: hour.second,
            where: { ...where, date: hour.day },
          });
      }
      if (isOverhead(asked, run.station)) {
        const day = firstOnWeekdays(wet, run, mowingMask(brief), wets);
        if (day !== null)
          add({ code: 'mowing-day', severity: 'warning', where: { ...where, date: day } });
      }
      if (countsForTimes(brief, station) && outsideSpan(span, run.on, run.off) > 0) {
        const date = sure(wets.meetings.firstOf(wet.dates, wet.least));
        add({
          code: 'late-finish',
          severity: 'warning',
          ends: Math.max(...wet.runs.map(({ off }) => off)),
          by: finishBy,
          where: { ...where, date },
        });
      }
    }
  }
  return [...findings.values()];
}

/** The first date, on some weekdays, that a run touches; null: none. */
function firstOnWeekdays(
  wet: WetStart,
  run: CycleRun,
  weekdays: WeekdayMask,
  wets: WetStarts,
): EpochDay | null {
  if (weekdays === 0) return null;
  let first: EpochDay | null = null;
  for (const later of daysOf(run)) {
    const day = wets.firstOn(wet, laterWeekdays(weekdays, -later));
    if (day !== null && day + later < (first ?? Infinity)) first = day + later;
  }
  return first;
}

function forbiddenDay({ brief, wets }: Asked, wet: WetStart, run: CycleRun): EpochDay | null {
  const { weekdays, parity } = brief.rules ?? {};
  const days: EpochDay[] = [];
  if (weekdays) {
    const day = firstOnWeekdays(wet, run, EVERY_WEEKDAY & ~maskOfWeekdays(weekdays), wets);
    if (day !== null) days.push(day);
  }
  if (parity)
    for (const later of daysOf(run)) {
      const other = ruleSet({ rule: parity === 'odd' ? 'even' : 'odd' }, false);
      const dates = wets.meetings.classOf(other, EVERY_WEEKDAY, EVERY_MONTH);
      const day = wets.meetings.first(wet.dates, dates, later, wet.least);
      if (day !== null) days.push(day + later);
    }
  return days.length > 0 ? Math.min(...days) : null;
}

/** The first date and second of the day at which a run is inside a window. */
function forbiddenHour(
  wet: WetStart,
  { on, off }: CycleRun,
  windows: WeekWindows,
  wets: WetStarts,
): { readonly day: EpochDay; readonly second: number } | null {
  let first: { day: EpochDay; second: number } | null = null;
  for (let weekday = 0; weekday < 7; weekday++) {
    if (!(wet.dates.weekdays & (1 << weekday))) continue;
    const midnight = (MONDAY + weekday) * SECONDS_PER_DAY;
    const begin = windows.isFree(midnight + on) ? windows.nextWindow(midnight + on) : midnight + on;
    if (begin >= midnight + off) continue;
    const day = wets.firstOn(wet, 1 << weekday);
    if (day === null) continue;
    const later = Math.floor((begin - midnight) / SECONDS_PER_DAY);
    if (!first || day + later < first.day)
      first = { day: day + later, second: begin - midnight - later * SECONDS_PER_DAY };
  }
  return first;
}

/** When a bound station is wet on more dates of a week than are allowed. */
function weekFindings(asked: Asked): Finding[] {
  const { brief, wets, on, effort } = asked;
  const most = brief.rules?.mostDaysPerWeek;
  if (most === undefined) return [];
  const findings: Finding[] = [];
  for (const { number } of brief.stations) {
    if (!isBound(brief, isOverhead(asked, number))) continue;
    const parts = wets
      .of(number)
      .map((wet) => ({
        wet,
        days: new Set(runsOfStation(wet, number).flatMap((run) => [...daysOf(run)])),
      }))
      .filter(({ days }) => days.size > 0);
    if (dryEnough(parts, most)) continue;
    for (let week = 0; week < WEEKS; week++) {
      const monday = on + modulo(MONDAY - on, 7) - 7 + week * 7;
      effort.spend(7 * parts.length);
      let wetDays = 0;
      for (let day = Math.max(on, monday); day < monday + 7; day++)
        if (
          parts.some(({ wet, days }) =>
            [...days].some(
              (later) => day - later >= wet.least && isInClass(wet.dates, day - later),
            ),
          )
        )
          wetDays++;
      if (wetDays <= most) continue;
      findings.push({
        code: 'too-many-days',
        severity: 'error',
        days: wetDays,
        most,
        where: { station: number, date: monday },
      });
      break;
    }
  }
  return findings;
}

/** Whether the weekdays alone rule out too many dates. */
function dryEnough(
  parts: readonly { readonly wet: WetStart; readonly days: ReadonlySet<number> }[],
  most: number,
): boolean {
  let mask = 0;
  for (const { wet, days } of parts)
    for (const later of days) mask |= laterWeekdays(wet.dates.weekdays, later);
  return bitsOf(mask) <= most;
}

function waterFindings(plan: Plan, { brief, wets }: Asked): Finding[] {
  const given = meanWeeklySeconds(plan, wets.meetings);
  const findings: Finding[] = [];
  for (const { number, weeklySeconds } of brief.stations) {
    const seconds = given.get(number);
    if (seconds === undefined) continue;
    const off = seconds - weeklySeconds;
    if (Math.abs(off) <= NEED_TOLERANCE * weeklySeconds + 1e-6) continue;
    findings.push({
      code: off > 0 ? 'too-much' : 'too-little',
      severity: 'warning',
      given: Math.round(seconds),
      wanted: weeklySeconds,
      where: { station: number },
    });
  }
  return findings;
}

/** Stations that are watered on fewer dates than they need, or with too long a gap between two. */
function fewDaysFindings({ brief, wets, effort }: Asked): Finding[] {
  return brief.stations.flatMap(({ number, weeklySeconds, days }): Finding[] => {
    if (!days || weeklySeconds === 0) return [];
    const { least } = days;
    const sets = new Set(wets.of(number).map(({ start }) => start.days));
    effort.spend(sets.size > 1 ? 1000 * sets.size : 10);
    const { mean, gap } = countDates([...sets]);
    return mean < least - 1e-9 || gap > mostDaysBetween(least)
      ? [
          {
            code: 'too-few-days',
            severity: 'warning',
            mean,
            gap,
            least,
            where: { station: number },
          },
        ]
      : [];
  });
}

/** Seed and turf that is not watered often enough on a day. */
function oftenFindings({ brief, wets, on, effort }: Asked): Finding[] {
  const findings: Finding[] = [];
  for (const { number, oftenADay } of brief.stations) {
    if (!oftenADay) continue;
    const until = oftenADay.until === undefined ? Infinity : sure(parseDate(oftenADay.until));
    for (let day = on; day < on + DATES && day <= until; day++) {
      effort.spend(wets.all.length + 1);
      const due = wets.all.filter(({ dates, least }) => day >= least && isInClass(dates, day));
      const runs = due.flatMap((wet) => runsOfStation(wet, number)).sort((a, b) => a.on - b.on);
      if (runs.length === 0 || isOftenEnough(runs, oftenADay)) continue;
      findings.push({
        code: 'not-often-enough',
        severity: 'warning',
        often: oftenADay,
        times: runs.length,
        where: { station: number, date: day },
      });
      break;
    }
  }
  return findings;
}

function isOftenEnough(runs: readonly CycleRun[], { times, from, to }: OftenADay): boolean {
  const begin = sure(parseTime(from));
  const end = sure(parseTime(to));
  const apart = (end - begin) / (2 * times);
  return (
    runs.length >= times &&
    runs.every(({ on, off }) => on >= begin && off <= end) &&
    runs.every(({ on }, i) => i === 0 || on - sure(runs[i - 1]).on >= apart)
  );
}
