/**
 * Whether two nominal cycles ever overlap: a proof for all dates to the end of the calendar, not a sample of weeks
 * (timing-rules.md sections 5 and 7).
 *
 * Why it is complete. A nominal cycle is fixed by its start, the weekday and the month of its date (nominal.ts); so each
 * start comes to a few classes of dates, and in each of them the cycle occupies the same stretch, counted from 00:00 of its
 * date. Two cycles, the second's date k days after the first's, overlap or not by their two stretches and k alone; and only
 * those k can matter by which the first's stretch reaches the second's. Whether there are such dates is a question about two
 * sets of days and k, answered by meetings.ts without looking at dates one by one, and remembered, since starts of one
 * program share it. So all pairs of starts, of their classes and of k within reach are gone through, and nothing else can
 * overlap.
 *
 * Two things spare most of the work and change no answer. A cycle overlaps a later one only if it overlaps the next that
 * begins; so of each start first the least gap to any next beginning is found (`nextBeginning`), and a start whose longest
 * cycle is no longer than that is never the first of two. And a pair that overlaps at all mostly does so soon: some weeks of
 * its dates are looked at first, in order, and the classes only where nothing showed.
 */
import {
  LAST_DAY,
  monthOf,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  type ClockSecond,
  type EpochDay,
} from './calendar.ts';
import { EVERY_WEEKDAY, firstDayNotDelayed, isIn, type StartDays } from './days.ts';
import type { Effort } from './effort.ts';
import { EVERY_MONTH, type DayClass, type Meetings } from './meetings.ts';
import {
  asSet,
  lowestWeekday,
  type CycleClass,
  type PercentChoices,
  type ProgramCycles,
} from './nominal.ts';
import type { TimeText } from './plan.ts';

/** The dates that count: starts due on or after `from`, and not before `resumes`. */
export interface Span {
  readonly from: EpochDay;
  readonly resumes: ClockSecond;
}

export interface CycleRef {
  readonly letter: string;
  readonly start: TimeText;
  /** The date on which the start was due. */
  readonly day: EpochDay;
  readonly begins: ClockSecond;
  /** The end itself is not occupied. */
  readonly ends: ClockSecond;
}

/** Two nominal cycles with at least one second in common; `first` begins earlier (plan-format.md, `check`). */
export interface Overlap {
  readonly first: CycleRef;
  readonly second: CycleRef;
  readonly sharedSeconds: number;
}

/** Some dates of a start, all with the same stretch. */
interface Stretch extends CycleClass {
  readonly dates: DayClass;
}

/** One start by name with all that can come of it. */
interface Named {
  readonly letter: string;
  readonly start: StartDays;
  /** All its dates. */
  readonly dates: DayClass;
  /** The first date that counts for it. */
  readonly least: EpochDay;
  readonly stretches: readonly Stretch[];
  readonly firstBegins: number;
  readonly lastBegins: number;
  readonly lastEnds: number;
  readonly longest: number;
}

/** A beginning: of a start, on those weekdays on which it begins at the same time of day. */
interface Beginning {
  readonly program: ProgramCycles;
  readonly start: StartDays;
  readonly dates: DayClass;
  readonly least: EpochDay;
  readonly begins: number;
  readonly timeOfDay: number;
  /** A weekday of it. */
  readonly weekday: number;
}

/** A beginning, and the least number of seconds from it to the next of any start on any date; endless: none in reach. */
interface Gap {
  readonly beginning: Beginning;
  readonly seconds: number;
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

/** Order of the entries of `check`: first's beginning, first's letter and start, second's letter and start. */
function compareEntries(x: Overlap, y: Overlap): number {
  return (
    x.first.begins - y.first.begins ||
    compareText(x.first.letter, y.first.letter) ||
    compareText(x.first.start, y.first.start) ||
    compareText(x.second.letter, y.second.letter) ||
    compareText(x.second.start, y.second.start)
  );
}

const earlier = (x: Overlap | null, y: Overlap | null) =>
  x === null ? y : y === null || compareEvents(x, y) <= 0 ? x : y;

/** No percent goes beyond it (plan-format.md). */
const HIGHEST_PERCENT = 500;

/** Days of a pair's dates that are looked at one by one before its classes are. */
const DAYS_TO_LOOK_AT = 70;

/** Looks for overlaps among complete programs; remembers what it has found about their dates. */
export class OverlapProof {
  private readonly meetings: Meetings;
  private readonly programs: readonly ProgramCycles[];
  private readonly span: Span;
  private readonly effort: Effort;

  private knownGaps: readonly Gap[] | null = null;

