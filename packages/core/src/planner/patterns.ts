/**
 * Days on which a program may water, to choose from: every set of weekdays, every N days in each phase, odd and even dates, and hours that
 * make whole days; intervals skip excluded weekdays.
 */
import { formatDate, type EpochDay, type TimeText } from '../time/calendar.ts';
import {
  EVERY_MONTH_DAY,
  EVERY_WEEKDAY,
  greatestCommonDivisor,
  isIn,
  maskOfMonthDays,
  modulo,
  ruleSet,
  type DaySet,
  type WeekdayMask,
  type Days,
  weekdaysOn,
  weekdaysOfMask,
  laterWeekdays,
  bitsOf,
} from '../time/dayRules.ts';
import { countDates, type DateCount } from '../time/dateCount.ts';
import type { Effort } from '../engine/effort.ts';
import { DAYS_PER_400_YEARS, EVERY_MONTH, Meetings } from '../time/meetings.ts';
import { type Brief, wishOf } from '../brief/brief.ts';

export interface DayPattern {
  /** Equal patterns have the same key. */
  readonly key: string;
  readonly set: DaySet;
  /** The day rule of a program whose only start is at a time of day; other rules ignore the time. */
  readonly days: (start: TimeText) => Days;
  /** Replaces starts. */
  readonly isHours: boolean;
  /** Watering dates in an average week as they fall (planning.md section 3), without skipped and off dates. */
  readonly mean: number;
  /** Most days between consecutive dates. */
  readonly gap: number;
  /** Smaller is more popular with technicians, at equal cost. */
  readonly rank: number;
}

/** Phases of an interval that are tried; more gain nothing. */
const MOST_PHASES = 7;

/** Days after which an interval and the weekdays repeat together. */
const periodOf = ({ every }: DaySet) => (every * 7) / greatestCommonDivisor(every, 7);

const KIND_RANKS = { daily: 0, weekdays: 0, interval: 1, odd: 2, even: 2, hours: 3 } as const;

/**
 * Preferences at equal cost: no gap over four days; few days ("deep and seldom"); evenly spread; weekdays, since people know when it runs;
 * nothing skipped; early in the week.
 */
function rankOf(rule: Days['rule'], set: DaySet, { mean, gap }: DateCount): number {
  const long = Math.max(0, gap - 4);
  const uneven = gap - Math.ceil(7 / mean - 1e-9);
  const first = modulo(set.every > 1 ? set.phase : Math.log2(set.weekdays & -set.weekdays), 64);
  const parts = [
    [long, 64],
    [Math.round(mean * 4), 64],
    [Math.max(0, uneven), 16],
    [KIND_RANKS[rule], 4],
    [bitsOf(EVERY_WEEKDAY & ~set.weekdays), 8],
    [first, 64],
    [127 - Math.min(127, set.weekdays), 128],
  ] as const;
  return parts.reduce((sum, [part, size]) => sum * size + Math.min(size - 1, part), 0);
}

/** The day patterns of a brief, and questions about them. */
export class Patterns {
  readonly all: readonly DayPattern[];
  private readonly meetings: Meetings;
  private readonly effort: Effort;
  private readonly met = new Map<string, boolean>();
  private readonly weeks = new Map<string, number>();

  /**
   * @param allowed weekdays on which each kind of station may be wet
   * @param anchor earliest first date of an interval
   * @param leastDates fewest dates a week of any pattern
   */
  constructor(
    brief: Brief,
    allowed: readonly WeekdayMask[],
    anchor: EpochDay,
    leastDates: number,
    effort: Effort,
  ) {
    this.effort = effort;
    this.meetings = new Meetings(effort);
    this.all = this.patternsOf(brief, allowed, anchor, leastDates).filter(
      ({ mean }) => mean >= leastDates - 1e-9,
    );
  }

  private patternsOf(
    { timer, settings, wish }: Brief,
    allowed: readonly WeekdayMask[],
    anchor: EpochDay,
    leastDates: number,
  ): DayPattern[] {
    const off = maskOfMonthDays(settings?.offDaysOfMonth ?? []);
    const wished = wishOf(wish ? { wish } : {}).days;
    const has = (rule: Days['rule']) =>
      timer.dayRules.includes(rule) && (wished === 'any' || wished === rule);
    const made: DayPattern[] = [];
    const sets = new Set<string>();
    const add = (rule: Days) => {
      const { monthDays, ...rest } = ruleSet(rule, timer.oddDaysSkip31);
      const set = { ...rest, monthDays: monthDays & ~off };
      const key = keyOf(set);
      if (sets.has(key)) return;
      sets.add(key);
      const pattern = this.patternOf(rule, set);
      if (pattern) made.push(pattern);
    };
    if (has('daily')) add({ rule: 'daily' });
    if (has('weekdays'))
      for (let mask = 1; mask <= EVERY_WEEKDAY; mask++)
        if (mask !== EVERY_WEEKDAY || !has('daily'))
          add({ rule: 'weekdays', weekdays: weekdaysOfMask(mask) });
    // A longer one has too few dates, whatever it skips.
    const longestInterval = Math.min(timer.longestIntervalDays, Math.floor(7 / leastDates + 1e-9));
    const passedOver = [...intersections(allowed)].map((mask) => EVERY_WEEKDAY & ~mask);
    for (const blocked of passedOver) {
      if (blocked === EVERY_WEEKDAY) continue;
      const rest = blocked ? { blockedWeekdays: weekdaysOfMask(blocked) } : {};
      if (has('interval'))
        for (let every = 1; every <= longestInterval; every++)
          for (let phase = 0; phase < Math.min(every, MOST_PHASES); phase++)
            add({
              rule: 'interval',
              everyDays: every,
              firstDate: formatDate(anchor + phase),
              ...rest,
            });
      if (has('odd')) add({ rule: 'odd', ...rest });
      if (has('even')) add({ rule: 'even', ...rest });
    }
    const counted = ['daily', 'weekdays', 'interval'].some((rule) =>
      timer.dayRules.includes(rule as Days['rule']),
    );
    if (has('hours') && !counted) made.push(...this.countsOfHours(anchor, off));
    return made;
  }

