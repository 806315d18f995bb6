/**
 * The search for the cheapest plan of a brief (planning.md section 3).
 *
 * Cost is compared part by part, and the search follows the same order. For one program, then two, and so on, and for each total number of
 * starts, it lists all choices of program kinds that give every station a program, each with a lower bound of its error if time were
 * unlimited. They are tried in that order. The first that fits on the clock has the fewest programs and starts, and the search ends once
 * the next in the list cannot be better. What a limit skipped, or failed without a proof, is remembered, so that nothing is called optimal
 * that is not.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, wishOf } from '../brief/brief.ts';
import { TooMuchWork } from '../engine/effort.ts';
import type { Plan } from '../plan/plan.ts';
import { parseTime, SECONDS_PER_DAY } from '../time/calendar.ts';
import { Candidates, type Kinds } from './candidates.ts';
import { compareCosts, costOf, type Cost } from './cost.ts';
import type { Drafting } from './draft.ts';
import type { Candidate, Drafted, Hours, Recipe } from './drafted.ts';
import { barePlan } from './needs.ts';
import type { PlannerOptions } from './options.ts';
import { assembled } from './assembled.ts';
import { isLikedBetter } from './likes.ts';
import { hopelessOf, isEachPossible } from './possible.ts';
import { LeftOpen, NOTHING_PROVEN, type Proof } from './proof.ts';
import { setUp, type Setup } from './setup.ts';
import { breachOf } from './verify.ts';

export interface Found {
  readonly plan: Plan;
  readonly cost: Cost;
}

export interface Answer {
  /** Null: none meets the hard rules, or none was found. */
  readonly found: Found | null;
  readonly proof: Proof;
  /** Placements tried. */
  readonly tries: number;
  /** Whether the search was exhaustive; then finding no plan proves that there is none. */
  readonly complete: boolean;
}

/** Progress of the search. */
export interface Listener {
  readonly found?: (found: Found) => void;
  /** Placements tried so far. */
  readonly tried?: (tries: number) => void;
}

/** Placements for one number of programs, at a thoroughness of 1; fewer with many stations. */
const MOST_TRIES = 400;
/** Multiples of that limit: inside the wished hours, with more of the day, and with less water. */
const STRICT_ROUNDS = 3;
const STRETCH_ROUNDS = 2;
const STARVE_ROUNDS = 3;
/** Starts tried beyond the minimum. */
const MOST_MORE_STARTS = 12;
/** Stations tried alone when some must get less water. */
const MOST_STARVED_ALONE = 2;
/** Seconds by which the wished span is extended if not everything fits. */
const STRETCHES = [1800, 3600, 7200, 10_800, 14_400, 21_600, 28_800, 43_200];

/** Placements of one choice when those with the most water are tried first. */
const MOST_TRIES_BY_WATER = 12;

/** Choices of which at first only the most promising plan is tried. */
const MOST_PROPOSALS = 300;
export class Search {
  private readonly brief: Brief;
  private readonly listener: Listener;
  private readonly setup: Setup;
  private readonly candidates: Candidates;
  private readonly open = new LeftOpen();
  private readonly mostTries: number;
  private readonly mostShort: number;
  /** The search ends at this many tries, whatever it has. */
  private lastTry: number;
  private best: Found | null = null;
  private recipe: Recipe | null = null;

  /** @throws TooMuchWork */
  constructor(brief: Brief, options: PlannerOptions = {}, listener: Listener = {}) {
    this.brief = brief;
    this.listener = listener;
    this.setup = setUp(brief, options, listener.tried);
    this.candidates = new Candidates(this.setup, this.open);
    const { thoroughness = 1, mostShort = Infinity } = options;
    this.mostShort = mostShort;
    this.mostTries = Math.max(
      Math.ceil(30 * Math.min(1, thoroughness)),
      Math.round((thoroughness * MOST_TRIES * 24) / Math.max(24, this.setup.needs.length)),
    );
    this.lastTry = STRICT_ROUNDS * this.mostTries;
  }

  private get drafting(): Drafting {
    return this.setup.drafting;
  }

