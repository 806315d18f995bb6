/** Why a brief has no plan: a smallest set of its demands that cannot be had together, and what would help (planning.md section 3). */
import type { Brief } from '../brief/brief.ts';
import { TooMuchWork } from '../engine/effort.ts';
import { demandsOf } from './demands.ts';
import { type Demand, type Milder } from './demand.ts';
import type { PlannerOptions } from './options.ts';
import { Search } from './search.ts';
import { searchPlan } from './searchPlan.ts';

export interface Conflict {
  readonly demand: Demand;
  /** The least change of it with which there is a plan, found by solving again; null: no change of it alone that was tried is enough. */
  readonly change: Milder | null;
}

/** Milder forms of one demand that are tried. */
const MOST_CHANGES = 40;

class Oracle {
  private readonly options: PlannerOptions;
  asked = 0;

  constructor(options: PlannerOptions) {
    this.options = { ...options, thoroughness: 0.1 };
  }

  isPossible(brief: Brief): boolean {
    this.asked++;
    try {
      return new Search(brief, this.options).isPossible();
    } catch (error) {
      if (error instanceof TooMuchWork) return false;
      throw error;
    }
  }
}

/**
 * The demands of a brief that cannot be had together. None of them can be left out: without it the others can be had.
 * Where many such sets exist, one of a single demand or of two is preferred.
 */
export function conflictsOf(brief: Brief, options: PlannerOptions = {}): Conflict[] {
  const oracle = new Oracle(options);
  const demands = demandsOf(brief);
  const only = (kept: readonly Demand[]) =>
    demands
      .filter((demand) => !kept.includes(demand))
      .reduce((b, { without }) => without(b), brief);
  const set = smallestSet(demands, (kept) => !oracle.isPossible(only(kept)));
  // Where anything else is in the way, the water itself is not worth mentioning.
  const telling = set.filter(({ about }) => about !== 'water');
  return (telling.length > 0 ? telling : set).map((demand): Conflict => {
    const isEnough = (changed: Brief) =>
      oracle.isPossible(changed) && searchPlan(changed, options).found !== null;
    return { demand, change: firstOf(demand.milder(brief), isEnough) };
  });
}

/** The first of the milder forms with which there is a plan. */
function firstOf(forms: Iterable<Milder>, isPossible: (brief: Brief) => boolean): Milder | null {
  let tried = 0;
  for (const form of forms) {
    if (++tried > MOST_CHANGES) break;
    if (isPossible(form.brief)) return form;
  }
  return null;
}

/**
 * A set that is impossible, while it is possible without any one of it. First what is asked of all is left out in halves, then one by one.
 */
function smallestSet(
  demands: readonly Demand[],
  isImpossible: (kept: readonly Demand[]) => boolean,
): readonly Demand[] {
  if (!isImpossible(demands)) return [];
  let kept = demands;
  for (let size = Math.ceil(kept.length / 2); size >= 1; size = Math.floor(size / 2))
    for (let at = 0; at < kept.length;) {
      const rest = [...kept.slice(0, at), ...kept.slice(at + size)];
      if (rest.length < kept.length && isImpossible(rest)) kept = rest;
      else at += size;
    }
  return kept;
}
