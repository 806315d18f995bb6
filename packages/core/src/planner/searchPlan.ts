/**
 * The search when programs follow need (planning.md section 3, cost part 3): lawn, beds and drip are kept apart as far as the timer has
 * programs. It tries ways of dividing the groups into blocks that are kept apart: each group alone first, then two of them joined, and so
 * on. A plan that mixes groups lies within the joined blocks, in which the ordinary search finds the cheapest.
 */
import { type Brief, wishOf } from '../brief/brief.ts';
import { allRules, comingKept } from './coming.ts';
import { compareCosts } from './cost.ts';
import { isLikedBetter, offMidnight } from './likes.ts';
import { NOTHING_PROVEN } from './proof.ts';
import type { PlannerOptions } from './options.ts';
import { searchWithin, type Answer, type Listener } from './search.ts';

/** Group of stations that have none. */
const NO_GROUP = '\u0000';

type Blocks = readonly (readonly string[])[];

/** Total number of searches; with more than five groups not all blocks are tried. */
const MOST_SEARCHES = 24;
/** Placements over all searches after which no more blocks are started. */
const MOST_TRIES = 1200;

/** Ways to divide things into a number of blocks, one after another, since there may be too many to list. */
function* partitions(things: readonly string[], count: number): Generator<Blocks> {
  const [first, ...rest] = things;
  if (first === undefined) {
    if (count === 0) yield [];
    return;
  }
  if (count < 1 || count > things.length) return;
  for (const blocks of partitions(rest, count - 1)) yield [[first], ...blocks];
  for (const blocks of partitions(rest, count))
    for (const at of blocks.keys())
      yield blocks.map((block, i) => (i === at ? [first, ...block] : block));
}

/** The brief with its blocks kept apart. */
function keptApart(brief: Brief, blocks: Blocks): Brief {
  const pairs = blocks.flatMap((block, i) =>
    blocks.slice(i + 1).flatMap((other) => block.flatMap((a) => other.map((b) => [a, b] as const))),
  );
  return {
    ...brief,
    stations: brief.stations.map((station) => ({ ...station, group: station.group ?? NO_GROUP })),
    wish: { ...brief.wish, apart: [...wishOf(brief).apart, ...pairs] },
  };
}

/** The cheapest plan of a brief whose programs follow need. */
function searchByNeed(brief: Brief, options: PlannerOptions, listener: Listener): Answer {
  const watered = brief.stations.filter(({ weeklySeconds }) => weeklySeconds > 0);
  const groups = [...new Set(watered.map(({ group = NO_GROUP }) => group))];
  let tries = 0;
  let searches = 0;
  let best: Answer | null = null;
  const isBetter = ({ found }: Pick<Answer, 'found'>) => {
    if (!found || !best?.found) return found !== null;
    const order = compareCosts(found.cost, best.found.cost);
    return order < 0 || (order === 0 && isLikedBetter(found.plan, best.found.plan));
  };
  const ask = (blocks: Blocks): Answer => {
    searches++;
    const before = tries;
    const answer = searchWithin(keptApart(brief, blocks), options, {
      found: (found) => {
        if (isBetter({ found })) listener.found?.(found);
      },
      tried: (count) => listener.tried?.(before + count),
    });
    tries += answer.tries;
    if (isBetter(answer)) best = answer;
    return answer;
  };
  // With nothing kept apart, the first two cost parts are minimal.
  const loose = ask([groups]);
  if (!loose.found || groups.length < 2) return { ...loose, tries };
  const [off, outside] = loose.found.cost;
  const most = Math.min(groups.length, brief.timer.programCount);
  for (let count = most; count > 1; count--) {
    for (const blocks of partitions(groups, count)) {
      if (searches >= MOST_SEARCHES || tries >= MOST_TRIES) break;
      ask(blocks);
    }
    const { found, proof } = best ?? loose;
    const mixed = groups.length - count;
    if (!found || found.cost[0] > off || found.cost[1] > outside + 1e-6) continue;
    // With fewer blocks at least one more group shares a program.
    if (found.cost[2] > mixed + 1) continue;
    // Each group alone was searched completely; of the rest only better ones are known.
    const isProven = mixed === 0 && found.cost[2] === 0 && proof.optimal;
    return { ...(best ?? loose), tries, proof: isProven ? proof : NOTHING_PROVEN };
  }
  return { ...(best ?? loose), tries, proof: NOTHING_PROVEN };
}

/**
 * The cheapest plan of a brief; of equally cheap ones, one that also keeps the announced editions.
 *
 * @throws TooMuchWork
 */
export function searchKeepingComing(
  brief: Brief,
  options: PlannerOptions = {},
  listener: Listener = {},
): Answer {
  const now = searchPlan(brief, options, listener);
  const { coming = [] } = brief;
  if (coming.length === 0 || !now.found) return now;
  if (comingKept(brief, now.found.plan).every(({ keeps }) => keeps)) return now;
  const rules = allRules([
    ...(brief.rules ? [brief.rules] : []),
    ...coming.map((one) => one.rules),
  ]);
  const kept = searchPlan({ ...brief, rules }, options).found;
  if (!kept || compareCosts(kept.cost, now.found.cost) > 0) return now;
  return { ...now, found: kept };
}

/** The cheapest plan of a brief. @throws TooMuchWork */
export function searchPlan(
  brief: Brief,
  options: PlannerOptions = {},
  listener: Listener = {},
): Answer {
  const answer =
    wishOf(brief).programs === 'by-need'
      ? searchByNeed(brief, options, listener)
      : searchWithin(brief, options, listener);
  return answer.found ? { ...answer, found: offMidnight(brief, answer.found, options) } : answer;
}
