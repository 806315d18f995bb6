/** What the checks have to say about a plan (planning.md section 2): the kinds of finding, and all of them in their order. */
import type { Brief, OftenADay } from '../brief/brief.ts';
import type { DrivenPercent } from './check.ts';
import { parseDate, parseTime, type EpochDay } from '../time/calendar.ts';
import { attempt, Effort } from '../engine/effort.ts';
import { pathText, type Path } from '../document/fault.ts';
import type { Overlap } from '../engine/overlap.ts';
import type { OnOverlap, Plan, Program, Timer } from '../plan/plan.ts';
import { effectivePercent, isUnused, percentSteps, type Missing } from '../plan/program.ts';
import { briefFindings } from './briefFindings.ts';
import { midnightFindings, soakFindings } from './runFindings.ts';
import { settingFindings } from './settingFindings.ts';
import { WetStarts } from '../engine/wetStarts.ts';

export type Severity = 'error' | 'warning' | 'note';

/** Where a finding is; `field` is a path into the plan document. */
export interface Where {
  readonly program?: string;
  readonly start?: string;
  readonly station?: number;
  readonly date?: EpochDay;
  readonly field?: string;
}

/** One thing that a timer cannot be set to. */
export type TimerLimit =
  | { readonly what: 'start-step'; readonly given: string; readonly stepMinutes: number }
  | { readonly what: 'start-count'; readonly given: number; readonly most: number }
  | { readonly what: 'run-step'; readonly given: number; readonly stepSeconds: number }
  | { readonly what: 'run-longest'; readonly given: number; readonly mostSeconds: number }
  | { readonly what: 'day-rule'; readonly given: string; readonly allowed: readonly string[] }
  | { readonly what: 'percent'; readonly given: number; readonly steps: readonly number[] }
  | { readonly what: 'no-percent-here'; readonly given: number }
  | { readonly what: 'no-months' }
  | { readonly what: 'delay'; readonly given: number; readonly mostSeconds: number }
  | { readonly what: 'interval'; readonly given: number; readonly mostDays: number }
  | { readonly what: 'no-soak'; readonly where: 'station' | 'program' }
  | { readonly what: 'no-windows' }
  | { readonly what: 'at-once'; readonly given: number; readonly most: number };

export type Finding = { readonly severity: Severity; readonly where: Where } & (
  | { readonly code: 'overlap'; readonly overlap: Overlap; readonly onOverlap: OnOverlap }
  | { readonly code: 'missing-starts' | 'missing-runs' | 'missing-days' }
  | { readonly code: 'same-start-twice'; readonly times: number }
  | { readonly code: 'not-on-timer'; readonly limit: TimerLimit }
  | { readonly code: 'little-headroom'; readonly headroom: number | null; readonly wanted: number }
  | { readonly code: 'station-in-two-programs'; readonly programs: readonly string[] }
  | {
      readonly code: 'percent-moves';
      readonly driven: DrivenPercent | null;
      readonly by: 'sensor' | 'service';
    }
  | { readonly code: 'rain-delay'; readonly until: string }
  | {
      readonly code:
        | 'timer-off'
        | 'afternoon-start'
        | 'leftover-program'
        | 'station-in-none'
        | 'odd-then-odd'
        | 'pump-off'
        | 'under-cover-obeys-sensor'
        | 'open-ignores-sensor'
        | 'sensor-bypassed'
        | 'past-midnight'
        | 'forbidden-day'
        | 'mowing-day';
    }
  | {
      readonly code: 'starts-taken-for-stations';
      readonly starts: readonly string[];
      readonly stations: number;
    }
  /** `times`: starts on a date. */
  | { readonly code: 'leftover-start'; readonly times: number }
  | { readonly code: 'disabled-station'; readonly programs: readonly string[] }
  | { readonly code: 'percent-not-100'; readonly percent: number }
  /** Seconds that a valve is open, and that it may be. */
  | { readonly code: 'runs-off'; readonly seconds: number; readonly most: number }
  /** Seconds between two runs, and that there should be. */
  | { readonly code: 'soak-too-short'; readonly seconds: number; readonly least: number }
  /** `at`: second of the day at which it is first wet. */
  | { readonly code: 'forbidden-hour'; readonly at: number }
  | { readonly code: 'too-many-days'; readonly days: number; readonly most: number }
  /** Mean seconds a week at 100 percent. */
  | { readonly code: 'too-much' | 'too-little'; readonly given: number; readonly wanted: number }
  | { readonly code: 'not-often-enough'; readonly often: OftenADay; readonly times: number }
  /** `ends`: seconds from 00:00 of the date of the start. */
  | { readonly code: 'late-finish'; readonly ends: number; readonly by: string }
);

export type FindingCode = Finding['code'];

