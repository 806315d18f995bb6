/** Runs shortened until all fit in the day, or lengthened if time is left. */
import { assertDefined } from '../document/assertDefined.ts';
import type { Brief } from '../brief/brief.ts';
import { longerRun, shorterRun, type RunChoice } from '../brief/runChoices.ts';
import type { Drafted } from './drafted.ts';
import type { Need } from './needs.ts';

type Runs = readonly (RunChoice | null)[];

/** Facts of each station for fitting its run: lists in the order of the needs. */
export interface Fitting {
  readonly timer: Brief['timer'];
  readonly needs: readonly Need[];
  /** Runs closest to the needs. */
  readonly full: Runs;
  readonly runsAWeek: readonly number[];
  /** Index of its program. */
  readonly assignment: readonly number[];
  /** The plan with given runs; null: it does not fit. */
  readonly build: (runs: Runs) => Drafted | null;
}

/** Up to this many stations with two equally close runs, every choice is tried. */
const MOST_TIES = 4;
const MOST_CUTS = 20_000;

interface Change {
  /** Index of the need. */
  readonly i: number;
  readonly run: RunChoice;
}

/** A run shortened by one step, and the loss for each second saved. */
interface Cut extends Change {
  /** Steps it adds to cost part 1: cuts within the tolerance come first. */
  readonly steps: number;
  readonly price: number;
}

const spareOf = (drafted: Drafted) => drafted.placement.spare ?? Infinity;

/** Error of some runs, in thousandths. */
const offOf = (runs: Runs) =>
  Math.round(runs.reduce((total, run) => total + (run?.off ?? 0), 0) * 1000 - 1e-9);

/**
 * A plan with longer runs that are no further off the need, if that leaves less spare time.
 *
 * @param longestOf a station's longest run in seconds
 */
export function lengthened(
  whole: Drafted,
  fitting: Fitting,
  longestOf: (need: Need) => number,
): Drafted {
  if (whole.placement.spare === null || whole.placement.spare === 0) return whole;
  const { full, build } = fitting;
  let best = whole;
  for (const changes of choicesOf(longerRuns(fitting, longestOf))) {
    const runs = [...full];
    for (const { i, run } of changes) runs[i] = run;
    if (offOf(runs) > offOf(full)) continue;
    const tried = build(runs);
    if (tried && spareOf(tried) < spareOf(best)) best = tried;
  }
  return best;
}

/** For each station the next longer run, if equally close to the need. */
function longerRuns(
  { timer, needs, full, runsAWeek }: Fitting,
  longestOf: (need: Need) => number,
): Change[] {
  return needs.flatMap((need, i) => {
    const run = full[i];
    const times = assertDefined(runsAWeek[i], 'runsAWeek[i]');
    const longer = run && need.pinned === null ? longerRun(timer, need.wanted, times, run) : null;
    if (!run || !longer || longer.given > longestOf(need) * times + 1e-9) return [];
    return longer.off < run.off + 0.0005 ? [{ i, run: longer }] : [];
  });
}

/** Every choice of some changes; for many, only the first, the first two, and so on. */
function choicesOf(changes: readonly Change[]): (readonly Change[])[] {
  if (changes.length > MOST_TIES) return changes.map((_, i) => changes.slice(0, i + 1));
  return Array.from({ length: (1 << changes.length) - 1 }, (_, i) =>
    changes.filter((_, bit) => (i + 1) & (1 << bit)),
  );
}

/** A plan whose runs are cut as little as fits, where least is lost first. Null: even the shortest runs do not fit. */
export function restored(fitting: Fitting, least: Runs): Drafted | null {
  const { assignment } = fitting;
  const cuts = cutsOf(fitting, least);
  const first = fewestCuts(fitting, cuts, [], cuts.length);
  if (!first) return null;
  let best = first.drafted;
  let kept = cuts.slice(0, first.count);
  // A cut one program needs may be unnecessary for another.
  const programs = new Set(assignment);
  if (programs.size > 1)
    for (const j of programs) {
      const own = kept.filter(({ i }) => assignment[i] === j);
      const others = kept.filter(({ i }) => assignment[i] !== j);
      const enough = own.length > 0 ? fewestCuts(fitting, own, others, own.length - 1) : null;
      if (!enough) continue;
      kept = [...others, ...own.slice(0, enough.count)];
      best = enough.drafted;
    }
  return best;
}

/** All steps from full to shortest runs, by loss; each station's stay in order, since its loss never falls. */
function cutsOf({ timer, needs, full, runsAWeek }: Fitting, least: Runs): Cut[] {
  const cuts: Cut[] = [];
  for (const [i, need] of needs.entries()) {
    const times = assertDefined(runsAWeek[i], 'runsAWeek[i]');
    const end = least[i];
    let run = full[i];
    while (run && end && run.seconds > end.seconds && cuts.length < MOST_CUTS) {
      const next = shorterRun(timer, need.wanted, times, run);
      if (!next || next.seconds < end.seconds) break;
      cuts.push({
        i,
        run: next,
        steps: next.fits ? 0 : 1,
        price: ((next.off - run.off) * times) / (run.given - next.given),
      });
      run = next;
    }
  }
  const rounded = ({ price }: Cut) => Math.round(price * 1e12);
  return cuts.sort((a, b) => a.steps - b.steps || rounded(a) - rounded(b));
}

/** The fewest of the first cuts, with some others, that make everything fit; null: even all of them are too few. */
function fewestCuts(
  { full, build }: Fitting,
  own: readonly Cut[],
  others: readonly Cut[],
  most: number,
): { readonly count: number; readonly drafted: Drafted } | null {
  let low = 0;
  let high = most;
  let found: { readonly count: number; readonly drafted: Drafted } | null = null;
  while (low <= high) {
    const count = (low + high) >> 1;
    const runs = [...full];
    for (const { i, run } of [...others, ...own.slice(0, count)])
      if (run.seconds < assertDefined(runs[i], 'runs[i]').seconds) runs[i] = run;
    const drafted = build(runs);
    if (drafted) {
      found = { count, drafted };
      high = count - 1;
    } else low = count + 1;
  }
  return found;
}
