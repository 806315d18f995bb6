/** What a visit changed, in numbers, for reports. */
import { attempt } from '../engine/effort.ts';
import { verdictOf } from '../engine/verdict.ts';
import { givenByMonth } from '../garden/given.ts';
import { waterUsage } from '../garden/usage.ts';
import type { Plan } from '../plan/plan.ts';
import type { Survey } from '../survey/survey.ts';
import { parseDate, type EpochDay } from '../time/calendar.ts';
import type { ClosedVisit } from '../visit/visit.ts';

/** A state of a timer. */
export interface StateFacts {
  /** Hours of watering in a year, all stations. */
  readonly hours: number;
  /** Litres in a year; null: the flow of some station that waters is not known. */
  readonly litres: number | null;
  /** Pairs of starts that overlap. */
  readonly overlaps: number;
}

export interface VisitFacts {
  /** Null: not saved as found, or too much work. */
  readonly found: StateFacts | null;
  /** Null: too much work. */
  readonly left: StateFacts | null;
}

const WEEKS_OF_A_YEAR = 365.25 / 7;
const MONTHS = 12;

function factsOf(plan: Plan, survey: Survey, on: EpochDay): StateFacts | null {
  if (plan.settings.mode === 'off') return { hours: 0, litres: 0, overlaps: 0 };
  const facts = attempt((): StateFacts => {
    const { unknown, litresAYear } = waterUsage(plan, survey, on);
    const weekly = [...givenByMonth(plan, on).values()].map(
      (months) => months.reduce((sum, seconds) => sum + seconds, 0) / MONTHS,
    );
    return {
      hours: (weekly.reduce((sum, seconds) => sum + seconds, 0) * WEEKS_OF_A_YEAR) / 3600,
      litres: unknown.length > 0 ? null : litresAYear,
      overlaps: verdictOf(plan, on).overlaps.length,
    };
  });
  return facts.ok ? facts.value : null;
}

/** @param survey of the timer, for station flows */
export function visitFacts(visit: ClosedVisit, survey: Survey): VisitFacts {
  const on = parseDate(visit.began.slice(0, 10)) ?? 0;
  const { asFound, asLeft } = visit;
  return {
    found: asFound ? factsOf(asFound.plan, survey, on) : null,
    left: factsOf(asLeft.plan, survey, on),
  };
}
