/** Answers a question of a timer's page, on any thread: a shell over core. */
import {
  atPercent,
  check,
  Effort,
  nightOf,
  nightsFrom,
  onAnyDay,
  verdictOf,
  yearFrom,
  type EpochDay,
} from '@water-clock/core';
import type { TimerAnswer, TimerQuestion } from './timerQuestion.ts';

/** No one reads more overlaps, and copying them to the page would take longer than finding them. */
const MOST_OVERLAPS = 200;
const DAYS_OF_A_YEAR = 366;

/**
 * Verdict, nights and year of a plan.
 *
 * @param progress called with the share done, 0 to 1
 * @throws TooMuchWork
 */
export function answerOf(
  question: TimerQuestion,
  progress?: (share: number) => void,
  effort = new Effort(),
): TimerAnswer {
  const { plan, on, firstNight, nights, farNight, yearFrom: first, whatIf, changes } = question;
  const { brief, unknown, coming, anyPhase, supply } = question;
  const checked = check(plan, on, { progress, effort, brief, coming, anyPhase, supply });
  // If the interval's phase is not known, every night on which some phase waters is drawn.
  const drawn = anyPhase.length > 0 ? onAnyDay(plan, anyPhase) : plan;
  const seen = whatIf.percent === null ? drawn : atPercent(drawn, whatIf.percent);
  const nightsOf = (from: EpochDay, count: number) =>
    nightsFrom(seen, from, count, { ahead: whatIf.ahead, changes, effort });
  const [overlap] = whatIf.percent === null ? [] : verdictOf(seen, on, { effort }).overlaps;
  return {
    plan,
    check: {
      ...checked,
      overlaps: checked.overlaps.slice(0, MOST_OVERLAPS),
      findings: checked.findings.filter(
        ({ code, where }) =>
          code !== 'overlap' &&
          !((code === 'too-much' || code === 'too-little') && unknown.includes(where.station ?? 0)),
      ),
    },
    nights: nightsOf(firstNight, nights),
    farNight: farNight === null ? null : (nightsOf(farNight, 1)[0] ?? null),
    year: first === null ? null : yearFrom(seen, first, DAYS_OF_A_YEAR),
    firstOverlap:
      overlap && whatIf.percent !== null
        ? { percent: whatIf.percent, night: nightOf(overlap.second.begins) }
        : null,
  };
}
