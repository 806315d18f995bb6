/**
 * The smallest change that makes a plan keep its brief again (planning.md section 4): everything stays as set unless it must change.
 *
 * Programs have variants, each with its cost before starts are placed. Combinations of one variant for each program are tried in order of
 * that cost; for each, starts are placed with as few of the current ones moved as possible. The engine checks the result.
 */
import { parseTime, SECONDS_PER_DAY, formatTime, type EpochDay } from '../time/calendar.ts';
import type { Brief } from '../brief/brief.ts';
import { mowingMask } from '../brief/wanted.ts';
import { Effort } from '../engine/effort.ts';
import { meanWeeklySeconds } from '../engine/weeklyWater.ts';
import { check, type Check } from '../findings/check.ts';
import type { Finding, FindingCode } from '../findings/finding.ts';
import { notFitting } from '../findings/limits.ts';
import { stepsOff } from '../planner/cost.ts';
import { DraftRules } from '../planner/draftCycle.ts';
import { Patterns } from '../planner/patterns.ts';
import { isUnused, missingOf } from '../plan/program.ts';
import { wateringStations } from '../plan/linked.ts';
import type { Plan, Program, Settings } from '../plan/plan.ts';
import { EVERY_WEEKDAY, maskOfWeekdays } from '../time/dayRules.ts';
import { Meetings } from '../time/meetings.ts';
import {
  allRules,
  breaksEdition,
  comingKept,
  editionsOf,
  type ComingKept,
  type Edition,
} from '../planner/coming.ts';
import { combinations } from './combinations.ts';
import { StartPlacing, type Movable } from './placing.ts';
import { settingChanges, type SettingChange } from './settings.ts';
import {
  compareParts,
  hardOnly,
  sumOfCosts,
  Variants,
  type PartCost,
  type Variant,
  type Water,
} from './variants.ts';

/** Parts of planning.md section 4: editions broken, steps off the water, settings, programs with changed days, thousandths. */
export type RepairCost = readonly [number, number, number, number, number];

export interface Repaired {
  /** Null: no repair was found. */
  readonly plan: Plan | null;
  readonly changes: readonly SettingChange[];
  readonly cost: RepairCost | null;
  /** Each announced edition, and whether the plan keeps it. */
  readonly coming: readonly ComingKept[];
  /** Problems before: errors, and announced rules that would be broken. */
  readonly wrong: readonly Finding[];
}

/** Days after which an edition is too far off to count. */
export const NEAR_DAYS = 120;
/** Plans checked by the engine, and combinations tried, before the best so far is taken. */
const MOST_CHECKS = 80;
const MOST_CHOICES = 30_000;
const MOST_MOVES = 6;
/** Total placements of starts tried. */
const MOST_LOOKS = 1_000_000;
const MOST_STEPS = 400_000_000;

/** Warnings that a repair must not introduce. */
const NO_NEW: ReadonlySet<FindingCode> = new Set<FindingCode>([
  'mowing-day',
  'runs-off',
  'soak-too-short',
  'not-often-enough',
]);

/** Identifies a warning that existed before. */
const keyOf = ({ code, where }: Finding) => `${code} ${where.program ?? ''} ${where.station ?? ''}`;

class Repair {
  private readonly brief: Brief;
  private readonly plan: Plan;
  private readonly on: EpochDay;
  private readonly water: Water;
  private readonly known: ReadonlySet<string>;
  private readonly near: readonly Edition[];
  /** The percent up to which nothing may overlap. */
  private readonly headroom: number;
  private readonly nowFindings: Check;
  private checks = 0;
  private readonly looks = { left: MOST_LOOKS };
  private best: { readonly plan: Plan; readonly cost: RepairCost } | null = null;
  private readonly keepsDays: boolean;

