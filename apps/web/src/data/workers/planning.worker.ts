/** The planner, off the page's own thread. A shell over core. */
import {
  alternativesOf,
  attempt,
  conflictSentences,
  pathText,
  prove,
  seasonOf,
  setTranslator,
  workOut,
  type Worked,
} from '@water-clock/core';
import { translatorOf } from '@water-clock/words';
import { expose } from 'comlink';
import type { PlanNews, PlanRequest, PlanResult } from './planning.ts';

/** How many kinds of plan stand side by side with what is set now, the brief's own included. */
const MOST_ALTERNATIVES = 3;

/** Stations that a plan of another kind may leave off their need beyond those of the first. */
const MOST_MORE_SHORT = 1;

const programsText = ({ plan }: Pick<Worked, 'plan'>) => JSON.stringify(plan?.programs ?? null);

function work(request: PlanRequest, tell: (news: PlanNews) => void): void {
  const { brief, options, clock } = request;
  const on = options.on ?? 0;
  const seen = new Set<string>();
  let own: PlanResult | null = null;
  const kinds = request.alone
    ? [{ kind: 'as-wished' as const, brief }]
    : alternativesOf(brief, request.sunrise);
  for (const { kind, brief: asked } of kinds) {
    if (seen.size >= MOST_ALTERNATIVES) break;
    const worked = workOut(asked, options);
    const text = programsText(worked);
    if (own && (worked.plan === null || seen.has(text))) continue;
    // A plan that leaves more of the garden short is not an option.
    if (own?.cost && worked.cost && worked.cost[0] > own.cost[0] + MOST_MORE_SHORT) continue;
    seen.add(text);
    const conflicts = worked.conflicts.map((conflict) => ({
      path: pathText(conflict.demand.path),
      ...conflictSentences(conflict, asked, clock),
      brief: conflict.change?.brief ?? null,
    }));
    const headroom = worked.plan ? prove(worked.plan, on).headroomPercent : null;
    const result = { ...worked, kind, brief: asked, conflicts, headroom };
    own ??= result;
    tell({ kind: 'result', result });
    if (!worked.plan && kind === 'as-wished') break;
    if (kind === 'as-wished') {
      const { verdict, headroomPercent } = prove(request.present, on);
      tell({ kind: 'present', present: { verdict, headroom: headroomPercent } });
    }
  }
  if (own?.plan && request.months.length > 0)
    tell({
      kind: 'season',
      months: seasonOf(own.brief, own.plan, request.months, request.season, {
        ...(options.on === undefined ? {} : { on: options.on }),
      }),
    });
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
