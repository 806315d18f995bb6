/** The planner's entry points: the cheapest plan of a brief, its reasons, and what prevents one. */
import { type Brief, wishOf } from '../brief/brief.ts';
import { daysWanted } from '../brief/wanted.ts';
import type { Plan } from '../plan/plan.ts';
import { conflictsOf, type Conflict } from './conflicts.ts';
import type { Cost } from './cost.ts';
import type { PlannerOptions } from './options.ts';
import { reasonsOf, type Reason } from './reasons.ts';
import type { Listener } from './search.ts';
import { searchKeepingComing, searchPlan } from './searchPlan.ts';
import { comingKept, type ComingKept } from './coming.ts';
import { outsideHours, shortOf, type OutsideHours, type Short } from './relief.ts';
import type { Proof } from './proof.ts';

/** Cost of a plan with one program or one start fewer; null if there is none. */
export interface Simpler {
  readonly what: 'programs' | 'starts';
  readonly count: number;
  readonly cost: Cost | null;
}

/** A plan, and what is known of it without solving again. */
export interface Solved {
  readonly plan: Plan | null;
  readonly cost: Cost | null;
  readonly proof: Proof;
  readonly reasons: readonly Reason[];
  /** Each announced edition, and whether the plan keeps it. */
  readonly coming: readonly ComingKept[];
  /** Whether `plan` is certain: it exists, or provably none keeps the hard rules. False: none was found. */
  readonly isSure: boolean;
}

/** Claims about a plan, or about why there is none, each tested by solving the brief again. */
export interface Claims {
  /** Present if there is no plan. */
  readonly conflicts: readonly Conflict[];
  readonly simpler: readonly Simpler[];
  /** Stations that count in cost part 1. */
  readonly short: readonly Short[];
  /** Present if some watering is outside the wished hours. */
  readonly hours: OutsideHours | null;
}

export interface Worked extends Solved, Claims {}

/** Thoroughness for alternatives that are only mentioned. */
const BESIDE = 0.25;

/** One program or one start fewer. */
function simplerOf(brief: Brief, plan: Plan, cost: Cost, options: PlannerOptions): Simpler[] {
  const simpler: Simpler[] = [];
  const ask = (what: Simpler['what'], count: number, timer: Partial<Brief['timer']>) => {
    const less = { ...brief, timer: { ...brief.timer, ...timer } };
    const { on, avoid } = options;
    const beside = {
      thoroughness: BESIDE,
      ...(on === undefined ? {} : { on }),
      ...(avoid ? { avoid } : {}),
    };
    simpler.push({ what, count, cost: searchPlan(less, beside).found?.cost ?? null });
  };
  if (cost[3] > 1) ask('programs', cost[3] - 1, { programCount: cost[3] - 1 });
  const most = Math.max(0, ...plan.programs.map(({ starts }) => starts.length));
  if (most > 1) ask('starts', most - 1, { startsPerProgram: most - 1 });
  return simpler;
}

/**
 * The cheapest plan of a brief. Deterministic on any day and machine: limits count work, not time.
 *
 * @throws TooMuchWork
 */
export function solve(brief: Brief, options: PlannerOptions = {}, listener: Listener = {}): Solved {
  const { found, proof, complete } = searchKeepingComing(brief, options, listener);
  if (!found)
    return {
      plan: null,
      cost: null,
      proof,
      reasons: [],
      coming: [],
      isSure: complete,
    };
  return {
    ...found,
    proof,
    reasons: reasonsOf(brief, found.plan, found.cost[1]),
    coming: comingKept(brief, found.plan),
    isSure: true,
  };
}

/**
 * What would help a plan, and what a simpler one would give up; without a plan, what prevents one.
 *
 * @throws TooMuchWork
 */
export function claimsOf(
  brief: Brief,
  { plan, cost }: Solved,
  options: PlannerOptions = {},
): Claims {
  if (!plan || !cost)
    return { simpler: [], short: [], hours: null, conflicts: conflictsOf(brief, options) };
  return {
    simpler: simplerOf(brief, plan, cost, options),
    short: shortOf(brief, { plan, cost }, options),
    hours: outsideHours(brief, { plan, cost }, options),
    conflicts: [],
  };
}

/**
 * The cheapest plan of a brief with all its claims.
 *
 * @throws TooMuchWork
 */
export function workOut(brief: Brief, options: PlannerOptions = {}): Worked {
  const solved = solve(brief, options);
  return { ...solved, ...claimsOf(brief, solved, options) };
}

/** A brief for another kind of plan. */
export interface Alternative {
  readonly kind: AlternativeKind;
  readonly brief: Brief;
}

export type AlternativeKind =
  'as-wished' | 'by-sunrise' | 'fewest-days' | 'timer-soak' | 'repeated-starts' | 'one-program';

/**
 * Briefs for plans of different kinds, the original first.
 *
 * @param sunrise hour for "done by sunrise"; null: not known
 */
export function alternativesOf(brief: Brief, sunrise: string | null): Alternative[] {
  const wish = wishOf(brief);
  const wished = (fields: Partial<Brief['wish']>): Brief => ({
    ...brief,
    wish: { ...brief.wish, ...fields },
  });
  const wishedWithout = (fields: Partial<Brief['wish']>): Brief => {
    const { daysPerWeek: _days, ...rest } = brief.wish ?? {};
    return { ...brief, wish: { ...rest, ...fields } };
  };
  const alternatives: Alternative[] = [{ kind: 'as-wished', brief }];
  const watered = brief.stations.filter(({ weeklySeconds }) => weeklySeconds > 0);
  if (sunrise !== null && sunrise !== wish.finishBy)
    alternatives.push({ kind: 'by-sunrise', brief: wished({ finishBy: sunrise }) });
  if (watered.some(({ cycleSeconds }) => cycleSeconds !== undefined)) {
    if (wish.starts !== 'timer-soak' && brief.timer.cycleSoak !== 'none')
      alternatives.push({ kind: 'timer-soak', brief: wished({ starts: 'timer-soak' }) });
    if (wish.starts !== 'repeated' && brief.timer.startsPerProgram > 1)
      alternatives.push({ kind: 'repeated-starts', brief: wished({ starts: 'repeated' }) });
  }
  if (wish.programs !== 'one' && watered.length > 1 && brief.timer.programCount > 1)
    alternatives.push({
      kind: 'one-program',
      brief: {
        ...wishedWithout({ programs: 'one', apart: [] }),
        stations: brief.stations.map(withoutDays),
      },
    });
  const canBeFewer = (station: Brief['stations'][number]) => {
    const days = daysWanted(brief, station);
    return !days || days.most > days.least;
  };
  if (watered.some(canBeFewer))
    alternatives.push({
      kind: 'fewest-days',
      brief: { ...brief, stations: brief.stations.map((one) => fewestDays(brief, one)) },
    });
  return alternatives;
}

const withoutDays = ({ days: _days, ...station }: Brief['stations'][number]) => station;

const fewestDays = (brief: Brief, station: Brief['stations'][number]) => {
  const days = daysWanted(brief, station);
  return { ...station, days: { least: days?.least ?? 1, most: days?.least ?? 2 } };
};
