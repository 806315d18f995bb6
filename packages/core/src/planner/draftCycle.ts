/**
 * What one program of a future plan does, whatever its starts: the engine's cycle at every percent of the brief, and from it the possible
 * start times.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, type OftenADay, wishOf } from '../brief/brief.ts';
import { parseTime, SECONDS_PER_DAY } from '../time/calendar.ts';
import { cycleSecondsAt, shapeAt } from '../engine/cycle.ts';
import { cycleModel, type CycleRun } from '../engine/cycleModel.ts';
import { EVERY_WEEKDAY, maskOfWeekdays, modulo, weekdaysOn } from '../time/dayRules.ts';
import type { Effort } from '../engine/effort.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { percentSteps } from '../plan/program.ts';
import { WeekWindows } from '../time/windows.ts';
import { spanOf } from '../brief/span.ts';
import type { Need } from './needs.ts';
import type { RunChoice } from '../brief/runChoices.ts';
import { highPercent, mowingMask, mowingWindows } from '../brief/wanted.ts';
import type { DayPattern, Patterns } from './patterns.ts';

/** A program before its starts are known. */
export interface Draft {
  readonly pattern: DayPattern;
  readonly starts: number;
  /** The program's own cycle and soak; null: none. */
  readonly soak: { readonly cycleSeconds: number; readonly soakSeconds: number } | null;
  /** Ascending by number. */
  readonly members: readonly { readonly need: Need; readonly run: RunChoice }[];
}

/** Half-open, seconds from the start of a cycle. */
interface Stretch {
  readonly on: number;
  readonly off: number;
}

export interface DraftCycle {
  readonly draft: Draft;
  /** Upper bound of cycle length at any percent up to the wished headroom, seconds. */
  readonly reach: number;
  /** Runs at 100 percent. */
  readonly runs: readonly CycleRun[];
  /** Seconds between two starts of the program at which no station's soak is cut short. */
  readonly apart: number;
  /** First to last second that a bound station is wet, at any of the percents; null: never. */
  readonly boundWet: Stretch | null;
  /** First to last run at the high percent for which times of day matter; null: none. */
  readonly counted: Stretch | null;
  /** Runs at 100 percent: of overhead stations, of stations the rules bind, and of each with several waterings a day. */
  readonly overhead: Stretch | null;
  readonly bound: Stretch | null;
  readonly often: readonly { readonly asked: OftenADay; readonly hull: Stretch }[];
}

/** Inputs shared by all drafts of a brief. */
export class DraftRules {
  readonly brief: Brief;
  readonly bare: Plan;
  /** Percents at which nothing may overlap or water at forbidden times; 100 is one of them. */
  readonly percents: readonly number[];
  readonly patterns: Patterns;
  readonly effort: Effort;
  /** The wished hours: from `notBefore`, and for how many seconds. */
  readonly span: { readonly from: number; readonly seconds: number };
  private readonly windows: WeekWindows;
  private readonly mown: number;
  private readonly dryHours: WeekWindows;
  /** Percent at which everything must finish in time. */
  private readonly high: number;

  constructor(brief: Brief, bare: Plan, patterns: Patterns, effort: Effort) {
    const wish = wishOf(brief);
    this.brief = brief;
    this.bare = bare;
    this.patterns = patterns;
    this.effort = effort;
    const steps = percentSteps(brief.timer).filter((percent) => percent <= wish.headroomPercent);
    this.percents = [...new Set([...steps, 100])].filter((percent) => percent > 0);
    this.span = spanOf(wish.notBefore, wish.finishBy);
    this.windows = new WeekWindows(brief.rules?.noWaterWindows ?? []);
    this.mown = mowingMask(brief);
    this.dryHours = new WeekWindows(mowingWindows(brief));
    this.high = highPercent(brief);
  }

  programOf(draft: Draft, letter: string, starts: readonly string[]): Program {
    const { pattern, members, soak } = draft;
    return {
      letter,
      starts: pattern.isHours ? [] : starts,
      runs: members.map(({ need, run }) => ({ station: need.number, seconds: run.seconds })),
      days: pattern.days(starts[0] ?? '00:00'),
      ...(soak ?? {}),
    };
  }

  /** @param program with the draft's runs, if it has more */
  draftCycleOf(draft: Draft, program = this.programOf(draft, 'A', [])): DraftCycle {
    const { members } = draft;
    const model = cycleModel(this.bare, program);
    let reach = 0;
    for (const percent of this.looked())
      reach = Math.max(reach, cycleSecondsAt(model, percent, this.effort));
    const { runs } = shapeAt(model, 100, this.effort);
    const high = this.high === 100 ? runs : shapeAt(model, this.high, this.effort).runs;
    const needOf = new Map(members.map(({ need }) => [need.number, need]));
    return {
      draft,
      reach,
      runs,
      counted: hullOf(high.filter(({ station }) => needOf.get(station)?.counted)),
      overhead: hullOf(runs.filter(({ station }) => needOf.get(station)?.overhead)),
      bound: hullOf(runs.filter(({ station }) => needOf.get(station)?.bound)),
      often: members.flatMap(({ need }) => {
        const hull = hullOf(runs.filter(({ station }) => station === need.number));
        return need.often && hull ? [{ asked: need.often, hull }] : [];
      }),
      apart: this.apartOf(draft, runs, reach),
      boundWet: this.isRuled() ? this.wetOf(model, needOf) : null,
    };
  }

  /** Percents the search considers. `breachOf` tests every percent of a plan that is found. */
  private looked(): readonly number[] {
    const { percents } = this;
    return percents.length < 4
      ? percents
      : [
          assertDefined(percents[0], 'percents[0]'),
          100,
          assertDefined(percents.at(-1), 'percents.at(-1)'),
        ];
  }

