/** The planner in a worker: a shell over core. */
import {
  alternativesOf,
  attempt,
  claimsOf,
  comingKept,
  compareCosts,
  conflictSentences,
  pathText,
  prove,
  repair,
  seasonOf,
  setTranslator,
  solve,
  waterChanges,
  type AlternativeKind,
  type Brief,
  type Outcome,
  type PlannerOptions,
  type Solved,
} from '@water-clock/core';
import { translatorOf } from '@water-clock/words';
import { expose } from 'comlink';
import {
  programsText,
  type PlanNews,
  type PlanRequest,
  type PlanResult,
  type Present,
  type RepairShown,
  type SettingsRequest,
} from './planning.ts';

/** Number of plans shown beside the current settings, including the brief's own. */
const MOST_ALTERNATIVES = 3;

/** How much more of cost part 1 another kind of plan may have: saving days costs some water. */
const MORE_SHORT: Partial<Record<AlternativeKind, number>> = { 'fewest-days': 1 };

/** Thoroughness of the first plans, before the full search. */
const AT_ONCE = 0.1;

/** For a plan found a moment ago. */
const UNKNOWN = {
  proof: { optimal: false, bound: [0, 0, 0, 0, 0, 0, 0] },
  reasons: [],
  coming: [],
  isSure: true,
} satisfies Omit<Solved, 'plan' | 'cost'>;

function resultOf(
  kind: AlternativeKind,
  brief: Brief,
  options: PlannerOptions,
  show?: (result: PlanResult) => void,
): PlanResult {
  const on = options.on ?? 0;
  const withHeadroom = (solved: Solved): PlanResult => {
    const headroom = solved.plan ? prove(solved.plan, on).headroomPercent : null;
    return { ...solved, kind, brief, headroom, claims: null };
  };
  let isFirst = true;
  return withHeadroom(
    solve(brief, options, {
      found: (found) => {
        if (isFirst) show?.(withHeadroom({ ...found, ...UNKNOWN }));
        isFirst = false;
      },
    }),
  );
}

/** A plan of each other kind, if it differs and leaves no more stations short. */
function* others(request: PlanRequest, own: PlanResult): Generator<PlanResult> {
  const seen = new Set([programsText(own)]);
  for (const { kind, brief } of alternativesOf(request.brief, request.sunrise).slice(1)) {
    if (seen.size >= MOST_ALTERNATIVES) break;
    const mostShort = own.cost ? own.cost[0] + (MORE_SHORT[kind] ?? 0) : Infinity;
    const options = { ...request.options, thoroughness: AT_ONCE, mostShort };
    const result = resultOf(kind, brief, options);
    if (!result.plan || !result.cost || seen.has(programsText(result))) continue;
    if (result.cost[0] > mostShort) continue;
    // It must do what its name says.
    if (kind === 'by-sunrise' && result.cost[1] > 0) continue;
    seen.add(programsText(result));
    yield result;
  }
}

/** The first plan and its alternatives come within about a second; then the full search runs, and each claim is tested. */
function work(request: PlanRequest, tell: (news: PlanNews) => void): void {
  const { brief, options, clock } = request;
  const results: PlanResult[] = [];
  const show = (result: PlanResult) => {
    tell({ kind: 'result', result });
    return result;
  };
  const first = resultOf('as-wished', brief, { ...options, thoroughness: AT_ONCE }, show);
  if (first.plan) {
    show(first);
    if (!request.alone) for (const other of others(request, first)) results.push(show(other));
  }
  const whole = resultOf('as-wished', brief, options);
  const isWorse = first.cost && (!whole.cost || compareCosts(first.cost, whole.cost) < 0);
  const best = isWorse ? first : whole;
  if (best.plan) show(best);
  const different = results.filter((one) => programsText(one) !== programsText(best));
  for (const result of [best, ...different]) {
    const { conflicts, ...claims } = claimsOf(result.brief, result, options);
    show({
      ...result,
      claims: {
        ...claims,
        conflicts: conflicts.map((conflict) => ({
          path: pathText(conflict.demand.path),
          ...conflictSentences(conflict, result.brief, clock),
          brief: conflict.change?.brief ?? null,
        })),
      },
    });
    if (result === best && best.plan && request.months.length > 0)
      tell({
        kind: 'season',
        months: seasonOf(brief, best.plan, request.months, request.season, {
          ...(options.on === undefined ? {} : { on: options.on }),
        }),
      });
  }
}

const worker = {
  async plan(request: PlanRequest, tell: (news: PlanNews) => void): Promise<void> {
    setTranslator(await translatorOf(request.language));
    const worked = attempt(() => work(request, tell));
    tell(worked.ok ? { kind: 'end' } : { kind: 'refused', faults: worked.faults });
  },

  present: ({ brief, plan, on }: SettingsRequest): Outcome<Present> =>
    attempt(() => {
      const { verdict, headroomPercent: headroom } = prove(plan, on);
      return { verdict, headroom, coming: comingKept(brief, plan) };
    }),

  repair({ brief, plan, on }: SettingsRequest): Outcome<RepairShown> {
    // Everything stays unless it must change, so water need does not matter.
    const stations = brief.stations.map((station) => ({ ...station, weeklySeconds: 0 }));
    return attempt(() => {
      const { plan: repaired, coming } = repair(plan, { ...brief, stations }, on);
      const water = repaired ? waterChanges(plan, repaired) : [];
      return { plan: repaired, coming, water };
    });
  },
};
export type PlanningWorker = typeof worker;

expose(worker);
