/** The one place where data becomes English: times, lengths, faults, findings and the verdict. */
import {
  civilOf,
  parseDate,
  parseTime,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  type ClockSecond,
  type EpochDay,
} from './calendar.ts';
import type { Check } from './check.ts';
import { pathText, type Fault } from './fault.ts';
import type { Finding, TimerLimit } from './findings.ts';
import type { Overlap } from './overlap.ts';
import type { OnOverlap, TimeText } from './plan.ts';
import type { Missing } from './program.ts';

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

/** `Mon` to `Sun`, index 0 Monday. */
export const weekdayName = (index: number): string => WEEKDAY_NAMES[index] ?? '';

const listed = (items: readonly (string | number)[], last = 'and') =>
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

export const startWords = (start: TimeText, clock: ClockStyle) =>
  timeWords(parseTime(start) ?? 0, clock);

const timeOfMoment = (moment: ClockSecond, clock: ClockStyle) =>
  timeWords(((moment % SECONDS_PER_DAY) + SECONDS_PER_DAY) % SECONDS_PER_DAY, clock);

/** `Wed 9 June`, with the year where it is not the speaker's. */
export function dateWords(day: EpochDay, on: EpochDay): string {
  const { year, month, day: dayOfMonth } = civilOf(day);
  const words = `${weekdayName(weekdayIndexOf(day))} ${dayOfMonth} ${MONTH_NAMES[month - 1]}`;
  return year === civilOf(on).year ? words : `${words} ${year}`;
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
    case 'not-covered':
      return `${fault.feature}: this version does not work that out yet; allowed for now: ${fault.instead}`;
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

export interface VerdictWords {
  /** One line, to be read at arm's length. */
  readonly headline: string;
  /** What follows from it and what to do; empty where nothing does. */
  readonly detail: string;
}

const upTo = (percent: number | null) =>
  percent === null ? 'not even at the lowest percent' : `up to ${percent} %`;

/** The verdict as people read it. */
export function verdictWords(check: Check, onOverlap: OnOverlap, speech: Speech): VerdictWords {
  const [overlap, ...others] = check.overlaps;
  const unfinished = check.programs.filter(
    ({ missing }) =>
      missing.length > 0 && !(missing.includes('starts') && missing.includes('runs')),
  );
  const lacks = unfinished.map(({ letter, missing }) => missingSentence(letter, missing));
  switch (check.verdict) {
    case 'overlap': {
      if (!overlap) return { headline: 'Overlaps', detail: '' };
      const more =
        others.length === 0
          ? ''
          : ` ${others.length} more ${others.length === 1 ? 'pair' : 'pairs'} of starts overlap.`;
      const room =
        check.headroomPercent === null ? '' : ` Clear ${upTo(check.headroomPercent)} only.`;
      return {
        headline: overlapSentence(overlap, speech),
        detail: `${consequenceSentence(overlap, onOverlap, speech)}${more}${room}`,
      };
    }
    case 'incomplete':
      return {
        headline: lacks[0] ?? '',
        detail: [...lacks.slice(1), 'Nothing that is set overlaps.'].join(' '),
      };
    case 'empty':
      return {
        headline: 'Nothing waters yet',
        detail: 'Give a program a start, run minutes and days.',
      };
    case 'clear':
      return {
        headline:
          check.headroomPercent === null
            ? 'Clear for good as set'
            : `Clear for good, ${upTo(check.headroomPercent)}`,
        detail:
          check.headroomPercent === null
            ? 'No two cycles ever overlap at the percents set, but they do at the lowest.'
            : 'No two cycles ever overlap, on any date.',
      };
  }
}

function limitSentence(limit: TimerLimit, clock: ClockStyle): string {
  switch (limit.what) {
    case 'start-step':
      return `the start ${startWords(limit.given, clock)} is off the timer's step of ${limit.stepMinutes} min`;
    case 'start-count':
      return `${limit.given} starts are set, but a program of this timer has ${limit.most}`;
    case 'run-step':
      return `a run of ${lengthWords(limit.given)} is off the timer's step of ${lengthWords(limit.stepSeconds)}`;
    case 'run-longest':
      return `a run of ${lengthWords(limit.given)} is above the timer's longest, ${lengthWords(limit.mostSeconds)}`;
    case 'day-rule':
      return `this timer has no day rule ${limit.given}, only ${listed(limit.allowed)}`;
    case 'percent':
      return `${limit.given} % is not on this timer: it goes from ${limit.steps[0]} to ${limit.steps.at(-1)} %${limit.steps.length > 1 ? ` in steps of ${(limit.steps[1] ?? 0) - (limit.steps[0] ?? 0)}` : ''}`;
    case 'no-percent-here':
      return `this timer cannot hold ${limit.given} % here, and runs as if it said 100 %`;
    case 'no-months':
      return 'this timer has no percent for each month';
    case 'delay':
      return `a delay of ${lengthWords(limit.given)} is above the timer's longest, ${lengthWords(limit.mostSeconds)}`;
    case 'no-program-soak':
      return 'this timer has no cycle-and-soak for a program';
    case 'no-windows':
      return 'this timer has no no-water windows and waters on through them';
    case 'at-once':
      return `${limit.given} stations at once are set, but this timer opens ${limit.most} at the most`;
  }
}

/** A finding as a sentence for the person at the timer. */
export function findingSentence(finding: Finding, speech: Speech): string {
  const { where } = finding;
  switch (finding.code) {
    case 'overlap':
      return `${overlapSentence(finding.overlap, speech)} ${consequenceSentence(finding.overlap, finding.onOverlap, speech)}`;
    case 'missing-starts':
    case 'missing-runs':
    case 'missing-days':
      // The cast holds because these are the three codes of `Missing`.
      return missingSentence(where.program ?? '', [finding.code.slice(8) as Missing]);
    case 'same-start-twice':
      return `${where.program} has the start ${startWords(where.start ?? '', speech.clock)} ${finding.times} times: it waters again each time. Take the others out.`;
    case 'not-on-timer': {
      const station = where.station === undefined ? '' : ` station ${where.station}`;
      const place = where.program === undefined ? '' : `${where.program}${station}: `;
      return `${place}${limitSentence(finding.limit, speech.clock)}.`;
    }
    case 'little-headroom':
      return finding.headroom === null
        ? 'Already at the lowest percent two cycles overlap. Move the starts apart.'
        : `Free of overlaps ${upTo(finding.headroom)} only; ${finding.wanted} % is wanted for midsummer. Move the starts apart.`;
    case 'station-in-two-programs':
      return `Station ${where.station} is in ${listed(finding.programs)}: it gets water from each of them.`;
    case 'rain-delay': {
      const day = parseDate(finding.until.slice(0, 10)) ?? speech.on;
      const time = finding.until.length > 10 ? finding.until.slice(11) : '00:00';
      return `Rain delay: nothing waters before ${dateWords(day, speech.on)}, ${startWords(time, speech.clock)}.`;
    }
    case 'timer-off':
      return 'The timer is switched off: nothing waters until it is on "run" again.';
  }
}
