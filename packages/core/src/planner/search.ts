/**
 * The search for the cheapest plan of a brief (planning.md section 3).
 *
 * The cost is compared part by part, so the search goes the same way. For one program, then two, and so on, and for so many starts in all and then
 * one more: all choices of kinds of program that leave no station without one are listed, each with the least error that it could come to if
 * time were no object. They are tried in that order; the first that finds its place on the clock has the fewest programs and starts, and once
 * the next in the list could be no better the search is over. What was passed over by a limit, or failed without a proof, is
 * remembered, so that nothing is called optimal that is not.
 */
import { type Brief, wishOf } from '../brief/brief.ts';
import {
  formatTime,
  parseDate,
  parseTime,
  SECONDS_PER_DAY,
  type EpochDay,
} from '../time/calendar.ts';
import { EVERY_WEEKDAY, maskOfMonthDays, ruleSet } from '../time/dayRules.ts';
import { Effort, TooMuchWork } from '../engine/effort.ts';
import { letterAt, type Plan } from '../plan/plan.ts';
import { compareCosts, costOf, type Cost } from './cost.ts';
import {
  Drafting,
  type Candidate,
  type Drafted,
  type Fixed,
  type Hours,
  type Recipe,
} from './draft.ts';
import { barePlan, needsOf, type Need } from './needs.ts';
import { mowingMask } from '../brief/wanted.ts';
import type { Pins, PlannerOptions } from './options.ts';
import { Patterns } from './patterns.ts';
import { DraftRules } from './draftCycle.ts';
import { choicesOf, RunChoices, slotKinds, type FixedSlot, type SlotKind } from './slots.ts';
import { breachOf } from './verify.ts';

/** The first date of an interval where none is given: so the same brief has the same plan on any day. */
export const USUAL_FIRST_DATE: EpochDay = parseDate('2027-01-01') ?? 0;

/** How sure it is that nothing is cheaper. */
export interface Proof {
  readonly optimal: boolean;
  /** No plan costs less. */
  readonly bound: Cost;
}

export interface Found {
  readonly plan: Plan;
  readonly cost: Cost;
}

export interface Answer {
  /** Null: none keeps the hard rules, or none was found. */
  readonly found: Found | null;
  readonly proof: Proof;
  /** Times that programs were placed on the clock. */
  readonly tries: number;
  /** Whether the search went through all there is; then no plan found is a proof that there is none. */
  readonly complete: boolean;
}

/** Told while the search goes on. */
export interface Listener {
  readonly found?: (found: Found) => void;
  /** Placements tried so far. */
  readonly tried?: (tries: number) => void;
}

const NO_COST: Cost = [0, 0, 0, 0, 0, 0];

/** Placements for one number of programs, at a thoroughness of 1; fewer where there are many stations. */
const MOST_TRIES = 400;
/** Small steps of the engine. */
const MOST_PLANNING_STEPS = 400_000_000;
/** So often that inside the wished hours, with more of the day, and with less water. */
const STRICT_ROUNDS = 3;
const STRETCH_ROUNDS = 2;
const STARVE_ROUNDS = 3;
/** Totals of starts beyond the least. */
const MOST_MORE_STARTS = 12;
/** Compositions of starts looked at for a choice of kinds. */
const MOST_COMPOSITIONS = 24;
/** Stations that are tried one by one where one must do with less water. */
const MOST_STARVED_ALONE = 6;
/** How many together, after that. */
const STARVED = [2, 3, 4, 6, 8, 12, 16, 24, 32, 48, 64];
/** Seconds by which the wished span is stretched where all has no room in it. */
const STRETCHES = [1800, 3600, 7200, 10_800, 14_400, 21_600, 28_800, 43_200];

/** Choices of which only the most promising plan is tried at first. */
const MOST_PROPOSALS = 300;
/** Choices of kinds and starts that are looked at in all. */
const MOST_LOOKS = 400_000;

