/** How often a week a station is watered, for rule-of-thumb minutes, which are those of one watering (field guide, Head types). */
import type { BriefRules } from '../brief/brief.ts';
import { isBound } from '../brief/wanted.ts';
import { runsWithLinked } from '../plan/linked.ts';
import type { Plan, Station } from '../plan/plan.ts';
import { datesOfProgram } from '../plan/starts.ts';
import type { SurveyStation } from '../survey/survey.ts';
import type { Figure } from './figures.ts';

const DAYS_OF_A_WEEK = 7;
/** Odd or even dates: every other date, except at month ends. */
const DATES_OF_PARITY = 3.5;

/** Watering dates in an average week that the rules allow. */
const datesAllowed = ({ weekdays, mostDaysPerWeek, parity }: BriefRules): number =>
  Math.min(
    weekdays?.length ?? DAYS_OF_A_WEEK,
    mostDaysPerWeek ?? DAYS_OF_A_WEEK,
    parity ? DATES_OF_PARITY : DAYS_OF_A_WEEK,
  );

/** Dates in an average week on which the programs water each station, by number; stations not watered are absent. */
export function datesSet(plan: Plan): ReadonlyMap<number, number> {
  const dates = new Map<number, number>();
  for (const program of plan.programs) {
    const { mean } = datesOfProgram(plan, program);
    for (const { station, seconds } of runsWithLinked(plan, program))
      if (seconds > 0) dates.set(station, (dates.get(station) ?? 0) + mean);
  }
  return dates;
}

/**
 * How often a week a station is watered: as someone said, otherwise as programmed, otherwise as the rules allow; never more than they
 * allow. Null: not known.
 *
 * @param set dates in an average week in the programs
 * @param rules of the site; null: none
 */
export function wateringsOf(
  station: Station,
  noted: SurveyStation,
  set: number,
  rules: BriefRules | null,
): Figure | null {
  const { overhead = true } = station;
  const most = rules && isBound({ rules }, overhead) ? datesAllowed(rules) : DAYS_OF_A_WEEK;
  const within = (value: number, source: Figure['source']): Figure =>
    most < DAYS_OF_A_WEEK && value > most ? { value: most, source: 'rules' } : { value, source };
  const said = noted.waterings ?? noted.days?.most;
  if (said !== undefined) return within(said, 'noted');
  if (set > 0) return within(set, 'programs');
  return most < DAYS_OF_A_WEEK && most > 0 ? { value: most, source: 'rules' } : null;
}
