/** Why a brief has no plan: a minimal set of its demands that cannot be met together, and what would help (planning.md section 3). */
import type { Brief } from '../brief/brief.ts';
import { TooMuchWork } from '../engine/effort.ts';
import { demandsOf } from './demands.ts';
import { type Demand, type Milder } from './demand.ts';
import type { PlannerOptions } from './options.ts';
import { Search } from './search.ts';
import { searchPlan } from './searchPlan.ts';

export interface Conflict {
  readonly demand: Demand;
  /** Its smallest change with which a plan exists, found by solving again; null: no change of it alone was enough. */
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
 * Demands of a brief that cannot be met together. None can be left out: without it the others can be met. If several such sets exist, one
 * with a single demand or two is preferred.
 */
export function conflictsOf(brief: Brief, options: PlannerOptions = {}): Conflict[] {
  const oracle = new Oracle(options);
  const demands = demandsOf(brief);
  const only = (kept: readonly Demand[]) =>
    demands
      .filter((demand) => !kept.includes(demand))
      .reduce((b, { without }) => without(b), brief);
  const set = smallestSet(demands, (kept) => !oracle.isPossible(only(kept)));
  // If anything else is in the way, water need is not worth mentioning.
  const telling = set.filter(({ about }) => about !== 'water');
  return (telling.length > 0 ? telling : set).map((demand): Conflict => {
    const isEnough = (changed: Brief) =>
      oracle.isPossible(changed) && searchPlan(changed, options).found !== null;
    return { demand, change: firstOf(demand.milder(brief), isEnough) };
  });
}

/** The first milder form with which there is a plan. */
function firstOf(forms: Iterable<Milder>, isPossible: (brief: Brief) => boolean): Milder | null {
  let tried = 0;
  for (const form of forms) {
    if (++tried > MOST_CHANGES) break;
    if (isPossible(form.brief)) return form;
  }
  return null;
}

/** A set that is infeasible, but feasible without any one member. Removes halves of the demands first, then single ones. */
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