  /** @param programs complete ones, ascending by letter. */
  constructor(programs: readonly ProgramCycles[], span: Span, meetings: Meetings, effort: Effort) {
    this.programs = programs;
    this.span = span;
    this.meetings = meetings;
    this.effort = effort;
  }

  private least({ secondOfDay }: StartDays): EpochDay {
    return firstDayNotDelayed(this.span.resumes, secondOfDay, this.span.from);
  }

  private named(program: ProgramCycles, start: StartDays, choices: PercentChoices): Named {
    const stretches = program
      .classesOf(start, choices)
      .filter(({ begins, ends }) => ends > begins)
      .map((one) => ({
        ...one,
        dates: this.meetings.classOf(start.days, one.weekdays, one.months),
      }));
    return {
      letter: program.letter,
      start,
      dates: this.meetings.classOf(start.days, EVERY_WEEKDAY, EVERY_MONTH),
      least: this.least(start),
      stretches,
      firstBegins: Math.min(...stretches.map(({ begins }) => begins)),
      lastBegins: Math.max(...stretches.map(({ begins }) => begins)),
      lastEnds: Math.max(...stretches.map(({ ends }) => ends)),
      longest: Math.max(...stretches.map(({ begins, ends }) => ends - begins)),
    };
  }

  private beginnings(): Beginning[] {
    const all: Beginning[] = [];
    for (const program of this.programs)
      for (const start of program.starts)
        for (const weekdays of program.weekdayMasks()) {
          if (!(weekdays & start.days.weekdays)) continue;
          const weekday = lowestWeekday(weekdays);
          const monday = (weekday - 3) * SECONDS_PER_DAY;
          const begin = program.beginOf(monday + start.secondOfDay);
          if (begin === null) continue;
          const begins = begin - monday;
          all.push({
            program,
            start,
            dates: this.meetings.classOf(start.days, weekdays, EVERY_MONTH),
            least: this.least(start),
            begins,
            timeOfDay: begins % SECONDS_PER_DAY,
            weekday,
          });
        }
    return all.sort((a, b) => a.timeOfDay - b.timeOfDay);
  }

  /**
   * For each beginning the gap to the next one, where that is within reach of the longest cycle conceivable. What the percent
   * is makes no difference to it, so it serves for all of them.
   */
  gaps(): readonly Gap[] {
    if (this.knownGaps) return this.knownGaps;
    const all = this.beginnings();
    const reaches = new Map(
      this.programs.map((program) => [program, program.longestAt(HIGHEST_PERCENT)]),
    );
    return (this.knownGaps = all.map((beginning, i) => ({
      beginning,
      seconds: this.nextBeginning(all, i, reaches.get(beginning.program) ?? 0),
    })));
  }

  private nextBeginning(all: readonly Beginning[], at: number, reach: number): number {
    const x = all[at];
    if (!x) return Infinity;
    // Those at the same time of day stand around it in the list, so the round begins with the first of them.
    let from = at;
    while (from > 0 && all[from - 1]?.timeOfDay === x.timeOfDay) from--;
    for (let round = 0; ; round++) {
      for (let step = 0; step < all.length; step++) {
        const index = (from + step) % all.length;
        const y = all[index];
        if (!y) continue;
        const wrapped = from + step >= all.length ? 1 : 0;
        const gap = y.timeOfDay - x.timeOfDay + (round + wrapped) * SECONDS_PER_DAY;
        if (gap >= reach) return Infinity;
        this.effort.spend(2);
        const k = (gap + x.begins - y.begins) / SECONDS_PER_DAY;
        if (x.start === y.start && (k < 0 || (k === 0 && x.start.times < 2))) continue;
        const least = Math.max(x.least, y.least - k);
        if (this.meetings.first(x.dates, y.dates, k, least) !== null) return gap;
      }
      if ((round - 1) * SECONDS_PER_DAY > (LAST_DAY - x.least + 8) * SECONDS_PER_DAY)
        return Infinity;
    }
  }

  /**
   * For each pair of start names that ever overlap, the earliest event in the span, in the order of plan-format.md.
   *
   * @param choices the percents that the months of a program may have.
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
    const found: Overlap[] = [];
    names.forEach((x, i) => {
      progress(i / names.length);
      for (let j = i; j < names.length; j++) {
        const y = names[j];
        if (!y || !(reaching.has(x) || reaching.has(y))) continue;
        const event = earlier(
          reaching.has(x) ? this.firstEvent(x, y) : null,
          x !== y && reaching.has(y) ? this.firstEvent(y, x) : null,
        );
        if (event) found.push(event);
      }
    });
    return found.sort(compareEntries);
  }

  /** Whether a start of a program, moved to another time of day, would at some time overlap any other or itself. */
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

  /** All starts as they are set, but for one listing of one of them. */
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

