/** What a program may become in a repair: other days, another number of starts, other runs, each with its cost. */
import type { RunChoice } from '../brief/runChoices.ts';
import { nearestRun, runChoice } from '../brief/runChoices.ts';
import { wishOf, type Brief, type BriefStation } from '../brief/brief.ts';
import { daysWanted, isBound, mowingMask } from '../brief/wanted.ts';
import { mostDaysBetween } from '../time/dateCount.ts';
import { stepsOff } from '../planner/cost.ts';
import type { Need } from '../planner/needs.ts';
import type { DayPattern, Patterns } from '../planner/patterns.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { EVERY_WEEKDAY, maskOfMonthDays, maskOfWeekdays, ruleSet } from '../time/dayRules.ts';

/** The part of a repair's cost known before starts are placed: parts 2 to 5 of planning.md section 4. */
export type PartCost = readonly [steps: number, settings: number, days: number, share: number];

export const sumOfCosts = (costs: readonly PartCost[]): PartCost =>
  costs.reduce<PartCost>(
    (a, b) => [a[0] + b[0], a[1] + b[1], a[2] + b[2], a[3] + b[3]],
    [0, 0, 0, 0],
  );

export function compareParts(a: readonly number[], b: readonly number[]): number {
  for (const [i, part] of a.entries()) {
    const other = b[i] ?? 0;
    if (Math.abs(part - other) > 1e-9) return part - other;
  }
  return 0;
}

export interface Variant {
  readonly program: Program;
  readonly pattern: DayPattern;
  /** Number of starts. */
  readonly starts: number;
  readonly members: readonly { readonly need: Need; readonly run: RunChoice }[];
  readonly cost: PartCost;
}

/** Actual and wanted water of each station, seconds in an average week at 100 percent. */
export interface Water {
  readonly given: ReadonlyMap<number, number>;
  readonly wanted: ReadonlyMap<number, number>;
}

export interface Kept {
  readonly water: Water;
  /** Each station is watered as often as the brief asks. */
  readonly keepsDays: boolean;
  /** Stations that water on mowing days now, and may continue. */
  readonly mayBeMown: ReadonlySet<number>;
}

/** What the search needs to know of a station that a program waters. */
function needOf(
  brief: Brief,
  plan: Plan,
  number: number,
  index: number,
  mayBeMown: ReadonlySet<number>,
): Need {
  const asked = brief.stations.find((station) => station.number === number);
  const own = plan.stations.find((station) => station.number === number);
  const station: BriefStation = asked ?? { ...own, number, weeklySeconds: 0 };
  const { overhead = true, cycleSeconds, soakSeconds } = station;
  const bound = asked !== undefined && isBound(brief, overhead);
  const ruled =
    bound && brief.rules?.weekdays ? maskOfWeekdays(brief.rules.weekdays) : EVERY_WEEKDAY;
  const isMown = asked !== undefined && overhead && !mayBeMown.has(number);
  const dry = isMown ? mowingMask(brief) : 0;
  return {
    station,
    number,
    index,
    wanted: station.weeklySeconds,
    least: 0,
    most: 7,
    bound,
    overhead: isMown,
    cycle: cycleSeconds ?? null,
    soak: soakSeconds ?? null,
    often: asked?.oftenADay ?? null,
    counted: false,
    group: null,
    allowed: ruled & ~dry,
    parity: bound ? (brief.rules?.parity ?? null) : null,
    pinned: null,
  };
}

/** Pattern of a program's current days; null: by hours, or never. */
function patternNow(plan: Plan, { days }: Program, patterns: Patterns): DayPattern | null {
  if (!days) return null;
  const off = maskOfMonthDays(plan.settings.offDaysOfMonth ?? []);
  const { monthDays, ...rest } = ruleSet(days, plan.timer.oddDaysSkip31);
  return patterns.patternOf(days, { ...rest, monthDays: monthDays & ~off });
}

export class Variants {
  private readonly brief: Brief;
  private readonly plan: Plan;
  private readonly patterns: Patterns;
  private readonly kept: Kept;

  constructor(brief: Brief, plan: Plan, patterns: Patterns, kept: Kept) {
    this.brief = brief;
    this.plan = plan;
    this.patterns = patterns;
    this.kept = kept;
  }

  /** All variants of a program that its days allow, cheapest first. */
  of(program: Program): Variant[] {
    const { plan, patterns } = this;
    const { timer } = plan;
    const watered = program.runs.filter(
      ({ station, seconds }) =>
        seconds > 0 && plan.stations.find(({ number }) => number === station)?.enabled !== false,
    );
    const needs = watered.map(({ station }, i) =>
      needOf(this.brief, plan, station, i, this.kept.mayBeMown),
    );
    const now = patternNow(plan, program, patterns);
    const fits = (pattern: DayPattern) => this.mayBeOn(needs, pattern);
    const dayChoices = [
      ...(now && timer.dayRules.includes(program.days?.rule ?? 'daily') ? [now] : []),
      ...patterns.all.filter(({ key, isHours }) => !isHours && key !== now?.key),
    ].filter(fits);
    const count = program.starts.length;
    const variants: Variant[] = [];
    for (const pattern of dayChoices)
      for (let starts = 1; starts <= timer.startsPerProgram; starts++) {
        if (Math.abs(starts - count) > MOST_STARTS_MORE && count > 0) continue;
        const variant = this.variant(program, pattern, starts, needs, pattern === now);
        if (variant) variants.push(variant);
      }
    return variants.sort((a, b) => compareParts(a.cost, b.cost) || a.pattern.rank - b.pattern.rank);
  }

