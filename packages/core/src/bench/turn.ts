/** What the keys − and + do to a value: the next one the kind can show, wrapping around. */
import type { RainDelayOfKind } from '../plan/kind.ts';
import { enabledStations, percentSteps } from '../plan/program.ts';
import type { Plan } from '../plan/plan.ts';
import type { PanelValue } from '../panel/value.ts';
import { civilOf, epochDayOf, FIRST_DAY, LAST_DAY, SECONDS_PER_DAY } from '../time/calendar.ts';
import { modulo } from '../time/dayRules.ts';
import type { Page } from './pages.ts';

/** The longest soak on the panel. */
const LONGEST_SOAK = 7200;
const LONGEST_PIECE = 3600;
const DELAY_STEP = 10;
const DAYS_OF_A_KIND: RainDelayOfKind = { unit: 'days', allowed: [1, 2, 3], ends: 'midnight' };

/** The value some places after another; a value not in the list goes to the nearest one. */
function inRing<T>(values: readonly T[], isAt: (value: T) => boolean, by: 1 | -1): T | undefined {
  const place = values.findIndex(isAt);
  if (place >= 0) return values[modulo(place + by, values.length)];
  return by > 0 ? values[0] : values.at(-1);
}

/** Whole steps from `least` to `most`, wrapping around. A value between two steps goes to the next. */
function stepped(value: number, step: number, least: number, most: number, by: 1 | -1): number {
  const next =
    by > 0 ? Math.floor(value / step) * step + step : Math.ceil(value / step) * step - step;
  if (next > most) return least;
  return next < least ? Math.floor(most / step) * step : next;
}

/** Times of day in the timer's step, and `off` just before midnight. */
function turnedTime(second: number | null, step: number, by: 1 | -1): number | null {
  if (second === null) return by > 0 ? 0 : SECONDS_PER_DAY - step;
  const next =
    by > 0 ? Math.floor(second / step) * step + step : Math.ceil(second / step) * step - step;
  return next < 0 || next >= SECONDS_PER_DAY ? null : next;
}

function turnedRainDelay(
  { unit, count }: Extract<PanelValue, { kind: 'rain-delay' }>,
  { unit: own, allowed = [] }: RainDelayOfKind,
  today: number,
  by: 1 | -1,
): PanelValue {
  const kind = 'rain-delay';
  const off = { kind, unit: 'off', count: 0 } as const;
  if (own === 'date') {
    const days = unit === 'date' ? count - today : 0;
    const next = modulo(days + by, 100);
    return next === 0 ? off : { kind, unit: 'date', count: today + next };
  }
  const lengths = [0, ...allowed];
  const present = unit === 'off' ? 0 : count;
  const next =
    by > 0
      ? (lengths.find((one) => one > present) ?? 0)
      : present === 0
        ? (lengths.at(-1) ?? 0)
        : (lengths.findLast((one) => one < present) ?? 0);
  return next === 0 ? off : { kind, unit: own, count: next };
}

export interface Circumstance {
  readonly plan: Plan;
  readonly today: number;
  /** Null: the kind does not say. */
  readonly rainDelay: RainDelayOfKind | null;
}

const DAYS_VALUES = ['daily', 'weekdays', 'interval', 'hours', 'odd', 'even'] as const;

function turnedLength(
  { address, value }: Page & { value: { seconds: number } },
  plan: Plan,
  by: 1 | -1,
) {
  const { timer } = plan;
  if (address.of === 'delay')
    return stepped(value.seconds, DELAY_STEP, 0, timer.longestStationDelaySeconds, by);
  return stepped(value.seconds, 60, 0, address.of === 'soak' ? LONGEST_SOAK : LONGEST_PIECE, by);
}

