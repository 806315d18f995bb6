/**
 * Diagnosis from sightings: settings, clock, switches, wiring and combinations of two, each run by the engine and compared with the
 * sightings. There is no list of answers.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { SECONDS_PER_DAY as DAY } from '../time/calendar.ts';
import { clockErrors, FARTHEST_AHEAD } from './candidates.ts';
import { outagesBehind } from './eventCauses.ts';
import {
  keyOf,
  familyOf,
  MOST_TOLD,
  SAME_CLOCK,
  TriedWorlds,
  sum,
  type Explanation,
  type Question,
  type Tried,
} from './triedWorlds.ts';
import { asNoted, type Cause, type CauseType, type World } from './causes.ts';
import { misfitOf, type Timeline } from './timeline.ts';

/** Causes that do not depend on the clock; the others are tried at the clock's error. */
const MOVED_BY_CLOCK: readonly CauseType[] = [
  'percent',
  'phase',
  'days',
  'half-set',
  'other-start',
  'extra-program',
  'dead-station',
  'rain-delay',
  'sensor',
];

/** Causes that add or shift runs, so that a clock error shows only together with them. Continued if they explain something. */
const SHOWS_THE_CLOCK: readonly CauseType[] = ['extra-start', 'run'];

const CLOCKS_GONE_INTO = 12;
const SINGLES_GONE_INTO = 18;
const PAIRS_TRIED = 150;
/** Whether some sighting is explained better than by the noted settings. */
const helps = (fits: readonly number[], asSet: Tried): boolean =>
  fits.some((cost, i) => cost < assertDefined(asSet.fits[i], 'asSet.fits[i]') - 1);

/** Clock errors that improve at least one sighting, best first, each once. */
function distinctClocks(tried: readonly Tried[], base: Tried, count: number): Tried[] {
  const chosen: Tried[] = [];
  for (const one of [...tried].sort((a, b) => a.cost - b.cost)) {
    if (chosen.length === count) break;
    const close = chosen.some(({ world }) => Math.abs(world.ahead - one.world.ahead) < SAME_CLOCK);
    if (!close && helps(one.fits, base)) chosen.push(one);
  }
  return chosen;
}

const isSameKind = (a: Tried, b: Tried) => keyOf(a.causes, familyOf) === keyOf(b.causes, familyOf);

/** Values tried of a kind whose value shows only in combination. */
const VALUES_GONE_INTO = 3;

/** The best of each kind, best first; several values of percents and run times. */
function distinctKinds(tried: readonly Tried[], count: number): Tried[] {
  const taken = new Map<string, number>();
  const chosen = [...tried]
    .sort((a, b) => a.cost - b.cost)
    .filter(({ causes: causes }) => {
      const key = keyOf(causes, familyOf);
      const before = taken.get(key) ?? 0;
      taken.set(key, before + 1);
      const hasValue = causes.some(({ type }) => type === 'percent' || type === 'run');
      return before < (hasValue ? VALUES_GONE_INTO : 1);
    });
  return chosen.slice(0, count);
}

/** Called with the share of the work done, 0 to 1. */
type Progress = (share: number) => void;

/** Clock errors on a timeline in its own clock, each considered; the timeline is that of `world` without them. */
function tryClocks(
  search: TriedWorlds,
  timeline: Timeline,
  world: World,
  errors: readonly number[],
  causesOf: (ahead: number) => readonly Cause[],
): Tried[] {
  return errors.map((ahead) => {
    const wrong = { ...world, ahead };
    const fits = search.seen.map((seen) => misfitOf(seen, timeline, wrong));
    return search.consider(causesOf(ahead), wrong, fits);
  });
}

/** Factory settings, on a restarted clock or one that was checked. */
function tryFactory(search: TriedWorlds, { factory, ahead }: Question): void {
  if (!factory) return;
  const lost = asNoted(factory, ahead ?? 0);
  const timeline = search.timelineOf(lost, FARTHEST_AHEAD);
  if (!timeline) return;
  const errors = ahead === null ? [0, ...clockErrors(search.seen, timeline)] : [ahead];
  tryClocks(search, timeline, lost, errors, (error) => [{ type: 'power-failure', ahead: error }]);
}

/** A clock found wrong that was right until a power cut. */
function tryOutages(search: TriedWorlds, { plan, factory, ahead }: Question): void {
  if (ahead === null || ahead === 0) return;
  const right = asNoted(plan, 0, factory);
  for (const cause of outagesBehind(plan, search.seen, ahead))
    search.tryCauses([cause], search.with(right, cause));
}

