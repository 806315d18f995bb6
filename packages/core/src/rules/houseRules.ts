/** The rules of one house: those noted for it by hand, else those of its place. */
import type { BriefRules } from '../brief/brief.ts';
import {
  civilOf,
  SECONDS_PER_DAY,
  WEEKDAYS,
  weekdayIndexOf,
  type ClockSecond,
  type EpochDay,
} from '../time/calendar.ts';
import { WeekWindows } from '../time/windows.ts';
import { rulingOn, type RuledHouse } from './ruling.ts';
import type { Rules } from './rules.ts';

/**
 * The rules of a house on a date as a brief has them; null where it is free, or where nothing is known. A ban is a list of weekdays
 * that is empty.
 */
export function houseRulesOn(
  own: BriefRules | undefined,
  rules: Rules | null,
  house: RuledHouse,
  on: EpochDay,
): BriefRules | null {
  if (own) return own;
  const ruling = rules && rulingOn(rules, house, on);
  if (!ruling) return null;
  if (ruling.kind === 'allowed') return ruling.rules;
  return ruling.kind === 'forbidden' ? { weekdays: [] } : null;
}

/** Whether a date is one on which watering is allowed at all. */
export function isAllowedDate({ weekdays, parity }: BriefRules, day: EpochDay): boolean {
  const weekday = WEEKDAYS[weekdayIndexOf(day)];
  if (weekdays && weekday && !weekdays.includes(weekday)) return false;
  return parity === undefined || (civilOf(day).day % 2 === 1) === (parity === 'odd');
}

export interface RuledOut {
  readonly from: ClockSecond;
  readonly to: ClockSecond;
}

/**
 * When a house may not water between two moments, in order, none touching another. How many days a week are allowed is not in it: that
 * depends on which days are used.
 *
 * @param rulesOn the rules of each date; null: free.
 */
export function ruledOut(
  rulesOn: (day: EpochDay) => BriefRules | null,
  from: ClockSecond,
  to: ClockSecond,
): RuledOut[] {
  const spans: RuledOut[] = [];
  const add = (begin: ClockSecond, end: ClockSecond) => {
    const last = spans.at(-1);
    if (last && begin <= last.to)
      spans[spans.length - 1] = { from: last.from, to: Math.max(last.to, end) };
    else spans.push({ from: begin, to: end });
  };
  for (let day = Math.floor(from / SECONDS_PER_DAY); day * SECONDS_PER_DAY < to; day++) {
    const rules = rulesOn(day);
    if (!rules) continue;
    const begin = Math.max(from, day * SECONDS_PER_DAY);
    const end = Math.min(to, (day + 1) * SECONDS_PER_DAY);
    if (!isAllowedDate(rules, day)) add(begin, end);
    else
      for (const span of new WeekWindows(rules.noWaterWindows ?? []).between(begin, end))
        add(span.from, span.to);
  }
  return spans;
}