interface Ranked extends Candidate {
  readonly rank: number;
}

interface Level {
  readonly choices: readonly (readonly SlotKind[])[];
  readonly complete: boolean;
}

/** Reads the pins as the search wants them: programs with a letter of their own, in the order of the letters. */
function fixedOf(pins: Pins): Fixed[] {
  const letters = new Set<string>([
    ...(pins.stations ?? []).map(({ program }) => program),
    ...(pins.starts ?? []).map(({ program }) => program),
    ...(pins.days ?? []).map(({ program }) => program),
  ]);
  return [...letters].sort().map((letter) => ({
    letter,
    starts: (pins.starts ?? [])
      .filter(({ program }) => program === letter)
      .map(({ start }) => parseTime(start) ?? 0),
    stations: (pins.stations ?? [])
      .filter(({ program }) => program === letter)
      .map(({ station }) => station),
  }));
}

export class Search {
  private readonly brief: Brief;
  private readonly options: PlannerOptions;
  private readonly listener: Listener;
  readonly needs: readonly Need[];
  private readonly patterns: Patterns;
  private readonly rules: DraftRules;
  private readonly drafting: Drafting;
  private readonly kinds: readonly SlotKind[];
  private readonly fixed: readonly Fixed[];
  private readonly slots: readonly FixedSlot[];
  private readonly levels = new Map<number, Level>();
  private readonly lists = new Map<string, readonly Ranked[]>();
  private looks = 0;
  private mostPrograms: number;
  private readonly mostStarts: number;
  private readonly mostTries: number;
  /** Where the search ends, whatever it has. */
  private lastTry: number;
  private best: Found | null = null;
  private recipe: Recipe | null = null;
  private complete = true;
  /** The fewest programs, and starts with them, that are not proven to be too few. */
  private leastPrograms: number | null = null;
  private leastStarts: number | null = null;
  private leastOff: number | null = null;

  /** @throws TooMuchWork */
  constructor(brief: Brief, options: PlannerOptions = {}, listener: Listener = {}) {
    this.brief = brief;
    this.options = options;
    this.listener = listener;
    const pins = options.pins ?? {};
    const effort = new Effort(MOST_PLANNING_STEPS);
    this.needs = needsOf(
      brief,
      new Map((pins.runs ?? []).map(({ station, seconds }) => [station, seconds])),
    );
    const anchor = options.on ?? USUAL_FIRST_DATE;
    const least = Math.min(...this.needs.map((need) => need.least), 7);
    this.patterns = new Patterns(
      brief,
      [
        ...new Set([
          ...this.needs.map(({ allowed }) => allowed),
          EVERY_WEEKDAY & ~mowingMask(brief),
        ]),
      ],
      anchor,
      least,
      effort,
    );
    const bare = barePlan(brief);
    this.rules = new DraftRules(brief, bare, this.patterns, effort);
    const runs = new RunChoices(brief);
    this.fixed = fixedOf(pins);
    this.drafting = new Drafting(
      this.rules,
      runs,
      this.needs,
      this.fixed,
      options.avoid ?? [],
      listener.tried,
    );
    this.kinds = slotKinds(brief, this.needs, this.patterns);
    this.slots = this.fixed.map(({ letter, stations }) => ({
      letter,
      kinds: this.kindsOf(letter, pins),
      members: this.needs.flatMap(({ number }, i) => (stations.includes(number) ? [i] : [])),
    }));
    const { timer } = brief;
    const wish = wishOf(brief);
    this.mostPrograms = Math.min(
      wish.programs === 'one' ? 1 : timer.programCount,
      this.needs.length,
    );
    // Where every station is kept in its program there is nothing for others to water.
    const pinned = this.fixed.reduce((sum, { stations }) => sum + stations.length, 0);
    if (pinned >= this.needs.length && pinned > 0)
      this.mostPrograms = Math.min(this.mostPrograms, this.fixed.length);
    this.mostStarts = this.startsAllowed();
    this.mostTries = Math.max(
      Math.ceil(30 * Math.min(1, options.thoroughness ?? 1)),
      Math.round(((options.thoroughness ?? 1) * MOST_TRIES * 24) / Math.max(24, this.needs.length)),
    );
    this.lastTry = STRICT_ROUNDS * this.mostTries;
  }

