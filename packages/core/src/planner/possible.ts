/** Whether each station could be watered alone: a quick no for many briefs without a plan. */
import type { Candidates } from './candidates.ts';
import type { Setup } from './setup.ts';

/** Whether each station could be watered at all if it were the only one. Skipped if programs are pinned. */
export function isEachPossible({ needs, fixed, kinds, mostStarts, drafting }: Setup): boolean {
  if (fixed.length > 0) return true;
  if (needs.some(({ often }) => often && often.times > mostStarts)) return false;
  const { tries } = drafting;
  const known = new Set<string>();
  const isPossible = needs.every((need) => {
    // Equal needs are tested once.
    const { allowed, parity, bound, overhead, least, most, often, group } = need;
    const key = JSON.stringify([allowed, parity, bound, overhead, least, most, often, group]);
    if (known.has(key)) return true;
    known.add(key);
    return drafting.isPossibleAlone(need, kinds, mostStarts, false);
  });
  // Not counted as a try of the search.
  drafting.tries = tries;
  return isPossible;
}

/** Indexes of needs that no program can meet. */
export function hopelessOf(setup: Setup, candidates: Candidates): number[] {
  const { needs, fixed, kinds, slots, mostStarts, drafting } = setup;
  const { tries } = drafting;
  const allKinds = [...kinds, ...slots.flatMap(({ kinds: own }) => own)];
  const hopeless = needs.flatMap((need, i) => {
    const fits = allKinds.some((kind) =>
      Array.from({ length: candidates.mostStartsOf(kind) }).some(
        (_, k) => drafting.offOf(i, kind, k + 1) < Infinity,
      ),
    );
    // A station with several waterings a day has few hours, so check that they are enough.
    const isPlaced =
      !need.often || fixed.length > 0 || drafting.isPossibleAlone(need, kinds, mostStarts, true);
    return fits && isPlaced ? [] : [i];
  });
  drafting.tries = tries;
  return hopeless;
}
