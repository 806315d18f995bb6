/**
 * Reasoning backwards from what was seen: settings, clock, switches, wiring, and combinations of two, each run by the engine
 * itself and held against the sightings. Nothing is looked up in a list of answers.
 */
import { SECONDS_PER_DAY as DAY, type ClockSecond } from '../calendar.ts';
import { attempt } from '../effort.ts';
import type { Plan } from '../plan.ts';
import type { Sighting, Sign } from '../visit/visit.ts';
import { candidates, clockErrors, FARTHEST_AHEAD } from './candidates.ts';
import { asNoted, rarityOf, withSlip, type Slip, type SlipType, type World } from './slips.ts';
import { costOf, MISS, seenOf, Timeline, type Seen } from './timeline.ts';

export interface Question {
  /** What is known of the timer's settings. */
  readonly plan: Plan;
  readonly sightings: readonly Sighting[];
  readonly signs: readonly Sign[];
  /** Seconds by which the timer's clock was found ahead; null: nobody has looked. */
  readonly ahead: number | null;
  /** The plan after a loss of memory (`factoryPlan`); null: not known. */
  readonly factory: Plan | null;
}

export interface Explanation {
  /** Empty: the timer does what it is set to. */
  readonly slips: readonly Slip[];
  readonly world: World;
  /** How seldom it is and how badly it fits, in nats: the difference of two is the logarithm of how much likelier one is. */
  readonly cost: number;
  /** Of each sighting, in their order: 0 fits, `MISS` contradicts. */
  readonly fits: readonly number[];
  /** Others that the same look at the box settles, the best first: a start left over, or the one that is there moved. */
  readonly or: readonly Variant[];
}

export type Variant = Omit<Explanation, 'or'>;

/** Two things wrong at once are seldomer than each by itself. */
const TWO_AT_ONCE = 1;
/** A loss of memory whose clock was looked at: nothing of it is left to guess. */
const POWER_SEEN = 2.4;
/** A sign on the box that speaks for something. */
const SIGN_SPEAKS = 2;

const SIGN_POINTS: Readonly<Record<Sign, readonly SlipType[]>> = {
  'blinking-program': ['half-set'],
  'steady-light': ['dead-station'],
  'station-error': ['dead-station'],
  'pump-error': ['dead-station'],
  'says-off': ['off'],
  'water-sign': ['manual', 'dead-station'],
  'blank-screen': ['power-failure'],
  'flashing-clock': ['power-failure', 'clock'],
  'buttons-dead': ['percent'],
  'sensor-off': ['sensor'],
};