/** Every code, as documents name them. */
export const FINDING_CODES = [
  'overlap',
  'missing-starts',
  'missing-runs',
  'missing-days',
  'same-start-twice',
  'not-on-timer',
  'little-headroom',
  'starts-taken-for-stations',
  'leftover-start',
  'leftover-program',
  'station-in-two-programs',
  'station-in-none',
  'runs-off',
  'soak-too-short',
  'afternoon-start',
  'odd-then-odd',
  'pump-off',
  'under-cover-obeys-sensor',
  'past-midnight',
  'percent-not-100',
  'percent-moves',
  'rain-delay',
  'timer-off',
  'sensor-bypassed',
  'open-ignores-sensor',
  'disabled-station',
  'forbidden-day',
  'forbidden-hour',
  'too-many-days',
  'mowing-day',
  'too-much',
  'too-little',
  'not-often-enough',
  'late-finish',
] as const satisfies readonly FindingCode[];

/** What the checks know by then. */
export interface Checked {
  readonly on: EpochDay;
  readonly overlaps: readonly Overlap[];
  readonly headroomPercent: number | null;
  readonly driven: DrivenPercent | null;
  readonly programs: readonly {
    readonly letter: string;
    readonly missing: readonly Missing[];
  }[];
}

/** The headroom below which a warning is due (planning.md section 2, little-headroom). */
export const WANTED_HEADROOM_PERCENT = 130;

/** What of a plan another timer could not be set to, in the order of the document (planning.md section 2, not-on-timer). */
export const notFitting = (plan: Plan, timer: Timer): Finding[] => notOnTimer({ ...plan, timer });

/** Every limit of the timer that a plan goes beyond, in the order of the document. */
function notOnTimer(plan: Plan): Finding[] {
  const { timer, settings } = plan;
  const findings: Finding[] = [];
  const add = (path: Path, limit: TimerLimit, where: Where = {}) =>
    findings.push({
      code: 'not-on-timer',
      severity: 'error',
      limit,
      where: { ...where, field: pathText(path) },
    });
  const percent = (path: Path, given: number, scope: Timer['seasonal']['scope'], where?: Where) => {
    const steps = percentSteps(timer);
    if (timer.seasonal.scope !== scope) {
      if (given !== 100) add(path, { what: 'no-percent-here', given }, where);
    } else if (!steps.includes(given)) add(path, { what: 'percent', given, steps }, where);
  };

  if (settings.seasonalPercent !== undefined)
    percent(['settings', 'seasonalPercent'], settings.seasonalPercent, 'timer');
  if (settings.monthlyPercent !== undefined) {
    if (timer.seasonal.scope !== 'timer' || !timer.seasonal.byMonth)
      add(['settings', 'monthlyPercent'], { what: 'no-months' });
    else
      settings.monthlyPercent.forEach((given, i) =>
        percent(['settings', 'monthlyPercent', i], given, 'timer'),
      );
  }
  const delay = settings.stationDelaySeconds ?? 0;
  if (delay > timer.longestStationDelaySeconds)
    add(['settings', 'stationDelaySeconds'], {
      what: 'delay',
      given: delay,
      mostSeconds: timer.longestStationDelaySeconds,
    });
  if (timer.inWindow === 'ignore' && (settings.noWaterWindows?.length ?? 0) > 0)
    add(['settings', 'noWaterWindows'], { what: 'no-windows' });
  if ((settings.stationsAtOnce ?? 1) > timer.stationsAtOnce)
    add(['settings', 'stationsAtOnce'], {
      what: 'at-once',
      given: settings.stationsAtOnce ?? 1,
      most: timer.stationsAtOnce,
    });

  plan.programs.forEach((program, i) => {
    const path: Path = ['programs', i];
    const where = { program: program.letter };
    if (program.starts.length > timer.startsPerProgram)
      add(
        [...path, 'starts'],
        { what: 'start-count', given: program.starts.length, most: timer.startsPerProgram },
        where,
      );
    program.starts.forEach((start, k) => {
      if ((parseTime(start) ?? 0) % (timer.startStepMinutes * 60) !== 0)
        add(
          [...path, 'starts', k],
          { what: 'start-step', given: start, stepMinutes: timer.startStepMinutes },
          { ...where, start },
        );
    });
    program.runs.forEach(({ station, seconds }, k) => {
      const at: Path = [...path, 'runs', k, 'seconds'];
      if (seconds > timer.longestRunSeconds)
        add(
          at,
          { what: 'run-longest', given: seconds, mostSeconds: timer.longestRunSeconds },
          { ...where, station },
        );
      else if (seconds % timer.runStepSeconds !== 0)
        add(
          at,
          { what: 'run-step', given: seconds, stepSeconds: timer.runStepSeconds },
          { ...where, station },
        );
    });
    if (program.days && !timer.dayRules.includes(program.days.rule))
      add(
        [...path, 'days', 'rule'],
        { what: 'day-rule', given: program.days.rule, allowed: timer.dayRules },
        where,
      );
    if (program.seasonalPercent !== undefined)
      percent([...path, 'seasonalPercent'], program.seasonalPercent, 'program', where);
    if (program.cycleSeconds !== undefined && timer.cycleSoak !== 'program')
      add([...path, 'cycleSeconds'], { what: 'no-soak', where: 'program' }, where);
    if ((program.stationsAtOnce ?? 1) > timer.stationsAtOnce)
      add(
        [...path, 'stationsAtOnce'],
        { what: 'at-once', given: program.stationsAtOnce ?? 1, most: timer.stationsAtOnce },
        where,
      );
    if (program.days?.rule === 'interval' && program.days.everyDays > timer.longestIntervalDays)
      add(
        [...path, 'days', 'everyDays'],
        { what: 'interval', given: program.days.everyDays, mostDays: timer.longestIntervalDays },
        where,
      );
    if (timer.inWindow === 'ignore' && (program.noWaterWindows?.length ?? 0) > 0)
      add([...path, 'noWaterWindows'], { what: 'no-windows' }, where);
  });
  return findings;
}

