/**
 * Findings a person has accepted, with a reason and an optional last day. A finding stays accepted until that day has passed or something
 * it is about changes. An overlap cannot be accepted (planning.md section 2), unless the timer runs two programs side by side within one
 * limit.
 */
import { assertDefined } from '../document/assertDefined.ts';
import type { Brief } from '../brief/brief.ts';
import { parseDate, type EpochDay, type DateText } from '../time/calendar.ts';
import type { Plan } from '../plan/plan.ts';
import type { Finding, FindingCode } from './finding.ts';
import { RULE_BREACHES } from './ruleBreaches.ts';

export interface Accepted {
  readonly code: FindingCode;
  /** What the finding was about when accepted, from `aboutOf`. */
  readonly about: string;
  readonly reason: string;
  /** Last day of the acceptance. */
  readonly until?: DateText;
}

/**
 * Whether a finding can be accepted: not a program that cannot water, and no overlap, unless the timer runs the two side by side within one
 * limit.
 */
export const canBeAccepted = (finding: Finding): boolean =>
  finding.code === 'overlap' ? finding.onOverlap === 'share' : !finding.code.startsWith('missing-');

/** A document with each record's fields sorted. */
function ordered(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(ordered);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, one]) => one !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, one]) => [key, ordered(one)]),
  );
}

/** Sixteen hexadecimal digits for a text: two FNV-1a hashes with different seeds. */
function digest(text: string): string {
  return [0x811c9dc5, 0x01000193]
    .map((from) => {
      let hash = from;
      for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
      return (hash >>> 0).toString(16).padStart(8, '0');
    })
    .join('');
}

/** Everything a finding is about, as a short text that changes when any of it does. The date it shows on does not count. */
export function aboutOf(finding: Finding, plan: Plan, brief: Brief | null): string {
  const { code, where } = finding;
  const { date: _date, ...place } = where;
  // For an overlap, the two programs; which of their starts overlaps first does not matter.
  const isOverlap = finding.code === 'overlap';
  const letters = new Set([
    ...(where.program === undefined ? [] : [where.program]),
    ...(isOverlap ? [finding.overlap.first.letter] : []),
    ...('programs' in finding ? finding.programs : []),
  ]);
  const programs =
    where.station !== undefined && letters.size === 0
      ? plan.programs.filter(({ runs }) => runs.some(({ station }) => station === where.station))
      : plan.programs.filter(({ letter }) => letters.has(letter));
  const isBreach = RULE_BREACHES.includes(code);
  const isWater = code === 'supply' || code === 'pump-shut';
  const about = {
    code,
    place: isOverlap ? {} : place,
    programs,
    station: plan.stations.find(({ number }) => number === where.station),
    settings:
      programs.length > 0 && where.field === undefined && !isOverlap ? undefined : plan.settings,
    // A station's need does not matter for the site's rules or supply.
    wanted:
      isBreach || isWater
        ? undefined
        : brief?.stations.find(({ number }) => number === where.station),
    rules: finding.code === 'coming-rules' ? finding.rules : isBreach ? brief?.rules : undefined,
    mowing: code === 'mowing-day' ? brief?.mowing : undefined,
    water: finding.code === 'supply' ? [finding.litresPerMinute, finding.supply] : undefined,
    hours: finding.code === 'late-finish' ? [finding.notBefore, finding.by] : undefined,
  };
  return digest(JSON.stringify(ordered(about)));
}

export interface Judged {
  readonly open: readonly Finding[];
  readonly accepted: readonly { readonly finding: Finding; readonly as: Accepted }[];
}

/** Findings, with the accepted ones apart. */
export function judged(
  findings: readonly Finding[],
  accepted: readonly Accepted[],
  plan: Plan,
  brief: Brief | null,
  on: EpochDay,
): Judged {
  const open: Finding[] = [];
  const apart: { finding: Finding; as: Accepted }[] = [];
  for (const finding of findings) {
    const candidates = accepted.filter(
      ({ code, until }) =>
        code === finding.code &&
        (until === undefined || assertDefined(parseDate(until), 'parseDate(until)') >= on),
    );
    const about = candidates.length > 0 ? aboutOf(finding, plan, brief) : '';
    const as = canBeAccepted(finding) && candidates.find((accepted) => accepted.about === about);
    if (as) apart.push({ finding, as });
    else open.push(finding);
  }
  return { open, accepted: apart };
}