  private apartOf(draft: Draft, runs: readonly CycleRun[], reach: number): number {
    let apart = reach;
    for (const { need } of draft.members) {
      const own = runs.filter(({ station }) => station === need.number);
      const [first, last] = [own[0], own.at(-1)];
      if (!first || !last) continue;
      if (need.cycle !== null && need.soak !== null)
        apart = Math.max(apart, last.off + need.soak - first.on);
      if (need.often) {
        const { seconds } = spanOf(need.often.from, need.often.to);
        apart = Math.max(apart, Math.ceil(seconds / (2 * need.often.times)));
      }
    }
    return apart;
  }

  /** Whether any rule can be broken by a time of day or a date. */
  private isRuled(): boolean {
    const { rules } = this.brief;
    return !this.windows.isEmpty || rules?.weekdays !== undefined || rules?.parity !== undefined;
  }

  private wetOf(
    model: Parameters<typeof shapeAt>[0],
    needOf: ReadonlyMap<number, Need>,
  ): Stretch | null {
    const wet: Stretch[] = [];
    for (const percent of this.looked())
      for (const { station, on, off } of shapeAt(model, percent, this.effort).runs)
        if (needOf.get(station)?.bound) wet.push({ on, off });
    return hullOf(wet);
  }

  /** Whether everything that counts of a cycle starting at a second of the day is inside a daily span, at the high percent. */
  isInside({ counted }: DraftCycle, second: number, span: DraftRules['span']): boolean {
    if (!counted || span.seconds >= SECONDS_PER_DAY) return true;
    const begin = modulo(second + counted.on - span.from, SECONDS_PER_DAY);
    return begin + (counted.off - counted.on) <= span.seconds;
  }

  /** Whether a program may start at a second of the day, ignoring other programs (planning.md section 3, hard rules). */
  mayStart({ draft, boundWet, overhead, bound, often }: DraftCycle, second: number): boolean {
    return (
      this.keepsRules(draft, boundWet, second) &&
      this.keepsOffMowing(draft, overhead, second) &&
      often.every(({ asked, hull }) => isWithin(asked, hull, second)) &&
      this.keepsToMostDays(draft, bound, second)
    );
  }

  /** No bound station is wet in a window, nor on a forbidden date. */
  private keepsRules({ pattern, members }: Draft, wet: Stretch | null, second: number): boolean {
    if (!wet) return true;
    const [from, to] = [second + wet.on, second + wet.off];
    if (!this.windows.isEmpty && !isClear(this.windows, weekdaysOn(pattern.set), from, to))
      return false;
    const parity = members.find(({ need }) => need.bound)?.need.parity ?? null;
    return daysAfterFirst(from, to).every((day) =>
      this.patterns.keepsTo(pattern.set, day, this.ruledMask(), parity),
    );
  }

  /** No overhead station is wet on a mowing day. */
  private keepsOffMowing({ pattern }: Draft, wet: Stretch | null, second: number): boolean {
    if (!wet || !this.mown) return true;
    const { dryHours } = this;
    const [from, to] = [second + wet.on, second + wet.off];
    if (!dryHours.isEmpty && !isClear(dryHours, weekdaysOn(pattern.set), from, to)) return false;
    return daysAfterFirst(second + wet.on, second + wet.off).every((day) =>
      this.patterns.keepsTo(pattern.set, day, EVERY_WEEKDAY & ~this.mown, null),
    );
  }

  /** A cycle past midnight waters on more dates than it starts on. */
  private keepsToMostDays({ pattern }: Draft, wet: Stretch | null, second: number): boolean {
    const most = this.brief.rules?.mostDaysPerWeek;
    if (most === undefined || !wet) return true;
    let offsets = 0;
    for (let day = dayOf(second + wet.on); day <= dayOf(second + wet.off - 1); day++)
      offsets |= 1 << Math.min(30, day);
    return offsets <= 1 || this.patterns.mostInWeek(pattern.set, offsets) <= most;
  }

  private ruledMask(): number {
    const { weekdays } = this.brief.rules ?? {};
    if (!weekdays) return EVERY_WEEKDAY;
    return maskOfWeekdays(weekdays);
  }
}

/** Whether no window contains any second of a period, on any weekday it can fall on. */
function isClear(windows: WeekWindows, weekdays: number, from: number, to: number): boolean {
  for (let weekday = 0; weekday < 7; weekday++) {
    if (!(weekdays & (1 << weekday))) continue;
    const monday = (weekday - 3) * SECONDS_PER_DAY;
    const begin = monday + from;
    if (!windows.isFree(begin) || windows.nextWindow(begin) < monday + to) return false;
    if (windows.sameEveryDay) break;
  }
  return true;
}

function hullOf(stretches: readonly Stretch[]): Stretch | null {
  let hull: { on: number; off: number } | null = null;
  for (const { on, off } of stretches)
    if (!hull) hull = { on, off };
    else {
      hull.on = Math.min(hull.on, on);
      hull.off = Math.max(hull.off, off);
    }
  return hull;
}

/** Whether stations with several waterings a day are inside their hours. */
function isWithin(often: OftenADay, { on, off }: Stretch, start: number): boolean {
  return (
    start + on >= assertDefined(parseTime(often.from), 'parseTime(often.from)') &&
    start + off <= assertDefined(parseTime(often.to), 'parseTime(often.to)')
  );
}

/** Days after the start's day that a period touches; the patterns themselves keep the start's day to the rules. */
function daysAfterFirst(from: number, to: number): number[] {
  const days: number[] = [];
  for (let day = Math.max(1, dayOf(from)); day <= dayOf(to - 1); day++) days.push(day);
  return days;
}

const dayOf = (second: number) => Math.floor(second / SECONDS_PER_DAY);