/** Each setting together with a clock error, which shows only on that setting's timeline. */
function trySettingsWithClock(
  search: TriedWorlds,
  singles: readonly Tried[],
  asSet: Tried,
  progress: Progress,
): void {
  const commonest = { type: 'clock', ahead: DAY / 2 } as const;
  singles.forEach(({ causes: [cause], world, fits }, i) => {
    progress(i / singles.length);
    if (!cause) return;
    const isWorth = SHOWS_THE_CLOCK.includes(cause.type) && helps(fits, asSet);
    if (!isWorth && !MOVED_BY_CLOCK.includes(cause.type)) return;
    if (search.rarity([cause, commonest]) > search.worst()) return;
    const timeline = search.timelineOf(world, FARTHEST_AHEAD);
    if (!timeline) return;
    tryClocks(search, timeline, world, clockErrors(search.seen, timeline), (ahead) => [
      { type: 'clock', ahead },
      cause,
    ]);
  });
}

/** Two settings at once: the pairs that seem to explain most. */
function tryPairs(search: TriedWorlds, singles: readonly Tried[], asSet: Tried): void {
  const known = asSet.causes.length;
  const helpful = singles.filter(({ fits }) => helps(fits, asSet));
  const pairs = helpful.flatMap((a, i) =>
    helpful
      .slice(i + 1)
      .filter((b) => !isSameKind(a, b))
      .map((b) => {
        const fits = asSet.fits.map((before, k) => {
          const [x, y] = [
            assertDefined(a.fits[k], 'a.fits[k]'),
            assertDefined(b.fits[k], 'b.fits[k]'),
          ];
          // Either cause may explain a sighting; one that spoils a sighting spoils it in the pair too.
          return before < 1 ? Math.max(x, y) : Math.min(x, y);
        });
        const own = b.causes.slice(known);
        const causes = [...a.causes, ...own];
        return { causes, from: a.world, own, guess: sum(fits) + search.rarity(causes) };
      }),
  );
  for (const { causes, from, own, guess } of pairs
    .sort((a, b) => a.guess - b.guess)
    .slice(0, PAIRS_TRIED))
    if (guess < search.worst())
      search.tryCauses(
        causes,
        own.reduce((world, cause) => search.with(world, cause), from),
      );
}

/** Number tried before reconsidering what is worth a simulation. */
const BETWEEN_LIMITS = 60;

/** A world with each of some causes added, except those too rare to be reported whatever they explain. */
function tryEach(
  search: TriedWorlds,
  before: readonly Cause[],
  world: World,
  more: readonly Cause[],
): Tried[] {
  let limit = search.worst();
  return more.flatMap((cause, i) => {
    if (i % BETWEEN_LIMITS === BETWEEN_LIMITS - 1) limit = search.worst();
    const causes = [...before, cause];
    if (search.rarity(causes) >= limit) return [];
    return search.tryCauses(causes, search.with(world, cause)) ?? [];
  });
}

/** Causes derived from the best single ones, whose worlds suggest other values. */
function tryOnTop(search: TriedWorlds, roots: readonly Tried[], progress: Progress): void {
  roots.forEach((root, i) => {
    progress(i / roots.length);
    if (Math.max(...root.fits) < 1) return;
    const timeline = search.timelineOf(root.world);
    if (!timeline) return;
    const more = search
      .candidatesIn(root.world, timeline)
      .filter((cause) => !root.causes.some((one) => familyOf(one) === familyOf(cause)));
    tryEach(search, root.causes, root.world, more);
  });
}

/**
 * Explanations of the sightings, best first: those that fit and are common before rare or poorly fitting ones; at most eight. Empty without
 * sightings, or if there are too many runs.
 *
 * Takes some thousand short simulations: a second for an ordinary garden, ten for the largest; call it from a worker.
 *
 * @param progress called now and then with the share done
 */
export function explain(question: Question, progress: Progress = () => undefined): Explanation[] {
  if (question.sightings.length === 0) return [];
  const { plan, ahead } = question;
  const search = new TriedWorlds(question);
  const base = asNoted(plan, ahead ?? 0, question.factory);
  const known: Cause[] = ahead !== null && ahead !== 0 ? [{ type: 'clock', ahead }] : [];
  const timeline = search.timelineOf(base, ahead === null ? FARTHEST_AHEAD : 0);
  if (!timeline) return [];
  const asSet = search.consider(known, base, search.fitsIn(timeline, base));
  const clocks =
    ahead === null
      ? tryClocks(search, timeline, base, clockErrors(search.seen, timeline), (error) => [
          { type: 'clock', ahead: error },
        ])
      : [];
  tryFactory(search, question);
  tryOutages(search, question);
  const singles = tryEach(search, known, base, search.candidatesIn(base, timeline));
  if (ahead === null)
    trySettingsWithClock(search, singles, asSet, (share) => progress(share * 0.4));
  tryPairs(search, singles, asSet);
  const roots = [
    ...distinctClocks(clocks, asSet, CLOCKS_GONE_INTO),
    ...distinctKinds(singles, SINGLES_GONE_INTO),
  ];
  tryOnTop(search, roots, (share) => progress(0.4 + share * 0.6));
  return search.best(MOST_TOLD);
}
