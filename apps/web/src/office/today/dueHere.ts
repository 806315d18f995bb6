import type { CalendarVisit } from '../../data/api/calendar.ts';

const dayOf = ({ date }: CalendarVisit) => date ?? '';

/**
 * What is due, by the date that it is here: at a house it may still be yesterday, or tomorrow already. Each visit stands in one of them.
 *
 * @param dated visits from yesterday on
 * @param overdue those that are over where the house is
 * @param today `YYYY-MM-DD`
 */
export function dueHere(
  dated: readonly CalendarVisit[],
  overdue: readonly CalendarVisit[],
  today: string,
) {
  return {
    overdue: overdue.filter((visit) => dayOf(visit) < today),
    now: dated.filter(
      (visit) => dayOf(visit) === today || (dayOf(visit) < today && !visit.overdue),
    ),
    later: dated.filter((visit) => dayOf(visit) > today),
  };
}
