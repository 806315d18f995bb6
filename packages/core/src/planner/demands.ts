/** The demands of a brief one by one: what each asks for, the brief without it, and milder forms of it, the least change first. */
import {
  type Brief,
  type BriefRules,
  type BriefStation,
  type Wish,
  wishOf,
} from '../brief/brief.ts';
import {
  formatTime,
  parseTime,
  SECONDS_PER_DAY,
  WEEKDAYS,
  type Weekday,
} from '../time/calendar.ts';
import type { Path } from '../document/fault.ts';
import type { Timer } from '../plan/plan.ts';
import { DAY_RULES } from '../time/dayRules.ts';
import type { NoWaterWindow } from '../time/windows.ts';
import { TIMER_KINDS } from '../plan/shippedKinds.ts';

/** A change of one demand. */
export interface Milder {
  readonly brief: Brief;
  readonly what: MilderWhat;
}

export type MilderWhat =
  /** `alike`: it is for every station that has the same days as this one. */
  | {
      readonly kind: 'days';
      readonly least: number;
      readonly most: number;
      readonly alike: boolean;
    }
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
  /** What it is about, for the words. */
  readonly about:
    | 'days'
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
  /** The brief with nothing asked for in this place. */
  readonly without: (brief: Brief) => Brief;
  readonly milder: (brief: Brief) => Iterable<Milder>;
}

/** A record without some of its fields. */
function dropped<T extends object, K extends keyof T>(
  record: T,
  ...keys: readonly K[]
): Omit<T, K> {
  const rest = { ...record };
  for (const key of keys) delete rest[key];
  return rest;
}

const withStation = (
  brief: Brief,
  place: number,
  change: (station: BriefStation) => BriefStation,
): Brief => ({
  ...brief,
  stations: brief.stations.map((station, i) => (i === place ? change(station) : station)),
});
const withRules = (brief: Brief, change: (rules: BriefRules) => BriefRules): Brief => ({
  ...brief,
  rules: change(brief.rules ?? {}),
});
const withWish = (brief: Brief, change: (wish: Wish) => Wish): Brief => ({
  ...brief,
  wish: change(brief.wish ?? {}),
});
const withTimer = (brief: Brief, fields: Partial<Timer>): Brief => ({
  ...brief,
  timer: { ...brief.timer, ...fields },
});

/** More programs and starts than any timer has. */
const PLENTY = { programCount: 26, startsPerProgram: 16 };

function stationDemands(station: BriefStation, place: number): Demand[] {
  const path: Path = ['stations', place];
  const demands: Demand[] = [];
  const { days, cycleSeconds, oftenADay } = station;
  if (days)
    demands.push({
      path: [...path, 'days'],
      about: 'days',
      station,
      without: (brief) => withStation(brief, place, (station) => dropped(station, 'days')),
      *milder(brief) {
        const isLike = ({ days: other }: BriefStation) =>
          other?.least === days.least && other.most === days.most;
        const alone = brief.stations.filter(isLike).length === 1;
        for (const alike of alone ? [false] : [false, true])
          for (let more = 1; more < 7; more++)
            for (const [least, most] of [
              [days.least - more, days.most],
              [days.least, days.most + more],
            ] as const)
              if (least >= 1 && most <= 7)
                yield {
                  brief: {
                    ...brief,
                    stations: brief.stations.map((station, i) =>
                      i === place || (alike && isLike(station))
                        ? { ...station, days: { least, most } }
                        : station,
                    ),
                  },
                  what: { kind: 'days', least, most, alike },
                };
      },
    });
  if (cycleSeconds !== undefined)
    demands.push({
      path: [...path, 'cycleSeconds'],
      about: 'cycle',
      station,
      without: (brief) =>
        withStation(brief, place, (station) => dropped(station, 'cycleSeconds', 'soakSeconds')),
      *milder(brief) {
        for (
          let seconds = cycleSeconds + 60;
          seconds < 8 * cycleSeconds + 600;
          seconds += Math.max(60, Math.floor((seconds - cycleSeconds) / 2))
        )
          yield {
            brief: withStation(brief, place, (station) => ({ ...station, cycleSeconds: seconds })),
            what: { kind: 'cycle', seconds },
          };
      },
    });
  if (oftenADay)
    demands.push({
      path: [...path, 'oftenADay'],
      about: 'often',
      station,
      without: (brief) => withStation(brief, place, (station) => dropped(station, 'oftenADay')),
      *milder(brief) {
        for (let times = oftenADay.times - 1; times >= 2; times--)
          yield {
            brief: withStation(brief, place, (station) => ({
              ...station,
              oftenADay: { ...oftenADay, times },
            })),
            what: { kind: 'times', times },
          };
        for (let hours = 1; hours <= 8; hours++) {
          const from = formatTime(Math.max(0, (parseTime(oftenADay.from) ?? 0) - hours * 3600));
          const to = formatTime(
            Math.min(SECONDS_PER_DAY - 60, (parseTime(oftenADay.to) ?? 0) + hours * 3600),
          );
          yield {
            brief: withStation(brief, place, (station) => ({
              ...station,
              oftenADay: { ...oftenADay, from, to },
            })),
            what: { kind: 'span', from, to },
          };
        }
        yield {
          brief: withStation(brief, place, (station) => dropped(station, 'oftenADay')),
          what: { kind: 'dropped' },
        };
      },
    });
  demands.push({
    path: [...path, 'weeklySeconds'],
    about: 'water',
    station,
    without: (brief) => withStation(brief, place, (station) => ({ ...station, weeklySeconds: 0 })),
    *milder(brief) {
      yield {
        brief: withStation(brief, place, (station) => ({ ...station, weeklySeconds: 0 })),
        what: { kind: 'without-station' },
      };
    },
  });
  return demands;
}

