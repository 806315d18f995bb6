/** The verdict in the form of plan-format.md. */
import { formatDate } from '../time/calendar.ts';
import type { Check } from './check.ts';
import type { Overlap } from '../engine/overlap.ts';
import { findingSentence } from './findingWords.ts';

/** Output of `water-clock check` (plan-format.md). */
export function checkReport({ on, verdict, overlaps, headroomPercent, programs, findings }: Check) {
  const start = ({ letter, start: time, day }: Overlap['first']) => ({
    program: letter,
    start: time,
    date: formatDate(day),
  });
  return {
    on: formatDate(on),
    verdict,
    overlaps: overlaps.map(({ first, second, sharedSeconds }) => ({
      first: start(first),
      second: start(second),
      sharedSeconds,
    })),
    headroomPercent,
    programs: programs.map((program) => ({
      letter: program.letter,
      missing: program.missing,
      cycleSeconds: program.cycleSeconds,
      nextWateringDates: program.nextWateringDays.map(formatDate),
    })),
    findings: findings.map((finding) => ({
      code: finding.code,
      severity: finding.severity,
      message: findingSentence(finding, { on, clock: '24' }),
      where: {
        ...finding.where,
        ...(finding.where.date === undefined ? {} : { date: formatDate(finding.where.date) }),
      },
    })),
  };
}
