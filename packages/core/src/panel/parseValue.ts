/** Parses what someone types from a timer's display. */
import { assertDefined } from '../document/assertDefined.ts';
import {
  civilOf,
  epochDayOf,
  parseDate,
  parseTime,
  WEEKDAYS,
  type EpochDay,
  type Weekday,
} from '../time/calendar.ts';
import type { Dialect } from '../plan/plan.ts';
import type { DayRuleName } from '../time/dayRules.ts';
import { parseTimeEntry } from '../time/entry.ts';
import { monthName } from '../words/words.ts';
import { firstOfWeek, type PanelKind, type PanelStyle, type PanelValue } from './value.ts';

const isOff = (text: string) => /^(off|-+|none|x|--:--)$/.test(text);

/** `0:22`, `1:05`, `22`, `0:22:30`, `1h20` as a length on a display, with a colon between hours and minutes. */
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

/** Weekdays by name or by this timer's digits, in any order; null if a word is neither. */
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

/** `25 november`, `nov 25` or `2026-11-25`, in the year of `today` or a neighbouring one if closer. */
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

/** `48`, `48 h`, `2 days`, `30 November`, `off`; a bare number is in this kind's unit, otherwise in days. */
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
 * The value of text typed as this timer's display shows it.
 *
 * @returns null if it cannot be read
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
