/** The rules of one site: its own if noted, otherwise the library's. */
import { assertDefined } from '../document/assertDefined.ts';
import type { BriefRules } from '../brief/brief.ts';
import {
  civilOf,
  epochDayOf,
  parseDate,
  SECONDS_PER_DAY,
  WEEKDAYS,
  weekdayIndexOf,
  type ClockSecond,
  type EpochDay,
} from '../time/calendar.ts';
import { WeekWindows } from '../time/windows.ts';
import { rulingOn, type RuledHouse } from './ruling.ts';
import type { Rules } from './rules.ts';

/** A site's rules on a date, for a brief; null: free, or not known. A ban is an empty list of weekdays. */
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

/** A site's rules that begin later and are valid until the next. */
export interface ComingRules {
  readonly from: EpochDay;
  /** First date on which they are no longer valid; null: no other rules are announced. */
  readonly until: EpochDay | null;
  readonly rules: BriefRules;
}

/** What later editions change for a site; editions that leave it free are left out. */
export function comingRules(
  own: BriefRules | undefined,
  rules: Rules | null,
  house: RuledHouse,
  on: EpochDay,
): ComingRules[] {
  if (own || !rules) return [];
  const later = rules.editions
    .map(({ from }) => assertDefined(parseDate(from), 'parseDate(from)'))
    .filter((from) => from > on);
  let before = JSON.stringify(houseRulesOn(own, rules, house, on));
  return later.flatMap((from, i) => {
    const coming = houseRulesOn(own, rules, house, from);
    const isNew = JSON.stringify(coming) !== before;
    before = JSON.stringify(coming);
    return coming && isNew ? [{ from, until: later[i + 1] ?? null, rules: coming }] : [];
  });
}

/** When a timer may not water at all in a month. */
export interface MonthBan {
  /** 1 to 12. */
  readonly month: number;
  /** First and last date of the month on which it may not. */
  readonly from: EpochDay;
  readonly to: EpochDay;
  /** On none of its remaining dates. */
  readonly isWhole: boolean;
}

const MONTHS_OF_A_YEAR = 12;

/**
 * Months of the coming year with dates on which rules ban timers, the current month first.
 *
 * @param on first date considered
 */
export function bansByMonth(
  own: BriefRules | undefined,
  rules: Rules | null,
  house: RuledHouse,
  on: EpochDay,
): MonthBan[] {
  const bans: MonthBan[] = [];
  let first = on;
  for (let i = 0; i < MONTHS_OF_A_YEAR; i++) {
    const { year, month } = civilOf(first);
    const next =
      month === MONTHS_OF_A_YEAR
        ? epochDayOf({ year: year + 1, month: 1, day: 1 })
        : epochDayOf({ year, month: month + 1, day: 1 });
    const banned: EpochDay[] = [];
    for (let day = first; day < next; day++)
      if (houseRulesOn(own, rules, house, day)?.weekdays?.length === 0) banned.push(day);
    const [from] = banned;
    const to = banned.at(-1);
    if (from !== undefined && to !== undefined)
      bans.push({ month, from, to, isWhole: banned.length === next - first });
    first = next;
  }
  return bans;
}

/**
 * Consecutive bans, month after month, joined.
 *
 * @param bans by date
 */
export function banSpans(bans: readonly MonthBan[]): Omit<MonthBan, 'month'>[] {
  const spans: Omit<MonthBan, 'month'>[] = [];
  for (const { from, to, isWhole } of bans) {
    const before = spans.at(-1);
    if (before?.to === from - 1)
      spans.splice(-1, 1, { from: before.from, to, isWhole: before.isWhole || isWhole });
    else spans.push({ from, to, isWhole });
  }
  return spans;
}

/** Whether watering is allowed at all on a date. */
function isAllowedDate({ weekdays, parity }: BriefRules, day: EpochDay): boolean {
  const weekday = WEEKDAYS[weekdayIndexOf(day)];
  if (weekdays && weekday && !weekdays.includes(weekday)) return false;
  return parity === undefined || (civilOf(day).day % 2 === 1) === (parity === 'odd');
}

export interface RuledOut {
  readonly from: ClockSecond;
  readonly to: ClockSecond;
}

/**
 * When a site may not water between two moments, in order and disjoint. A limit on days a week is not included, since it depends on which
 * days are used.
 *
 * @param rulesOn the rules of each date; null: free
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
