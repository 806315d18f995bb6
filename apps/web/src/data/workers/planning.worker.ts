/** The planner, off the page's own thread. A shell over core. */
import {
  alternativesOf,
  attempt,
  claimsOf,
  conflictSentences,
  pathText,
  prove,
  seasonOf,
  setTranslator,
  solve,
  type AlternativeKind,
  type Brief,
  type PlannerOptions,
} from '@water-clock/core';
import { translatorOf } from '@water-clock/words';
import { expose } from 'comlink';
import type { PlanNews, PlanRequest, PlanResult } from './planning.ts';

/** How many kinds of plan stand side by side with what is set now, the brief's own included. */
const MOST_ALTERNATIVES = 3;

/** Stations that a plan of another kind may leave off their need beyond those of the first. */
const MOST_MORE_SHORT = 1;

/** How hard to try for a first plan to look at, and for plans of other kinds. */
const AT_ONCE = 0.1;
const OTHER_KINDS = 0.25;

const programsText = ({ plan }: Pick<PlanResult, 'plan'>) => JSON.stringify(plan?.programs ?? null);

function resultOf(kind: AlternativeKind, brief: Brief, options: PlannerOptions): PlanResult {
  const solved = solve(brief, options);
  const headroom = solved.plan ? prove(solved.plan, options.on ?? 0).headroomPercent : null;
  return { ...solved, kind, brief, headroom, claims: null };
}

/** A plan of each other kind, as far as they differ and leave no more of the garden short. */
function others(request: PlanRequest, own: PlanResult): PlanResult[] {
  const seen = new Set([programsText(own)]);
  const made: PlanResult[] = [];
  const options = { ...request.options, thoroughness: OTHER_KINDS };
  for (const { kind, brief } of alternativesOf(request.brief, request.sunrise).slice(1)) {
    if (seen.size >= MOST_ALTERNATIVES) break;
    const result = resultOf(kind, brief, options);
    if (!result.plan || !result.cost || seen.has(programsText(result))) continue;
    if (own.cost && result.cost[0] > own.cost[0] + MOST_MORE_SHORT) continue;
    seen.add(programsText(result));
    made.push(result);
  }
  return made;
}

/** A first plan and the plans beside it come within a second or so; then a better one is looked for, and each claim tried. */
function work(request: PlanRequest, tell: (news: PlanNews) => void): void {
  const { brief, options, clock } = request;
  const { verdict, headroomPercent } = prove(request.present, options.on ?? 0);
  tell({ kind: 'present', present: { verdict, headroom: headroomPercent } });
  const results: PlanResult[] = [];
  const show = (result: PlanResult) => {
    tell({ kind: 'result', result });
    return result;
  };
  const first = resultOf('as-wished', brief, { ...options, thoroughness: AT_ONCE });
  if (first.plan) {
    show(first);
    if (!request.alone) results.push(...others(request, first).map(show));
  }
  const best = resultOf('as-wished', brief, options);
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
};
export type PlanningWorker = typeof worker;

expose(worker);
