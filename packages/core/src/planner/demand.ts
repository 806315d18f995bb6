/** A demand of a brief: the brief without it, and milder forms of it. */
import type { Brief, BriefStation, BriefRules, Wish } from '../brief/brief.ts';
import type { Path } from '../document/fault.ts';
import type { Timer } from '../plan/plan.ts';
import type { Weekday } from '../time/calendar.ts';
import type { NoWaterWindow } from '../time/windows.ts';

/** A change of one demand. */
export interface Milder {
  readonly brief: Brief;
  readonly what: MilderWhat;
}

export type MilderWhat =
  /** `alike`: for every station with the same days as this one. */
  | {
      readonly kind: 'days';
      readonly least: number;
      readonly most: number;
      readonly alike: boolean;
    }
  | { readonly kind: 'garden-days'; readonly least: number; readonly most: number }
  | { readonly kind: 'cycle'; readonly seconds: number }
  | { readonly kind: 'times'; readonly times: number }
  | { readonly kind: 'span'; readonly from: string; readonly to: string }
  | { readonly kind: 'without-station' }
  | { readonly kind: 'weekdays'; readonly added: readonly Weekday[] }
  | { readonly kind: 'days-per-week'; readonly most: number }
  | { readonly kind: 'dropped' }
  | { readonly kind: 'window'; readonly window: NoWaterWindow }
  | { readonly kind: 'mowing'; readonly weekdays: readonly Weekday[]; readonly dayBefore: boolean }
  | { readonly kind: 'wish' }
  | { readonly kind: 'headroom'; readonly percent: number }
  | { readonly kind: 'count'; readonly count: number }
  | { readonly kind: 'timer'; readonly timer: Timer };

export interface Demand {
  readonly path: Path;
  /** Its subject, for messages. */
  readonly about:
    | 'days'
    | 'garden-days'
    | 'cycle'
    | 'often'
    | 'water'
    | 'weekdays'
    | 'parity'
    | 'windows'
    | 'days-per-week'
    | 'mowing'
    | 'off-days'
    | 'starts'
    | 'day-wish'
    | 'one-program'
    | 'headroom'
    | 'apart'
    | 'program-count'
    | 'start-count'
    | 'day-rules';
  readonly station?: BriefStation;
  /** The brief without this demand. */
  readonly without: (brief: Brief) => Brief;
  readonly milder: (brief: Brief) => Iterable<Milder>;
}

/** A record without some of its fields. */
export function dropped<T extends object, K extends keyof T>(
  record: T,
  ...keys: readonly K[]
): Omit<T, K> {
  const rest = { ...record };
  for (const key of keys) delete rest[key];
  return rest;
}

export const withStation = (
  brief: Brief,
  place: number,
  change: (station: BriefStation) => BriefStation,
): Brief => ({
  ...brief,
  stations: brief.stations.map((station, i) => (i === place ? change(station) : station)),
});
export const withRules = (brief: Brief, change: (rules: BriefRules) => BriefRules): Brief => ({
  ...brief,
  rules: change(brief.rules ?? {}),
});
export const withWish = (brief: Brief, change: (wish: Wish) => Wish): Brief => ({
  ...brief,
  wish: change(brief.wish ?? {}),
});
export const withTimer = (brief: Brief, fields: Partial<Timer>): Brief => ({
  ...brief,
  timer: { ...brief.timer, ...fields },
});
/** More programs and starts than any timer has. */
export const PLENTY = { programCount: 26, startsPerProgram: 16 };
