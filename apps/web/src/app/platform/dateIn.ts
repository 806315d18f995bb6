import { dateWords, parseDate, type DateOrder } from '@water-clock/core';

/** Without its weekday, which says little of a date far off. */
export function dateIn(date: string | null, order: DateOrder): string {
  const day = date === null ? null : parseDate(date);
  return day === null ? '' : dateWords(day, null, order).slice(4);
}
