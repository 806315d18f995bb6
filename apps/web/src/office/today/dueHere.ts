import type { CalendarVisit } from '../../data/api/calendar.ts';

const dayOf = ({ date }: CalendarVisit) => date ?? '';

/**
 * What is due, by the date here: at a site it may still be yesterday, or already tomorrow. Each visit is in exactly one list.
 *
 * @param dated visits from yesterday on
 * @param overdue visits past their date at the site
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