/** The highest percent that is set, or to which somebody else may move it. */
function highestPercentSet(plan: Plan, programs: readonly Program[]): number {
  const set = programs.flatMap((program) =>
    Array.from({ length: 12 }, (_, i) => effectivePercent(plan, program, i + 1)),
  );
  return Math.max(0, ...set, plan.settings.percentRange?.highest ?? 0);
}

/** Enabled stations with water in two complete programs or more. */
function inTwoPrograms(plan: Plan, complete: readonly Program[]): Finding[] {
  return [...plan.stations]
    .sort((a, b) => a.number - b.number)
    .filter((station) => station.enabled !== false)
    .flatMap(({ number }) => {
      const programs = complete
        .filter(({ runs }) => runs.some((run) => run.station === number && run.seconds > 0))
        .map(({ letter }) => letter);
      return programs.length < 2
        ? []
        : [
            {
              code: 'station-in-two-programs' as const,
              severity: 'warning' as const,
              programs,
              where: { station: number },
            },
          ];
    });
}

const SEVERITIES: readonly Severity[] = ['error', 'warning', 'note'];

/** What findings that look at every run may cost; only a plan in thousands of pieces costs more. */
const MOST_FINDING_STEPS = 6_000_000;

/**
 * All findings of a plan: errors first, then warnings, then notes. Of a plan in more pieces than can be looked at one by one
 * (see `TooMuchWork`) those that need every run are left out.
 *
 * @param brief what was wanted; null: nothing is said of that.
 */
export function findingsOf(plan: Plan, checked: Checked, brief: Brief | null): Finding[] {
  const complete = plan.programs.filter((program) =>
    checked.programs.some(({ letter, missing }) => letter === program.letter && !missing.length),
  );
  const effort = new Effort(MOST_FINDING_STEPS);
  const { on } = checked;
  const findings = findingsAsSet(plan, checked, complete);
  const looked = attempt(() => {
    const wets = new WetStarts(plan, on, effort);
    return [
      ...soakFindings(plan, wets),
      ...settingFindings(plan, complete, wets, on, brief),
      ...(brief ? briefFindings(plan, brief, wets, on, effort) : []),
      ...midnightFindings(wets),
    ];
  });
  if (looked.ok) findings.push(...looked.value);
  return findings.sort((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity));
}

/** Findings that are told by the settings and the verdict alone. */
function findingsAsSet(plan: Plan, checked: Checked, complete: readonly Program[]): Finding[] {
  const findings: Finding[] = checked.overlaps.map((overlap) => ({
    code: 'overlap',
    severity: 'error',
    overlap,
    onOverlap: plan.timer.onOverlap,
    where: {
      program: overlap.second.letter,
      start: overlap.second.start,
      date: overlap.second.day,
    },
  }));
  for (const { letter, missing } of checked.programs)
    if (!isUnused(missing))
      for (const one of missing)
        findings.push({ code: `missing-${one}`, severity: 'error', where: { program: letter } });
  for (const { letter, starts } of plan.programs)
    for (const start of new Set(starts)) {
      const times = starts.filter((one) => one === start).length;
      if (times > 1)
        findings.push({
          code: 'same-start-twice',
          severity: 'error',
          times,
          where: { program: letter, start },
        });
    }
  findings.push(...notOnTimer(plan));

  const wanted = Math.max(WANTED_HEADROOM_PERCENT, highestPercentSet(plan, complete));
  const headroom = checked.headroomPercent;
  if (complete.length > 0 && checked.overlaps.length === 0 && (headroom ?? -1) < wanted)
    findings.push({ code: 'little-headroom', severity: 'warning', headroom, wanted, where: {} });
  findings.push(...inTwoPrograms(plan, complete));
  if (plan.settings.mode === 'off')
    findings.push({ code: 'timer-off', severity: 'warning', where: { field: 'settings.mode' } });
  const { percentDrivenBy: by = 'person' } = plan.settings;
  if (by !== 'person')
    findings.push({
      code: 'percent-moves',
      severity: 'note',
      by,
      driven: checked.driven,
      where: { field: 'settings.percentDrivenBy' },
    });
  const resumes = plan.settings.wateringResumes;
  if (resumes !== undefined && (parseDate(resumes.slice(0, 10)) ?? 0) >= checked.on)
    if (resumes.length > 10 || (parseDate(resumes) ?? 0) > checked.on)
      findings.push({
        code: 'rain-delay',
        severity: 'note',
        until: resumes,
        where: { field: 'settings.wateringResumes' },
      });
  return findings;
}
