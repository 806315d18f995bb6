/** No-water windows of one program, including the timer's own, as a repeating week (timing-rules.md section 6). */
import { assertDefined } from '../document/assertDefined.ts';
import {
  parseTime,
  SECONDS_PER_DAY,
  WEEKDAYS,
  type ClockSecond,
  type Weekday,
  type TimeText,
} from './calendar.ts';
import { modulo } from './dayRules.ts';

export const SECONDS_PER_WEEK = 7 * SECONDS_PER_DAY;
/** 1970-01-01 was a Thursday. */
const MONDAY_BEFORE_1970 = -3 * SECONDS_PER_DAY;

/** Half-open, seconds from Monday 00:00; `from` inside the week, `to` up to a week later. */
interface Span {
  readonly from: number;
  to: number;
}

function spansOf(windows: readonly NoWaterWindow[]): Span[] {
  const spans: Span[] = [];
  for (const { from, to, weekdays } of windows) {
    const begin = assertDefined(parseTime(from), 'parseTime(from)');
    const end = assertDefined(parseTime(to), 'parseTime(to)');
    const length = end > begin ? end - begin : end - begin + SECONDS_PER_DAY;
    for (const weekday of weekdays ?? WEEKDAYS) {
      const at = WEEKDAYS.indexOf(weekday) * SECONDS_PER_DAY + begin;
      spans.push({ from: at, to: at + length });
    }
  }
  return spans.sort((a, b) => a.from - b.from);
}

/** Joins adjacent spans, also across the end of the week. */
function joined(spans: readonly Span[]): Span[] {
  const apart: Span[] = [];
  for (const span of spans) {
    const last = apart.at(-1);
    if (last && span.from <= last.to) last.to = Math.max(last.to, span.to);
    else apart.push({ ...span });
  }
  const last = apart.at(-1);
  while (apart.length > 1 && last && apart[0] && apart[0].from + SECONDS_PER_WEEK <= last.to) {
    last.to = Math.max(last.to, apart[0].to + SECONDS_PER_WEEK);
    apart.shift();
  }
  return apart;
}

/** All moments are clock seconds. At least one second of the week is free; plans without one are refused. */
export class WeekWindows {
  private readonly spans: readonly Span[];
  private readonly freePerWeek: number;
  /** Whether every day has the same windows. */
  readonly sameEveryDay: boolean;

  constructor(windows: readonly NoWaterWindow[]) {
    this.spans = joined(spansOf(windows));
    this.sameEveryDay = windows.every(({ weekdays }) => !weekdays || weekdays.length === 7);
    this.freePerWeek = this.spans.reduce(
      (free, { from, to }) => free - (to - from),
      SECONDS_PER_WEEK,
    );
  }

  get isEmpty(): boolean {
    return this.spans.length === 0;
  }

  /** Second of the week counted from the first span's beginning: 0 to a week less 1. */
  private sinceFirst(moment: ClockSecond): number {
    return modulo(
      moment - MONDAY_BEFORE_1970 - assertDefined(this.spans[0], 'spans[0]').from,
      SECONDS_PER_WEEK,
    );
  }

  /** Index of the last span beginning at or before a second counted from the first span's beginning. */
  private lastBegun(since: number): number {
    const offset = assertDefined(this.spans[0], 'spans[0]').from;
    let low = 0;
    let high = this.spans.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (assertDefined(this.spans[middle], 'spans[middle]').from - offset <= since) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  /** The moment itself if no window contains it, otherwise the end of those that do. */
  nextFree(moment: ClockSecond): ClockSecond {
    if (this.isEmpty) return moment;
    const since = this.sinceFirst(moment);
    const span = assertDefined(this.spans[this.lastBegun(since)], 'spans[lastBegun(since)]');
    const left = span.to - assertDefined(this.spans[0], 'spans[0]').from - since;
    return left > 0 ? moment + left : moment;
  }

  isFree(moment: ClockSecond): boolean {
    return this.nextFree(moment) === moment;
  }

  /** First second inside a window at or after a free moment; never if there are no windows. */
  nextWindow(moment: ClockSecond): ClockSecond {
    if (this.isEmpty) return Infinity;
    const since = this.sinceFirst(moment);
    const next = this.spans[this.lastBegun(since) + 1];
    const offset = assertDefined(this.spans[0], 'spans[0]').from;
    return moment + (next ? next.from - offset : SECONDS_PER_WEEK) - since;
  }

  /** The moment at which `seconds` (at least 1) of free time have passed since a free moment. Cost: log of the spans. */
  afterFree(moment: ClockSecond, seconds: number): ClockSecond {
    const until = this.nextWindow(moment);
    if (moment + seconds <= until) return moment + seconds;
    // Counted from the beginning of the window at `until`: whole weeks first, then spans of one.
    const left = seconds - (until - moment);
    const weeks = Math.ceil(left / this.freePerWeek) - 1;
    const rest = left - weeks * this.freePerWeek;
    let at = until + weeks * SECONDS_PER_WEEK;
    let index = this.lastBegun(this.sinceFirst(at));
    let free = rest;
    for (;;) {
      const span = assertDefined(this.spans[index], 'spans[index]');
      const next = this.spans[index + 1];
      const gap =
        (next ? next.from : assertDefined(this.spans[0], 'spans[0]').from + SECONDS_PER_WEEK) -
        span.to;
      const end = at + (span.to - span.from);
      if (free <= gap) return end + free;
      free -= gap;
      at = end + gap;
      index = next ? index + 1 : 0;
    }
  }

  /** Window periods between two moments, clipped to them. */
  between(from: ClockSecond, to: ClockSecond): { from: ClockSecond; to: ClockSecond }[] {
    const stretches: { from: ClockSecond; to: ClockSecond }[] = [];
    if (this.isEmpty) return stretches;
    for (let at = from; at < to;) {
      const begin = this.isFree(at) ? this.nextWindow(at) : at;
      if (begin >= to) break;
      at = this.nextFree(begin);
      stretches.push({ from: begin, to: Math.min(at, to) });
    }
    return stretches;
  }

  /** Upper bound, in seconds, for how long `seconds` of free time can take; coarse. */
  longestWith(seconds: number): number {
    return this.isEmpty ? seconds : (Math.ceil(seconds / this.freePerWeek) + 1) * SECONDS_PER_WEEK;
  }
}

export interface NoWaterWindow {
  readonly from: TimeText;
  readonly to: TimeText;
  readonly weekdays?: readonly Weekday[];
}