  constructor(brief: Brief, plan: Plan, on: EpochDay, keepsDays: boolean) {
    this.keepsDays = keepsDays;
    this.brief = brief;
    this.plan = plan;
    this.on = on;
    this.nowFindings = check(plan, on, { brief });
    const { headroomPercent } = this.nowFindings;
    const wished = brief.wish?.headroomPercent ?? 130;
    this.headroom = Math.max(100, Math.min(headroomPercent ?? 100, wished));
    this.known = new Set(
      this.nowFindings.findings.filter(({ code }) => NO_NEW.has(code)).map(keyOf),
    );
    this.near = editionsOf(brief).filter((edition) => edition.on - on <= NEAR_DAYS);
    const given = meanWeeklySeconds(plan, new Meetings(new Effort()));
    const wanted = new Map(given);
    for (const { number, weeklySeconds } of brief.stations)
      if (weeklySeconds > 0) wanted.set(number, weeklySeconds);
    this.water = { given, wanted };
  }

  run(): Repaired {
    const { nowFindings, brief } = this;
    const wrong = nowFindings.findings.filter(({ severity }) => severity === 'error');
    this.take(this.plan);
    if (!this.best || this.best.cost[0] > 0 || this.best.cost[1] > 0) {
      // With all announced editions kept if possible, otherwise with as few broken as possible.
      for (let broken = 0; broken <= this.near.length && !this.isDone(broken); broken++)
        for (const kept of combinations(this.near, this.near.length - broken))
          for (const settings of this.timerSettings()) this.among(kept, settings);
    }
    const { best } = this;
    return {
      plan: best?.plan ?? null,
      changes: best ? settingChanges(this.plan, best.plan) : [],
      cost: best?.cost ?? null,
      coming: best ? comingKept(brief, best.plan) : [],
      wrong,
    };
  }

  /** Whether nothing with this many editions broken could be better. */
  private isDone(broken: number): boolean {
    return this.best !== null && this.best.cost[0] < broken;
  }

  /** The timer's own settings: unchanged, and each with one of them changed. */
  private *timerSettings(): Generator<Settings> {
    const { settings, timer } = this.plan;
    yield settings;
    const { stationDelaySeconds = 0, stationsAtOnce = timer.stationsAtOnce } = settings;
    const percent = settings.seasonalPercent ?? 100;
    if (percent > 100) yield { ...settings, seasonalPercent: 100 };
    if (stationsAtOnce > 1) yield { ...settings, stationsAtOnce: 1 };
    if (stationDelaySeconds > 0)
      for (const share of [0.75, 0.5, 0.25, 0])
        yield { ...settings, stationDelaySeconds: Math.floor(stationDelaySeconds * share) };
  }

  /** Repairs that keep the current rules and some announced editions, with given timer settings. */
  private among(kept: readonly Edition[], settings: Settings): void {
    const plan: Plan = { ...this.plan, settings };
    const rules = [
      ...(this.brief.rules ? [this.brief.rules] : []),
      ...kept.map((one) => one.rules),
    ];
    const ruled = rules.length > 0 ? { ...this.brief, rules: allRules(rules) } : this.brief;
    const effort = new Effort(MOST_STEPS);
    const brief = {
      ...this.withoutKnown(hardOnly(ruled, this.headroom)),
      timer: plan.timer,
      settings: plan.settings,
    };
    const masks = [
      EVERY_WEEKDAY,
      brief.rules?.weekdays ? maskOfWeekdays(brief.rules.weekdays) : EVERY_WEEKDAY,
      EVERY_WEEKDAY & ~mowingMask(brief),
    ];
    const patterns = new Patterns(brief, [...new Set(masks)], this.on, 0, effort);
    const bare: Plan = { ...plan, programs: [] };
    const reach = new DraftRules(brief, bare, patterns, effort);
    const set = new DraftRules(hardOnly(brief, this.highestPercent()), bare, patterns, effort);
    const watering = wateringStations(plan);
    const missing = new Map(plan.programs.map((one) => [one, missingOf(one, watering)]));
    // What was never meant to water stays; an incomplete program without runs loses its starts.
    const still = plan.programs
      .filter((one) => missing.get(one)?.includes('runs'))
      .map((one) => (isUnused(missing.get(one) ?? []) ? one : { ...one, starts: [] }));
    const moved = plan.programs.filter((one) => !missing.get(one)?.includes('runs'));
    const variants = new Variants(brief, plan, patterns, {
      water: this.water,
      keepsDays: this.keepsDays,
      mayBeMown: this.knownStations('mowing-day'),
    });
    const lists = moved.map((program) => variants.of(program));
    if (lists.some((list) => list.length === 0)) return;
    const base = settingChanges(this.plan, { ...plan, programs: [...still, ...moved] }).length;
    const cycles = new Map<Variant, Movable | null>();
    const movableOf = (variant: Variant, program: Program): Movable | null => {
      let known = cycles.get(variant);
      if (known === undefined) {
        known = this.movable(variant, program, reach, set);
        cycles.set(variant, known);
      }
      return known;
    };
    for (const { chosen, cost } of cheapestFirst(lists)) {
      if (this.checks >= MOST_CHECKS || this.looks.left <= 0) return;
      const broken = this.near.length - kept.length;
      const least: RepairCost = [broken, cost[0], cost[1] + base, cost[2], cost[3]];
      // Combinations come in order of cost, so none that follows could be cheaper.
      if (this.best && compareParts(least, this.best.cost) >= 0) return;
      const movables = chosen.map((variant, j) => movableOf(variant, moved[j] as Program));
      if (movables.some((one) => one === null)) continue;
      this.place(movables as Movable[], chosen, { plan, still, reach, least });
    }
  }