  /** The most starts of a program that the timer has, or the wish allows. */
  private startsAllowed(): number {
    const { starts } = wishOf(this.brief);
    const own = this.brief.timer.startsPerProgram;
    if (starts === 'one') return 1;
    // A timer that splits runs by itself needs no second start, other than for what waters often a day.
    if (starts === 'timer-soak') return this.needs.some(({ often }) => often) ? own : 1;
    return own;
  }

  /** The kinds that a pinned program may be of. */
  private kindsOf(letter: string, { days = [] }: Pins): readonly SlotKind[] {
    const pinned = days.find(({ program }) => program === letter)?.days;
    if (!pinned) return this.kinds;
    const off = maskOfMonthDays(this.brief.settings?.offDaysOfMonth ?? []);
    const rule = ruleSet(pinned, this.brief.timer.oddDaysSkip31);
    const pattern = this.patterns.patternOf(pinned, { ...rule, monthDays: rule.monthDays & ~off });
    if (!pattern) return [];
    return slotKinds(this.brief, this.needs, this.patterns, [pattern]).map((kind, i) => ({
      ...kind,
      id: -1 - i,
    }));
  }

  /** What was found until the engine had too much to do is an answer, too. */
  run(): Answer {
    try {
      return this.search();
    } catch (error) {
      if (!(error instanceof TooMuchWork)) throw error;
      const proof = { optimal: false, bound: NO_COST };
      return { found: this.best, proof, tries: this.drafting.tries, complete: false };
    }
  }

  private search(): Answer {
    if (this.needs.length === 0) return this.nothingToDo();
    if (!this.eachIsPossible()) {
      const proof = { optimal: false, bound: NO_COST };
      return { found: null, proof, tries: this.drafting.tries, complete: true };
    }
    this.findHopeless();
    const strict: Hours = { span: this.rules.span, shortest: false };
    this.allow(STRICT_ROUNDS);
    this.goThrough(strict, true);
    const strictProof = this.best && this.proofOf(this.best);
    if (strictProof) return this.answer(strictProof);
    const noneInside = this.complete;
    this.allow(STRETCH_ROUNDS);
    this.stretch();
    const noneAnywhere = noneInside && this.complete;
    let offNeed = this.drafting.hopeless.size;
    if (!this.best) {
      if (noneAnywhere) offNeed++;
      this.allow(STARVE_ROUNDS);
      this.starve(strict);
    }
    const { best } = this;
    // Beyond the wished span, or with less water than is needed, only so much is proven.
    const outside = noneInside && offNeed === this.drafting.hopeless.size ? 0.001 : 0;
    return {
      found: best,
      proof: { optimal: false, bound: [offNeed, outside, 1, 1, 0, 0] },
      tries: this.drafting.tries,
      complete: best !== null || noneAnywhere,
    };
  }

  /** So many rounds from now on. */
  private allow(rounds: number): void {
    this.lastTry = this.drafting.tries + rounds * this.mostTries;
  }

  /** More of the day, where all has room in it at all: as little more as is enough. */
  private stretch(): void {
    const finish = parseTime(wishOf(this.brief).finishBy) ?? 0;
    const { from, seconds: wished } = this.rules.span;
    const reach = (begin: number, seconds: number): Hours => ({
      span: { from: begin, seconds },
      shortest: true,
    });
    this.goThrough(reach(from, SECONDS_PER_DAY), true, this.mostTries);
    if (!this.best) return;
    const tries = Math.ceil(this.mostTries / 6);
    for (const more of STRETCHES) {
      const seconds = wished + more;
      if (seconds >= SECONDS_PER_DAY) break;
      const best: Found = this.best;
      this.goThrough(
        reach((finish - seconds + 2 * SECONDS_PER_DAY) % SECONDS_PER_DAY, seconds),
        false,
        tries,
      );
      this.goThrough(reach(from, seconds), false, tries);
      if (this.best !== best) return;
    }
    this.goThrough(reach(from, SECONDS_PER_DAY), false, tries);
  }

