/** What the page and the card of a timer are made from. */
import type { TimerKind } from '../plan/kind.ts';
import type { Plan } from '../plan/plan.ts';
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
  /** Its number in the street; null: not noted. */
  readonly houseNumber: string | null;
  readonly company: string;
  readonly office: Office;
  /** The rules of the place, and what they go by; null: none are chosen. */
  readonly allowed: { readonly rules: Rules; readonly house: RuledHouse } | null;
  readonly today: EpochDay;
  readonly clock: ClockStyle;
  /** Of the page. */
  readonly language: Language;
}

/** The house as it is called on paper: `Thistle Corner, No. 7`. */
export const houseLine = ({ house, houseNumber }: PageSources): string =>
  houseNumber ? say`${house}, No. ${houseNumber}` : house;
