/** The plan from drafts and their starts. */
import { assertDefined } from '../document/assertDefined.ts';
import { letterAt, type Plan } from '../plan/plan.ts';
import { formatTime } from '../time/calendar.ts';
import type { Drafted } from './drafted.ts';
import type { Setup } from './setup.ts';

/**
 * Letters: a pinned program keeps its own, the rest follow their lowest station.
 *
 * @param starts for each draft, seconds of the day
 */
export function assembled(
  { rules, fixed }: Setup,
  drafts: Drafted['drafts'],
  starts: readonly (readonly number[])[],
): Plan {
  const taken = new Set(fixed.map(({ letter }) => letter));
  const free: string[] = [];
  for (let i = 0; free.length < drafts.length; i++)
    if (!taken.has(letterAt(i))) free.push(letterAt(i));
  const lowest = (j: number) => drafts[j]?.members[0]?.need.number ?? 0;
  const order = drafts
    .map((_, j) => j)
    .slice(fixed.length)
    .sort((a, b) => lowest(a) - lowest(b));
  const programs = drafts.map((draft, j) =>
    rules.programOf(
      draft,
      fixed[j]?.letter ?? free[order.indexOf(j)] ?? 'A',
      assertDefined(starts[j], 'starts[j]').map(formatTime),
    ),
  );
  return { ...rules.bare, programs: programs.sort((a, b) => (a.letter < b.letter ? -1 : 1)) };
}
