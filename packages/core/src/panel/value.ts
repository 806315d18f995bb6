/**
 * What a timer's display shows, as data, and how this timer writes it (`timer.dialect`).
 */
import { assertDefined } from '../document/assertDefined.ts';
import {
  WEEKDAYS,
  type EpochDay,
  type Weekday,
  civilOf,
  weekdayIndexOf,
} from '../time/calendar.ts';
import type { RainDelayOfKind } from '../plan/kind.ts';
import type { Dialect } from '../plan/plan.ts';
import type { DayRuleName } from '../time/dayRules.ts';
import {
  lengthWords,
  monthName,
  timeWords,
  weekdayName,
  type ClockStyle,
  type DateOrder,
} from '../words/words.ts';
import { say } from '../language/say.ts';

export type PanelValue =
  /** Second of the day; null: off. */
  | { readonly kind: 'time'; readonly second: number | null }
  | { readonly kind: 'run'; readonly seconds: number }
  /** Which days: by name, or a rule. */
  | {
      readonly kind: 'days';
      readonly rule: DayRuleName | 'none';
      readonly weekdays: readonly Weekday[];
    }
  /** An interval as the plan counts it (3: every third day), or in hours. */
  | { readonly kind: 'count'; readonly every: number }
  | { readonly kind: 'days-left'; readonly days: number }
  | { readonly kind: 'date'; readonly day: EpochDay }
  | { readonly kind: 'percent'; readonly percent: number }
  | { readonly kind: 'length'; readonly seconds: number }
  | { readonly kind: 'switch'; readonly on: boolean }
  | {
      readonly kind: 'hours';
      readonly from: number;
      readonly to: number;
      readonly weekdays: readonly Weekday[];
    }
  | { readonly kind: 'numbers'; readonly numbers: readonly number[] }
  | { readonly kind: 'year'; readonly year: number }
  | { readonly kind: 'weekday'; readonly weekday: number }
  /** Rest of a rain delay as the display counts it: `count` of hours or days, or the epoch day on which watering resumes. */
  | {
      readonly kind: 'rain-delay';
      readonly unit: 'off' | RainDelayOfKind['unit'];
      readonly count: number;
    }
  | { readonly kind: 'sensor'; readonly state: 'active' | 'bypass' | 'none' };

export type PanelKind = PanelValue['kind'];

/** How values are written: as on the timer, with the person's clock style if the timer supports both. */
export interface PanelStyle {
  readonly dialect: Dialect;
  readonly clock: ClockStyle;
  /** The person's date order; absent: day and month. */
  readonly order?: DateOrder | undefined;
  /** How this kind counts a rain delay; absent: not known. */
  readonly rainDelay?: RainDelayOfKind | undefined;
}

const styleOf = ({ dialect, clock }: PanelStyle): ClockStyle => {
  const own = dialect.clockStyle ?? 'either';
  return own === 'either' ? clock : own;
};

/** `4:15 AM` or `4:15`, as the timer shows it. */
const clockText = (second: number, hand: PanelStyle) =>
  timeWords(second, styleOf(hand)).replace(/[ap]m$/, (half) => half.toUpperCase());

/** `0:22`, and with seconds `0:22:30`. */
function runText(seconds: number): string {
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor((seconds % 3600) / 60), seconds % 60];
  const two = (n: number) => String(n).padStart(2, '0');
  return `${h}:${two(m)}${s === 0 ? '' : `:${two(s)}`}`;
}

/** Weekday index of digit 1 on the display. */
export const firstOfWeek = ({ weekOrder = 'mon' }: Dialect) => (weekOrder === 'sun' ? 6 : 0);

/** A weekday as on this timer's keys: `MON`, or its digit. */
export function weekdayText(weekday: Weekday, dialect: Dialect): string {
  const index = WEEKDAYS.indexOf(weekday);
  return dialect.weekdayKeys === 'digits'
    ? String(((index - firstOfWeek(dialect) + 7) % 7) + 1)
    : weekdayName(index).toUpperCase();
}

function weekdaysText(weekdays: readonly Weekday[], dialect: Dialect): string {
  const first = firstOfWeek(dialect);
  return Array.from({ length: 7 }, (_, i) =>
    assertDefined(WEEKDAYS[(i + first) % 7], 'WEEKDAYS[(i + first) % 7]'),
  )
    .filter((one) => weekdays.includes(one))
    .map((one) => weekdayText(one, dialect))
    .join(' ');
}

