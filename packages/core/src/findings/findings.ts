/** The checks of a plan (planning.md section 2): kinds of findings, and all of them in order. */
import { assertDefined } from '../document/assertDefined.ts';
import type { Brief } from '../brief/brief.ts';
import type { DrivenPercent } from '../engine/examination.ts';
import { parseDate, type EpochDay } from '../time/calendar.ts';
import { attempt, Effort } from '../engine/effort.ts';
import type { Overlap } from '../engine/overlap.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { effectivePercent, isUnused, type Missing } from '../plan/program.ts';
import { runsWithLinked } from '../plan/linked.ts';
import { briefFindings } from './briefFindings.ts';
import { midnightFindings } from './midnightFindings.ts';
import { runOffFindings } from './runOffFindings.ts';
import { settingFindings } from './settingFindings.ts';
import { WetStarts } from '../engine/wetStarts.ts';
import type { ComingRules } from '../rules/houseRules.ts';
import type { Finding, Severity } from './finding.ts';
import { changeComing } from './ruleBreaches.ts';
import { supplyFindings, type SupplyNoted } from './supplyFindings.ts';
import { notOnTimer } from './limits.ts';

/** What is already known of the plan. */
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

/** Headroom below which a warning is due (planning.md section 2, little-headroom). */
const WANTED_HEADROOM_PERCENT = 130;

/** The highest percent set, or to which someone else may change it. */
function highestPercentSet(plan: Plan, programs: readonly Program[]): number {
  const set = programs.flatMap((program) =>
    Array.from({ length: 12 }, (_, i) => effectivePercent(plan, program, i + 1)),
  );
  return Math.max(0, ...set, plan.settings.percentRange?.highest ?? 0);
}

/** Enabled stations with water in at least two complete programs. */
function inTwoPrograms(plan: Plan, complete: readonly Program[]): Finding[] {
  return [...plan.stations]
    .sort((a, b) => a.number - b.number)
    .filter((station) => station.enabled !== false)
    .flatMap(({ number }) => {
      const programs = complete
        .filter((program) =>
          runsWithLinked(plan, program).some((run) => run.station === number && run.seconds > 0),
        )
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

/** Limit of work for findings that examine every run; only plans with thousands of cycles exceed it. */
const MOST_FINDING_STEPS = 6_000_000;

/** Each announced edition of a brief that the settings break (planning.md section 2, `coming-rules`). */
function announcedBreaches(plan: Plan, brief: Brief | null, effort: Effort): Finding[] {
  const editions = brief?.coming ?? [];
  return editions.flatMap(({ from, rules }, i) => {
    const next = editions[i + 1]?.from;
    const edition = {
      from: assertDefined(parseDate(from), 'parseDate(from)'),
      until: next === undefined ? null : parseDate(next),
      rules,
    };
    return changeComing(plan, [edition], effort) ?? [];
  });
}

/**
 * All findings of a plan: errors, warnings, notes. If a plan has too many cycles to examine (see `TooMuchWork`), findings that need every
 * run are left out.
 *
 * @param brief what is wanted; null: findings do not consider it
 * @param coming announced rules, by date
 * @param supply known facts about the water; null: findings do not consider it
 */
export function findingsOf(
  plan: Plan,
  checked: Checked,
  brief: Brief | null,
  coming: readonly ComingRules[] = [],
  supply: SupplyNoted | null = null,
): Finding[] {
  const complete = plan.programs.filter((program) =>
    checked.programs.some(({ letter, missing }) => letter === program.letter && !missing.length),
  );
  const effort = new Effort(MOST_FINDING_STEPS);
  const { on } = checked;
  const findings = findingsAsSet(plan, checked, complete);
  const looked = attempt(() => {
    const wets = new WetStarts(plan, on, effort);
    return [
      ...runOffFindings(plan, wets),
      ...settingFindings(plan, complete, wets, on, brief),
      ...(brief ? briefFindings(plan, brief, wets, on, effort) : []),
      ...midnightFindings(wets),
      ...supplyFindings(plan, wets, checked.overlaps, supply),
      ...[changeComing(plan, coming, effort) ?? []].flat(),
      ...announcedBreaches(plan, brief, effort),
    ];
  });
  if (looked.ok) findings.push(...looked.value);
  return findings.sort((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity));
}

/** Findings from the settings and the verdict alone. */
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
  if (
    resumes !== undefined &&
    assertDefined(parseDate(resumes.slice(0, 10)), 'parseDate(resumes.slice(0, 10))') >= checked.on
  )
    if (resumes.length > 10 || assertDefined(parseDate(resumes), 'parseDate(resumes)') > checked.on)
      findings.push({
        code: 'rain-delay',
        severity: 'note',
        until: resumes,
        where: { field: 'settings.wateringResumes' },
      });
  return findings;
}
