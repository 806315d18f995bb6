/**
 * Whether two nominal cycles ever overlap: a proof for all dates to the end of the calendar, not a sample of weeks (timing-rules.md
 * sections 5 and 7).
 *
 * Why it is complete: a nominal cycle depends only on its start and on the weekday and month of its date (nominal.ts). So each start has a
 * few classes of dates, and in each the cycle occupies the same period, counted from 00:00 of its date. Two cycles whose dates are k days
 * apart overlap or not by their two periods and k alone, and only those k matter at which the first period reaches the second. Whether such
 * dates exist is a question about two sets of days and k, which meetings.ts answers without going through dates; answers are cached, since
 * starts of one program share them. All pairs of starts, of their classes and of k within reach are tried, and nothing else can overlap.
 *
 * Two shortcuts save most of the work without changing any answer. A cycle that overlaps a later one also overlaps the next to begin. So
 * the smallest gap from each start to any next beginning is found first (gaps.ts), and a start whose longest cycle fits in it is never the
 * first of a pair. And pairs that overlap mostly do so soon, so their first common dates are tried in order before their classes.
 */
import {
  SECONDS_PER_DAY,
  type ClockSecond,
  type EpochDay,
  type TimeText,
} from '../time/calendar.ts';
import type { StartDays } from '../time/dayRules.ts';
import type { Effort } from './effort.ts';
import { gapsOf, type Gap } from './gaps.ts';
import { canMeet, cellOf, type Meetings } from '../time/meetings.ts';
import { namedStart, type Named, type Opening, type Span } from './namedStarts.ts';
import {
  asSet,
  type CycleClass,
  type Occupied,
  type PercentChoices,
  type ProgramCycles,
} from './nominal.ts';

interface CycleRef {
  readonly letter: string;
  readonly start: TimeText;
  /** The date on which the start was due. */
  readonly day: EpochDay;
  readonly begins: ClockSecond;
  /** Exclusive. */
  readonly ends: ClockSecond;
}

/** Two nominal cycles with at least one second in common; `first` begins earlier (plan-format.md, `check`). */
export interface Overlap {
  readonly first: CycleRef;
  readonly second: CycleRef;
  readonly sharedSeconds: number;
}

const compareText = (x: string, y: string) => (x < y ? -1 : x > y ? 1 : 0);

/** Order of events of one pair of starts: first's beginning, second's, first's date, second's date. */
function compareEvents(x: Overlap, y: Overlap): number {
  return (
    x.first.begins - y.first.begins ||
    x.second.begins - y.second.begins ||
    x.first.day - y.first.day ||
    x.second.day - y.second.day
  );
}

/** An overlap with its sort keys. */
interface Entry {
  readonly overlap: Overlap;
  /** Of the first. */
  readonly begins: ClockSecond;
  /** Positions of first and second in the order of letter and start, as one number. */
  readonly places: number;
}

/** Order of entries in `check`: first's beginning, first's letter and start, second's letter and start. */
const compareEntries = (x: Entry, y: Entry): number => x.begins - y.begins || x.places - y.places;

const earlier = (x: Overlap | null, y: Overlap | null) =>
  x === null ? y : y === null || compareEvents(x, y) <= 0 ? x : y;

/** Dates of a pair tried one by one before its classes. */
const DATES_TO_TRY = 32;

/** Finds overlaps among complete programs; caches what it learns about their dates. */
export class OverlapProof {
  private readonly meetings: Meetings;
  private readonly programs: readonly ProgramCycles[];
  private readonly span: Span;
  private readonly effort: Effort;

  private knownGaps: readonly Gap[] | null = null;

  /** @param programs complete ones, ascending by letter */
  constructor(programs: readonly ProgramCycles[], span: Span, meetings: Meetings, effort: Effort) {
    this.programs = programs;
    this.span = span;
    this.meetings = meetings;
    this.effort = effort;
  }

  private named(program: ProgramCycles, start: StartDays, choices: PercentChoices): Named {
    return namedStart(program, start, choices, this.span, this.meetings);
  }

  /** Gap from each beginning to the next; computed once. */
  gaps(): readonly Gap[] {
    return (this.knownGaps ??= gapsOf(this.programs, this.span, this.meetings, this.effort));
  }

