/** Differences between two records of a timer, one fact a line. */
import type { Difference } from '../plan/difference.ts';
import type { Visit } from '../visit/visit.ts';
import type { ClockStyle } from '../words/words.ts';
import { NONE, factDifferences, planDifferences } from './planDifferences.ts';
import type { TimerRecord } from './record.ts';
import { say } from '../language/say.ts';

function visitDifferences(
  before: Visit | undefined,
  after: Visit | undefined,
  clock: ClockStyle,
): Difference[] {
  if (before && after) return factDifferences(say`Visit`, before, after, clock);
  return before === after
    ? []
    : [
        {
          what: say`Visit`,
          before: before ? say`under way` : NONE,
          after: after ? say`under way` : NONE,
        },
      ];
}

/** Every fact and setting in which two records of a timer differ. */
export function recordDifferences(
  before: TimerRecord,
  after: TimerRecord,
  clock: ClockStyle,
): Difference[] {
  const { stations: a, ...timerBefore } = before.survey;
  const { stations: b, ...timerAfter } = after.survey;
  const numbers = [...a, ...b].map(({ number }) => number);
  return [
    ...planDifferences(before.plan, after.plan, clock),
    ...factDifferences(null, timerBefore, timerAfter, clock, ['visit']),
    ...visitDifferences(timerBefore.visit, timerAfter.visit, clock),
    ...[...new Set(numbers)]
      .sort((x, y) => x - y)
      .flatMap((number) =>
        factDifferences(
          say`Station ${number}`,
          a.find((station) => station.number === number),
          b.find((station) => station.number === number),
          clock,
          ['number'],
        ),
      ),
  ];
}
