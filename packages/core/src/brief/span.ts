/** The preferred hours, and what lies outside them. */
import { assertDefined } from '../document/assertDefined.ts';
import { parseTime, SECONDS_PER_DAY } from '../time/calendar.ts';

/** A span between two times of day, past midnight if the second is earlier; the whole day if they are equal. */
export function spanOf(
  from: string,
  to: string,
): { readonly from: number; readonly seconds: number } {
  const begin = assertDefined(parseTime(from), 'parseTime(from)');
  const end = assertDefined(parseTime(to), 'parseTime(to)');
  return { from: begin, seconds: end > begin ? end - begin : end - begin + 86_400 };
}

/** Seconds of a period outside a daily span. */
export function outsideSpan(
  span: { readonly from: number; readonly seconds: number },
  from: number,
  to: number,
): number {
  let inside = 0;
  for (
    let day = Math.floor((from - span.from) / SECONDS_PER_DAY);
    day * SECONDS_PER_DAY + span.from < to;
    day++
  ) {
    const begin = day * SECONDS_PER_DAY + span.from;
    inside += Math.max(0, Math.min(to, begin + span.seconds) - Math.max(from, begin));
  }
  return to - from - inside;
}
