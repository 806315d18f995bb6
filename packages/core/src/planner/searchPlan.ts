/**
 * The search where programs are to go by need (planning.md section 3, the third part of the cost): lawn, beds and drip keep apart as far as the timer
 * has programs. The search goes through ways of putting the groups into blocks that keep apart: each group by itself first, then two of them in one
 * block, and so on. A plan that mixes groups is within the blocks that it joins; within the blocks the ordinary search finds the cheapest.
 */
import { type Brief, wishOf } from '../brief/brief.ts';
import { allRules, comingKept } from './coming.ts';
import { compareCosts } from './cost.ts';
import { isLikedBetter, offMidnight } from './likes.ts';
import { NOTHING_PROVEN } from './proof.ts';
import type { PlannerOptions } from './options.ts';
import { searchWithin, type Answer, type Listener } from './search.ts';

/** The group of the stations that have none. */
const NO_GROUP = '\u0000';

type Blocks = readonly (readonly string[])[];

/** Searches in all; with more groups than five not all blocks are tried. */
const MOST_SEARCHES = 24;
/** Placements in all of these, after which no further blocks are begun. */
const MOST_TRIES = 1200;

/** The ways to put things into so many blocks, one after another: of many things there are too many to list. */
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

/** The cheapest plan of a brief whose programs go by need. */
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
  // With nothing kept apart, the first two parts of the cost are the least there is.
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
    // With fewer blocks at least one more group is with another.
    if (found.cost[2] > mixed + 1) continue;
    // Each group by itself was searched whole; of the rest only the better ones are known.
    const isProven = mixed === 0 && found.cost[2] === 0 && proof.optimal;
    return { ...(best ?? loose), tries, proof: isProven ? proof : NOTHING_PROVEN };
  }
  return { ...(best ?? loose), tries, proof: NOTHING_PROVEN };
}

/**
 * The cheapest plan of a brief; of two that cost the same, one that keeps the editions announced as well.
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