/** Weekdays to add, one, then two, and so on. */
function* moreWeekdays(have: readonly Weekday[]): Generator<Weekday[]> {
  const others = WEEKDAYS.filter((day) => !have.includes(day));
  for (let count = 1; count <= others.length; count++)
    for (let mask = 1; mask < 1 << others.length; mask++) {
      const added = others.filter((_, i) => mask & (1 << i));
      if (added.length === count) yield added;
    }
}

function ruleDemands({ weekdays, parity, noWaterWindows, mostDaysPerWeek }: BriefRules): Demand[] {
  const demands: Demand[] = [];
  if (weekdays)
    demands.push({
      path: ['rules', 'weekdays'],
      about: 'weekdays',
      without: (brief) => withRules(brief, (rules) => dropped(rules, 'weekdays')),
      *milder(brief) {
        for (const added of moreWeekdays(weekdays))
          yield {
            brief: withRules(brief, (rules) => ({ ...rules, weekdays: [...weekdays, ...added] })),
            what: { kind: 'weekdays', added },
          };
      },
    });
  if (parity)
    demands.push({
      path: ['rules', 'parity'],
      about: 'parity',
      without: (brief) => withRules(brief, (rules) => dropped(rules, 'parity')),
      *milder(brief) {
        yield {
          brief: withRules(brief, (rules) => dropped(rules, 'parity')),
          what: { kind: 'dropped' },
        };
      },
    });
  if (noWaterWindows && noWaterWindows.length > 0)
    demands.push({
      path: ['rules', 'noWaterWindows'],
      about: 'windows',
      without: (brief) => withRules(brief, (rules) => dropped(rules, 'noWaterWindows')),
      milder: (brief) => milderWindows(brief, noWaterWindows),
    });
  if (mostDaysPerWeek !== undefined)
    demands.push({
      path: ['rules', 'mostDaysPerWeek'],
      about: 'days-per-week',
      without: (brief) => withRules(brief, (rules) => dropped(rules, 'mostDaysPerWeek')),
      *milder(brief) {
        for (let most = mostDaysPerWeek + 1; most <= 7; most++)
          yield {
            brief: withRules(brief, (rules) => ({ ...rules, mostDaysPerWeek: most })),
            what: { kind: 'days-per-week', most },
          };
      },
    });
  return demands;
}

/** One window after another that begins later or ends earlier, an hour at a time; then without it. */
function* milderWindows(brief: Brief, windows: readonly NoWaterWindow[]): Generator<Milder> {
  const step = 3600;
  for (let hours = 1; hours < 24; hours++)
    for (const [i, window] of windows.entries()) {
      const from = parseTime(window.from) ?? 0;
      const to = parseTime(window.to) ?? 0;
      const length = ((to - from + SECONDS_PER_DAY - 1) % SECONDS_PER_DAY) + 1;
      if (length <= hours * step) continue;
      const later = { ...window, from: formatTime((from + hours * step) % SECONDS_PER_DAY) };
      const earlier = {
        ...window,
        to: formatTime((to - hours * step + SECONDS_PER_DAY) % SECONDS_PER_DAY),
      };
      for (const milder of [earlier, later])
        yield {
          brief: withRules(brief, (rules) => ({
            ...rules,
            noWaterWindows: windows.map((window, j) => (i === j ? milder : window)),
          })),
          what: { kind: 'window', window: milder },
        };
    }
  for (const i of windows.keys())
    yield {
      brief: withRules(brief, (rules) => ({
        ...rules,
        noWaterWindows: windows.filter((_, j) => j !== i),
      })),
      what: { kind: 'dropped' },
    };
}