const RULE_TEXT: Record<DayRuleName | 'none', string> = {
  daily: 'EVERY DAY',
  weekdays: '',
  interval: 'INTERVAL',
  hours: 'EVERY … HOURS',
  odd: 'ODD',
  even: 'EVEN',
  none: 'NO DAY',
};

const OFF = 'OFF';

function dayText(epochDay: EpochDay, { order }: PanelStyle): string {
  const { month, day } = civilOf(epochDay);
  return order === 'month-day' ? `${monthName(month)} ${day}` : `${day} ${monthName(month)}`;
}

function rainDelayText(
  { unit, count }: Extract<PanelValue, { kind: 'rain-delay' }>,
  hand: PanelStyle,
): string {
  if (unit === 'off') return OFF;
  if (unit === 'date') return dayText(count, hand);
  return `${count} ${unit === 'hours' ? 'H' : count === 1 ? 'DAY' : 'DAYS'}`;
}

/** A value as the display must show it. */
export function panelText(value: PanelValue, hand: PanelStyle): string {
  const { dialect } = hand;
  switch (value.kind) {
    case 'time':
      return value.second === null ? OFF : clockText(value.second, hand);
    case 'run':
      return value.seconds === 0 ? '0:00' : runText(value.seconds);
    case 'days': {
      const days = weekdaysText(value.weekdays, dialect);
      if (value.rule === 'weekdays') return days || RULE_TEXT.none;
      return days ? say`${RULE_TEXT[value.rule]}, not ${days}` : RULE_TEXT[value.rule];
    }
    case 'count':
      return String(dialect.intervalCounts === 'between' ? value.every - 1 : value.every);
    case 'days-left':
      return String(value.days);
    case 'date':
      return dayText(value.day, hand);
    case 'rain-delay':
      return rainDelayText(value, hand);
    case 'percent':
      return `${value.percent} %`;
    case 'length':
      return value.seconds === 0 ? '0' : lengthWords(value.seconds);
    case 'switch':
      return value.on ? 'ON' : OFF;
    case 'hours': {
      const days = value.weekdays.length === 7 ? '' : ` ${weekdaysText(value.weekdays, dialect)}`;
      return say`${clockText(value.from, hand)} to ${clockText(value.to, hand)}${days}`;
    }
    case 'numbers':
      return value.numbers.join(' ') || 'none';
    case 'year':
      return String(value.year);
    case 'weekday':
      return weekdayText(
        assertDefined(WEEKDAYS[value.weekday], 'WEEKDAYS[value.weekday]'),
        dialect,
      );
    case 'sensor':
      return { active: 'ACTIVE', bypass: 'BYPASS', none: say`none fitted` }[value.state];
  }
}

export const sameValue = (a: PanelValue, b: PanelValue): boolean =>
  JSON.stringify(a) === JSON.stringify(b);

/** Value of the clock's own lines. */
export const weekdayOf = (day: EpochDay): PanelValue => ({
  kind: 'weekday',
  weekday: weekdayIndexOf(day),
});

/** What can be typed for this kind of value, for the message next to the field. */
export function panelHelp(kind: PanelKind, { dialect }: PanelStyle): string {
  const days =
    dialect.weekdayKeys === 'digits'
      ? say`the day numbers, such as 2 4 6`
      : say`days such as mon wed fri`;
  switch (kind) {
    case 'time':
      return say`a time such as 5:30, 5:30p or 17:30, or off`;
    case 'run':
    case 'length':
      return say`hours and minutes such as 0:22 or 1:05, or minutes such as 22; at most 24:00`;
    case 'days':
      return say`${days}, or every day, odd, even, interval, off`;
    case 'count':
      return say`a whole number of days`;
    case 'days-left':
      return say`a whole number of days, 0 to 365`;
    case 'date':
      return say`a date such as 25 November`;
    case 'percent':
      return say`a percent, 0 to 500`;
    case 'switch':
      return say`on or off`;
    case 'hours':
      return say`hours such as 9:00 to 17:00`;
    case 'numbers':
      return say`whole numbers with spaces between them`;
    case 'year':
      return say`a year such as 2027`;
    case 'weekday':
      return dialect.weekdayKeys === 'digits' ? say`a digit, 1 to 7` : say`a day such as wed`;
    case 'rain-delay':
      return say`the time left, such as 48 h or 2 days, or a date such as 25 November, or off`;
    case 'sensor':
      return say`active, bypass or none`;
  }
}