/** The value after − or +; unchanged if the keys do nothing on this page. */
export function turned(
  page: Page,
  by: 1 | -1,
  { plan, today, rainDelay }: Circumstance,
): PanelValue {
  const { address, value } = page;
  const { timer } = plan;
  switch (value.kind) {
    case 'time':
      if (address.of === 'start')
        return { kind: 'time', second: turnedTime(value.second, timer.startStepMinutes * 60, by) };
      return {
        kind: 'time',
        second: modulo(Math.floor((value.second ?? 0) / 60) * 60 + by * 60, SECONDS_PER_DAY),
      };
    case 'run':
      return address.of === 'run'
        ? {
            kind: 'run',
            seconds: stepped(value.seconds, timer.runStepSeconds, 0, timer.longestRunSeconds, by),
          }
        : value;
    case 'days': {
      const rules = [
        'none' as const,
        ...DAYS_VALUES.filter((rule) => timer.dayRules.includes(rule)),
      ];
      const rule = inRing(rules, (one) => one === value.rule, by) ?? 'none';
      return { kind: 'days', rule, weekdays: [] };
    }
    case 'count': {
      const isDays = plan.programs.some(
        ({ letter, days }) =>
          'program' in address && letter === address.program && days?.rule === 'interval',
      );
      return {
        kind: 'count',
        every: stepped(value.every, 1, 1, isDays ? timer.longestIntervalDays : 744, by),
      };
    }
    case 'days-left': {
      const program = plan.programs.find(
        ({ letter }) => 'program' in address && letter === address.program,
      );
      const every = program?.days?.rule === 'interval' ? program.days.everyDays : 1;
      return { kind: 'days-left', days: modulo(value.days + by, every) };
    }
    case 'date':
      return { kind: 'date', day: Math.min(LAST_DAY, Math.max(FIRST_DAY, value.day + by)) };
    case 'percent':
      return {
        kind: 'percent',
        percent: nextPercent(value.percent, percentSteps(timer), by),
      };
    case 'length':
      return { kind: 'length', seconds: turnedLength({ ...page, value }, plan, by) };
    case 'switch':
      return { kind: 'switch', on: !value.on };
    case 'sensor':
      return value.state === 'none'
        ? value
        : { kind: 'sensor', state: value.state === 'active' ? 'bypass' : 'active' };
    case 'numbers': {
      if (address.of !== 'linked') return value;
      const others = [...enabledStations(plan)].filter((number) => number !== address.station);
      const next = inRing([0, ...others], (one) => one === (value.numbers[0] ?? 0), by) ?? 0;
      return { kind: 'numbers', numbers: next === 0 ? [] : [next] };
    }
    case 'year':
      return { kind: 'year', year: stepped(value.year, 1, 1970, 9999, by) };
    case 'weekday':
      return { kind: 'weekday', weekday: modulo(value.weekday + by, 7) };
    case 'rain-delay':
      return turnedRainDelay(value, rainDelay ?? DAYS_OF_A_KIND, today, by);
    case 'hours':
      return value;
  }
}

const HOUR_MINUTES = 60;
const MANY = 10;

/** Steps of a held key. */
export function fastSteps({ address, value }: Page, { timer }: Plan): number {
  if (value.kind === 'time')
    return address.of === 'start'
      ? Math.max(1, HOUR_MINUTES / timer.startStepMinutes)
      : HOUR_MINUTES;
  return ['run', 'length', 'percent', 'date', 'days-left', 'count'].includes(value.kind) ? MANY : 1;
}

function nextPercent(percent: number, steps: readonly number[], by: 1 | -1): number {
  const next = by > 0 ? steps.find((one) => one > percent) : steps.findLast((one) => one < percent);
  return next ?? (by > 0 ? steps[0] : steps.at(-1)) ?? percent;
}

/** The same day in another year; February 28 for February 29 if needed. */
export function inYear(day: number, year: number): number {
  const { month, day: dayOfMonth } = civilOf(day);
  const there = epochDayOf({ year, month, day: dayOfMonth });
  return civilOf(there).month === month ? there : there - 1;
}
