/** Status of a timer on a date for lists: calculated once, stored as JSON, and turned into messages when read. */
import type { Fault, Outcome } from '../document/fault.ts';
import { proveAnyPhase } from '../engine/anyPhase.ts';
import { attempt } from '../engine/effort.ts';
import { prove, type Proven, type Verdict } from '../engine/verdict.ts';
import { yearFrom } from '../engine/year.ts';
import { findingSentence } from '../findings/findingWords.ts';
import { runsSideBySide } from '../findings/sideBySide.ts';
import { verdictWords } from '../findings/verdictWords.ts';
import type { OnOverlap, Plan } from '../plan/plan.ts';
import { hasPercent } from '../plan/program.ts';
import { resumesAt } from '../plan/starts.ts';
import { houseRulesOn } from '../rules/houseRules.ts';
import type { Rules } from '../rules/rules.ts';
import type { RuledHouse } from '../rules/ruling.ts';
import { unknownPhases } from '../survey/survey.ts';
import { formatDate, parseDate, SECONDS_PER_DAY, type EpochDay } from '../time/calendar.ts';
import type { Finding } from '../findings/finding.ts';
import { faultSentence } from '../words/faultWords.ts';
import type { Speech } from '../words/words.ts';
import { ruleStatus, type RuleStatus } from './ruleStatus.ts';
import { supplyStatus, type SiteWater } from './supplyStatus.ts';
import type { TimerRecord } from './record.ts';

export interface WeekDay {
  /** `YYYY-MM-DD`. */
  readonly date: string;
  /** Letters of the programs that water. */
  readonly programs: string;
  readonly overlaps: boolean;
}

export interface TimerStatus extends RuleStatus {
  /** With the first overlap only; or why it takes too much work. */
  readonly proven: Outcome<Proven>;
  readonly sideBySide: boolean;
  /** What the checks find about the supply and the pump, unless accepted. Absent in what an earlier release stored. */
  readonly supply?: readonly Finding[];
  /** Letters of programs whose interval phase is not known. */
  readonly anyPhase: readonly string[];
  readonly isOff: boolean;
  /** The timer has a seasonal percent. Absent in what an earlier release stored. */
  readonly hasPercent?: boolean;
  readonly onOverlap: OnOverlap;
  /**
   * For each date from `from` on for which it may be valid, and a week more: letters of the programs that water, with `!` for an overlap;
   * empty if off, or too much work.
   */
  readonly days: readonly string[];
  readonly from: EpochDay;
  /** Last date for which it is valid without changes. */
  readonly until: EpochDay;
}

export interface TimerStatusWords {
  /** `breach`: no overlap, but it breaks the site's rules. `supply`: neither, but its stations take more than the supply gives. */
  readonly verdict: Verdict | 'breach' | 'supply';
  readonly headline: string;
}

const DAYS_OF_A_WEEK = 7;
const OVERLAPS = '!';
/** Lists are never older than this. */
const MOST_DAYS = 28;

function daysFrom(plan: Plan, on: EpochDay): string[] {
  if (plan.settings.mode === 'off') return [];
  const days = attempt(() => yearFrom(plan, on, MOST_DAYS + DAYS_OF_A_WEEK));
  return days.ok
    ? days.value.map(({ programs, overlaps }) => `${programs.join('')}${overlaps ? OVERLAPS : ''}`)
    : [];
}

/** The seven stored dates from one on. */
export const weekOf = (
  { days, from }: Pick<TimerStatus, 'days' | 'from'>,
  on: EpochDay,
): readonly WeekDay[] =>
  days.slice(Math.max(0, on - from), Math.max(0, on - from) + DAYS_OF_A_WEEK).map((day, i) => ({
    date: formatDate(Math.max(on, from) + i),
    programs: day.replace(OVERLAPS, ''),
    overlaps: day.endsWith(OVERLAPS),
  }));

