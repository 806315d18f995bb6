/**
 * What a timer's display shows, as data; how this timer writes it (`timer.dialect`), and what somebody means who types it.
 */
import { assertDefined } from '../document/assertDefined.ts';
import {
  parseDate,
  parseTime,
  WEEKDAYS,
  type EpochDay,
  type Weekday,
  civilOf,
  epochDayOf,
  weekdayIndexOf,
} from '../time/calendar.ts';
import { parseTimeEntry } from '../time/entry.ts';
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
  /** The count of an interval, as the plan counts it (3: every third day) or in hours. */
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
  /** What is left of a rain delay, as the display counts it: `count` hours, days, or the epoch day on which it waters again. */
  | {
      readonly kind: 'rain-delay';
      readonly unit: 'off' | RainDelayOfKind['unit'];
      readonly count: number;
    }
  | { readonly kind: 'sensor'; readonly state: 'active' | 'bypass' | 'none' };

export type PanelKind = PanelValue['kind'];

/** How values are written: in the timer's dialect, and by the person's clock where the timer can show either. */
export interface PanelStyle {
  readonly dialect: Dialect;
  readonly clock: ClockStyle;
  /** How the person likes dates; day and month where absent. */
  readonly order?: DateOrder | undefined;
  /** How this kind of timer counts a rain delay; absent: nobody knows. */
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

const firstOfWeek = ({ weekOrder = 'mon' }: Dialect) => (weekOrder === 'sun' ? 6 : 0);

/** A weekday as this timer has it on its keys: `MON`, or its place in the week as a digit. */
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

/** A value as it must stand on the display. */
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

const isOff = (text: string) => /^(off|-+|none|x|--:--)$/.test(text);

/** `0:22`, `1:05`, `22`, `0:22:30`, `1h20` as a length on a display, where a colon stands between hours and minutes. */
function parseRun(text: string): number | null {
  if (text === '' || isOff(text)) return 0;
  let match = /^(\d{1,2}):([0-5]\d)(?::([0-5]\d))?$/.exec(text);
  if (match) return Number(match[1]) * 3600 + Number(match[2]) * 60 + Number(match[3] ?? 0);
  match = /^(\d{1,2})h(?:([0-5]?\d)m?)?$/.exec(text);
  if (match) return Number(match[1]) * 3600 + Number(match[2] ?? 0) * 60;
  match = /^(\d{1,4})(?:m|min|(?:m|min)([0-5]?\d)s)?$/.exec(text);
  if (match) return Number(match[1]) * 60 + Number(match[2] ?? 0);
  match = /^(\d{1,5})s$/.exec(text);
  return match ? Number(match[1]) : null;
}

/** Weekdays by name or by this timer's digits, in any order; null where a word is none. */
function parseWeekdays(text: string, dialect: Dialect): Weekday[] | null {
  const words = /^\d+$/.test(text) ? text.split('') : text.split(/[\s,.+]+/).filter(Boolean);
  const found: Weekday[] = [];
  for (const word of words) {
    const digit = /^[1-7]$/.test(word) ? Number(word) : null;
    const weekday =
      digit !== null
        ? WEEKDAYS[(digit - 1 + firstOfWeek(dialect)) % 7]
        : word.length >= 2 && WEEKDAYS.find((one) => word.startsWith(one.slice(0, 2)));
    if (!weekday) return null;
    if (!found.includes(weekday)) found.push(weekday);
  }
  return WEEKDAYS.filter((one) => found.includes(one));
}

function parseDays(text: string, dialect: Dialect): PanelValue | null {
  const rule = (name: DayRuleName, weekdays: readonly Weekday[] = []): PanelValue => ({
    kind: 'days',
    rule: name,
    weekdays,
  });
  const [, name = '', rest = ''] = /^(.*?)(?:,?\s*not\s+(.*))?$/.exec(text) ?? [];
  const blocked = rest === '' ? [] : parseWeekdays(rest, dialect);
  if (!blocked) return null;
  if (/^(every ?day|daily|all)$/.test(name)) return rule('daily');
  if (/^odd( dates| days)?$/.test(name)) return rule('odd', blocked);
  if (/^even( dates| days)?$/.test(name)) return rule('even', blocked);
  if (/^(interval|cyclic|every .* days)$/.test(name)) return rule('interval', blocked);
  if (/^every .* hours$/.test(name)) return rule('hours', blocked);
  if (text === '' || isOff(text) || text === 'no day')
    return { kind: 'days', rule: 'none', weekdays: [] };
  const weekdays = parseWeekdays(text, dialect);
  return weekdays && rule('weekdays', weekdays);
}

function parseWhole(text: string, least: number, most: number): number | null {
  const match = /^(\d{1,5})\s*(?:%|percent|days?)?$/.exec(text);
  const n = match ? Number(match[1]) : NaN;
  return n >= least && n <= most ? n : null;
}

const MONTH_STARTS = Array.from({ length: 12 }, (_, i) =>
  monthName(i + 1)
    .slice(0, 3)
    .toLowerCase(),
);

/** `25 november`, `nov 25` or `2026-11-25`, in the year of `today` or, where that is nearer, the one beside it. */
function parseDay(text: string, today: EpochDay): EpochDay | null {
  const whole = parseDate(text);
  if (whole !== null) return whole;
  const day = /\b(\d{1,2})\b/.exec(text);
  const month = MONTH_STARTS.findIndex((start) => text.includes(start)) + 1;
  if (!day || month === 0) return null;
  const { year } = civilOf(today);
  const all = [year - 1, year, year + 1].flatMap((one) => {
    const date = epochDayOf({ year: one, month, day: Number(day[1]) });
    return civilOf(date).month === month ? [date] : [];
  });
  return all.sort((a, b) => Math.abs(a - today) - Math.abs(b - today))[0] ?? null;
}

/** `48`, `48 h`, `2 days`, `30 November`, `off`; a number alone is in the unit of this kind, else in days. */
function parseRainDelay(
  text: string,
  { rainDelay }: PanelStyle,
  today: EpochDay,
): PanelValue | null {
  const kind = 'rain-delay';
  if (text === '' || isOff(text)) return { kind, unit: 'off', count: 0 };
  const [, digits, word = ''] = /^(\d{1,3})\s*(h|hours?|d|days?)?$/.exec(text) ?? [];
  if (digits !== undefined) {
    const own = rainDelay?.unit === 'hours' ? 'hours' : 'days';
    const unit = word === '' ? own : word.startsWith('h') ? 'hours' : 'days';
    const count = Number(digits);
    return count === 0 ? { kind, unit: 'off', count: 0 } : { kind, unit, count };
  }
  const day = parseDay(text, today);
  return day === null ? null : { kind, unit: 'date', count: day };
}

/**
 * What somebody means who types what this timer's display shows, for a value of this kind.
 *
 * @returns null where it cannot be read as one.
 */
export function parsePanel(
  kind: PanelKind,
  typed: string,
  hand: PanelStyle,
  today: EpochDay,
): PanelValue | null {
  const text = typed.trim().toLowerCase().replaceAll(/\s+/g, ' ');
  const { dialect } = hand;
  switch (kind) {
    case 'time': {
      if (text === '' || isOff(text)) return { kind, second: null };
      const time = parseTimeEntry(text);
      return time === null ? null : { kind, second: parseTime(time) };
    }
    case 'run':
    case 'length': {
      const seconds = parseRun(text.replaceAll(' ', ''));
      return seconds === null || seconds > 86_400 ? null : { kind, seconds };
    }
    case 'days':
      return parseDays(text, dialect);
    case 'count': {
      const shown = parseWhole(text, 0, 744);
      const every = shown === null ? 0 : dialect.intervalCounts === 'between' ? shown + 1 : shown;
      return every < 1 ? null : { kind, every };
    }
    case 'days-left': {
      const days = parseWhole(text, 0, 365);
      return days === null ? null : { kind, days };
    }
    case 'date': {
      const day = parseDay(text, today);
      return day === null ? null : { kind, day };
    }
    case 'percent': {
      const percent = parseWhole(text, 0, 500);
      return percent === null ? null : { kind, percent };
    }
    case 'switch':
      if (/^(on|yes|y|1)$/.test(text)) return { kind, on: true };
      return isOff(text) || /^(no|n|0)$/.test(text) ? { kind, on: false } : null;
    case 'hours': {
      const match = /^(\S+(?: [ap]m)?) (?:to|-) (\S+(?: [ap]m)?)(?: (.*))?$/.exec(text);
      const from = parseTimeEntry(match?.[1] ?? '?');
      const to = parseTimeEntry(match?.[2] ?? '?');
      const weekdays = match?.[3] === undefined ? WEEKDAYS : parseWeekdays(match[3], dialect);
      if (from === null || to === null || !weekdays) return null;
      return {
        kind,
        from: assertDefined(parseTime(from), 'parseTime(from)'),
        to: assertDefined(parseTime(to), 'parseTime(to)'),
        weekdays,
      };
    }
    case 'numbers': {
      if (text === '' || isOff(text)) return { kind, numbers: [] };
      const numbers = text.split(/[\s,]+/).map(Number);
      return numbers.every(Number.isInteger) ? { kind, numbers } : null;
    }
    case 'year': {
      const year = parseWhole(text, 0, 9999);
      return year === null ? null : { kind, year: year < 100 ? 2000 + year : year };
    }
    case 'weekday': {
      const [weekday] = parseWeekdays(text, dialect) ?? [];
      return weekday ? { kind, weekday: WEEKDAYS.indexOf(weekday) } : null;
    }
    case 'rain-delay':
      return parseRainDelay(text, hand, today);
    case 'sensor':
      if (/^(active|on)$/.test(text)) return { kind, state: 'active' };
      if (/^(bypass|off)$/.test(text)) return { kind, state: 'bypass' };
      return isOff(text) || text === 'none fitted' ? { kind, state: 'none' } : null;
  }
}

export const sameValue = (a: PanelValue, b: PanelValue): boolean =>
  JSON.stringify(a) === JSON.stringify(b);

/** The value of the clock's own lines. */
export const weekdayOf = (day: EpochDay): PanelValue => ({
  kind: 'weekday',
  weekday: weekdayIndexOf(day),
});

/** What can be typed for a value of this kind, for the message beside the field. */
export function panelHelp(kind: PanelKind, { dialect }: PanelStyle): string {
  const days =
    dialect.weekdayKeys === 'digits'
      ? say`the digits of the days, such as 2 4 6`
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
      return say`how long it still lasts, such as 48 h or 2 days, or a date such as 25 November, or off`;
    case 'sensor':
      return say`active, bypass or none`;
  }
}