  /**
   * Whether any plan at all keeps the hard rules, however little water it gives and at whatever hour. What is not found in time is taken not to
   * be there.
   *
   * @throws TooMuchWork
   */
  isPossible(): boolean {
    if (!this.eachIsPossible()) return false;
    this.drafting.starve(this.needs.map(({ number }) => number));
    this.goThrough(
      { span: { from: this.rules.span.from, seconds: SECONDS_PER_DAY }, shortest: true },
      true,
    );
    return this.best !== null || this.needs.length === 0;
  }

  /** Whether each station could be watered if it were the only one: a quick no for many a brief that has no plan. */
  private eachIsPossible(): boolean {
    if (this.fixed.length > 0) return true;
    if (this.needs.some(({ often }) => often && often.times > this.mostStarts)) return false;
    const { tries } = this.drafting;
    const known = new Set<string>();
    return this.needs.every((need) => {
      // What is alike is asked for once.
      const { allowed, parity, bound, overhead, least, most, often, group } = need;
      const key = JSON.stringify([allowed, parity, bound, overhead, least, most, often, group]);
      if (known.has(key)) return true;
      known.add(key);
      const possible = this.drafting.isPossibleAlone(need, this.kinds, this.mostStarts, false);
      this.drafting.tries = tries;
      return possible;
    });
  }

  private nothingToDo(): Answer {
    const plan = barePlan(this.brief);
    const found = { plan, cost: costOf(this.brief, plan) };
    const proof = { optimal: true, bound: found.cost };
    return { found, proof, tries: 0, complete: true };
  }

  private answer(proof: Proof): Answer {
    return { found: this.best, proof, tries: this.drafting.tries, complete: true };
  }

  /** Less than is needed for some stations, since there is no other way: for one, the thirstiest first, then for two, and so on. */
  private starve(strict: Hours): void {
    const order = [...this.needs].sort((a, b) => b.wanted - a.wanted || a.number - b.number);
    const sets = [
      ...order.slice(0, MOST_STARVED_ALONE).map((need) => [need]),
      ...STARVED.filter((count) => count < order.length).map((count) => order.slice(0, count)),
      order,
    ];
    for (const set of sets) {
      this.drafting.starve(set.map(({ number }) => number));
      if (this.drafting.tries >= this.lastTry && set.length < order.length) continue;
      if (set.length === order.length) this.allow(STRETCH_ROUNDS);
      this.goThrough(strict, true);
      const { recipe } = this;
      if (this.best && recipe) this.feed(recipe, strict);
      if (!this.best) this.stretch();
      if (this.best) return;
    }
  }

  /** Looks near a plan in which some go short for one in which none does. */
  private feed(recipe: Recipe, reach: Hours): void {
    this.drafting.starve([]);
    const { best } = this;
    const until = this.drafting.tries + this.mostTries;
    for (const drafted of this.drafting.near(recipe, reach)) {
      this.take(drafted);
      if (this.best !== best || this.drafting.tries >= until) break;
    }
    if (this.best !== best) this.polish(reach);
  }

  private findHopeless(): void {
    const none: number[] = [];
    const { tries } = this.drafting;
    this.needs.forEach((need, i) => {
      const fits = this.allKinds().some((kind) => {
        for (let starts = 1; starts <= this.mostStartsOf(kind); starts++)
          if (this.drafting.offOf(i, kind, starts) < Infinity) return true;
        return false;
      });
      // What waters often has few hours; there it is worth it to look whether they are enough.
      const isPlaced =
        !need.often ||
        this.fixed.length > 0 ||
        this.drafting.isPossibleAlone(need, this.kinds, this.mostStarts, true);
      if (!fits || !isPlaced) none.push(i);
    });
    this.drafting.tries = tries;
    for (const i of none) this.drafting.hopeless.add(i);
    this.drafting.starve([]);
  }

