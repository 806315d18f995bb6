/** Worlds compared with what was seen: what they cost, which of them say the same, and which are worth reporting. */
import { SECONDS_PER_DAY as DAY, type ClockSecond } from '../time/calendar.ts';
import { attempt } from '../engine/effort.ts';
import type { Plan } from '../plan/plan.ts';
import type { Sighting, Sign } from '../visit/visit.ts';
import { candidates } from './candidates.ts';
import {
  BETWEEN,
  isHalfADay,
  rarityOf,
  withCause,
  type Cause,
  type CauseType,
  type World,
} from './causes.ts';
import { misfitOf, cutsCycle, seenOf, Timeline, type Seen } from './timeline.ts';

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
  readonly causes: readonly Cause[];
  readonly world: World;
  /** How rare it is and how badly it fits, in nats: the difference of two is the logarithm of how much likelier one is. */
  readonly cost: number;
  /** Of each sighting, in their order: 0 fits, `MISS` contradicts. */
  readonly fits: readonly number[];
  /** Others that the same look at the box settles, the best first: a start left over, or the one that is there moved. */
  readonly or: readonly Variant[];
}

export type Variant = Omit<Explanation, 'or'>;

/** Two things wrong at once are less likely than each by itself. */
const TWO_AT_ONCE = 1;
/** A loss of memory whose clock was checked: nothing is left to guess. */
const POWER_SEEN = 2.4;
/** A sensor that dries or gets wet in the middle of a cycle; most of them dry by day. */
const IN_A_CYCLE = 2.5;
/** The bonus of a sign on the box that points to the cause. */
const SIGN_SPEAKS = 2;

const SIGN_POINTS: Readonly<Record<Sign, readonly CauseType[]>> = {
  'blinking-program': ['half-set'],
  'steady-light': ['dead-station'],
  'station-error': ['dead-station'],
  'pump-error': ['dead-station'],
  'says-off': ['off'],
  'water-sign': ['manual', 'dead-station'],
  'blank-screen': ['power-failure', 'outage'],
  'flashing-clock': ['power-failure', 'outage', 'clock'],
  'buttons-dead': ['percent'],
  'sensor-off': ['sensor'],
};

const LEAVES_ALL_DRY: readonly CauseType[] = [
  'off',
  'rain-delay',
  'rain-delay-set',
  'sensor',
  'outage',
  'stopped',
];

/** How many explanations are reported. */
export const MOST_TOLD = 8;
/** A variant is reported as well where it is less likely by no more than this, in nats. */
const STILL_LIKELY = 8;
const MOST_VARIANTS = 4;

/** An explanation that costs less than this agrees with what was seen. */
const AGREES = 1.5;
/** A fit is better only if it gains at least this, in nats. */
const NO_BETTER = 0.5;

/** Errors of a clock this close together are one explanation, seconds; days apart as well, the best of which is reported. */
export const SAME_CLOCK = 900;

export const sum = (all: readonly number[]) => all.reduce((a, b) => a + b, 0);

/** What two explanations must share to be variants of one, of each of which the best is reported: kind and place, not the very value. */
export function familyOf(cause: Cause): string {
  switch (cause.type) {
    case 'clock':
      return `clock ${Math.round((((cause.ahead % DAY) + DAY) % DAY) / SAME_CLOCK)}`;
    case 'power-failure':
    case 'off':
    case 'rain-delay':
    case 'rain-delay-set':
    case 'sensor':
    case 'stopped':
    case 'outage':
    case 'percent-changed':
      return cause.type;
    case 'extra-program':
      return `${cause.type} ${cause.program.letter}`;
    case 'manual':
    case 'dead-station':
      return `${cause.type} ${cause.station ?? ''}`;
    case 'run':
      return `${cause.type} ${cause.program} ${cause.station}`;
    case 'other-start':
      return `${cause.type} ${cause.program} ${cause.start}`;
    default:
      return `${cause.type} ${cause.program ?? ''}`;
  }
}

/** The one look at the box that settles it. Causes with the same look are variants of one explanation. */
function lookOf(cause: Cause): string {
  switch (cause.type) {
    // Morning and afternoon exchanged, in the clock or in a start: if the clock is right, it is the start.
    case 'clock':
      return Math.abs(cause.ahead) === DAY / 2 ? 'half a day' : familyOf(cause);
    case 'other-start':
      return isHalfADay(cause.start, cause.to) ? 'half a day' : `starts ${cause.program}`;
    case 'extra-start':
      return `starts ${cause.program}`;
    case 'rain-delay':
    case 'rain-delay-set':
    case 'sensor':
    case 'outage':
      return 'kept dry';
    // The run times of a program are read one after another, and its total proves them.
    case 'run':
      return cause.seconds === 0 ? `dead-station ${cause.station}` : `runs ${cause.program}`;
    default:
      return familyOf(cause);
  }
}

export const keyOf = (causes: readonly Cause[], of: (cause: Cause) => string) =>
  causes.map(of).sort().join(' + ');

/** Including how unlikely it is by itself, whatever was seen, in nats. */
export type Tried = Variant & { readonly unlikely: number };

/** What has been tried so far, each world run by the engine and weighed against the sightings. */
export class TriedWorlds {
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
  timelineOf(world: World, margin = 0, shifts = margin > 0): Timeline | null {
    const [from, to] = [this.from + world.ahead - margin, this.to + world.ahead + margin];
    const made = attempt(() => new Timeline(world, from, to, shifts));
    return made.ok ? made.value : null;
  }

  fitsIn(timeline: Timeline, world: World): number[] {
    return this.seen.map((seen) => misfitOf(seen, timeline, world));
  }