  /** Stations with a warning now, which may stay. */
  private knownStations(code: FindingCode): ReadonlySet<number> {
    return new Set(
      this.nowFindings.findings.flatMap((finding) =>
        finding.code === code && finding.where.station !== undefined ? [finding.where.station] : [],
      ),
    );
  }

  /** The brief without demands that are already unmet: meeting them is not part of a repair. */
  private withoutKnown(brief: Brief): Brief {
    const seldom = this.knownStations('not-often-enough');
    const soaked = this.knownStations('soak-too-short');
    return {
      ...brief,
      stations: brief.stations.map(({ oftenADay, soakSeconds, ...station }) => ({
        ...station,
        ...(oftenADay && !seldom.has(station.number) ? { oftenADay } : {}),
        ...(soakSeconds !== undefined && !soaked.has(station.number) ? { soakSeconds } : {}),
      })),
    };
  }

  /** The highest percent set. */
  private highestPercent(): number {
    const { settings, programs } = this.plan;
    return Math.max(
      100,
      settings.seasonalPercent ?? 100,
      ...(settings.monthlyPercent ?? []),
      ...programs.map(({ seasonalPercent = 100 }) => seasonalPercent),
    );
  }

  private movable(
    { program, pattern, starts, members }: Variant,
    now: Program,
    reach: DraftRules,
    set: DraftRules,
  ): Movable | null {
    const draft = { pattern, starts, members, soak: null };
    const cycle = reach.draftCycleOf(draft, program);
    const asSet = set.draftCycleOf(draft, program);
    const step = this.plan.timer.startStepMinutes * 60;
    const allowed = new Set<number>();
    for (let second = 0; second < SECONDS_PER_DAY; second += step)
      if (set.mayStart(asSet, second)) allowed.add(second);
    if (allowed.size < starts) return null;
    return {
      cycle,
      now: now.starts.map((start) => parseTime(start) ?? 0),
      count: starts,
      allowed,
    };
  }

  private place(
    movables: readonly Movable[],
    chosen: readonly Variant[],
    made: {
      readonly plan: Plan;
      readonly still: readonly Program[];
      readonly reach: DraftRules;
      readonly least: RepairCost;
    },
  ): void {
    const placing = new StartPlacing(made.reach, movables, this.looks);
    const [broken, steps, settings] = made.least;
    for (let moves = 0; moves <= MOST_MOVES; moves++) {
      if (this.best && compareParts([broken, steps, settings + moves], this.best.cost) > 0) return;
      let tried = 0;
      for (const starts of placing.with(moves)) {
        const programs = chosen.map(({ program }, j) => ({
          ...program,
          starts: (starts[j] ?? []).map(formatTime),
        }));
        const byLetter = [...made.still, ...programs].sort((a, b) =>
          a.letter < b.letter ? -1 : 1,
        );
        if (this.take({ ...made.plan, programs: byLetter })) return;
        if (++tried >= 4 || this.checks >= MOST_CHECKS) break;
      }
    }
  }