  /**
   * For each pair of start names that ever overlap, the earliest event in the span, in the order of plan-format.md.
   *
   * @param choices percents that a program's months may have
   */
  find(
    choices: (program: ProgramCycles) => PercentChoices = asSet,
    progress: (share: number) => void = () => undefined,
  ): Overlap[] {
    const names = this.programs.flatMap((program) => {
      const percents = choices(program);
      return program.starts
        .map((start) => this.named(program, start, percents))
        .filter(({ stretches }) => stretches.length > 0);
    });
    const leastGap = new Map<StartDays, number>();
    for (const { beginning, seconds } of this.gaps())
      leastGap.set(beginning.start, Math.min(leastGap.get(beginning.start) ?? Infinity, seconds));
    const reaching = new Set(
      names.filter(({ start, longest: own }) => own > (leastGap.get(start) ?? Infinity)),
    );
    if (reaching.size === 0) return [];
    const found: Entry[] = [];
    names.forEach((x, i) => {
      progress(i / names.length);
      for (let j = i; j < names.length; j++) {
        const y = names[j];
        if (!y || !(reaching.has(x) || reaching.has(y))) continue;
        const forth = reaching.has(x) ? this.firstEvent(x, y) : null;
        const overlap = x !== y && reaching.has(y) ? this.firstEvent(y, x, forth) : forth;
        if (overlap === null) continue;
        const [first, second] = overlap === forth ? [i, j] : [j, i];
        const places = first * names.length + second;
        found.push({ overlap, begins: overlap.first.begins, places });
      }
    });
    return found.sort(compareEntries).map(({ overlap }) => overlap);
  }

  /** Whether a start of a program, moved to another time of day, would ever overlap another or itself. */
  blocks(program: ProgramCycles, start: StartDays, others: readonly Named[]): boolean {
    const moved = this.named(program, start, asSet(program));
    if (moved.stretches.length === 0) return false;
    return (
      this.firstEvent(moved, moved) !== null ||
      others.some(
        (other) => this.firstEvent(moved, other) !== null || this.firstEvent(other, moved) !== null,
      )
    );
  }

  /** All starts as set, except one occurrence of one of them. */
  othersThan(letter: string, without: TimeText): Named[] {
    return this.programs.flatMap((program) =>
      program.starts
        .map((start) =>
          program.letter === letter && start.start === without
            ? { ...start, times: start.times - 1 }
            : start,
        )
        .filter(({ times }) => times > 0)
        .map((start) => this.named(program, start, asSet(program)))
        .filter(({ stretches }) => stretches.length > 0),
    );
  }

  /** Whether two cycles k days apart are an event with x's first. */
  private isEvent(
    x: Named,
    a: Occupied,
    y: Named,
    b: Pick<Occupied, 'begins'>,
    k: number,
  ): boolean {
    const gap = b.begins + k * SECONDS_PER_DAY - a.begins;
    if (gap < 0 || gap >= a.ends - a.begins) return false;
    const same = x.letter === y.letter && x.start.start === y.start.start;
    if (same) return k > 0 || (k === 0 && (x.start.times > 1 || x.start !== y.start));
    if (gap > 0) return true;
    const order = compareText(x.letter, y.letter) || compareText(x.start.start, y.start.start);
    return order < 0;
  }

  /**
   * The earliest event of two starts with x's cycle first, or null.
   *
   * @param known an event of the two that counts as well; only earlier ones are sought
   */
  private firstEvent(x: Named, y: Named, known: Overlap | null = null): Overlap | null {
    const leastK = Math.ceil((x.firstBegins - y.lastBegins) / SECONDS_PER_DAY);
    const mostK = Math.ceil((x.lastEnds - y.firstBegins) / SECONDS_PER_DAY) - 1;
    let best = known;
    for (let k = leastK; k <= mostK; k++) {
      this.effort.spend(4);
      if (!reaches(x, y, k)) continue;
      const found = this.firstApart(x, y, k, best);
      best = earlier(best, found);
      // From the first of all dates on: the same date with more days between the two comes later.
      if (found?.first.day === x.firstDay && x.firstBegins === x.lastBegins) break;
    }
    return best;
  }

