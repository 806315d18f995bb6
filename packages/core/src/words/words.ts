/** Wording shared by all messages: times, dates, days, durations and lists. */
import { assertDefined } from '../document/assertDefined.ts';
import {
  civilOf,
  parseDate,
  parseMoment,
  parseTime,
  SECONDS_PER_DAY,
  WEEKDAYS,
  weekdayIndexOf,
  type ClockSecond,
  type EpochDay,
  type Weekday,
  type TimeText,
} from '../time/calendar.ts';
import type { Days } from '../time/dayRules.ts';
import { plural, say, translator } from '../language/say.ts';

export type ClockStyle = '12' | '24';

/** The reader's clock style, and the current date, whose year is omitted. */
/** `9 June` or `June 9`. */
export const DATE_ORDERS = ['day-month', 'month-day'] as const;
export type DateOrder = (typeof DATE_ORDERS)[number];

export interface Speech {
  readonly on: EpochDay;
  readonly clock: ClockStyle;
  /** Day and month by default. */
  readonly order?: DateOrder | undefined;
  /** Metric by default. */
  readonly units?: 'metric' | 'us' | undefined;
}

const WEEKDAY_NAMES = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const MONTH_NAMES = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
] as const;

/** A day in the middle of each month, and a Monday. */
const IN_MONTH = (month: number) => (month - 1) * 31 + 14;
const A_MONDAY = 4;

/** `January` to `December`, 1 to 12. */
export const monthName = (month: number): string =>
  translator()?.date(IN_MONTH(month), 'month', 'day-month') ??
  assertDefined(MONTH_NAMES[month - 1], 'MONTH_NAMES[month - 1]');

/** `Mon` to `Sun`, index 0 Monday. */
export const weekdayName = (index: number): string =>
  translator()?.date(A_MONDAY + index, 'weekday', 'day-month') ??
  assertDefined(WEEKDAY_NAMES[index], 'WEEKDAY_NAMES[index]');

/** `Mon` to `Sun`. */
export const nameOfWeekday = (weekday: Weekday): string => weekdayName(WEEKDAYS.indexOf(weekday));

export const listed = (items: readonly (string | number)[], last: 'and' | 'or' = 'and'): string =>
  items.length < 2
    ? items.join('')
    : (translator()?.list(items.map(String), last) ??
      `${items.slice(0, -1).join(', ')} ${last} ${items[items.length - 1]}`);

/** Numbers, with three or more in a row as a range: `1, 4 to 9 and 12`. */
export function rangesWords(numbers: readonly number[], last: 'and' | 'or' = 'and'): string {
  const spans: [number, number][] = [];
  for (const number of numbers) {
    const before = spans.at(-1);
    if (before && before[1] + 1 === number) before[1] = number;
    else spans.push([number, number]);
  }
  return listed(
    spans.flatMap(([from, to]): (string | number)[] =>
      to - from >= 2 ? [say`${from} to ${to}`] : to > from ? [from, to] : [from],
    ),
    last,
  );
}

/** A second of the day: `5:00`, `17:30`, or `5:00 am`, `5:30 pm`; with seconds only if there are any. */
export function timeWords(secondOfDay: number, clock: ClockStyle): string {
  const hour = Math.floor(secondOfDay / 3600);
  const minute = String(Math.floor((secondOfDay % 3600) / 60)).padStart(2, '0');
  const second = secondOfDay % 60;
  const tail = second === 0 ? minute : `${minute}:${String(second).padStart(2, '0')}`;
  if (clock === '24') return `${hour}:${tail}`;
  return `${((hour + 11) % 12) + 1}:${tail} ${hour < 12 ? say`am` : say`pm`}`;
}

export const capitalized = (sentence: string) =>
  sentence.replace(/^./, (first) => first.toUpperCase());

export const startWords = (start: TimeText, clock: ClockStyle) =>
  timeWords(assertDefined(parseTime(start), 'parseTime(start)'), clock);

export const timeOfMoment = (moment: ClockSecond, clock: ClockStyle) =>
  timeWords(((moment % SECONDS_PER_DAY) + SECONDS_PER_DAY) % SECONDS_PER_DAY, clock);

/** `Wed 9 June` or `Wed June 9`, with the year if it differs from that of `on`, or if `on` is null. */
export function dateWords(
  day: EpochDay,
  on: EpochDay | null,
  order: DateOrder = 'day-month',
): string {
  const { year, month, day: dayOfMonth } = civilOf(day);
  const isThisYear = on !== null && year === civilOf(on).year;
  const other = translator()?.date(day, isThisYear ? 'date' : 'date and year', order);
  if (other !== undefined) return other;
  const name = monthName(month);
  const words = `${weekdayName(weekdayIndexOf(day))} ${order === 'month-day' ? `${name} ${dayOfMonth}` : `${dayOfMonth} ${name}`}`;
  if (isThisYear) return words;
  return order === 'month-day' ? `${words}, ${year}` : `${words} ${year}`;
}