function mowingDemands({ mowing }: Brief): Demand[] {
  if (!mowing || mowing.weekdays.length === 0) return [];
  const { weekdays, dayBefore = false } = mowing;
  return [
    {
      path: ['mowing'],
      about: 'mowing',
      without: (brief) => dropped(brief, 'mowing'),
      *milder(brief) {
        if (dayBefore)
          yield {
            brief: { ...brief, mowing: { weekdays } },
            what: { kind: 'mowing', weekdays, dayBefore: false },
          };
        for (const day of weekdays) {
          const rest = weekdays.filter((one) => one !== day);
          if (rest.length === 0)
            yield { brief: dropped(brief, 'mowing'), what: { kind: 'dropped' } };
          else
            yield {
              brief: { ...brief, mowing: { weekdays: rest, dayBefore } },
              what: { kind: 'mowing', weekdays: rest, dayBefore },
            };
        }
      },
    },
  ];
}

function wishDemands(brief: Brief): Demand[] {
  const wish = wishOf(brief);
  const demands: Demand[] = [];
  const add = (about: Demand['about'], key: 'starts' | 'days' | 'programs') =>
    demands.push({
      path: ['wish', key],
      about,
      without: (brief) => withWish(brief, (own) => dropped(own, key)),
      *milder(brief) {
        yield { brief: withWish(brief, (own) => dropped(own, key)), what: { kind: 'wish' } };
      },
    });
  if (wish.starts !== 'any') add('starts', 'starts');
  if (wish.days !== 'any') add('day-wish', 'days');
  if (wish.programs !== 'any') add('one-program', 'programs');
  if (wish.headroomPercent > 100)
    demands.push({
      path: ['wish', 'headroomPercent'],
      about: 'headroom',
      without: (brief) => withWish(brief, (own) => ({ ...own, headroomPercent: 100 })),
      *milder(brief) {
        for (let percent = wish.headroomPercent - 5; percent >= 100; percent -= 5)
          yield {
            brief: withWish(brief, (own) => ({ ...own, headroomPercent: percent })),
            what: { kind: 'headroom', percent },
          };
      },
    });
  for (const pair of wish.apart) {
    const without = (brief: Brief) =>
      withWish(brief, (own) => ({
        ...own,
        apart: (own.apart ?? []).filter((other) => other !== pair),
      }));
    demands.push({
      path: ['wish', 'apart', wish.apart.indexOf(pair)],
      about: 'apart',
      without,
      *milder(brief) {
        yield { brief: without(brief), what: { kind: 'dropped' } };
      },
    });
  }
  return demands;
}

/** Timers of ours that can do more than one at hand. */
function* betterTimers(brief: Brief): Generator<Milder> {
  for (const timer of TIMER_KINDS)
    if (timer.stationCount >= Math.max(...brief.stations.map(({ number }) => number)))
      yield { brief: { ...brief, timer }, what: { kind: 'timer', timer } };
}

function timerDemands({ timer }: Brief): Demand[] {
  const counts = (key: 'programCount' | 'startsPerProgram', about: Demand['about']): Demand => ({
    path: ['timer', key],
    about,
    without: (brief) => withTimer(brief, { [key]: Math.max(PLENTY[key], timer[key]) }),
    *milder(brief) {
      for (const more of [1, 2, 4])
        yield {
          brief: withTimer(brief, { [key]: timer[key] + more }),
          what: { kind: 'count', count: timer[key] + more },
        };
      yield* betterTimers(brief);
    },
  });
  return [
    counts('programCount', 'program-count'),
    counts('startsPerProgram', 'start-count'),
    {
      path: ['timer', 'dayRules'],
      about: 'day-rules',
      without: (brief) =>
        withTimer(brief, {
          dayRules: [...DAY_RULES].filter((rule) => rule !== 'hours'),
          longestIntervalDays: Math.max(31, timer.longestIntervalDays),
          oddDaysSkip31: true,
        }),
      milder: betterTimers,
    },
  ];
}

/** All demands of a brief; those first that people give up last. */
export function demandsOf(brief: Brief): Demand[] {
  const offDays = brief.settings?.offDaysOfMonth ?? [];
  return [
    ...wishDemands(brief),
    ...mowingDemands(brief),
    ...(offDays.length > 0
      ? [
          {
            path: ['settings', 'offDaysOfMonth'],
            about: 'off-days',
            without: (brief: Brief) => ({
              ...brief,
              settings: { ...brief.settings, offDaysOfMonth: [] },
            }),
            *milder(brief: Brief): Generator<Milder> {
              yield {
                brief: { ...brief, settings: { ...brief.settings, offDaysOfMonth: [] } },
                what: { kind: 'dropped' },
              };
            },
          } as const,
        ]
      : []),
    ...timerDemands(brief),
    ...ruleDemands(brief.rules ?? {}),
    ...brief.stations.flatMap((station, place) =>
      station.weeklySeconds > 0 ? stationDemands(station, place) : [],
    ),
  ];
}
