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

/** Dates of a mean week on which the programs water each station, by number; those that none waters are left out. */
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
 * How often a week a station is watered: what somebody has said, else what the programs do, else what the rules allow; never more than the rules allow. Null: nothing says.
 *
 * @param set what the programs do with it, dates of a mean week.
 * @param rules of the house; null: it is free.
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