/** `9 June 2027`, as on paper. */
export function plainDate(day: EpochDay): string {
  const { year, month, day: dayOfMonth } = civilOf(day);
  return (
    translator()?.date(day, 'plain date', 'day-month') ??
    `${dayOfMonth} ${monthName(month)} ${year}`
  );
}

export const weekdaysWords = (weekdays: readonly Weekday[]) =>
  WEEKDAYS.filter((weekday) => weekdays.includes(weekday))
    .map(nameOfWeekday)
    .join(' ');

/** An interval as people say it: `every day`, `every other day`, `every 6 days`. */
export const everyDaysWords = (days: number) =>
  days === 1 ? say`every day` : days === 2 ? say`every other day` : say`every ${days} days`;

/** Days as people say them: `Mon Wed Fri`, `every 6 days from Wed 9 June 2027, not Sat`, `not set`. */
export function daysWords(days: Days | null, clock: ClockStyle = '24', order?: DateOrder): string {
  if (days === null) return say`not set`;
  const blocked = 'blockedWeekdays' in days ? (days.blockedWeekdays ?? []) : [];
  const not = weekdaysWords(blocked);
  switch (days.rule) {
    case 'daily':
      return say`every day`;
    case 'weekdays':
      if (days.weekdays.length === 7) return say`every day`;
      return weekdaysWords(days.weekdays) || say`no day`;
    case 'interval': {
      const first = parseDate(days.firstDate);
      const often = everyDaysWords(days.everyDays);
      if (first === null) return not ? say`${often}, not ${not}` : often;
      const from = dateWords(first, null, order);
      return not ? say`${often} from ${from}, not ${not}` : say`${often} from ${from}`;
    }
    case 'hours': {
      const first = parseMoment(days.first);
      const often = say`every ${days.everyHours} h`;
      if (first === null) return not ? say`${often}, not ${not}` : often;
      const day = dateWords(Math.floor(first / SECONDS_PER_DAY), null, order);
      const from = `${day}, ${timeOfMoment(first, clock)}`;
      return not ? say`${often} from ${from}, not ${not}` : say`${often} from ${from}`;
    }
    case 'odd':
      return not ? say`odd dates, not ${not}` : say`odd dates`;
    case 'even':
      return not ? say`even dates, not ${not}` : say`even dates`;
  }
}

/** Days as a timer keeps them: of odd dates, whether it waters on the 31st as well, a day before the 1st. */
export function daysOnTimer(
  days: Days | null,
  { oddDaysSkip31 }: { readonly oddDaysSkip31: boolean },
  clock: ClockStyle = '24',
  order?: DateOrder,
): string {
  if (days?.rule !== 'odd') return daysWords(days, clock, order);
  const not = weekdaysWords(days.blockedWeekdays ?? []);
  if (oddDaysSkip31)
    return not ? say`odd dates except the 31st, not ${not}` : say`odd dates except the 31st`;
  return not ? say`odd dates including the 31st, not ${not}` : say`odd dates including the 31st`;
}

/** `1 day`, `3 days`. */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  plural(count, `# ${one}`, `# ${many}`);

/** A duration: `45 s`, `7 min`, `6 min 30 s`, `1 h 15 min`. */
export function lengthWords(seconds: number): string {
  const parts = [
    [Math.floor(seconds / 3600), 'h'],
    [Math.floor((seconds % 3600) / 60), 'min'],
    [seconds % 60, 's'],
  ] as const;
  const words = parts.filter(([n]) => n > 0).map(([n, unit]) => `${n} ${unit}`);
  return words.length > 0 ? words.join(' ') : say`0 min`;
}

/** A duration in whole minutes, rounded up: `42 min`, `1 h 15 min`. */
export const minutesWords = (minutes: number): string =>
  lengthWords(Math.ceil(minutes - 1e-6) * 60);

/** `Tue 24 November, 15:15`. */
export function momentWords(moment: ClockSecond, { on, clock, order }: Speech): string {
  const day = Math.floor(moment / SECONDS_PER_DAY);
  return `${dateWords(day, on, order)}, ${timeWords(moment - day * SECONDS_PER_DAY, clock)}`;
}

export function clockWords(ahead: number): string {
  const size = Math.abs(ahead);
  const days = Math.floor(size / SECONDS_PER_DAY);
  const rest = size - days * SECONDS_PER_DAY;
  const parts = [
    ...(days > 0 ? [days === 1 ? say`1 day` : say`${days} days`] : []),
    ...(rest > 0 ? [lengthWords(rest)] : []),
  ];
  const half = size === SECONDS_PER_DAY / 2 ? say`: am and pm are swapped` : '';
  return ahead > 0
    ? say`the timer’s clock is ${parts.join(' ')} fast${half}`
    : say`the timer’s clock is ${parts.join(' ')} slow${half}`;
}
