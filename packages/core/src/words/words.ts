/** The one place where data becomes English: times, lengths, faults, findings and the verdict. */
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
} from '../time/calendar.ts';
import type { Check, DrivenPercent, Verdict } from '../judge/check.ts';
import { pathText, type Fault } from '../document/fault.ts';
import type { Overlap } from '../engine/overlap.ts';
import type { Days, OnOverlap, TimeText } from '../plan/plan.ts';
import type { Missing } from '../plan/program.ts';

export type ClockStyle = '12' | '24';

/** How the reader likes times, and the day from which dates are seen: its year goes without saying. */
export interface Speech {
  readonly on: EpochDay;
  readonly clock: ClockStyle;
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

/** `January` to `December`, 1 to 12. */
export const monthName = (month: number): string => MONTH_NAMES[month - 1] ?? '';

/** `Mon` to `Sun`, index 0 Monday. */
export const weekdayName = (index: number): string => WEEKDAY_NAMES[index] ?? '';

export const listed = (items: readonly (string | number)[], last = 'and') =>
  items.length < 2
    ? items.join('')
    : `${items.slice(0, -1).join(', ')} ${last} ${items[items.length - 1]}`;

/** A second of the day: `5:00`, `17:30`, or `5:00 am`, `5:30 pm`; seconds only where there are any. */
export function timeWords(secondOfDay: number, clock: ClockStyle): string {
  const hour = Math.floor(secondOfDay / 3600);
  const minute = String(Math.floor((secondOfDay % 3600) / 60)).padStart(2, '0');
  const second = secondOfDay % 60;
  const tail = second === 0 ? minute : `${minute}:${String(second).padStart(2, '0')}`;
  if (clock === '24') return `${hour}:${tail}`;
  return `${((hour + 11) % 12) + 1}:${tail} ${hour < 12 ? 'am' : 'pm'}`;
}

export const capitalized = (sentence: string) =>
  sentence.replace(/^./, (first) => first.toUpperCase());

export const startWords = (start: TimeText, clock: ClockStyle) =>
  timeWords(parseTime(start) ?? 0, clock);

const timeOfMoment = (moment: ClockSecond, clock: ClockStyle) =>
  timeWords(((moment % SECONDS_PER_DAY) + SECONDS_PER_DAY) % SECONDS_PER_DAY, clock);

/** `Wed 9 June`, with the year where it is not that of the speaker's date; always, where that is null. */
export function dateWords(day: EpochDay, on: EpochDay | null): string {
  const { year, month, day: dayOfMonth } = civilOf(day);
  const words = `${weekdayName(weekdayIndexOf(day))} ${dayOfMonth} ${MONTH_NAMES[month - 1]}`;
  return on !== null && year === civilOf(on).year ? words : `${words} ${year}`;
}

export const weekdaysWords = (weekdays: readonly Weekday[]) =>
  WEEKDAYS.filter((weekday) => weekdays.includes(weekday))
    .map((weekday) => weekdayName(WEEKDAYS.indexOf(weekday)))
    .join(' ');

/** A count of days as people say it: `every day`, `every other day`, `every 6 days`. */
export const everyDaysWords = (days: number) =>
  days === 1 ? 'every day' : days === 2 ? 'every other day' : `every ${days} days`;

/** Days as people say them: `Mon Wed Fri`, `every 6 days from Wed 9 June 2027, not Sat`, `not set`. */
export function daysWords(days: Days | null, clock: ClockStyle = '24'): string {
  if (days === null) return 'not set';
  const blocked = 'blockedWeekdays' in days ? (days.blockedWeekdays ?? []) : [];
  const not = blocked.length > 0 ? `, not ${weekdaysWords(blocked)}` : '';
  switch (days.rule) {
    case 'daily':
      return 'every day';
    case 'weekdays':
      if (days.weekdays.length === 7) return 'every day';
      return weekdaysWords(days.weekdays) || 'no day';
    case 'interval': {
      const first = parseDate(days.firstDate);
      const from = first === null ? '' : ` from ${dateWords(first, null)}`;
      return `${everyDaysWords(days.everyDays)}${from}${not}`;
    }
    case 'hours': {
      const first = parseMoment(days.first);
      const from =
        first === null
          ? ''
          : ` from ${dateWords(Math.floor(first / SECONDS_PER_DAY), null)}, ${timeOfMoment(first, clock)}`;
      return `every ${days.everyHours} h${from}${not}`;
    }
    case 'odd':
      return `odd dates${not}`;
    case 'even':
      return `even dates${not}`;
  }
}

/** A length of time: `45 s`, `7 min`, `6 min 30 s`, `1 h 15 min`. */
export function lengthWords(seconds: number): string {
  const parts = [
    [Math.floor(seconds / 3600), 'h'],
    [Math.floor((seconds % 3600) / 60), 'min'],
    [seconds % 60, 's'],
  ] as const;
  const words = parts.filter(([n]) => n > 0).map(([n, unit]) => `${n} ${unit}`);
  return words.length > 0 ? words.join(' ') : '0 min';
}

const quoted = (value: string | number) => (typeof value === 'string' ? `"${value}"` : `${value}`);

/** What is wrong and what is allowed; the path is told apart from it. */
export function faultSentence(fault: Fault): string {
  switch (fault.code) {
    case 'not-json':
      return `this is not JSON: ${fault.reason}`;
    case 'wrong-type':
      return `${fault.actual} stands here; ${fault.expected} is needed`;
    case 'missing-field':
      return `this field is missing; needed: ${fault.expected}`;
    case 'unknown-field':
      return `a field of this name is not known here; known: ${fault.allowed.join(', ')}`;
    case 'out-of-range': {
      const most = fault.most === null ? 'or more' : `to ${fault.most}`;
      return fault.above
        ? `${fault.actual} is out of range; allowed: above ${fault.least}`
        : `${fault.actual} is out of range; allowed: ${fault.least} ${most}`;
    }
    case 'not-one-of':
      return `${fault.actual} is not allowed; allowed: ${fault.allowed.map(quoted).join(', ')}`;
    case 'wrong-length':
      return `the length is ${fault.actual}; allowed: ${fault.expected}`;
    case 'malformed':
      return `${fault.actual} is not ${fault.expected}`;
    case 'repeated':
      return `${fault.actual} stands here for the second time; each may stand once`;
    case 'wrong-version':
      return `version ${fault.actual} is not known here; this reader knows version ${fault.known}`;
    case 'unknown-station':
      return `station ${fault.station} is not among the stations; add it there or leave it out here`;
    case 'unknown-program':
      return `there is no program ${fault.program}`;
    case 'beyond-timer':
      return `this timer's last ${fault.what} is ${fault.last}`;
    case 'starts-with-hours-rule':
      return 'the day rule hours takes the place of starts; the list of starts must be empty';
    case 'no-free-second':
      return 'these windows leave no second of the week free; at least one is needed';
    case 'too-much-work':
      return 'working this out would take too long: it comes to too many pieces of watering; allowed: longer pieces, fewer starts, or fewer days at a time';
    case 'already-exists':
      return `${fault.what} is there already`;
    case 'still-used':
      return `station ${fault.station} still has a run in ${listed(fault.programs)}; take that out first`;
  }
}

/** A fault as one line, `PATH: what is wrong and what is allowed`. */
export const faultLine = (fault: Fault) => `${pathText(fault.path)}: ${faultSentence(fault)}`;

/** What happened on the first date, with both starts named. */
export function overlapSentence(overlap: Overlap, { on, clock }: Speech): string {
  const { first, second, sharedSeconds } = overlap;
  const shared = `${lengthWords(sharedSeconds)} in common`;
  const date = dateWords(second.day, on);
  const at = startWords(second.start, clock);
  if (first.begins === second.begins)
    return first.letter === second.letter
      ? `${date}: ${first.letter} has the start ${at} twice, ${shared}.`
      : `${date}: ${first.letter} and ${second.letter} both start at ${at}, ${shared}.`;
  const begun =
    first.day === second.day
      ? `begun at ${startWords(first.start, clock)}`
      : `begun ${dateWords(first.day, on)} at ${startWords(first.start, clock)}`;
  return first.letter === second.letter
    ? `${date}: ${second.letter} starts again at ${at} while its own cycle, ${begun}, is still running, ${shared}.`
    : `${date}: ${second.letter} starts at ${at} while ${first.letter}, ${begun}, is still running, ${shared}.`;
}

/** What the timer does where two cycles overlap, taken by themselves. */
export function consequenceSentence(
  { first, second, sharedSeconds }: Overlap,
  onOverlap: OnOverlap,
  { clock }: Speech,
): string {
  switch (onOverlap) {
    case 'queue':
      return `This timer makes ${second.letter} wait until ${timeOfMoment(first.ends, clock)}, so it ends ${lengthWords(first.ends - second.begins)} late.`;
    case 'drop':
      return `This timer loses the ${startWords(second.start, clock)} start of ${second.letter}: it does not water then.`;
    case 'cut':
      return `This timer cuts ${first.letter} off at ${timeOfMoment(second.begins, clock)}: its last ${lengthWords(first.ends - second.begins)} are lost.`;
    case 'together':
      return `This timer runs both at once, so they share the pressure for ${lengthWords(sharedSeconds)}.`;
  }
}

const MISSING_WORDS: Record<Missing, string> = {
  starts: 'a start',
  runs: 'run minutes on a station that is switched on',
  days: 'watering days',
};

/** What a half-set program lacks, and what follows. */
export function missingSentence(letter: string, missing: readonly Missing[]): string {
  return `${letter} never waters: it needs ${listed(missing.map((one) => MISSING_WORDS[one]))}.`;
}

const MOVERS: Record<DrivenPercent['by'], string> = {
  sensor: 'a sensor moves the percent',
  service: 'an online service moves the percent',
};

/** `once a year`, `about 26 times a year`, `once in about 12 years`. */
export function oftenWords(perYear: number): string {
  if (perYear >= 1.5) return `about ${Math.round(perYear)} times a year`;
  if (perYear >= 0.75) return 'about once a year';
  return perYear <= 0
    ? 'never in an endless calendar'
    : `once in about ${Math.round(1 / perYear)} years`;
}

export interface VerdictWords {
  /** What to show it as: the verdict, or an overlap where one can come of a percent that others move. */
  readonly tone: Verdict;
  /** One line, to be read at arm's length. */
  readonly headline: string;
  /** What follows from it and what to do; empty where nothing does. */
  readonly detail: string;
}

/** Which two starts meet first when the percent goes a step too far. */
function meetsSentence(percent: number, { first, second }: Overlap, { on, clock }: Speech): string {
  const one = `${first.letter} ${startWords(first.start, clock)}`;
  const other = `${second.letter} ${startWords(second.start, clock)}`;
  const date = dateWords(second.day, on);
  return one === other
    ? `At ${percent} % ${one} would run into itself first, on ${date}.`
    : `At ${percent} % ${one} and ${other} would meet first, on ${date}.`;
}

export const upTo = (percent: number | null) =>
  percent === null ? 'not even at the lowest percent' : `up to ${percent} %`;

/** The verdict as people read it. */
export function verdictWords(check: Check, onOverlap: OnOverlap, speech: Speech): VerdictWords {
  const [overlap] = check.overlaps;
  const others = check.overlapCount - 1;
  const unfinished = check.programs.filter(
    ({ missing }) =>
      missing.length > 0 && !(missing.includes('starts') && missing.includes('runs')),
  );
  const lacks = unfinished.map(({ letter, missing }) => missingSentence(letter, missing));
  const { driven, beyond } = check;
  const tone = driven?.overlap && check.verdict === 'clear' ? 'overlap' : check.verdict;
  if (driven?.overlap && check.verdict === 'clear')
    return {
      tone,
      headline: `Clear as set, but ${MOVERS[driven.by]} between ${driven.lowest} and ${driven.highest} %`,
      detail: `Then it can come to this. ${overlapSentence(driven.overlap, speech)} ${consequenceSentence(driven.overlap, onOverlap, speech)}`,
    };
  switch (check.verdict) {
    case 'overlap': {
      if (!overlap) return { tone, headline: 'Overlaps', detail: '' };
      const often =
        check.perYear[0] === undefined ? '' : ` It happens ${oftenWords(check.perYear[0])}.`;
      const more =
        others === 0 ? '' : ` ${others} more ${others === 1 ? 'pair' : 'pairs'} of starts overlap.`;
      const room =
        check.headroomPercent === null ? '' : ` Clear ${upTo(check.headroomPercent)} only.`;
      return {
        tone,
        headline: overlapSentence(overlap, speech),
        detail: `${consequenceSentence(overlap, onOverlap, speech)}${often}${more}${room}`,
      };
    }
    case 'incomplete':
      return {
        tone,
        headline: lacks[0] ?? '',
        detail: [...lacks.slice(1), 'Nothing that is set overlaps.'].join(' '),
      };
    case 'empty':
      return {
        tone,
        headline: 'Nothing waters yet',
        detail: 'Give a program a start, run minutes and days.',
      };
    case 'clear': {
      const meets = beyond ? ` ${meetsSentence(beyond.percent, beyond.meets, speech)}` : '';
      const range = driven
        ? ` ${capitalized(MOVERS[driven.by])}: it stays clear anywhere between ${driven.lowest} and ${driven.highest} %.`
        : '';
      return {
        tone,
        headline:
          check.headroomPercent === null
            ? 'Clear for good as set'
            : `Clear for good, ${upTo(check.headroomPercent)}`,
        detail:
          (check.headroomPercent === null
            ? 'No two cycles ever overlap at the percents set, but they do at the lowest.'
            : 'No two cycles ever overlap, on any date.') +
          range +
          meets,
      };
    }
  }
}
