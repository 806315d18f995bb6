/** Whether a timer's settings keep the site's rules, now and when they change. */
import { BRIEF_FORMAT, BRIEF_VERSION } from '../brief/brief.ts';
import { attempt } from '../engine/effort.ts';
import { judged } from '../findings/accepted.ts';
import type { Finding, RuleChange } from '../findings/finding.ts';
import { changeComing, ruleBreaches } from '../findings/ruleBreaches.ts';
import { comingRules, houseRulesOn } from '../rules/houseRules.ts';
import type { Rules } from '../rules/rules.ts';
import type { RuledHouse } from '../rules/ruling.ts';
import type { EpochDay } from '../time/calendar.ts';
import type { TimerRecord } from './record.ts';

export interface RuleStatus {
  /** Breaches of today's rules that were not accepted, earliest first. */
  readonly breaches: readonly Finding[];
  /** Breach of announced rules; null: none, or accepted. */
  readonly coming: RuleChange | null;
}

const KEPT: RuleStatus = { breaches: [], coming: null };

/**
 * The checks' findings about rules, without the rest of a brief. A timer that is off breaks none; for one that takes too much work there
 * are none.
 *
 * Cost: about that of a check.
 */
export function ruleStatus(
  { plan, survey }: TimerRecord,
  rules: Rules | null,
  house: RuledHouse,
  on: EpochDay,
): RuleStatus {
  if (plan.settings.mode === 'off') return KEPT;
  const now = houseRulesOn(survey.rules, rules, house, on);
  const { timer } = plan;
  const brief = {
    format: BRIEF_FORMAT,
    version: BRIEF_VERSION,
    timer,
    stations: [],
    ...(now ? { rules: now } : {}),
  } as const;
  const found = attempt(() => ({
    breaches: now ? ruleBreaches(plan, now, on) : [],
    coming: changeComing(plan, comingRules(survey.rules, rules, house, on)),
  }));
  if (!found.ok) return KEPT;
  const open = (findings: readonly Finding[]) =>
    judged(findings, survey.accepted ?? [], plan, brief, on).open;
  const { breaches, coming } = found.value;
  return {
    breaches: [...open(breaches)].sort((a, b) => (a.where.date ?? 0) - (b.where.date ?? 0)),
    coming: coming && open([coming]).length > 0 ? coming : null,
  };
}