  private allKinds(): SlotKind[] {
    return [...this.kinds, ...this.slots.flatMap(({ kinds }) => kinds)];
  }

  private mostStartsOf(kind: SlotKind): number {
    return kind.variants[0]?.isHours ? 1 : this.mostStarts;
  }

  private level(count: number): Level {
    let level = this.levels.get(count);
    if (!level)
      this.levels.set(count, (level = choicesOf(count, this.kinds, this.slots, this.needs.length)));
    return level;
  }

  /**
   * All numbers of programs and starts, with watering where a reach allows it.
   *
   * @param first stop at the fewest programs; else all are compared.
   * @param tries for each number of programs.
   */
  private goThrough(reach: Hours, first: boolean, tries = this.mostTries): void {
    for (let count = Math.max(1, this.fixed.length); count <= this.mostPrograms; count++) {
      if (this.drafting.tries >= this.lastTry) {
        this.isOpen(count, count);
        return;
      }
      const level = this.level(count);
      if (!level.complete) this.isOpen(count, count);
      const choices = level.choices.filter((kinds) => this.servesAll(kinds));
      if (choices.length === 0) continue;
      const until = Math.min(this.lastTry, this.drafting.tries + tries);
      let most = count * this.mostStarts;
      for (let starts = count; starts <= most; starts++) {
        const some = this.try(choices, starts, reach, until);
        if (some && starts + MOST_MORE_STARTS < most) {
          most = starts + MOST_MORE_STARTS;
          this.complete = false;
        }
        if (this.best && first) return;
        if (this.drafting.tries >= until) {
          this.isOpen(count, starts + 1);
          break;
        }
      }
      if (this.best && !first && this.best.cost[1] === 0) return;
    }
  }

  /** Whether every station has a program among some kinds with which it can come to its need, with however many starts. */
  private servesAll(kinds: readonly SlotKind[]): boolean {
    const columns = kinds.map((kind) =>
      Array.from({ length: this.mostStartsOf(kind) }, (_, k) => this.drafting.column(kind, k + 1)),
    );
    return this.needs.every(({ number }, i) => {
      const slot = this.fixed.findIndex(({ stations }) => stations.includes(number));
      return columns.some(
        (column, j) =>
          (slot < 0 || slot === j) && column.some((column) => (column[i] ?? Infinity) < Infinity),
      );
    });
  }

  /** What was left open from here on is not proven. */
  private isOpen(programs: number, starts: number, off = 0): void {
    this.complete = false;
    if (this.leastPrograms !== null && this.leastPrograms < programs) return;
    if (this.leastPrograms === programs && (this.leastStarts ?? 0) < starts) return;
    if (this.leastPrograms === programs && this.leastStarts === starts)
      this.leastOff = Math.min(this.leastOff ?? off, off);
    else this.leastOff = off;
    this.leastPrograms = programs;
    this.leastStarts = starts;
  }

  /** Ways to share a number of starts out to the programs. */
  private compositions(kinds: readonly SlotKind[], total: number): number[][] {
    const made: number[][] = [];
    const go = (chosen: readonly number[], left: number) => {
      if (made.length >= MOST_COMPOSITIONS) return;
      const j = chosen.length;
      const kind = kinds[j];
      if (!kind) {
        if (left === 0) made.push([...chosen]);
        return;
      }
      const isLast = j === kinds.length - 1;
      const least = Math.max(1, this.fixed[j]?.starts.length ?? 0, isLast ? left : 0);
      const most = Math.min(this.mostStartsOf(kind), left - (kinds.length - 1 - j));
      for (let own = least; own <= most; own++) go([...chosen, own], left - own);
    };
    go([], total);
    return made;
  }

