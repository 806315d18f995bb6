/** Demands of watering rules and mowing. */
import { assertDefined } from '../document/assertDefined.ts';
import type { BriefRules, Brief } from '../brief/brief.ts';
import {
  type Weekday,
  WEEKDAYS,
  parseTime,
  SECONDS_PER_DAY,
  formatTime,
} from '../time/calendar.ts';
import type { NoWaterWindow } from '../time/windows.ts';
import { type Demand, withRules, dropped, type Milder } from './demand.ts';

/** Weekdays to add: one, then two, and so on. */
function* moreWeekdays(have: readonly Weekday[]): Generator<Weekday[]> {
  const others = WEEKDAYS.filter((day) => !have.includes(day));
  for (let count = 1; count <= others.length; count++)
    for (let mask = 1; mask < 1 << others.length; mask++) {
      const added = others.filter((_, i) => mask & (1 << i));
      if (added.length === count) yield added;
    }
}

export function ruleDemands({
  weekdays,
  parity,
  noWaterWindows,
  mostDaysPerWeek,
}: BriefRules): Demand[] {
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

/** Each window shortened at either end by an hour at a time; then removed. */
function* milderWindows(brief: Brief, windows: readonly NoWaterWindow[]): Generator<Milder> {
  const step = 3600;
  for (let hours = 1; hours < 24; hours++)
    for (const [i, window] of windows.entries()) {
      const from = assertDefined(parseTime(window.from), 'parseTime(window.from)');
      const to = assertDefined(parseTime(window.to), 'parseTime(window.to)');
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

export function mowingDemands({ mowing }: Brief): Demand[] {
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
