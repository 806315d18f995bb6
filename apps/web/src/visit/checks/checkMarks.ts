/** Which findings are about which place on the screen. No interface code. */
import { findingSentence, type Finding, type Speech, say } from '@water-clock/core';

type Severity = Finding['severity'];

export interface Place {
  readonly program?: string;
  readonly start?: string;
  readonly station?: number;
}

export interface PlaceMark {
  readonly severity: Severity;
  readonly sentences: readonly string[];
}

const keyOf = ({ program = '', start = '', station = 0 }: Place) =>
  `${program}|${start}|${station}`;

const WEIGHT: Readonly<Record<Severity, number>> = { error: 2, warning: 1, note: 0 };

export type CheckMarks = (place: Place) => PlaceMark | null;

/** The marks of the open findings; what is only good to know marks nothing. */
export function checkMarks(findings: readonly Finding[], speech: Speech): CheckMarks {
  const marks = new Map<string, PlaceMark>();
  for (const finding of findings) {
    const { severity, where } = finding;
    if (severity === 'note') continue;
    const key = keyOf(where);
    const { severity: last = severity, sentences = [] } = marks.get(key) ?? {};
    marks.set(key, {
      severity: WEIGHT[severity] > WEIGHT[last] ? severity : last,
      sentences: [...sentences, findingSentence(finding, speech)],
    });
  }
  return (place) => marks.get(keyOf(place)) ?? null;
}

const RULE_BREACHES: readonly Finding['code'][] = [
  'forbidden-day',
  'forbidden-hour',
  'too-many-days',
];

/** The first open finding that breaks the rules of the place, in words; null: there is none. */
export function breachWords(findings: readonly Finding[], speech: Speech): string | null {
  const [first, ...others] = findings.filter(({ code }) => RULE_BREACHES.includes(code));
  if (!first) return null;
  const more = others.length > 0 ? say` And ${others.length} more like this.` : '';
  return `${findingSentence(first, speech)}${more}`;
}
