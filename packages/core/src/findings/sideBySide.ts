/** Overlaps on a timer that runs cycles side by side within one limit: each pair of programs can be accepted. */
import type { Overlap } from '../engine/overlap.ts';
import type { Plan } from '../plan/plan.ts';
import type { EpochDay } from '../time/calendar.ts';
import { judged, type Accepted } from './accepted.ts';
import type { Finding } from './finding.ts';

/** The overlaps as findings: the first of each pair of programs if they can be accepted, otherwise the first of all. */
export function overlapFindings({ timer }: Plan, overlaps: readonly Overlap[]): Finding[] {
  const firsts = new Map<string, Overlap>();
  for (const overlap of overlaps) {
    const pair = [overlap.first.letter, overlap.second.letter].sort().join('');
    if (!firsts.has(pair)) firsts.set(pair, overlap);
  }
  const shown = timer.onOverlap === 'share' ? [...firsts.values()] : overlaps.slice(0, 1);
  return shown.map((overlap) => ({
    code: 'overlap',
    severity: 'error',
    overlap,
    onOverlap: timer.onOverlap,
    where: {
      program: overlap.second.letter,
      start: overlap.second.start,
      date: overlap.second.day,
    },
  }));
}

/** Whether someone has accepted that all overlapping programs run side by side. */
export function runsSideBySide(
  plan: Plan,
  overlaps: readonly Overlap[],
  accepted: readonly Accepted[],
  on: EpochDay,
): boolean {
  if (plan.timer.onOverlap !== 'share' || overlaps.length === 0) return false;
  return judged(overlapFindings(plan, overlaps), accepted, plan, null, on).open.length === 0;
}