  /** What was found before the work limit is an answer too. */
  run(): Answer {
    try {
      return this.search();
    } catch (error) {
      if (!(error instanceof TooMuchWork)) throw error;
      const { tries } = this.drafting;
      return { found: this.best, proof: NOTHING_PROVEN, tries, complete: false };
    }
  }

  private search(): Answer {
    if (this.setup.needs.length === 0) return this.nothingToDo();
    if (!isEachPossible(this.setup)) {
      const { tries } = this.drafting;
      return { found: null, proof: NOTHING_PROVEN, tries, complete: true };
    }
    for (const i of hopelessOf(this.setup, this.candidates)) this.drafting.hopeless.add(i);
    // Each of them counts at least one step.
    if (this.drafting.hopeless.size > this.mostShort)
      return { found: null, proof: NOTHING_PROVEN, tries: this.drafting.tries, complete: false };
    const { needs } = this.setup;
    this.drafting.starve([...this.drafting.hopeless].map((i) => needs[i]?.number ?? 0));
    const strict: Hours = { span: this.setup.rules.span, shortest: false };
    this.allow(STRICT_ROUNDS);
    if (this.drafting.hopeless.size > 0) this.goByWater(strict);
    else this.goThrough(strict, true);
    if (this.best) return this.answer(this.best);
    const noneInside = this.open.complete;
    this.allow(STRETCH_ROUNDS);
    this.stretch();
    const noneAnywhere = noneInside && this.open.complete;
    let offNeed = this.drafting.hopeless.size;
    if (!this.best && offNeed < this.mostShort) {
      if (noneAnywhere) offNeed++;
      this.allow(STARVE_ROUNDS);
      this.starve(strict);
    }
    const { best } = this;
    // Beyond the wished span, or with less water than needed, only this much is proven.
    const outside = noneInside && offNeed === this.drafting.hopeless.size ? 0.001 : 0;
    return {
      found: best,
      proof: { optimal: false, bound: [offNeed, outside, 0, 1, 1, 0, 0] },
      tries: this.drafting.tries,
      complete: best !== null || (noneAnywhere && this.mostShort === Infinity),
    };
  }

  /** Allows this many more rounds. */
  private allow(rounds: number): void {
    this.lastTry = this.drafting.tries + rounds * this.mostTries;
  }

