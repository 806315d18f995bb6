/** The answer to a question of the page, wherever it is worked out. A shell over core. */
import {
  atPercent,
  check,
  Effort,
  nightsFrom,
  yearFrom,
  type EpochDay,
  type Night,
} from '@water-clock/core';
import type { Reckoning, ReckonRequest } from './messages.ts';

/** Nobody reads more overlaps than this, and copying them to the page would take longer than finding them. */
const MOST_OVERLAPS = 200;
const DAYS_OF_A_YEAR = 366;

/**
 * Verdict, nights and year of a plan.
 *
 * @param progress is told the share that is done, 0 to 1.
 * @throws TooMuchWork
 */
export function reckon(
  request: ReckonRequest,
  progress?: (share: number) => void,
  effort = new Effort(),
): Reckoning {
  const { plan, on, firstNight, nights, farNight, yearFrom: first, whatIf, changes } = request;
  const checked = check(plan, on, progress, effort);
  const seen = whatIf.percent === null ? plan : atPercent(plan, whatIf.percent);
  const nightsOf = (from: EpochDay, count: number) =>
    nightsFrom(seen, from, count, { ahead: whatIf.ahead, changes, effort });
  return {
    plan,
    check: {
      ...checked,
      overlaps: checked.overlaps.slice(0, MOST_OVERLAPS),
      findings: checked.findings.filter(({ code }) => code !== 'overlap'),
    },
    nights: nightsOf(firstNight, nights),
    farNight: farNight === null ? null : (nightsOf(farNight, 1)[0] ?? null),
    year: first === null ? null : yearFrom(seen, first, DAYS_OF_A_YEAR),
  };
}

const texts = new WeakMap<Night, string>();

function textOf(night: Night): string {
  let text = texts.get(night);
  if (text === undefined) texts.set(night, (text = JSON.stringify(night)));
  return text;
}

/** Most of what is typed changes few nights; those that are as they were stay the same objects, so nothing of them is drawn. */
export const keepingSame = (before: readonly Night[], after: readonly Night[]): Night[] =>
  after.map((night) => {
    const same = before.find(({ day }) => day === night.day);
    return same && textOf(same) === textOf(night) ? same : night;
  });