  /** Thousandths that a choice cannot be less off than; Infinity where some station has no place in it. */
  private relaxed(kinds: readonly SlotKind[], starts: readonly number[]): number {
    const columns = kinds.map((kind, j) => this.drafting.column(kind, starts[j] ?? 1));
    let sum = 0;
    for (let i = 0; i < this.needs.length; i++) {
      let least = Infinity;
      for (const column of columns) least = Math.min(least, column[i] ?? Infinity);
      sum += least;
      if (sum === Infinity) return sum;
    }
    return Math.round(sum * 1000 - 1e-9);
  }

  /** All choices with so many starts, and what they cannot be less off than. */
  private listed(choices: readonly (readonly SlotKind[])[], total: number): readonly Ranked[] {
    const count = choices[0]?.length ?? 0;
    const key = `${count} ${total} ${this.drafting.starvedText}`;
    let list = this.lists.get(key);
    if (list) return list;
    const made: Ranked[] = [];
    for (const kinds of choices)
      for (const starts of this.compositions(kinds, total)) {
        if (this.looks >= MOST_LOOKS) {
          this.isOpen(count, total);
          break;
        }
        this.looks++;
        const off = this.relaxed(kinds, starts);
        if (off === Infinity) continue;
        const rank = kinds.reduce((sum, { variants }) => sum + (variants[0]?.rank ?? 0), 0);
        made.push({ kinds, starts, off, rank });
      }
    this.lists.set(key, (list = made));
    return list;
  }

  /** @returns whether any choice was worth trying. */
  private try(
    choices: readonly (readonly SlotKind[])[],
    total: number,
    reach: Hours,
    until: number,
  ): boolean {
    const candidates = this.listed(choices, total)
      .filter(({ kinds, starts }) => this.drafting.hasRoom(kinds, starts, reach))
      .map((ranked) => ({ ...ranked, tight: this.drafting.tightness(ranked.kinds, reach) }));
    candidates.sort((a, b) => a.off - b.off || a.tight - b.tight || a.rank - b.rank);
    const count = choices[0]?.length ?? 1;
    // A quick look at many first: where there is little room few of them have any.
    const quick = this.drafting.tries + Math.floor(this.mostTries / 3);
    const roomiest = [...candidates].sort(
      (a, b) => a.tight - b.tight || a.rank - b.rank || a.off - b.off,
    );
    for (const candidate of roomiest.slice(0, MOST_PROPOSALS)) {
      if (this.best || this.drafting.tries >= Math.min(quick, until)) break;
      for (const drafted of this.drafting.proposals(candidate, reach)) this.take(drafted);
    }
    for (const candidate of candidates) {
      if (this.best && !this.couldBeat(candidate, this.best)) break;
      if (this.drafting.tries >= until) {
        this.isOpen(count, total, candidate.off);
        break;
      }
      this.drafting.sure = true;
      for (const drafted of this.drafting.attempts(candidate, reach, until)) {
        this.take(drafted);
        if (this.best && !this.couldBeat(candidate, this.best)) break;
        if (this.drafting.tries >= until) break;
      }
      if (!this.drafting.sure && (!this.best || this.couldBeat(candidate, this.best)))
        this.isOpen(count, total, candidate.off);
    }
    if (this.best && count > 1) this.polish(reach);
    return candidates.length > 0;
  }

  /** Looks near the best plan of several programs for one that is less off, as long as there is one. */
  private polish(reach: Hours): void {
    const until = this.drafting.tries + Math.floor(this.mostTries / 2);
    for (;;) {
      const { recipe, best } = this;
      const floor = recipe && this.best ? recipe.candidate.off : 0;
      if (!recipe || !best || best.cost[4] <= floor) return;
      for (const drafted of this.drafting.near(recipe, reach)) {
        this.take(drafted);
        if (this.best !== best || this.drafting.tries >= until) break;
      }
      if (this.best === best || this.drafting.tries >= until) return;
    }
  }