  rarity(causes: readonly Cause[]): number {
    const spoken = new Set(this.question.signs.flatMap((sign) => SIGN_POINTS[sign]));
    const each = causes.map((cause) => {
      // A clock that was looked at is not a guess.
      if (cause.type === 'clock' && this.question.ahead !== null) return 0;
      if (cause.type === 'power-failure' && this.question.ahead !== null) return POWER_SEEN;
      if (cause.type === 'outage' && this.showsOutage()) return POWER_SEEN + BETWEEN;
      const spokenFor = spoken.has(cause.type) ? SIGN_SPEAKS : 0;
      return rarityOf(cause, this.question.plan) + this.named(cause) - spokenFor;
    });
    const guessed = causes.filter(({ type }) => type !== 'clock' || this.question.ahead === null);
    return sum(each) + (guessed.length > 1 ? TWO_AT_ONCE : 0);
  }

  /** Whether the clock was found wrong on a timer whose clock does not outlast a loss of power. */
  private showsOutage(): boolean {
    const { ahead, plan } = this.question;
    const clock = plan.timer.powerLoss?.clock ?? 'kept';
    return ahead !== null && ahead !== 0 && clock !== 'kept';
  }

  /** A cause that leaves many stations dry can be reported in as many ways. */
  private named(cause: Cause): number {
    const { programs } = this.question.plan;
    const dry = programs.filter(({ letter }) =>
      cause.type === 'half-set' ? letter === cause.program : LEAVES_ALL_DRY.includes(cause.type),
    );
    const stations = dry.flatMap(({ runs }) => runs.map(({ station }) => station));
    const isNamed = this.seen.some(
      ({ saw, station }) => saw === 'dry' && station !== null && stations.includes(station),
    );
    return isNamed ? Math.log(stations.length) : 0;
  }

  consider(causes: readonly Cause[], world: World, fits: readonly number[], unlikely = 0): Tried {
    const tried = {
      causes,
      world,
      fits,
      unlikely,
      cost: this.rarity(causes) + unlikely + sum(fits),
    };
    const look = keyOf(causes, lookOf);
    const variants = this.found.get(look) ?? new Map<string, Tried>();
    this.found.set(look, variants);
    const key = keyOf(causes, familyOf);
    const before = variants.get(key);
    if (!before || tried.cost < before.cost) variants.set(key, tried);
    return tried;
  }

  /** Runs the engine in a world and considers what it tells. */
  tryCauses(causes: readonly Cause[], world: World): Tried | null {
    // Where the sensor takes whole cycles and nothing else is done, the runs of the timer left alone tell as much.
    const plain = this.timelineOf(world, 0, true);
    const cuts = plain && world.wet.length > 0 && cutsCycle(plain, world);
    const isPlain = !cuts && !(world.wet.length > 0 && world.plan.timer.onRain === 'lose');
    const timeline = isPlain ? plain : this.timelineOf(world);
    if (!timeline) return null;
    return this.consider(causes, world, this.fitsIn(timeline, world), cuts ? IN_A_CYCLE : 0);
  }

  /** The world with one thing more gone wrong. */
  with(world: World, cause: Cause): World {
    return withCause(world, cause, this.question.factory);
  }

  candidatesIn(world: World, timeline: Timeline): Cause[] {
    return candidates(world, this.seen, timeline, this.question.factory);
  }

  /** The cost of the last explanation that would be reported: a costlier one is not worth a simulation. */
  worst(): number {
    return this.best(MOST_TOLD).at(MOST_TOLD - 1)?.cost ?? Infinity;
  }

  /** The best ones, those left out that add something wrong without explaining any more. */
  best(count: number): (Explanation & Tried)[] {
    const all = [...this.found.values()].flatMap((variants): (Explanation & Tried)[] => {
      const [first, ...others] = [...variants.values()].sort((a, b) => a.cost - b.cost);
      const or = first ? others.filter(({ cost }) => cost <= first.cost + STILL_LIKELY) : [];
      return first ? [{ ...first, or: or.slice(0, MOST_VARIANTS) }] : [];
    });
    const chosen: (Explanation & Tried)[] = [];
    for (const one of all.sort((a, b) => a.cost - b.cost)) {
      if (chosen.length === count) break;
      if (!chosen.some((other) => isEnough(other, one) || isNearby(other, one))) chosen.push(one);
    }
    return chosen;
  }
}

/** Whether a part of what another one says explains as much, or agrees with everything as it is. */
function isEnough(part: Tried, whole: Tried): boolean {
  if (part.causes.length >= whole.causes.length) return false;
  const looks = whole.causes.map(lookOf);
  if (!part.causes.every((cause) => looks.includes(lookOf(cause)))) return false;
  const isBetter = sum(whole.fits) + whole.unlikely + NO_BETTER < sum(part.fits) + part.unlikely;
  return !isBetter || (part.causes.length === 0 && fitsAll(part));
}

/** Whether an explanation agrees with everything that was seen. */
export const fitsAll = ({ fits }: Pick<Variant, 'fits'>): boolean =>
  fits.every((cost) => cost < AGREES);

/** Whether two explanations differ only in some minutes of the clock, or in whole days. */
function isNearby(a: Tried, b: Tried): boolean {
  const apart = Math.abs(a.world.ahead - b.world.ahead) % DAY;
  const others = ({ causes: causes }: Tried) =>
    keyOf(
      causes.filter(({ type }) => type !== 'clock'),
      lookOf,
    );
  return (
    a.causes.length === b.causes.length &&
    a.world.ahead !== b.world.ahead &&
    Math.min(apart, DAY - apart) < SAME_CLOCK &&
    others(a) === others(b)
  );
}