  /** Hours that make whole days, for a timer with no other way to them. */
  private countsOfHours(anchor: EpochDay, off: number): DayPattern[] {
    const made: DayPattern[] = [];
    for (let every = 1; every <= 31; every++)
      for (let phase = 0; phase < Math.min(every, MOST_PHASES); phase++) {
        const first = formatDate(anchor + phase);
        const set: DaySet = {
          every,
          phase: modulo(anchor + phase, every),
          weekdays: EVERY_WEEKDAY,
          monthDays: EVERY_MONTH_DAY & ~off,
        };
        made.push({
          key: `hours ${every} ${phase}`,
          set,
          days: (start) => ({
            rule: 'hours',
            everyHours: every * 24,
            first: `${first}T${start}`,
          }),
          isHours: true,
          ...countDates([set]),
          rank: rankOf('hours', set, countDates([set])),
        });
      }
    return made;
  }

  /** Pattern of a given day rule; null: it waters by hours, or never. */
  patternOf(rule: Days, set: DaySet): DayPattern | null {
    if (rule.rule === 'hours') return null;
    const count = countDates([set]);
    if (count.mean === 0) return null;
    const rank = rankOf(rule.rule, set, count);
    return { key: JSON.stringify(rule), set, days: () => rule, isHours: false, ...count, rank };
  }

  private classOf(set: DaySet) {
    return this.meetings.classOf(set, EVERY_WEEKDAY, EVERY_MONTH);
  }

  /** Whether any date of a is followed, k days later, by a date of b. */
  meet(a: DaySet, b: DaySet, k: number): boolean {
    if (a.monthDays === EVERY_MONTH_DAY && b.monthDays === EVERY_MONTH_DAY) {
      if (a.every === 1 && b.every === 1) return (laterWeekdays(a.weekdays, k) & b.weekdays) !== 0;
    }
    const key = `${keyOf(a)}|${keyOf(b)}|${k}`;
    let known = this.met.get(key);
    if (known === undefined) {
      known = this.meetings.first(this.classOf(a), this.classOf(b), k, 0) !== null;
      this.met.set(key, known);
    }
    return known;
  }

  /** Whether all dates of a set, shifted by some days, are on given weekdays and of a parity. */
  keepsTo(
    set: DaySet,
    later: number,
    allowed: WeekdayMask,
    parity: 'odd' | 'even' | null,
  ): boolean {
    if (allowed !== EVERY_WEEKDAY) {
      if (laterWeekdays(weekdaysOn(set), later) & ~allowed) return false;
    }
    return parity === null || !this.meet(set, parity === 'odd' ? EVEN_DATES : ODD_DATES, later);
  }

  /**
   * Most dates in a Monday-to-Sunday week that are shifted from a set by some days.
   *
   * @param offsets bit n: the date n days after counts. For an interval, off days of the month count as if they watered.
   */
  mostInWeek(set: DaySet, offsets: number): number {
    const key = `${keyOf(set)}|${offsets}`;
    let most = this.weeks.get(key);
    if (most !== undefined) return most;
    const calendar = set.monthDays !== EVERY_MONTH_DAY && set.every === 1;
    const counted = calendar ? set : { ...set, monthDays: EVERY_MONTH_DAY };
    const days = calendar ? DAYS_PER_400_YEARS : periodOf(set);
    this.effort.spend(days);
    most = 0;
    for (let monday = 4; monday < days + 4; monday += 7) {
      let wet = 0;
      for (let day = monday; day < monday + 7; day++)
        for (let rest = offsets, n = 0; rest; rest >>= 1, n++)
          if (rest & 1 && isIn(counted, day - n)) {
            wet++;
            break;
          }
      most = Math.max(most, wet);
    }
    this.weeks.set(key, most);
    return most;
  }
}

const keyOf = ({ every, phase, weekdays, monthDays }: DaySet) =>
  `${every},${phase},${weekdays},${monthDays}`;

const ODD_DATES = ruleSet({ rule: 'odd' }, false);
const EVEN_DATES = ruleSet({ rule: 'even' }, false);

/** A list of masks and all intersections of them. */
function intersections(masks: readonly WeekdayMask[]): Set<WeekdayMask> {
  const all = new Set<WeekdayMask>();
  for (const mask of masks) for (const one of [...all, EVERY_WEEKDAY]) all.add(one & mask);
  if (all.size === 0) all.add(EVERY_WEEKDAY);
  return all;
}
