/** Inputs of a timer's page and card. */
import { findingSentence } from '../findings/findingWords.ts';
import type { TimerKind } from '../plan/kind.ts';
import type { Plan } from '../plan/plan.ts';
import { ruleStatus } from '../record/ruleStatus.ts';
import type { Rules } from '../rules/rules.ts';
import type { RuledHouse } from '../rules/ruling.ts';
import type { Survey } from '../survey/survey.ts';
import type { EpochDay } from '../time/calendar.ts';
import { say, type Language } from '../language/say.ts';
import type { ClockStyle } from '../words/words.ts';
import type { Office } from './office.ts';

export interface PageSources {
  readonly plan: Plan;
  readonly survey: Survey;
  readonly kind: TimerKind | null;
  readonly house: string;
  /** House number; null: not known. */
  readonly houseNumber: string | null;
  readonly company: string;
  readonly office: Office;
  /** The site's rules and what they depend on; null: none chosen. */
  readonly allowed: { readonly rules: Rules; readonly house: RuledHouse } | null;
  readonly today: EpochDay;
  readonly clock: ClockStyle;
  /** Language of the page. */
  readonly language: Language;
}

/** What the settings break of the site's rules today, a sentence for each program and kind of breach; none if the timer is off. */
export function breachLines({ plan, survey, allowed, today, clock }: PageSources): string[] {
  const { rules = null, house = { houseNumber: null, supply: null } } = allowed ?? {};
  const { breaches } = ruleStatus({ plan, survey }, rules, house, today);
  const firsts = new Map(
    breaches
      .toReversed()
      .map((finding) => [`${finding.code} ${finding.where.program ?? ''}`, finding]),
  );
  return [...firsts.values()].map((finding) => findingSentence(finding, { on: today, clock }));
}

/** The site's name on paper: `Thistle Corner, No. 7`. */
export const houseLine = ({ house, houseNumber }: PageSources): string =>
  houseNumber ? say`${house}, No. ${houseNumber}` : house;
