/** The planner as people ask for it: the cheapest plan of a brief, why it is so, and what stands in the way where there is none. */
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

/** The cost of a plan with one program or one start fewer; null where there is no such plan. */
export interface Simpler {
  readonly what: 'programs' | 'starts';
  readonly count: number;
  readonly cost: Cost | null;
}

/** A plan, and what is known of it without solving anything again. */
export interface Solved {
  readonly plan: Plan | null;
  readonly cost: Cost | null;
  readonly proof: Proof;
  readonly reasons: readonly Reason[];
  /** Each edition that is announced, and whether the plan keeps it. */
  readonly coming: readonly ComingKept[];
  /** Whether what `plan` says is known to be so: that there is one, or that none keeps the hard rules. False: none was found. */
  readonly isSure: boolean;
}

/** Claims beside a plan, or about why there is none, each tested by solving the brief again. */
export interface Claims {
  /** Where there is no plan. */
  readonly conflicts: readonly Conflict[];
  readonly simpler: readonly Simpler[];
  /** Stations that count in the first part of the cost. */
  readonly short: readonly Short[];
  /** Where some watering is outside the wished hours. */
  readonly hours: OutsideHours | null;
}

export interface Worked extends Solved, Claims {}

/** How hard to try for what is only mentioned beside the plan. */
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
 * The cheapest plan of a brief. The same brief gives the same answer on any day and any machine: work is counted, not time.
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
 * What would help a plan, and what a simpler one would give up; where there is none, what stands in the way.
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
 * The cheapest plan of a brief, and all that can be claimed about it.
 *
 * @throws TooMuchWork
 */
export function workOut(brief: Brief, options: PlannerOptions = {}): Worked {
  const solved = solve(brief, options);
  return { ...solved, ...claimsOf(brief, solved, options) };
}

/** A brief for a plan of another kind. */
export interface Alternative {
  readonly kind: AlternativeKind;
  readonly brief: Brief;
}

export type AlternativeKind =
  'as-wished' | 'by-sunrise' | 'fewest-days' | 'timer-soak' | 'repeated-starts' | 'one-program';

/**
 * Briefs that lead to plans that differ in kind; the first is the brief itself.
 *
 * @param sunrise the time of day at which watering would be done by sunrise; null: not known.
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
