/** The answer to a question of a timer's page, wherever it is worked out. A shell over core. */
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
  type Night,
} from '@water-clock/core';
import type { TimerAnswer, TimerQuestion } from './timerQuestion.ts';

/** Nobody reads more overlaps than this, and copying them to the page would take longer than finding them. */
const MOST_OVERLAPS = 200;
const DAYS_OF_A_YEAR = 366;

/**
 * Verdict, nights and year of a plan.
 *
 * @param progress is called with the share that is done, 0 to 1.
 * @throws TooMuchWork
 */
export function answerOf(
  question: TimerQuestion,
  progress?: (share: number) => void,
  effort = new Effort(),
): TimerAnswer {
  const { plan, on, firstNight, nights, farNight, yearFrom: first, whatIf, changes } = question;
  const { brief, unknown, coming, anyPhase } = question;
  const checked = check(plan, on, { progress, effort, brief, coming, anyPhase });
  // Where no one phase can be told, every night is drawn on which some phase waters.
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

type Runs = readonly { readonly station: number; readonly on: number; readonly off: number }[];

const alike = (a: Runs, b: Runs) =>
  a.length === b.length &&
  a.every((run, i) => {
    const other = b[i];
    return run.station === other?.station && run.on === other.on && run.off === other.off;
  });

/** Whether two nights of one date show the same. Overlaps follow from the cycles. */
function isSame(a: Night, b: Night): boolean {
  return (
    a.intended.length === b.intended.length &&
    a.served.length === b.served.length &&
    a.condensed === b.condensed &&
    a.intended.every((cycle, i) => {
      const other = b.intended[i];
      return (
        cycle.letter === other?.letter &&
        cycle.start === other.start &&
        cycle.begins === other.begins &&
        cycle.ends === other.ends &&
        alike(cycle.runs, other.runs)
      );
    }) &&
    a.served.every((servedStart, i) => {
      const other = b.served[i];
      return (
        servedStart.letter === other?.letter &&
        servedStart.due === other.due &&
        servedStart.outcome === other.outcome &&
        servedStart.began === other.began &&
        servedStart.ended === other.ended
      );
    }) &&
    alike(a.runs, b.runs)
  );
}

/** Most of what is typed changes few nights; those that are as they were stay the same objects, so nothing of them is drawn. */
export const keepingSame = (before: readonly Night[], after: readonly Night[]): Night[] =>
  after.map((night) => {
    const same = before.find(({ day }) => day === night.day);
    return same && isSame(same, night) ? same : night;
  });
