/** Which findings are about which place on screen. No interface code. */
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

/** Marks of the open findings; "for information" has none. */
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

/** The first open breach of the site's rules, as a message; null: none. */
export function breachWords(findings: readonly Finding[], speech: Speech): string | null {
  const [first, ...others] = findings.filter(({ code }) => RULE_BREACHES.includes(code));
  if (!first) return null;
  const more = others.length > 0 ? say` And ${others.length} more like this.` : '';
  return `${findingSentence(first, speech)}${more}`;
}
