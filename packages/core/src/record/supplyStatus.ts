/** What is known of the water at a timer, and whether its stations take too much of it. */
import { attempt, Effort } from '../engine/effort.ts';
import type { Overlap } from '../engine/overlap.ts';
import { WetStarts } from '../engine/wetStarts.ts';
import { judged } from '../findings/accepted.ts';
import type { Finding } from '../findings/finding.ts';
import { supplyFindings, type SupplyNoted } from '../findings/supplyFindings.ts';
import { allFigures } from '../garden/figures.ts';
import type { Plan } from '../plan/plan.ts';
import type { SiteFields } from '../site/site.ts';
import type { Survey } from '../survey/survey.ts';
import type { EpochDay } from '../time/calendar.ts';
import type { TimerRecord } from './record.ts';

/** The water of a site; the flow in litres a minute. */
export type SiteWater = Pick<SiteFields, 'supply' | 'supplyFlow'>;

/** The supply, the flow of each station where it is known, and the pump. */
export const supplyNoted = (
  plan: Plan,
  survey: Survey,
  { supply, supplyFlow }: SiteWater,
): SupplyNoted => ({
  litresPerMinute: supplyFlow,
  flows: new Map(
    [...allFigures(plan, survey)].flatMap(([number, { flow }]) =>
      flow ? [[number, flow.value] as const] : [],
    ),
  ),
  pump:
    supply === 'bore' || supply === 'pump' || survey.device?.pump !== undefined
      ? { runsOn: survey.device?.pumpRunsOn ?? null }
      : null,
});

/** Limit of work: only plans with thousands of cycles exceed it. */
const MOST_STEPS = 2_000_000;

/**
 * The checks' findings about the supply and the pump that were not accepted. None for a timer that is off, or that takes too much work.
 *
 * @param overlaps of the plan, earliest first
 */
export function supplyStatus(
  { plan, survey }: TimerRecord,
  water: SiteWater,
  overlaps: readonly Overlap[],
  on: EpochDay,
): Finding[] {
  if (plan.settings.mode === 'off') return [];
  const found = attempt(() => {
    const wets = new WetStarts(plan, on, new Effort(MOST_STEPS));
    return supplyFindings(plan, wets, overlaps, supplyNoted(plan, survey, water));
  });
  return found.ok ? [...judged(found.value, survey.accepted ?? [], plan, null, on).open] : [];
}