  private mayBeOn(needs: readonly Need[], { set, mean, gap }: DayPattern): boolean {
    const { patterns, brief } = this;
    const most = brief.rules?.mostDaysPerWeek;
    return needs.every(
      ({ allowed, parity, bound, station }) =>
        (!this.kept.keepsDays || isOftenEnough(daysWanted(brief, station), mean, gap)) &&
        patterns.keepsTo(set, 0, allowed, parity) &&
        (!bound || most === undefined || patterns.mostInWeek(set, 1) <= most),
    );
  }

  private variant(
    program: Program,
    pattern: DayPattern,
    starts: number,
    needs: readonly Need[],
    sameDays: boolean,
  ): Variant | null {
    const runsAWeek = pattern.mean * starts;
    const members = needs.map((need) => ({ need, run: this.runOf(program, need, runsAWeek) }));
    let [steps, share] = [0, 0];
    let settings = Math.abs(starts - program.starts.length) + (sameDays ? 0 : 1);
    const runs = program.runs.map((run) => {
      const member = members.find(({ need }) => need.number === run.station);
      if (!member) return run;
      const { number } = member.need;
      const given = this.elsewhere(program, number) + member.run.given;
      steps += stepsOff(offOf(given, this.kept.water.wanted.get(number) ?? 0));
      share += offOf(given, this.kept.water.given.get(number) ?? 0);
      if (member.run.seconds !== run.seconds) settings++;
      return { station: run.station, seconds: member.run.seconds };
    });
    const days = sameDays ? program.days : pattern.days('00:00');
    return {
      program: { ...program, days, runs },
      pattern,
      starts,
      members,
      cost: [steps, settings, sameDays ? 0 : 1, Math.round(share * 1000)],
    };
  }

  /** Seconds a week a station gets from other programs. */
  private elsewhere(program: Program, number: number): number {
    return Math.max(0, (this.kept.water.given.get(number) ?? 0) - this.fromNow(program, number));
  }

  private fromNow(program: Program, number: number): number {
    const seconds = program.runs.find(({ station }) => station === number)?.seconds ?? 0;
    const now = patternNow(this.plan, program, this.patterns);
    if (!now || program.starts.length === 0) return 0;
    const { timer } = this.plan;
    return runChoice(timer, 1, seconds, now.mean * program.starts.length).given;
  }

  /** The current run if it gives enough, otherwise the one closest to the current or wanted water. */
  private runOf(program: Program, { number, cycle }: Need, runsAWeek: number): RunChoice {
    const { timer } = this.plan;
    const elsewhere = this.elsewhere(program, number);
    const wanted = this.kept.water.wanted.get(number) ?? 0;
    const now = this.kept.water.given.get(number) ?? 0;
    const seconds = program.runs.find((run) => run.station === number)?.seconds ?? 0;
    const kept = runChoice(timer, Math.max(1, wanted - elsewhere), seconds, runsAWeek);
    const stepsOf = ({ given }: RunChoice) => stepsOff(offOf(elsewhere + given, wanted));
    const fitsTimer = seconds % timer.runStepSeconds === 0 && seconds <= timer.longestRunSeconds;
    if (fitsTimer && stepsOf(kept) === 0) return kept;
    // An unsplit run that was short enough stays so.
    const splits =
      timer.cycleSoak === 'station' ||
      (timer.cycleSoak === 'program' && program.cycleSeconds !== undefined);
    const longest = cycle !== null && !splits ? Math.max(cycle, seconds) : Infinity;
    const choices = [now, wanted].flatMap((target) => {
      const left = target - elsewhere;
      const run = left > 0 ? nearestRun(timer, left, runsAWeek, longest) : null;
      return run ? [run] : [];
    });
    return (fitsTimer ? [kept, ...choices] : choices).reduce(
      (best, run) =>
        stepsOf(run) < stepsOf(best) ||
        (stepsOf(run) === stepsOf(best) &&
          best !== kept &&
          offOf(elsewhere + run.given, now) < offOf(elsewhere + best.given, now))
          ? run
          : best,
      (fitsTimer ? kept : choices[0]) ?? kept,
    );
  }
}

/** Whether dates are as many, and as close together, as a station wants. */
const isOftenEnough = (
  days: NonNullable<BriefStation['days']> | null,
  mean: number,
  gap: number,
): boolean => !days || (mean >= days.least - 1e-9 && gap <= mostDaysBetween(days.least));

/** Most starts added to or removed from a program. */
const MOST_STARTS_MORE = 2;

const offOf = (given: number, wanted: number) =>
  wanted > 0 ? Math.abs(given - wanted) / wanted : 0;

/** The brief without demands that are not hard in a repair. */
export function hardOnly(brief: Brief, headroomPercent: number): Brief {
  const { notBefore, finishBy } = wishOf(brief);
  return { ...brief, wish: { notBefore, finishBy, headroomPercent } };
}
