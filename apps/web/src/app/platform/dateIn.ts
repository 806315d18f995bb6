import { dateWords, parseDate, type DateOrder } from '@water-clock/core';

/** Without the weekday, which says little about a distant date. */
export function dateIn(date: string | null, order: DateOrder): string {
  const day = date === null ? null : parseDate(date);
  return day === null ? '' : dateWords(day, null, order).slice(4);
}