/** The last date before which nothing that depends on the date can change. */
function lastDate(
  { plan, survey }: TimerRecord,
  rules: Rules | null,
  house: RuledHouse,
  on: EpochDay,
  proven: Outcome<Proven>,
  findings: readonly Finding[],
): EpochDay {
  const events = proven.ok
    ? [proven.value.overlaps[0], proven.value.driven?.overlap ?? undefined]
    : [];
  const dates = [
    on + MOST_DAYS - 1,
    // From the day after an event on, another one is the first.
    ...events.flatMap((event) => (event ? [event.first.day, event.second.day] : [])),
    ...findings.flatMap(({ where: { date } }) => (date === undefined ? [] : [date])),
    ...(survey.accepted ?? []).flatMap(({ until }) => {
      const last = until === undefined ? null : parseDate(until);
      return last === null || last < on ? [] : [last];
    }),
  ];
  // A rain delay holds back starts until it ends.
  const resumes = resumesAt(plan);
  if (resumes > on * SECONDS_PER_DAY) dates.push(Math.floor(resumes / SECONDS_PER_DAY));
  // A breach of days a week has the date of its Monday, but was calculated on this date.
  const last = Math.max(on, Math.min(...dates));
  const now = JSON.stringify(houseRulesOn(survey.rules, rules, house, on));
  for (let day = on + 1; day <= last; day++)
    if (JSON.stringify(houseRulesOn(survey.rules, rules, house, day)) !== now) return day - 1;
  return last;
}

/**
 * @param on date at the site
 *
 * Cost: a check, the rules, and some weeks of cycles.
 */
export function timerStatus(
  record: TimerRecord,
  rules: Rules | null,
  house: RuledHouse & SiteWater,
  on: EpochDay,
): TimerStatus {
  const { plan, survey } = record;
  const anyPhase = unknownPhases(plan, survey);
  const proven = attempt(() =>
    anyPhase.length > 0 ? proveAnyPhase(plan, on, anyPhase) : prove(plan, on),
  );
  const status = ruleStatus(record, rules, house, on);
  const supply = supplyStatus(record, house, proven.ok ? proven.value.overlaps : [], on);
  return {
    ...status,
    proven: proven.ok
      ? { ok: true, value: { ...proven.value, overlaps: proven.value.overlaps.slice(0, 1) } }
      : proven,
    sideBySide: proven.ok && runsSideBySide(plan, proven.value.overlaps, survey.accepted ?? [], on),
    supply,
    anyPhase,
    isOff: plan.settings.mode === 'off',
    hasPercent: hasPercent(plan),
    onOverlap: plan.timer.onOverlap,
    days: daysFrom(plan, on),
    from: on,
    until: lastDate(record, rules, house, on, proven, [...status.breaches, ...supply]),
  };
}

const tooMuch = (faults: readonly Fault[]): TimerStatusWords => ({
  verdict: 'incomplete',
  headline: faults.map(faultSentence).join(' '),
});

/** "No overlaps" also requires that the site's rules are kept and the supply is enough. */
export function timerStatusWords(status: TimerStatus, speech: Speech): TimerStatusWords {
  const { proven, onOverlap, breaches, supply } = status;
  const [breach] = breaches;
  if (!proven.ok) return tooMuch(proven.faults);
  const { tone, headline } = verdictWords(proven.value, onOverlap, speech, status);
  if (tone !== 'clear') return { verdict: tone, headline };
  if (breach) return { verdict: 'breach', headline: findingSentence(breach, speech) };
  const tooMuchWater = supply?.find(({ severity }) => severity === 'error');
  return tooMuchWater
    ? { verdict: 'supply', headline: findingSentence(tooMuchWater, speech) }
    : { verdict: tone, headline };
}

/** Rule it breaks now, or when announced rules come into force; empty: none. */
export function ruleTroubleWords(
  { breaches: [breach], coming }: Pick<TimerStatus, 'breaches' | 'coming'>,
  speech: Speech,
): string {
  const trouble = breach ?? coming;
  return trouble ? findingSentence(trouble, speech) : '';
}

/** Status of a timer that takes too much work for a server. */
export const unprovenStatus = ({ settings, timer }: Plan, on: EpochDay): TimerStatus => ({
  proven: { ok: false, faults: [{ code: 'too-much-work', path: ['programs'] }] },
  sideBySide: false,
  anyPhase: [],
  isOff: settings.mode === 'off',
  onOverlap: timer.onOverlap,
  supply: [],
  breaches: [],
  coming: null,
  days: [],
  from: on,
  until: on,
});
