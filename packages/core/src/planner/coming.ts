/** Announced editions of the rules, and whether a plan keeps them. */
import type { Brief, BriefRules } from '../brief/brief.ts';
import { Effort } from '../engine/effort.ts';
import { WetStarts } from '../engine/wetStarts.ts';
import { bindingOf, breachesOf } from '../findings/ruleBreaches.ts';
import type { Plan } from '../plan/plan.ts';
import { parseDate, type EpochDay } from '../time/calendar.ts';

export interface ComingKept {
  /** The first date of the edition. */
  readonly from: string;
  readonly keeps: boolean;
}

export interface Edition {
  readonly from: string;
  readonly on: EpochDay;
  /** First date on which it is no longer valid. */
  readonly until: EpochDay;
  readonly rules: BriefRules;
}

export function editionsOf({ coming = [] }: Brief): Edition[] {
  return coming.map(({ from, rules }, i) => ({
    from,
    on: parseDate(from) ?? 0,
    until: parseDate(coming[i + 1]?.from ?? '') ?? Infinity,
    rules,
  }));
}

/** Whether a plan breaks an edition while it is valid. */
export function breaksEdition(brief: Brief, plan: Plan, { on, until, rules }: Edition): boolean {
  const binding = bindingOf({ rules, stations: brief.stations });
  if (!binding) return false;
  const effort = new Effort();
  return breachesOf(binding, new WetStarts(plan, on, effort), on).some(
    ({ where }) => where.date !== undefined && where.date < until,
  );
}

/** Each announced edition, and whether a plan keeps it. @throws TooMuchWork */
export const comingKept = (brief: Brief, plan: Plan): readonly ComingKept[] =>
  editionsOf(brief).map((edition) => ({
    from: edition.from,
    keeps: !breaksEdition(brief, plan, edition),
  }));

/** Rules equivalent to keeping all of several. */
export function allRules(rules: readonly BriefRules[]): BriefRules {
  const weekdays = rules.flatMap((one) => (one.weekdays ? [one.weekdays] : []));
  const [first, ...others] = weekdays;
  const days = first?.filter((day) => others.every((list) => list.includes(day)));
  const parities = new Set(rules.flatMap(({ parity }) => parity ?? []));
  const [parity] = parities;
  const windows = rules.flatMap(({ noWaterWindows = [] }) => noWaterWindows);
  const most = Math.min(...rules.map(({ mostDaysPerWeek = 7 }) => mostDaysPerWeek));
  return {
    ...(parities.size > 1 ? { weekdays: [] } : days ? { weekdays: days } : {}),
    ...(parities.size === 1 && parity ? { parity } : {}),
    ...(windows.length > 0 ? { noWaterWindows: windows } : {}),
    ...(most < 7 ? { mostDaysPerWeek: most } : {}),
    ...(rules.every(({ dripExempt }) => dripExempt) ? { dripExempt: true } : {}),
  };
}
