/** Findings of a plan against a brief: the site's rules, mowing, the wanted water, and the preferred hours (planning.md section 2). */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, type BriefStation, type OftenADay, wishOf } from '../brief/brief.ts';
import { parseDate, parseTime, type EpochDay } from '../time/calendar.ts';
import type { CycleRun } from '../engine/cycleModel.ts';
import { countDates, mostDaysBetween } from '../time/dateCount.ts';
import type { Effort } from '../engine/effort.ts';
import { isInClass } from '../time/meetings.ts';
import type { Plan } from '../plan/plan.ts';
import { outsideSpan, spanOf } from '../brief/span.ts';
import {
  countsForTimes,
  daysWanted,
  mowingMask,
  mowingWindows,
  NEED_TOLERANCE,
} from '../brief/wanted.ts';
import type { Finding } from './finding.ts';
import { bindingOf, breachesOf, firstOnWeekdays, forbiddenHour } from './ruleBreaches.ts';
import { WeekWindows } from '../time/windows.ts';
import { meanWeeklySeconds } from '../engine/weeklyWater.ts';
import { runsOfStation, type WetStarts } from '../engine/wetStarts.ts';

/** Dates of a station with several waterings a day. */
const DATES = 400;

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
  const binding = bindingOf(brief);
  return [
    ...(binding ? breachesOf(binding, wets, on) : []),
    ...timeFindings(asked),
    ...waterFindings(plan, asked),
    ...fewDaysFindings(asked),
    ...oftenFindings(asked),
  ];
}

const earliest = (a: EpochDay | null, b: EpochDay | null) =>
  a === null || b === null ? (a ?? b) : Math.min(a, b);

const isOverhead = ({ stations }: Asked, station: number) =>
  stations.get(station)?.overhead !== false;

/** Mowing and preferred hours: the first of each kind for every start. */
function timeFindings(asked: Asked): Finding[] {
  const { brief, wets } = asked;
  const findings = new Map<string, Finding>();
  const add = (finding: Finding) => {
    const key = `${finding.code} ${finding.where.program} ${finding.where.start}`;
    const known = findings.get(key);
    if (
      !known ||
      assertDefined(known.where.date, 'known.where.date') >
        assertDefined(finding.where.date, 'finding.where.date')
    )
      findings.set(key, finding);
  };
  const { notBefore, finishBy } = wishOf(brief);
  const span = spanOf(notBefore, finishBy);
  const dryHours = new WeekWindows(mowingWindows(brief));
  for (const wet of wets.all) {
    const { start } = wet.start;
    for (const run of wet.runs) {
      const station = asked.stations.get(run.station);
      if (!station) continue;
      const where = { program: wet.program.letter, start, station: run.station };
      if (isOverhead(asked, run.station)) {
        const day = earliest(
          firstOnWeekdays(wet, run, mowingMask(brief), wets),
          dryHours.isEmpty ? null : (forbiddenHour(wet, run, dryHours, wets)?.day ?? null),
        );
        if (day !== null)
          add({ code: 'mowing-day', severity: 'warning', where: { ...where, date: day } });
      }
      if (countsForTimes(brief, station) && outsideSpan(span, run.on, run.off) > 0) {
        const date = assertDefined(wets.meetings.firstOf(wet.dates, wet.least), 'firstOf');
        add({
          code: 'late-finish',
          severity: 'warning',
          ends: Math.max(...wet.runs.map(({ off }) => off)),
          notBefore,
          by: finishBy,
          where: { ...where, date },
        });
      }
    }
  }
  return [...findings.values()];
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

/** Stations watered on fewer dates than needed, or with too long a gap. */
function fewDaysFindings({ brief, wets, effort }: Asked): Finding[] {
  return brief.stations.flatMap((station): Finding[] => {
    const { number, weeklySeconds } = station;
    const days = daysWanted(brief, station);
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

/** Seed and turf not watered often enough on a day. */
function oftenFindings({ brief, wets, on, effort }: Asked): Finding[] {
  const findings: Finding[] = [];
  for (const { number, oftenADay } of brief.stations) {
    if (!oftenADay) continue;
    const until =
      oftenADay.until === undefined
        ? Infinity
        : assertDefined(parseDate(oftenADay.until), 'parseDate(oftenADay.until)');
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
  const begin = assertDefined(parseTime(from), 'parseTime(from)');
  const end = assertDefined(parseTime(to), 'parseTime(to)');
  const apart = (end - begin) / (2 * times);
  return (
    runs.length >= times &&
    runs.every(({ on, off }) => on >= begin && off <= end) &&
    runs.every(({ on }, i) => i === 0 || on - assertDefined(runs[i - 1], 'runs[i - 1]').on >= apart)
  );
}
