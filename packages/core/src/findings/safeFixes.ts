/** Fixes that need no decision: they change when or how something runs, never how much, and cause no new finding. */
import type { Brief } from '../brief/brief.ts';
import type { EpochDay } from '../time/calendar.ts';
import { applyChange, type PlanChange } from '../plan/change.ts';
import { check } from './check.ts';
import type { Plan } from '../plan/plan.ts';
import type { Finding } from './finding.ts';

import { fixOf, type Fix, type FixWhat } from './fixes.ts';
import { plural } from '../language/say.ts';

const SAFE: readonly FixWhat['what'][] = [
  'move-start',
  'pump-on',
  'ignore-sensor',
  'sensor-active',
];

/** Why a finding is left to a person. */
const UNSAFE = ['decision', 'no-fix', 'harm'] as const;
type Unsafe = (typeof UNSAFE)[number];

export interface SafeFixes {
  /** Null if there is none. */
  readonly change: PlanChange | null;
  readonly fixed: readonly { readonly finding: Finding; readonly fix: Fix }[];
  /** Number of findings left, by reason: the fix changes amounts or days; there is none; or it would cause another finding. */
  readonly left: Readonly<Record<Unsafe, number>>;
}

/** What a finding is about, without its date, to recognise new ones. */
const keyOf = ({ code, where: { date: _date, ...place } }: Finding) =>
  `${code} ${JSON.stringify(place)}`;

const seriousOf = (plan: Plan, on: EpochDay, brief: Brief | null): Finding[] =>
  check(plan, on, { brief }).findings.filter(({ severity }) => severity !== 'note');

/** No one fixes a longer list with one press. Our own limit. */
const MOST_ROUNDS = 40;

/**
 * The safe fixes of a plan's findings, one after another, each checked again.
 *
 * Cost: a check for each fix tried.
 *
 * @throws TooMuchWork
 */
export function safeFixes(plan: Plan, on: EpochDay, brief: Brief | null): SafeFixes {
  const fixed: { finding: Finding; fix: Fix }[] = [];
  const left = { decision: 0, 'no-fix': 0, harm: 0 };
  const tried = new Set<string>();
  let current = plan;
  let findings = seriousOf(current, on, brief);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const leftOver = new Set(
      findings.filter(({ code }) => code === 'leftover-start').map(({ where }) => where.program),
    );
    const next = findings.find(
      (finding) =>
        !tried.has(keyOf(finding)) &&
        // Do not move a start that should not exist.
        !(finding.code === 'afternoon-start' && leftOver.has(finding.where.program)),
    );
    if (!next) break;
    tried.add(keyOf(next));
    const fix = fixOf(current, next, on, brief);
    const isSafe =
      fix !== null && (SAFE.includes(fix.does.what) || next.code === 'same-start-twice');
    if (!isSafe) {
      left[fix ? 'decision' : 'no-fix']++;
      continue;
    }
    const applied = applyChange(current, fix.change);
    if (!applied.ok) continue;
    const after = seriousOf(applied.value.plan, on, brief);
    const before = new Set(findings.map(keyOf));
    if (after.length >= findings.length || after.some((finding) => !before.has(keyOf(finding)))) {
      left.harm++;
      continue;
    }
    fixed.push({ finding: next, fix });
    current = applied.value.plan;
    findings = after;
  }
  const changes = fixed.flatMap(({ fix: { change } }) =>
    change.type === 'several' ? change.changes : [change],
  );
  return { change: changes.length > 0 ? { type: 'several', changes } : null, fixed, left };
}

const LEFT_WORDS: Readonly<Record<Unsafe, (count: number) => string>> = {
  decision: (count) =>
    plural(
      count,
      '# finding needs your decision, because a fix changes how much or on which days it waters.',
      '# findings need your decision, because a fix changes how much or on which days it waters.',
    ),
  'no-fix': (count) =>
    plural(count, '# finding has no automatic fix.', '# findings have no automatic fix.'),
  harm: (count) =>
    plural(
      count,
      '# finding has a fix that would cause another problem.',
      '# findings have a fix that would cause another problem.',
    ),
};

/** Why findings are left, a sentence for each reason. */
export const leftSentences = ({ left }: SafeFixes): string[] =>
  UNSAFE.flatMap((why) => (left[why] > 0 ? [LEFT_WORDS[why](left[why])] : []));
