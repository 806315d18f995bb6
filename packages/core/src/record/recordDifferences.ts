/** What is different between two records of a timer, one sentence each. */
import { type Difference, NONE, fieldDifferences, planDifferences } from '../plan/comparePlans.ts';
import type { Visit } from '../visit/visit.ts';
import type { ClockStyle } from '../words/words.ts';
import type { TimerRecord } from './record.ts';
import { say } from '../language/say.ts';

/** What differs in a visit, shortened: it holds whole states of the timer, which nobody reads as text. */
function visitDifferences(before: Visit | undefined, after: Visit | undefined): Difference[] {
  if (!before || !after)
    return before === after
      ? []
      : [
          {
            what: say`visit`,
            before: before ? say`under way` : NONE,
            after: after ? say`under way` : NONE,
          },
        ];
  return fieldDifferences(say`visit`, before, after).map(({ what, ...sides }) => {
    const short = (text: string) => (text.length > 60 ? `${text.slice(0, 59)}…` : text);
    return { what, before: short(sides.before), after: short(sides.after) };
  });
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
    ...fieldDifferences(say`survey`, timerBefore, timerAfter, ['visit']),
    ...visitDifferences(timerBefore.visit, timerAfter.visit),
    ...[...new Set(numbers)]
      .sort((x, y) => x - y)
      .flatMap((number) =>
        fieldDifferences(
          say`station ${number}`,
          a.find((station) => station.number === number),
          b.find((station) => station.number === number),
          ['number'],
        ),
      ),
  ];
}