  /** Whether two cycles k days apart are an event of which x's is the first. */
  private isEvent(x: Named, a: CycleClass, y: Named, b: CycleClass, k: number): boolean {
    const gap = b.begins + k * SECONDS_PER_DAY - a.begins;
    if (gap < 0 || gap >= a.ends - a.begins) return false;
    const same = x.letter === y.letter && x.start.start === y.start.start;
    if (same) return k > 0 || (k === 0 && (x.start.times > 1 || x.start !== y.start));
    if (gap > 0) return true;
    const order = compareText(x.letter, y.letter) || compareText(x.start.start, y.start.start);
    return order < 0;
  }

  /** The earliest event of two starts of which x's cycle is the first; null: there is none. */
  private firstEvent(x: Named, y: Named): Overlap | null {
    const leastK = Math.ceil((x.firstBegins - y.lastBegins) / SECONDS_PER_DAY);
    const mostK = Math.ceil((x.lastEnds - y.firstBegins) / SECONDS_PER_DAY) - 1;
    if (leastK > mostK) return null;
    this.effort.spend(4);
    if (x.stretches.length === 1 && y.stretches.length === 1)
      return this.firstOfClasses(x, y, leastK, mostK);
    let meet = false;
    for (let k = leastK; k <= mostK && !meet; k++)
      meet = this.meetings.first(x.dates, y.dates, k, Math.max(x.least, y.least - k)) !== null;
    if (!meet) return null;
    return this.firstByDate(x, y, leastK, mostK) ?? this.firstOfClasses(x, y, leastK, mostK);
  }

  /** Some weeks from x's first date, date by date. */
  private firstByDate(x: Named, y: Named, leastK: number, mostK: number): Overlap | null {
    const from = this.meetings.firstOf(x.dates, x.least);
    if (from === null) return null;
    let best: Overlap | null = null;
    for (let day = from; day < from + DAYS_TO_LOOK_AT && day <= LAST_DAY; day++) {
      if (!isIn(x.start.days, day)) continue;
      const a = stretchOn(x, day);
      if (!a) continue;
      // A date later on can begin at the same moment, where a window holds both until then, but not before.
      if (best && day * SECONDS_PER_DAY + a.begins > best.first.begins) break;
      for (let k = leastK; k <= mostK; k++) {
        this.effort.spend(2);
        const other = day + k;
        if (other < y.least || other > LAST_DAY || !isIn(y.start.days, other)) continue;
        const b = stretchOn(y, other);
        if (!b || !this.isEvent(x, a, y, b, k)) continue;
        best = earlier(best, eventOf(x, a, y, b, day, k));
        break;
      }
    }
    return best;
  }

  /** The earliest of all dates, class by class. */
  private firstOfClasses(x: Named, y: Named, leastK: number, mostK: number): Overlap | null {
    let best: Overlap | null = null;
    for (const a of x.stretches) {
      const firstDay = this.meetings.firstOf(a.dates, x.least);
      if (firstDay === null) continue;
      if (best && firstDay * SECONDS_PER_DAY + a.begins > best.first.begins) continue;
      for (const b of y.stretches)
        for (let k = leastK; k <= mostK; k++) {
          if (!this.isEvent(x, a, y, b, k)) continue;
          this.effort.spend(4);
          const day = this.meetings.first(a.dates, b.dates, k, Math.max(x.least, y.least - k));
          if (day === null) continue;
          best = earlier(best, eventOf(x, a, y, b, day, k));
          // Already on the first of all dates: the same two with more days between them come later.
          if (day === firstDay) break;
        }
    }
    return best;
  }

  /**
   * How often two starts overlap in a mean year of an endless calendar, at the percents set.
   */
  perYear({ first, second }: Overlap): number {
    const names = [first, second].map(({ letter, start }) => {
      const program = this.programs.find((one) => one.letter === letter);
      const own = program?.starts.find((one) => one.start === start);
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
      for (const b of y.stretches)
        for (let k = leastK; k <= mostK; k++)
          if (this.isEvent(x, a, same ? x : y, b, k)) {
            this.effort.spend(4);
            events += this.meetings.inFourCenturies(a.dates, b.dates, k);
          }
    return events;
  }
}

/** The stretch of a start on one of its dates; null where it has none then. */
function stretchOn({ stretches }: Named, day: EpochDay): Stretch | null {
  const [only] = stretches;
  if (stretches.length === 1 && only?.months === EVERY_MONTH && only.weekdays === EVERY_WEEKDAY)
    return only;
  const weekday = 1 << weekdayIndexOf(day);
  const month = 1 << (monthOf(day) - 1);
  return stretches.find((one) => one.weekdays & weekday && one.months & month) ?? null;
}

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
