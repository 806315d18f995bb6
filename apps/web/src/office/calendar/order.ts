/** Ordering a day's visits. No interface code. */
import { routeKilometres, routeThrough } from '@water-clock/core';
import type { CalendarVisit } from '../../data/api/calendar.ts';

/** The saved order; new visits follow, by town and street as the server sends them. */
export function inOrder(
  visits: readonly CalendarVisit[],
  timerIds: readonly string[],
): CalendarVisit[] {
  const place = ({ timerId }: CalendarVisit) => {
    const at = timerIds.indexOf(timerId);
    return at < 0 ? timerIds.length : at;
  };
  return [...visits].sort((a, b) => place(a) - place(b));
}

const isPlaced = (visit: CalendarVisit) => visit.latitude !== null && visit.longitude !== null;

/** By distance; visits without coordinates come last. */
export function byDistance(visits: readonly CalendarVisit[]): CalendarVisit[] {
  const placed = visits.flatMap((visit) =>
    visit.latitude === null || visit.longitude === null
      ? []
      : [{ visit, latitude: visit.latitude, longitude: visit.longitude }],
  );
  return [
    ...routeThrough(placed).map(({ visit }) => visit),
    ...visits.filter((visit) => !isPlaced(visit)),
  ];
}

/** Whole km in a straight line; null if fewer than two places are known. */
export function wayOf(visits: readonly CalendarVisit[]): number | null {
  const placed = visits.flatMap(({ latitude, longitude }) =>
    latitude === null || longitude === null ? [] : [{ latitude, longitude }],
  );
  return placed.length < 2 ? null : Math.round(routeKilometres(placed));
}

export const placeWords = ({ street, houseNumber, town }: CalendarVisit): string =>
  [
    street ? [street, houseNumber].filter(Boolean).join(' ') : houseNumber && `No. ${houseNumber}`,
    town,
  ]
    .filter(Boolean)
    .join(', ');
