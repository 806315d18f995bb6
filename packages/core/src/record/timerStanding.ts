/** How a timer stands on a date, as a list of many timers says it: worked out once, kept as JSON, and put into words by whoever asks. */
import type { Fault, Outcome } from '../document/fault.ts';
import { proveAnyPhase } from '../engine/anyPhase.ts';
import { attempt } from '../engine/effort.ts';
import { prove, type Proven, type Verdict } from '../engine/verdict.ts';
import { yearFrom } from '../engine/year.ts';
import { findingSentence } from '../judge/findingWords.ts';
import { runsSideBySide } from '../judge/sideBySide.ts';
import { verdictWords } from '../judge/verdictWords.ts';
import type { Plan } from '../plan/plan.ts';
import type { Rules } from '../rules/rules.ts';
import type { RuledHouse } from '../rules/ruling.ts';
import { unknownPhases } from '../survey/survey.ts';
import { formatDate, type EpochDay } from '../time/calendar.ts';
import { faultSentence } from '../words/faultWords.ts';
import type { Speech } from '../words/words.ts';
import { houseStanding, type HouseStanding } from './houseStanding.ts';
import type { TimerRecord } from './record.ts';

export interface WeekDay {
  /** `YYYY-MM-DD`. */
  readonly date: string;
  /** The letters of those that water. */
  readonly programs: string;
  readonly overlaps: boolean;
}

export interface TimerStanding extends HouseStanding {
  /** With the first overlap alone; or why it is too much to work out. */
  readonly proven: Outcome<Proven>;
  readonly sideBySide: boolean;
  /** The letters of programs of which nobody knows where their interval stands. */
  readonly anyPhase: readonly string[];
  /** The coming seven dates; empty: switched off, or too much to work out. */
  readonly week: readonly WeekDay[];
}

export interface StandingWords {
  /** `breach`: nothing overlaps, but the rules of the place are broken. */
  readonly verdict: Verdict | 'breach';
  readonly headline: string;
}

const DAYS_OF_A_WEEK = 7;

function weekOf(plan: Plan, on: EpochDay): WeekDay[] {
  if (plan.settings.mode === 'off') return [];
  const days = attempt(() => yearFrom(plan, on, DAYS_OF_A_WEEK));
  return days.ok
    ? days.value.map(({ day, programs, overlaps }) => ({
        date: formatDate(day),
        programs: programs.join(''),
        overlaps,
      }))
    : [];
}

/**
 * @param on the date at the house
 *
 * Cost: that of a check, of the rules and of a week of cycles.
 */
export function timerStanding(
  record: TimerRecord,
  rules: Rules | null,
  house: RuledHouse,
  on: EpochDay,
): TimerStanding {
  const { plan, survey } = record;
  const anyPhase = unknownPhases(plan, survey);
  const proven = attempt(() =>
    anyPhase.length > 0 ? proveAnyPhase(plan, on, anyPhase) : prove(plan, on),
  );
  return {
    ...houseStanding(record, rules, house, on),
    proven: proven.ok
      ? { ok: true, value: { ...proven.value, overlaps: proven.value.overlaps.slice(0, 1) } }
      : proven,
    sideBySide: proven.ok && runsSideBySide(plan, proven.value.overlaps, survey.accepted ?? [], on),
    anyPhase,
    week: weekOf(plan, on),
  };
}

const tooMuch = (faults: readonly Fault[]): StandingWords => ({
  verdict: 'incomplete',
  headline: faults.map(faultSentence).join(' '),
});

/** A timer is clear only where nothing overlaps and the rules of the place are kept. */
export function standingWords(
  { proven, sideBySide, anyPhase, breaches: [breach] }: TimerStanding,
  { timer, settings }: Plan,
  speech: Speech,
): StandingWords {
  if (!proven.ok) return tooMuch(proven.faults);
  const isOff = settings.mode === 'off';
  const known = { isOff, sideBySide, anyPhase };
  const { tone, headline } = verdictWords(proven.value, timer.onOverlap, speech, known);
  return breach && tone === 'clear'
    ? { verdict: 'breach', headline: findingSentence(breach, speech) }
    : { verdict: tone, headline };
}