  /** Uses more of the day if everything then fits: as little more as is enough. */
  private stretch(): void {
    const finish = assertDefined(
      parseTime(wishOf(this.brief).finishBy),
      'parseTime(wishOf(brief).finishBy)',
    );
    const { from, seconds: wished } = this.setup.rules.span;
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
   * Whether any plan keeps the hard rules, with any amount of water at any hour. What is not found in time counts as not existing.
   *
   * @throws TooMuchWork
   */
  isPossible(): boolean {
    if (!isEachPossible(this.setup)) return false;
    this.drafting.starve(this.setup.needs.map(({ number }) => number));
    this.goThrough(
      { span: { from: this.setup.rules.span.from, seconds: SECONDS_PER_DAY }, shortest: true },
      true,
    );
    return this.best !== null || this.setup.needs.length === 0;
  }

  private nothingToDo(): Answer {
    const plan = barePlan(this.brief);
    const found = { plan, cost: costOf(this.brief, plan) };
    const proof = { optimal: true, bound: found.cost };
    return { found, proof, tries: 0, complete: true };
  }

  private answer(found: Found): Answer {
    const { brief, drafting } = this;
    const { needs } = this.setup;
    const proof = this.open.proofOf(found.cost, drafting.hopeless.size, brief, needs);
    return { found, proof, tries: drafting.tries, complete: true };
  }

  /** The last resort is to give stations less than they need: one of the thirstiest alone, then any of them. */
  private starve(strict: Hours): void {
    const order = [...this.setup.needs].sort((a, b) => b.wanted - a.wanted || a.number - b.number);
    const sets = [...order.slice(0, MOST_STARVED_ALONE).map((need) => [need]), order];
    for (const set of sets) {
      this.drafting.starve(set.map(({ number }) => number));
      if (this.drafting.tries >= this.lastTry && set.length < order.length) continue;
      if (set.length === order.length) this.allow(STARVE_ROUNDS);
      // Water comes before programs and starts, so all numbers of them are compared.
      this.goThrough(strict, false);
      const { recipe } = this;
      if (this.best && recipe) this.feed(recipe, strict);
      if (!this.best) this.stretch();
      // One station alone is so short that the water may be better shared by all.
      if (this.best && set.length === order.length) return;
    }
  }

  /** Searches near a plan with short stations for one without. */
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

  /**
   * All numbers of programs and starts, inside a reach.
   *
   * @param first stop at the fewest programs; otherwise compare all
   * @param tries for each number of programs
   */
  private goThrough(reach: Hours, first: boolean, tries = this.mostTries): void {
    const floor = this.drafting.hopeless.size;
    for (
      let count = Math.max(1, this.setup.fixed.length);
      count <= this.setup.mostPrograms;
      count++
    ) {
      if (this.drafting.tries >= this.lastTry) {
        this.open.add(count, count);
        return;
      }
      const choices = this.candidates.withPrograms(count);
      if (choices.length === 0) continue;
      const until = Math.min(this.lastTry, this.drafting.tries + tries);
      let most = count * this.setup.mostStarts;
      for (let starts = count; starts <= most; starts++) {
        const some = this.try(choices, starts, reach, until);
        if (some && starts + MOST_MORE_STARTS < most) {
          most = starts + MOST_MORE_STARTS;
          this.open.complete = false;
        }
        if (this.best && first) return;
        if (this.drafting.tries >= until) {
          this.open.add(count, starts + 1);
          break;
        }
      }
      if (this.best && !first && this.best.cost[1] === 0 && this.best.cost[0] <= floor) return;
    }
  }

  /**
   * Choices that may give the most water first, whatever their programs and starts: if some station cannot get its need, none is starved to
   * save a start.
   */
  private goByWater(reach: Hours): void {
    const { drafting, candidates, setup } = this;
    const all: Candidate[] = [];
    for (let count = Math.max(1, setup.fixed.length); count <= setup.mostPrograms; count++) {
      const choices = candidates.withPrograms(count);
      if (choices.length === 0) continue;
      for (let starts = count; starts <= count * setup.mostStarts; starts++)
        for (const candidate of candidates.withStarts(choices, starts))
          if (drafting.hasRoom(candidate.kinds, candidate.starts, reach)) all.push(candidate);
    }
    const totalOf = ({ starts }: Candidate) => starts.reduce((sum, count) => sum + count, 0);
    all.sort(
      (a, b) =>
        a.steps - b.steps ||
        a.kinds.length - b.kinds.length ||
        totalOf(a) - totalOf(b) ||
        a.off - b.off,
    );
    for (const candidate of all) {
      if (!this.isWorthIt(candidate)) return;
      if (drafting.tries >= this.lastTry) {
        this.open.complete = false;
        return;
      }
      const until = Math.min(this.lastTry, drafting.tries + MOST_TRIES_BY_WATER);
      for (const drafted of drafting.proposals(candidate, reach)) this.take(drafted);
      for (const drafted of drafting.attempts(candidate, reach, until)) {
        this.take(drafted);
        if (!this.isWorthIt(candidate)) break;
      }
    }
  }

  /** @returns whether any choice was worth trying */
  private try(choices: readonly Kinds[], total: number, reach: Hours, until: number): boolean {
    const candidates = this.candidates
      .withStarts(choices, total)
      .filter(({ kinds, starts }) => this.drafting.hasRoom(kinds, starts, reach))
      .map((ranked) => ({ ...ranked, tight: this.drafting.tightness(ranked.kinds, reach) }));
    const roomiestFirst = [...candidates].sort(
      (a, b) => a.tight - b.tight || a.rank - b.rank || a.off - b.off,
    );
    const nearestFirst = [...candidates].sort(
      (a, b) => a.off - b.off || a.tight - b.tight || a.rank - b.rank,
    );
    this.lookQuickly(roomiestFirst, reach, until);
    this.lookThrough(nearestFirst, total, reach, until);
    if (this.best && assertDefined(choices[0], 'choices[0]').length > 1) this.polish(reach);
    return candidates.length > 0;
  }

  /** A quick look at many: when time is short, few of them fit. */
  private lookQuickly(candidates: readonly Candidate[], reach: Hours, until: number): void {
    const quick = this.drafting.tries + Math.floor(this.mostTries / 3);
    for (const candidate of candidates.slice(0, MOST_PROPOSALS)) {
      if (this.best || this.drafting.tries >= Math.min(quick, until)) return;
      for (const drafted of this.drafting.proposals(candidate, reach)) this.take(drafted);
    }
  }

  /** Tries all until no remaining one can beat the best. */
  private lookThrough(
    candidates: readonly Candidate[],
    total: number,
    reach: Hours,
    until: number,
  ): void {
    for (const candidate of candidates) {
      if (!this.isWorthIt(candidate)) return;
      if (this.drafting.tries >= until) {
        this.open.add(candidate.kinds.length, total, candidate.off);
        return;
      }
      this.drafting.sure = true;
      for (const drafted of this.drafting.attempts(candidate, reach, until)) {
        this.take(drafted);
        if (!this.isWorthIt(candidate) || this.drafting.tries >= until) break;
      }
      if (!this.drafting.sure && this.isWorthIt(candidate))
        this.open.add(candidate.kinds.length, total, candidate.off);
    }
  }

  /** Searches near the best plan of several programs for a smaller error, as long as there is one. */
  private polish(reach: Hours): void {
    const until = this.drafting.tries + Math.floor(this.mostTries / 2);
    for (;;) {
      const { recipe, best } = this;
      const floor = recipe && this.best ? recipe.candidate.off : 0;
      if (!recipe || !best || best.cost[5] <= floor) return;
      for (const drafted of this.drafting.near(recipe, reach)) {
        this.take(drafted);
        if (this.best !== best || this.drafting.tries >= until) break;
      }
      if (this.best === best || this.drafting.tries >= until) return;
    }
  }

  /** Whether a candidate may lead to a plan cheaper than the best so far. */
  private isWorthIt({ kinds, starts, off, steps }: Candidate): boolean {
    if (!this.best) return true;
    const total = starts.reduce((sum, count) => sum + count, 0);
    const bound: Cost = [steps, 0, 0, kinds.length, total, off, 0];
    return compareCosts(bound, this.best.cost) < 0;
  }

  /** Keeps a plan that is cheaper than the best, once the engine has found no fault in it. */
  private take(drafted: Drafted): void {
    const { drafts, placement } = drafted;
    const plan = assembled(this.setup, drafts, placement.starts);
    const cost = costOf(this.brief, plan);
    if (this.best) {
      const order = compareCosts(cost, this.best.cost);
      if (order > 0 || (order === 0 && !isLikedBetter(plan, this.best.plan))) return;
    }
    if (breachOf(this.brief, plan) !== null) {
      this.drafting.sure = false;
      return;
    }
    this.best = { plan, cost };
    this.recipe = this.drafting.recipeOf(drafted);
    this.listener.found?.(this.best);
  }
}

/**
 * The cheapest plan of a brief, keeping groups apart only where the brief says so.
 *
 * @throws TooMuchWork
 */
export function searchWithin(brief: Brief, options?: PlannerOptions, listener?: Listener): Answer {
  const answer = new Search(brief, options, listener).run();
  const avoid = options?.avoid ?? [];
  if (avoid.length === 0 || (answer.found && answer.found.cost[1] === 0)) return answer;
  // An hour affected by a clock change is better than watering in the sun, or not at all.
  const { avoid: _avoided, ...rest } = options ?? {};
  const other = new Search(brief, rest, listener).run();
  if (!answer.found) return other;
  return other.found && compareCosts(other.found.cost, answer.found.cost) < 0 ? other : answer;
}
