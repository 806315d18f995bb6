/** Breaches of the site's rules: the day, the hour, too many days (planning.md section 2). */
import { assertDefined } from '../document/assertDefined.ts';
import type { Brief, BriefRules } from '../brief/brief.ts';
import { isBound } from '../brief/wanted.ts';
import type { CycleRun } from '../engine/cycleModel.ts';
import { Effort } from '../engine/effort.ts';
import { daysOf, runsOfStation, WetStarts, type WetStart } from '../engine/wetStarts.ts';
import { runsWithLinked } from '../plan/linked.ts';
import type { Plan, Program } from '../plan/plan.ts';
import type { ComingRules } from '../rules/houseRules.ts';
import { SECONDS_PER_DAY, WEEKDAYS, type EpochDay, type Weekday } from '../time/calendar.ts';
import {
  bitsOf,
  EVERY_WEEKDAY,
  laterWeekdays,
  maskOfWeekdays,
  modulo,
  ruleSet,
  type WeekdayMask,
} from '../time/dayRules.ts';
import { EVERY_MONTH, isInClass } from '../time/meetings.ts';
import { WeekWindows } from '../time/windows.ts';
import type { Finding, RuleChange } from './finding.ts';

/** Codes of breaches of the site's rules. */
export const RULE_BREACHES: readonly Finding['code'][] = [
  'forbidden-day',
  'forbidden-hour',
  'too-many-days',
];

/** Weeks searched for one with too many dates: longer than the common period of two intervals. */
const WEEKS = 1000;
const MONDAY = -3;

/** Rules, and the stations they bind. */
export interface Binding {
  readonly rules: BriefRules;
  readonly bound: ReadonlySet<number>;
}

/** @returns null if a brief has no rules */
export function bindingOf({ rules, stations }: Pick<Brief, 'rules' | 'stations'>): Binding | null {
  if (!rules) return null;
  const bound = stations.filter(({ overhead = true }) => isBound({ rules }, overhead));
  return { rules, bound: new Set(bound.map(({ number }) => number)) };
}

/** Whether any bound station is ever wet at a date or time that the rules exclude. */
export function isForbiddenAnywhere({ rules, bound }: Binding, wets: WetStarts): boolean {
  const windows = new WeekWindows(rules.noWaterWindows ?? []);
  return wets.all.some((wet) =>
    wet.runs.some(
      (run) =>
        bound.has(run.station) &&
        (forbiddenDay(rules, wet, run, wets) !== null ||
          (!windows.isEmpty && forbiddenHour(wet, run, windows, wets) !== null)),
    ),
  );
}

/**
 * Every breach of the rules from a date on: the first of each kind for every start, and the first week of each station.
 *
 * @throws TooMuchWork
 */
export function breachesOf(binding: Binding, wets: WetStarts, on: EpochDay): Finding[] {
  return [...dayAndHourBreaches(binding, wets), ...weekBreaches(binding, wets, on)];
}

/** The same for a plan without a brief. */
export function ruleBreaches(
  plan: Plan,
  rules: BriefRules,
  on: EpochDay,
  effort = new Effort(),
): Finding[] {
  const binding = bindingOf({ rules, stations: asWanted(plan) });
  return binding ? breachesOf(binding, new WetStarts(plan, on, effort), on) : [];
}

/**
 * The first announced rules that the current settings break; null: none.
 *
 * @param coming by date
 * @throws TooMuchWork
 */
export function changeComing(
  plan: Plan,
  coming: readonly ComingRules[],
  effort = new Effort(),
): RuleChange | null {
  for (const { from, until, rules } of coming) {
    const breaches = ruleBreaches(plan, rules, from, effort)
      .filter(({ where }) => until === null || assertDefined(where.date, 'where.date') < until)
      .sort(
        (a, b) =>
          assertDefined(a.where.date, 'a.where.date') - assertDefined(b.where.date, 'b.where.date'),
      );
    const [breach] = breaches;
    if (breach)
      return {
        code: 'coming-rules',
        severity: 'warning',
        from,
        rules,
        breach,
        programs: [...new Set(breaches.flatMap(({ where: { program } }) => program ?? []))].sort(),
        where: { date: assertDefined(breach.where.date, 'breach.where.date') },
      };
  }
  return null;
}

/**
 * Weekdays on which the rules do not let a program water, Monday first; empty if they do not bind any station that it waters.
 */
export function forbiddenWeekdays(
  plan: Plan,
  program: Program,
  rules: BriefRules | null,
): readonly Weekday[] {
  const { weekdays: allowed } = rules ?? {};
  const bound = rules && bindingOf({ rules, stations: asWanted(plan) })?.bound;
  if (!allowed || !bound) return [];
  const waters = runsWithLinked(plan, program).some(
    ({ station, seconds }) => seconds > 0 && bound.has(station),
  );
  return waters ? WEEKDAYS.filter((weekday) => !allowed.includes(weekday)) : [];
}

/** Those of them on which the program is set to water. */
export function brokenWeekdays(
  plan: Plan,
  program: Program,
  rules: BriefRules | null,
): readonly Weekday[] {
  const { days } = program;
  if (days === null) return [];
  const forbidden = forbiddenWeekdays(plan, program, rules);
  if (days.rule === 'weekdays') return forbidden.filter((one) => days.weekdays.includes(one));
  const blocked = 'blockedWeekdays' in days ? (days.blockedWeekdays ?? []) : [];
  return forbidden.filter((one) => !blocked.includes(one));
}

/** Stations as in a brief; their need does not matter for the rules. */
const asWanted = ({ stations }: Plan) =>
  stations.map((station) => ({ ...station, weeklySeconds: 0 }));

function dayAndHourBreaches({ rules, bound }: Binding, wets: WetStarts): Finding[] {
  const findings = new Map<string, Finding>();
  const windows = new WeekWindows(rules.noWaterWindows ?? []);
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
  for (const wet of wets.all)
    for (const run of wet.runs) {
      if (!bound.has(run.station)) continue;
      const where = {
        program: wet.program.letter,
        start: wet.start.start,
        station: run.station,
      };
      const day = forbiddenDay(rules, wet, run, wets);
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
  return [...findings.values()];
}

/** The first date, on some weekdays, that a run touches; null: none. */
export function firstOnWeekdays(
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

function forbiddenDay(
  { weekdays, parity }: BriefRules,
  wet: WetStart,
  run: CycleRun,
  wets: WetStarts,
): EpochDay | null {
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
export function forbiddenHour(
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

/** When a bound station is wet on more dates of a week than allowed. */
function weekBreaches({ rules, bound }: Binding, wets: WetStarts, on: EpochDay): Finding[] {
  const { mostDaysPerWeek: most } = rules;
  if (most === undefined) return [];
  const findings: Finding[] = [];
  for (const number of bound) {
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
      wets.effort.spend(7 * parts.length);
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
