/**
 * Findings that a person accepts: with a reason and, where they like, a last day. One stands apart until that day is over, or until something that it
 * is about changes; an overlap cannot be accepted away (planning.md section 2),
 * but where the timer runs two programs side by side within one limit.
 */
import { assertDefined } from '../document/assertDefined.ts';
import type { Brief } from '../brief/brief.ts';
import { parseDate, type EpochDay, type DateText } from '../time/calendar.ts';
import type { Plan } from '../plan/plan.ts';
import type { Finding, FindingCode } from './finding.ts';
import { RULE_BREACHES } from './ruleBreaches.ts';

export interface Accepted {
  readonly code: FindingCode;
  /** What the finding was about when it was accepted, as `aboutOf` tells it. */
  readonly about: string;
  readonly reason: string;
  /** The last day on which it stands. */
  readonly until?: DateText;
}

/**
 * Whether a finding can be accepted: not a program that cannot water, nor an overlap, but where the timer runs the two side by side within one
 * limit.
 */
export const canBeAccepted = (finding: Finding): boolean =>
  finding.code === 'overlap' ? finding.onOverlap === 'share' : !finding.code.startsWith('missing-');

/** A document with the fields of each record in order. */
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

/** Sixteen hexadecimal digits for a text: the FNV-1a hash twice, with two seeds. */
function digest(text: string): string {
  return [0x811c9dc5, 0x01000193]
    .map((from) => {
      let hash = from;
      for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
      return (hash >>> 0).toString(16).padStart(8, '0');
    })
    .join('');
}

/** All that a finding is about, as a short text; it changes when any of that does. The date on which it shows does not count. */
export function aboutOf(finding: Finding, plan: Plan, brief: Brief | null): string {
  const { code, where } = finding;
  const { date: _date, ...place } = where;
  // Of an overlap, the two programs; which of their starts meet first does not matter.
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
  const about = {
    code,
    place: isOverlap ? {} : place,
    programs,
    station: plan.stations.find(({ number }) => number === where.station),
    settings:
      programs.length > 0 && where.field === undefined && !isOverlap ? undefined : plan.settings,
    // What a station needs plays no part in the rules of the place.
    wanted: isBreach ? undefined : brief?.stations.find(({ number }) => number === where.station),
    rules: finding.code === 'coming-rules' ? finding.rules : isBreach ? brief?.rules : undefined,
    mowing: code === 'mowing-day' ? brief?.mowing : undefined,
    hours: finding.code === 'late-finish' ? [finding.notBefore, finding.by] : undefined,
  };
  return digest(JSON.stringify(ordered(about)));
}

export interface Judged {
  readonly open: readonly Finding[];
  readonly accepted: readonly { readonly finding: Finding; readonly as: Accepted }[];
}

/** Findings with the accepted ones apart. */
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