  /** Whether a candidate may come to a cheaper plan than one with as many programs and starts, or fewer. */
  private couldBeat({ kinds, starts, off }: Candidate, { cost }: Found): boolean {
    const total = starts.reduce((sum, one) => sum + one, 0);
    return compareCosts([this.drafting.hopeless.size, 0, kinds.length, total, off, 0], cost) < 0;
  }

  /** Keeps a plan that is cheaper than the best, once the engine has found nothing wrong with it. */
  private take(drafted: Drafted): void {
    const { drafts, placement } = drafted;
    const plan = this.planOf(drafts, placement.starts);
    const cost = costOf(this.brief, plan);
    if (this.best && compareCosts(cost, this.best.cost) >= 0) return;
    if (breachOf(this.brief, plan) !== null) {
      this.drafting.sure = false;
      return;
    }
    this.best = { plan, cost };
    this.recipe = this.drafting.recipeOf(drafted);
    this.listener.found?.(this.best);
  }

  /** Programs by letter: a pinned one has its own, the rest go by their lowest station. */
  private planOf(drafts: Drafted['drafts'], starts: readonly (readonly number[])[]): Plan {
    const taken = new Set(this.fixed.map(({ letter }) => letter));
    const free: string[] = [];
    for (let i = 0; free.length < drafts.length; i++)
      if (!taken.has(letterAt(i))) free.push(letterAt(i));
    const lowest = (j: number) => drafts[j]?.members[0]?.need.number ?? 0;
    const order = drafts
      .map((_, j) => j)
      .slice(this.fixed.length)
      .sort((a, b) => lowest(a) - lowest(b));
    const programs = drafts.map((draft, j) =>
      this.rules.programOf(
        draft,
        this.fixed[j]?.letter ?? free[order.indexOf(j)] ?? 'A',
        (starts[j] ?? []).map(formatTime),
      ),
    );
    return {
      ...this.rules.bare,
      programs: programs.sort((a, b) => (a.letter < b.letter ? -1 : 1)),
    };
  }

  /** What is proven of a plan that is inside the wished span. */
  private proofOf({ cost }: Found): Proof {
    const { leastPrograms, leastStarts, leastOff } = this;
    const whole: Cost = [...cost.slice(0, 5), 0] as unknown as Cost;
    const open: Cost | null =
      leastPrograms === null
        ? null
        : [this.drafting.hopeless.size, 0, leastPrograms, leastStarts ?? 1, leastOff ?? 0, 0];
    if (open && compareCosts(open, cost) < 0) return { optimal: false, bound: open };
    if (cost[0] > this.drafting.hopeless.size) return { optimal: false, bound: NO_COST };
    // Seconds here and there might be shifted between runs without being further off, and end a little later.
    const finest = Math.min(
      ...this.needs.map(({ wanted }) => this.brief.timer.runStepSeconds / wanted),
    );
    if (cost[5] > 0 && finest < 0.001) return { optimal: false, bound: whole };
    return { optimal: true, bound: open && compareCosts(open, whole) < 0 ? whole : cost };
  }
}

/** The cheapest plan of a brief. @throws TooMuchWork */
export function searchPlan(brief: Brief, options?: PlannerOptions, listener?: Listener): Answer {
  const answer = new Search(brief, options, listener).run();
  const avoid = options?.avoid ?? [];
  if (avoid.length === 0 || (answer.found && answer.found.cost[1] === 0)) return answer;
  // Better at an hour that a clock change touches than in the sun, or not at all.
  const { avoid: _avoided, ...rest } = options ?? {};
  const other = new Search(brief, rest, listener).run();
  if (!answer.found) return other;
  return other.found && compareCosts(other.found.cost, answer.found.cost) < 0 ? other : answer;
}
