/** Output of `water-clock repair` (planning.md section 4). */
import { findingSentence } from '../findings/findingWords.ts';
import type { EpochDay } from '../time/calendar.ts';
import { plural, say } from '../language/say.ts';
import type { Repaired } from './repair.ts';

/** Most settings to talk a homeowner through on the phone; more need a visit. */
export const MOST_BY_PHONE = 8;

/** What a repair takes, in a sentence or two. */
export function repairSummary({ plan, changes }: Pick<Repaired, 'plan' | 'changes'>): string {
  if (!plan) return say`No repair found. Make a new plan.`;
  if (changes.length === 0) return say`No changes needed.`;
  return changes.length <= MOST_BY_PHONE
    ? plural(
        changes.length,
        '# setting changes. This can be done by phone.',
        '# settings change. This can be done by phone.',
      )
    : plural(changes.length, '# setting changes.', '# settings change. Plan a visit.');
}

/** @param on date of the repair */
export function repairReport(repaired: Repaired, on: EpochDay) {
  const { plan, changes, cost, coming, wrong } = repaired;
  return {
    plan,
    changes,
    cost,
    report: {
      message: repairSummary(repaired),
      wrong: wrong.map((finding) => ({
        code: finding.code,
        message: findingSentence(finding, { on, clock: '24' }),
      })),
      coming: coming.map(({ from, keeps }) => ({ from, keeps })),
    },
  };
}
