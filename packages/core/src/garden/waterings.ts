/** How often a week a station is watered, for minutes by rule of thumb, which are those of one watering (field guide, Head types). */
import type { BriefRules } from '../brief/brief.ts';
import { isBound } from '../brief/wanted.ts';
import { runsWithLinked } from '../plan/linked.ts';
import type { Plan, Station } from '../plan/plan.ts';
import { datesOfProgram } from '../plan/starts.ts';
import type { SurveyStation } from '../survey/survey.ts';
import type { Figure } from './figures.ts';

const DAYS_OF_A_WEEK = 7;
/** Odd dates, or even ones: every other date, but for the ends of months. */
const DATES_OF_PARITY = 3.5;

/** Watering dates of a mean week that the rules allow. */
const datesAllowed = ({ weekdays, mostDaysPerWeek, parity }: BriefRules): number =>
  Math.min(
    weekdays?.length ?? DAYS_OF_A_WEEK,
    mostDaysPerWeek ?? DAYS_OF_A_WEEK,
    parity ? DATES_OF_PARITY : DAYS_OF_A_WEEK,
  );

/** Dates of a mean week on which the programs water a station. */
function datesSet(plan: Plan, number: number): number {
  return plan.programs
    .filter((program) =>
      runsWithLinked(plan, program).some((run) => run.station === number && run.seconds > 0),
    )
    .reduce((sum, program) => sum + datesOfProgram(plan, program).mean, 0);
}

/**
 * What somebody has said, else what the programs do, else what the rules allow; never more than the rules allow. Null: nothing says.
 *
 * @param rules of the house; null: it is free.
 */
export function wateringsOf(
  plan: Plan,
  station: Station,
  noted: SurveyStation,
  rules: BriefRules | null,
): Figure | null {
  const { overhead = true, number } = station;
  const most = rules && isBound({ rules }, overhead) ? datesAllowed(rules) : DAYS_OF_A_WEEK;
  const within = (value: number, source: Figure['source']): Figure =>
    most < DAYS_OF_A_WEEK && value > most ? { value: most, source: 'rules' } : { value, source };
  const said = noted.waterings ?? noted.days?.most;
  if (said !== undefined) return within(said, 'noted');
  const set = datesSet(plan, number);
  if (set > 0) return within(set, 'programs');
  return most < DAYS_OF_A_WEEK && most > 0 ? { value: most, source: 'rules' } : null;
}
