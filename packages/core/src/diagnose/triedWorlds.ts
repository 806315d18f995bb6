/** Worlds compared with the sightings: their costs, which are variants, and which to report. */
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
  /** What is known of the settings. */
  readonly plan: Plan;
  readonly sightings: readonly Sighting[];
  readonly signs: readonly Sign[];
  /** Seconds by which the timer's clock was found ahead; null: not checked. */
  readonly ahead: number | null;
  /** Plan after a loss of memory (`factoryPlan`); null: not known. */
  readonly factory: Plan | null;
}

export interface Explanation {
  /** Empty: the timer does what it is set to. */
  readonly causes: readonly Cause[];
  readonly world: World;
  /** Rarity plus misfit, in nats: the difference of two is a log likelihood ratio. */
  readonly cost: number;
  /** For each sighting in order: 0 fits, `MISS` contradicts. */
  readonly fits: readonly number[];
  /** Others that the same check at the timer decides, best first: such as a leftover start, or a moved one. */
  readonly or: readonly Variant[];
}

export type Variant = Omit<Explanation, 'or'>;

/** Two faults at once are less likely than each by itself. */
const TWO_AT_ONCE = 1;
/** A loss of memory with a checked clock leaves nothing to guess. */
const POWER_SEEN = 2.4;
/** A sensor that dries or gets wet during a cycle; most dry by day. */
const IN_A_CYCLE = 2.5;
/** Bonus for a sign at the timer that points to the cause. */
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

/** Number of explanations reported. */
export const MOST_TOLD = 8;
/** A variant is reported too if it is less likely by no more than this, in nats. */
const STILL_LIKELY = 8;
const MOST_VARIANTS = 4;

/** An explanation cheaper than this agrees with the sightings. */
const AGREES = 1.5;
/** Minimum gain of a better fit, in nats. */
const NO_BETTER = 0.5;

/** Clock errors this close together are one explanation, seconds; also those days apart, of which the best is reported. */
export const SAME_CLOCK = 900;

export const sum = (all: readonly number[]) => all.reduce((a, b) => a + b, 0);

/** What makes two explanations variants, of which the best is reported: same kind and place, other value. */
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

/** The one check at the timer that decides it. Causes with the same check are variants. */
function lookOf(cause: Cause): string {
  switch (cause.type) {
    // Morning and afternoon swapped, in the clock or in a start: if the clock is right, it is the start.
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
    // A program's run times are checked one after another, and its total confirms them.
    case 'run':
      return cause.seconds === 0 ? `dead-station ${cause.station}` : `runs ${cause.program}`;
    default:
      return familyOf(cause);
  }
}

export const keyOf = (causes: readonly Cause[], of: (cause: Cause) => string) =>
  causes.map(of).sort().join(' + ');

/** Includes its prior rarity, in nats. */
export type Tried = Variant & { readonly unlikely: number };

/** What has been tried so far, each world simulated and compared with the sightings. */
export class TriedWorlds {
  readonly seen: readonly Seen[];
  private readonly question: Question;
  private readonly from: ClockSecond;
  private readonly to: ClockSecond;
  /** By deciding check, then by kind. */
  private readonly found = new Map<string, Map<string, Tried>>();

  constructor(question: Question) {
    this.question = question;
    this.seen = question.sightings.map(seenOf);
    this.from = Math.min(...this.seen.map(({ from }) => from)) - 12 * 3600;
    this.to = Math.max(...this.seen.map(({ from, to }) => to ?? from)) + 12 * 3600;
  }

  /** A world's runs around the sightings; null if there are too many. */
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
      // A checked clock is no guess.
      if (cause.type === 'clock' && this.question.ahead !== null) return 0;
      if (cause.type === 'power-failure' && this.question.ahead !== null) return POWER_SEEN;
      if (cause.type === 'outage' && this.showsOutage()) return POWER_SEEN + BETWEEN;
      const spokenFor = spoken.has(cause.type) ? SIGN_SPEAKS : 0;
      return rarityOf(cause, this.question.plan) + this.named(cause) - spokenFor;
    });
    const guessed = causes.filter(({ type }) => type !== 'clock' || this.question.ahead === null);
    return sum(each) + (guessed.length > 1 ? TWO_AT_ONCE : 0);
  }

  /** Whether the clock was found wrong on a timer that loses the time without power. */
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

  /** Simulates a world and considers the result. */
  tryCauses(causes: readonly Cause[], world: World): Tried | null {
    // If a sensor takes whole cycles and nothing else happens, the undisturbed runs are enough.
    const plain = this.timelineOf(world, 0, true);
    const cuts = plain && world.wet.length > 0 && cutsCycle(plain, world);
    const isPlain = !cuts && !(world.wet.length > 0 && world.plan.timer.onRain === 'lose');
    const timeline = isPlain ? plain : this.timelineOf(world);
    if (!timeline) return null;
    return this.consider(causes, world, this.fitsIn(timeline, world), cuts ? IN_A_CYCLE : 0);
  }

  /** The world with one cause added. */
  with(world: World, cause: Cause): World {
    return withCause(world, cause, this.question.factory);
  }

  candidatesIn(world: World, timeline: Timeline): Cause[] {
    return candidates(world, this.seen, timeline, this.question.factory);
  }

  /** Cost of the last explanation to report: anything above it is not worth a simulation. */
  worst(): number {
    return this.best(MOST_TOLD).at(MOST_TOLD - 1)?.cost ?? Infinity;
  }

  /** The best ones, without those that add a cause and explain no more. */
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

/** Whether part of another explanation explains as much, or fits everything as it is. */
function isEnough(part: Tried, whole: Tried): boolean {
  if (part.causes.length >= whole.causes.length) return false;
  const looks = whole.causes.map(lookOf);
  if (!part.causes.every((cause) => looks.includes(lookOf(cause)))) return false;
  const isBetter = sum(whole.fits) + whole.unlikely + NO_BETTER < sum(part.fits) + part.unlikely;
  return !isBetter || (part.causes.length === 0 && fitsAll(part));
}

/** Whether an explanation fits all sightings. */
export const fitsAll = ({ fits }: Pick<Variant, 'fits'>): boolean =>
  fits.every((cost) => cost < AGREES);

/** Whether two explanations differ only by minutes of the clock, or whole days. */
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