  /** The earliest event with y's date k days after x's: date by date at first, then class by class. */
  private firstApart(x: Named, y: Named, k: number, best: Overlap | null): Overlap | null {
    const least = Math.max(x.least, y.least - k);
    const dates = this.meetings.series(x.dates, y.dates, k, least);
    const latestDay =
      best === null ? Infinity : (best.first.begins - x.firstBegins) / SECONDS_PER_DAY;
    const single = x.stretches.length === 1 && y.stretches.length === 1;
    for (let place = 0; place < DATES_TO_TRY; place++) {
      const date = dates.at(place);
      if (date === null || date.day > latestDay) return null;
      const a = x.stretchAt[date.cell] ?? null;
      const b = y.stretchAt[date.laterCell] ?? null;
      if (a && b && this.isEvent(x, a, y, b, k)) return eventOf(x, a, y, b, date.day, k);
      if (single && a && b) return null;
      this.effort.spend(4);
    }
    return this.firstOfClasses(x, y, k);
  }

  /**
   * The earliest of all dates, class by class. Whether there is an event depends on the length of the first cycle and the beginning of the
   * second, so openings are enough.
   */
  private firstOfClasses(x: Named, y: Named, k: number): Overlap | null {
    const least = Math.max(x.least, y.least - k);
    let best: Overlap | null = null;
    for (const own of x.openings)
      for (const opening of y.openings) {
        this.effort.spend(2);
        if (!canReach(own, opening, k)) continue;
        const gap = opening.begins + k * SECONDS_PER_DAY - own.begins;
        for (const a of own.stretches) {
          if (a.ends - a.begins <= gap) break;
          if (!canMeet(a, opening, k) || !this.isEvent(x, a, y, opening, k)) continue;
          const day = this.meetings.first(a.dates, opening.dates, k, least);
          const b = day === null ? null : y.stretchAt[cellOf(day + k)];
          if (day !== null && b) best = earlier(best, eventOf(x, a, y, b, day, k));
        }
      }
    return best;
  }

  /** How often two starts overlap in an average year, at the set percents. */
  perYear({ first, second }: Overlap): number {
    const names = [first, second].map(({ letter, start }) => {
      const program = this.programs.find((program) => program.letter === letter);
      const own = program?.starts.find((candidate) => candidate.start === start);
      return program && own ? this.named(program, own, asSet(program)) : null;
    });
    const [x, y] = names;
    if (!x || !y) return 0;
    const same = first.letter === second.letter && first.start === second.start;
    const events = this.eventsIn400Years(x, y) + (same ? 0 : this.eventsIn400Years(y, x));
    return events / 400;
  }

  private eventsIn400Years(x: Named, y: Named): number {
    const leastK = Math.ceil((x.firstBegins - y.lastBegins) / SECONDS_PER_DAY);
    const mostK = Math.ceil((x.lastEnds - y.firstBegins) / SECONDS_PER_DAY) - 1;
    const same = x.letter === y.letter && x.start.start === y.start.start;
    let events = 0;
    for (const a of x.stretches)
      for (const opening of (same ? x : y).openings)
        for (let k = leastK; k <= mostK; k++)
          if (canMeet(a, opening, k) && this.isEvent(x, a, same ? x : y, opening, k)) {
            this.effort.spend(4);
            events += this.meetings.inFourCenturies(a.dates, opening.dates, k);
          }
    return events;
  }
}

/** Whether some cycle of one reaches the beginning of the other, k days later. */
function canReach({ begins, longest }: Opening, other: Opening, k: number): boolean {
  const gap = other.begins + k * SECONDS_PER_DAY - begins;
  return gap >= 0 && gap < longest;
}

/** Whether some cycle of x reaches some beginning of y k days later: a cheap no for most pairs of starts. */
const reaches = (x: Named, y: Named, k: number): boolean =>
  x.openings.some((opening) => y.openings.some((other) => canReach(opening, other, k)));

function eventOf(
  x: Named,
  a: CycleClass,
  y: Named,
  b: CycleClass,
  day: EpochDay,
  k: number,
): Overlap {
  const first = cycleRef(x, a, day);
  const second = cycleRef(y, b, day + k);
  return { first, second, sharedSeconds: Math.min(first.ends, second.ends) - second.begins };
}

function cycleRef({ letter, start }: Named, { begins, ends }: CycleClass, day: EpochDay): CycleRef {
  const midnight = day * SECONDS_PER_DAY;
  return { letter, start: start.start, day, begins: midnight + begins, ends: midnight + ends };
}