/** What is wrong of itself, whatever the clock says; the rest is sought at the clock's error. */
const MOVED_BY_CLOCK: readonly SlipType[] = [
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

/** A variant is told as well where it is less likely by no more than this, in nats. */
const STILL_LIKELY = 8;
const MOST_VARIANTS = 3;

/** A fit is not really better by less than this, in nats. */
const NO_BETTER = 0.5;

const CLOCKS_GONE_INTO = 12;
const SINGLES_GONE_INTO = 18;
const PAIRS_TRIED = 150;
/** Errors of a clock this close together are one explanation, seconds; days apart as well, the best of which is told. */
const SAME_CLOCK = 900;

const sum = (all: readonly number[]) => all.reduce((a, b) => a + b, 0);

/** What two explanations must share to be variants of one, of each of which the best is told: kind and place, not the very value. */
function kindOf(slip: Slip): string {
  switch (slip.type) {
    case 'clock':
      return `clock ${Math.round((((slip.ahead % DAY) + DAY) % DAY) / SAME_CLOCK)}`;
    case 'power-failure':
    case 'off':
    case 'rain-delay':
    case 'sensor':
      return slip.type;
    case 'extra-program':
      return `${slip.type} ${slip.program.letter}`;
    case 'manual':
    case 'dead-station':
      return `${slip.type} ${slip.station ?? ''}`;
    case 'run':
      return `${slip.type} ${slip.program} ${slip.station}`;
    case 'other-start':
      return `${slip.type} ${slip.program} ${slip.start}`;
    default:
      return `${slip.type} ${slip.program ?? ''}`;
  }
}

/** The one look at the box that settles it: what shares it is one explanation with variants. */
function lookOf(slip: Slip): string {
  switch (slip.type) {
    case 'extra-start':
    case 'other-start':
      return `starts ${slip.program}`;
    case 'rain-delay':
    case 'sensor':
      return 'kept dry';
    case 'run':
      return slip.seconds === 0 ? `dead-station ${slip.station}` : kindOf(slip);
    default:
      return kindOf(slip);
  }
}

const keyOf = (slips: readonly Slip[], of: (slip: Slip) => string) =>
  slips.map(of).sort().join(' + ');

type Tried = Variant;

class Search {
  readonly seen: readonly Seen[];
  private readonly question: Question;
  private readonly from: ClockSecond;
  private readonly to: ClockSecond;
  /** By the look that settles it, then by kind. */
  private readonly found = new Map<string, Map<string, Tried>>();

  constructor(question: Question) {
    this.question = question;
    this.seen = question.sightings.map(seenOf);
    this.from = Math.min(...this.seen.map(({ from }) => from)) - 12 * 3600;
    this.to = Math.max(...this.seen.map(({ from, to }) => to ?? from)) + 12 * 3600;
  }

  /** The runs of a world around the sightings; null where they are too many to work out. */
  timelineOf(world: World, margin = 0): Timeline | null {
    const made = attempt(
      () => new Timeline(world, this.from + world.ahead - margin, this.to + world.ahead + margin),
    );
    return made.ok ? made.value : null;
  }

  fitsIn(timeline: Timeline, world: World): number[] {
    return this.seen.map((one) => costOf(one, timeline, world));
  }

  rarity(slips: readonly Slip[]): number {
    const spoken = new Set(this.question.signs.flatMap((sign) => SIGN_POINTS[sign]));
    const each = slips.map((slip) => {
      // A clock that was looked at is no guess.
      if (slip.type === 'clock' && this.question.ahead !== null) return 0;
      if (slip.type === 'power-failure' && this.question.ahead !== null) return POWER_SEEN;
      return rarityOf(slip, this.question.plan) - (spoken.has(slip.type) ? SIGN_SPEAKS : 0);
    });
    const guessed = slips.filter(({ type }) => type !== 'clock' || this.question.ahead === null);
    return sum(each) + (guessed.length > 1 ? TWO_AT_ONCE : 0);
  }

  consider(slips: readonly Slip[], world: World, fits: readonly number[]): Tried {
    const tried = { slips, world, fits, cost: this.rarity(slips) + sum(fits) };
    const look = keyOf(slips, lookOf);
    const variants = this.found.get(look) ?? new Map<string, Tried>();
    this.found.set(look, variants);
    const key = keyOf(slips, kindOf);
    const before = variants.get(key);
    if (!before || tried.cost < before.cost) variants.set(key, tried);
    return tried;
  }

  /** Runs the engine in a world and considers what it tells. */
  trySlips(slips: readonly Slip[], world: World): Tried | null {
    const timeline = this.timelineOf(world);
    return timeline && this.consider(slips, world, this.fitsIn(timeline, world));
  }

  /** The world with one thing more gone wrong. */
  with(world: World, slip: Slip): World {
    return withSlip(world, slip, this.question.factory);
  }

  candidatesIn(world: World, timeline: Timeline): Slip[] {
    return candidates(world, this.seen, timeline, this.question.factory);
  }

  /** What the last of those costs that would be told: a dearer one is not worth its simulation. */
  worst(): number {
    return this.best(MOST_TOLD).at(MOST_TOLD - 1)?.cost ?? Infinity;
  }

  /** The best ones, those left out that add something wrong without explaining any more. */
  best(count: number): Explanation[] {
    const all = [...this.found.values()].flatMap((variants): Explanation[] => {
      const [first, ...others] = [...variants.values()].sort((a, b) => a.cost - b.cost);
      const or = first ? others.filter(({ cost }) => cost <= first.cost + STILL_LIKELY) : [];
      return first ? [{ ...first, or: or.slice(0, MOST_VARIANTS) }] : [];
    });
    const chosen: Explanation[] = [];
    for (const one of all.sort((a, b) => a.cost - b.cost)) {
      if (chosen.length === count) break;
      if (!chosen.some((other) => isEnough(other, one))) chosen.push(one);
    }
    return chosen;
  }
}

/** The clock errors that fit at least something better, the best first, no two of them the same. */
function distinctClocks(tried: readonly Tried[], base: Tried, count: number): Tried[] {
  const chosen: Tried[] = [];
  const helps = (one: Tried) => one.fits.some((cost, i) => cost < (base.fits[i] ?? 0) - 1);
  for (const one of [...tried].sort((a, b) => a.cost - b.cost)) {
    if (chosen.length === count) break;
    const close = chosen.some(({ world }) => Math.abs(world.ahead - one.world.ahead) < SAME_CLOCK);
    if (!close && helps(one)) chosen.push(one);
  }
  return chosen;
}

/** Whether a part of what another one says explains as much. */
function isEnough(part: Tried, whole: Tried): boolean {
  if (part.slips.length >= whole.slips.length) return false;
  const looks = whole.slips.map(lookOf);
  return (
    part.slips.every((slip) => looks.includes(lookOf(slip))) &&
    sum(part.fits) <= sum(whole.fits) + NO_BETTER
  );
}

const isSameKind = (a: Tried, b: Tried) => keyOf(a.slips, kindOf) === keyOf(b.slips, kindOf);

/** Of a kind whose value shows only together with something else, so many values are gone into. */
const VALUES_GONE_INTO = 3;

/** The best of each kind, the best first; of percents and run times more than one value. */
function distinctKinds(tried: readonly Tried[], count: number): Tried[] {
  const taken = new Map<string, number>();
  const chosen = [...tried]
    .sort((a, b) => a.cost - b.cost)
    .filter(({ slips }) => {
      const key = keyOf(slips, kindOf);
      const before = taken.get(key) ?? 0;
      taken.set(key, before + 1);
      const hasValue = slips.some(({ type }) => type === 'percent' || type === 'run');
      return before < (hasValue ? VALUES_GONE_INTO : 1);
    });
  return chosen.slice(0, count);
}

/** Told what share of the work is done, 0 to 1. */
type Progress = (share: number) => void;

/** Errors of the clock on a timeline of its own clock, each considered; the timeline is that of `world` without them. */
function tryClocks(
  search: Search,
  timeline: Timeline,
  world: World,
  errors: readonly number[],
  slipsOf: (ahead: number) => readonly Slip[],
): Tried[] {
  return errors.map((ahead) => {
    const wrong = { ...world, ahead };
    const fits = search.seen.map((one) => costOf(one, timeline, wrong));
    return search.consider(slipsOf(ahead), wrong, fits);
  });
}

/** The factory's settings, on a clock that began anew, or that was looked at. */
function tryFactory(search: Search, { factory, ahead }: Question): void {
  if (!factory) return;
  const lost = asNoted(factory, ahead ?? 0);
  const timeline = search.timelineOf(lost, FARTHEST_AHEAD);
  if (!timeline) return;
  const errors = ahead === null ? [0, ...clockErrors(search.seen, timeline)] : [ahead];
  tryClocks(search, timeline, lost, errors, (error) => [{ type: 'power-failure', ahead: error }]);
}

/** Each setting together with the clock, whose error shows on the timeline of that setting only. */
function trySettingsWithClock(search: Search, singles: readonly Tried[], progress: Progress): void {
  const commonest = { type: 'clock', ahead: DAY / 2 } as const;
  singles.forEach(({ slips: [slip], world }, i) => {
    progress(i / singles.length);
    if (!slip || !MOVED_BY_CLOCK.includes(slip.type)) return;
    if (search.rarity([slip, commonest]) > search.worst()) return;
    const timeline = search.timelineOf(world, FARTHEST_AHEAD);
    if (!timeline) return;
    tryClocks(search, timeline, world, clockErrors(search.seen, timeline), (ahead) => [
      { type: 'clock', ahead },
      slip,
    ]);
  });
}

/** Two settings: those pairs that between them seem to explain most. */
function tryPairs(search: Search, singles: readonly Tried[], asSet: Tried): void {
  const known = asSet.slips.length;
  const helpful = singles.filter(({ fits }) =>
    fits.some((cost, i) => cost < (asSet.fits[i] ?? 0) - 1),
  );
  const pairs = helpful.flatMap((a, i) =>
    helpful
      .slice(i + 1)
      .filter((b) => !isSameKind(a, b))
      .map((b) => {
        const fits = asSet.fits.map((before, k) => {
          const [x, y] = [a.fits[k] ?? MISS, b.fits[k] ?? MISS];
          // What mends a sighting may do so in either; what breaks one that fitted breaks it in both.
          return before < 1 ? Math.max(x, y) : Math.min(x, y);
        });
        const own = b.slips.slice(known);
        const slips = [...a.slips, ...own];
        return { slips, from: a.world, own, guess: sum(fits) + search.rarity(slips) };
      }),
  );
  for (const { slips, from, own, guess } of pairs
    .sort((a, b) => a.guess - b.guess)
    .slice(0, PAIRS_TRIED))
    if (guess < search.worst())
      search.trySlips(
        slips,
        own.reduce((world, slip) => search.with(world, slip), from),
      );
}

/** Whatever follows from the best single ones: their own worlds point to other values. */
function tryOnTop(search: Search, roots: readonly Tried[], progress: Progress): void {
  roots.forEach((root, i) => {
    progress(i / roots.length);
    if (Math.max(...root.fits) < 1) return;
    const timeline = search.timelineOf(root.world);
    if (!timeline) return;
    const limit = search.worst();
    for (const slip of search.candidatesIn(root.world, timeline)) {
      if (root.slips.some((one) => kindOf(one) === kindOf(slip))) continue;
      const slips = [...root.slips, slip];
      if (search.rarity(slips) < limit) search.trySlips(slips, search.with(root.world, slip));
    }
  });
}

/** How many explanations are told. */
const MOST_TOLD = 8;

/**
 * Explanations of what was seen, the best first: those that fit and are common before those that are seldom or fit badly; at
 * most eight. Empty where nothing was seen, or the runs are too many to work out.
 *
 * Cost: some thousand short simulations, a second for an ordinary garden and ten for the largest; ask it from a worker.
 *
 * @param progress is told now and then how far it is.
 */
export function explain(question: Question, progress: Progress = () => undefined): Explanation[] {
  if (question.sightings.length === 0) return [];
  const { plan, ahead } = question;
  const search = new Search(question);
  const base = asNoted(plan, ahead ?? 0);
  const known: Slip[] = ahead !== null && ahead !== 0 ? [{ type: 'clock', ahead }] : [];
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
  const singles = search
    .candidatesIn(base, timeline)
    .flatMap((slip) => search.trySlips([...known, slip], search.with(base, slip)) ?? []);
  if (ahead === null) trySettingsWithClock(search, singles, (share) => progress(share * 0.4));
  tryPairs(search, singles, asSet);
  const roots = [
    ...distinctClocks(clocks, asSet, CLOCKS_GONE_INTO),
    ...distinctKinds(singles, SINGLES_GONE_INTO),
  ];
  tryOnTop(search, roots, (share) => progress(0.4 + share * 0.6));
  return search.best(MOST_TOLD);
}

/** Whether an explanation agrees with everything that was seen. */
export const fitsAll = ({ fits }: Variant): boolean => fits.every((cost) => cost < 1.5);