  /**
   * Keeps a valid plan that is cheaper than the best.
   *
   * @returns whether it is valid
   */
  private take(plan: Plan): boolean {
    this.checks++;
    if (notFitting(plan, plan.timer).length > 0) return false;
    const checked =
      plan === this.plan ? this.nowFindings : check(plan, this.on, { brief: this.brief });
    const isRight = checked.findings.every(
      (finding) =>
        finding.severity !== 'error' &&
        (!NO_NEW.has(finding.code) || this.known.has(keyOf(finding))),
    );
    if (!isRight || checked.overlaps.length > 0) return false;
    const { beyond } = checked;
    if (beyond !== null && beyond.percent <= this.headroom) return false;
    const cost = this.costOf(plan);
    if (!this.best || compareParts(cost, this.best.cost) < 0) this.best = { plan, cost };
    return true;
  }

  private costOf(plan: Plan): RepairCost {
    const { given, wanted } = this.water;
    const then = meanWeeklySeconds(plan, new Meetings(new Effort()));
    let [steps, share] = [0, 0];
    for (const [number, seconds] of then) {
      const asked = wanted.get(number) ?? 0;
      const now = given.get(number) ?? 0;
      if (asked > 0) steps += stepsOff(Math.abs(seconds - asked) / asked);
      if (now > 0) share += Math.abs(seconds - now) / now;
    }
    const changes = settingChanges(this.plan, plan);
    return [
      this.near.filter((edition) => breaksEdition(this.brief, plan, edition)).length,
      steps,
      changes.length,
      changes.filter(({ field }) => field === 'days').length,
      Math.max(0, Math.round(share * 1000 - 1e-9)),
    ];
  }
}

interface Choice {
  readonly at: readonly number[];
  readonly cost: PartCost;
}

/** One variant from each list, cheapest combinations first. */
function* cheapestFirst(lists: readonly (readonly Variant[])[]) {
  const costOf = (at: readonly number[]) =>
    sumOfCosts(at.map((i, j) => (lists[j]?.[i] as Variant).cost));
  const first = lists.map(() => 0);
  const heap: Choice[] = [{ at: first, cost: costOf(first) }];
  const before = (a: Choice, b: Choice) => compareParts(a.cost, b.cost) < 0;
  const push = (choice: Choice) => {
    let i = heap.push(choice) - 1;
    while (i > 0) {
      const up = (i - 1) >> 1;
      if (!before(heap[i] as Choice, heap[up] as Choice)) break;
      [heap[i], heap[up]] = [heap[up] as Choice, heap[i] as Choice];
      i = up;
    }
  };
  const pop = (): Choice | undefined => {
    const top = heap[0];
    const last = heap.pop();
    if (heap.length > 0 && last) {
      heap[0] = last;
      for (let i = 0; ;) {
        const [left, right] = [2 * i + 1, 2 * i + 2];
        let least = i;
        if (left < heap.length && before(heap[left] as Choice, heap[least] as Choice)) least = left;
        if (right < heap.length && before(heap[right] as Choice, heap[least] as Choice))
          least = right;
        if (least === i) break;
        [heap[i], heap[least]] = [heap[least] as Choice, heap[i] as Choice];
        i = least;
      }
    }
    return top;
  };
  for (let looked = 0; looked < MOST_CHOICES; looked++) {
    const choice = pop();
    if (!choice) return;
    yield { chosen: choice.at.map((i, j) => lists[j]?.[i] as Variant), cost: choice.cost };
    // Each combination has exactly one parent: the one whose last non-zero index is one less.
    const last = Math.max(
      0,
      choice.at.findLastIndex((i) => i > 0),
    );
    for (let j = last; j < lists.length; j++) {
      const next = choice.at.map((i, k) => (k === j ? i + 1 : i));
      if ((next[j] ?? 0) < (lists[j]?.length ?? 0)) push({ at: next, cost: costOf(next) });
    }
  }
}

/**
 * The smallest change with which a plan keeps a brief, including rules announced for the next 120 days if possible.
 *
 * @param on date of the repair; earlier dates do not count
 * @param keepsDays if days change, each station keeps the brief's days, which are otherwise not a hard rule
 * @throws TooMuchWork
 */
export const repair = (plan: Plan, brief: Brief, on: EpochDay, keepsDays = false): Repaired =>
  new Repair(brief, plan, on, keepsDays).run();
