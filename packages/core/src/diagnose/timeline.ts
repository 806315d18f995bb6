/** What someone would have seen if something had gone wrong, and how well that fits the sightings. */
import { assertDefined } from '../document/assertDefined.ts';
import { parseMoment, SECONDS_PER_DAY, type ClockSecond, type EpochDay } from '../time/calendar.ts';
import type { TimerCycle, TimerRun } from '../simulatedTimer/timerState.ts';
import { momentOf } from '../simulatedTimer/events.ts';
import { pressedFrom } from '../simulatedTimer/simulateEvents.ts';
import { simulate } from '../engine/simulate.ts';
import type { Sighting } from '../visit/visit.ts';
import { pressesOf, type World } from './causes.ts';

/** A sighting with its moments as numbers, in true time. */
export interface Seen {
  readonly saw: Sighting['saw'];
  readonly from: ClockSecond;
  /** Null: at that moment. */
  readonly to: ClockSecond | null;
  readonly station: number | null;
  readonly seconds: number | null;
  readonly times: number | null;
  /** Seconds either way that fit as well as the named moment. */
  readonly giveOrTake: number;
  /** For a dry span: whether it ran at its very start and end. */
  readonly ranBefore: boolean;
  readonly ranAfter: boolean;
}

/** People give times to five minutes. */
const MOMENT_TOLERANCE = 180;

/** Does not fail: the moments of a read sighting are valid. */
export const seenOf = ({
  saw,
  from,
  to,
  station,
  minutes,
  times,
  giveOrTake,
  ranBefore = false,
  ranAfter = false,
}: Sighting): Seen => ({
  saw,
  from: assertDefined(parseMoment(from), 'parseMoment(from)'),
  to: to === undefined ? null : assertDefined(parseMoment(to), 'parseMoment(to)'),
  station: station ?? null,
  seconds: minutes === undefined ? null : minutes * 60,
  times: times ?? null,
  giveOrTake: giveOrTake === undefined ? MOMENT_TOLERANCE : giveOrTake * 60,
  ranBefore,
  ranAfter,
});

export interface SeenRun {
  readonly station: number | null;
  readonly on: ClockSecond;
  readonly off: ClockSecond;
  /** Its program, and which of the timeline's cycles; absent: a manual run. */
  readonly letter?: string;
  readonly cycle?: number;
}

/** Cost of a sighting that does not fit at all, in nats. */
export const MISS = 16;
/** One nat for every two minutes beyond that. */
const MOMENT_SCALE = 120;
/** Runs of one station this close together, such as cycles between soaks, count as one watering. */
const ONE_WATERING = 2700;

/** What the timer does during actions. The simulated timer uses true time, so its moments are converted to the timer's clock. */
function pressedRuns(world: World, first: EpochDay, days: number): SeenRun[] {
  const { plan, ahead, factory } = world;
  const presses = pressesOf(world);
  const [press] = presses;
  const begin = Math.min(
    first * SECONDS_PER_DAY - ahead,
    press ? momentOf(press) - SECONDS_PER_DAY : Infinity,
  );
  const { cycles, runs } = pressedFrom(
    { plan, factory, ahead },
    { from: begin, to: (first + days) * SECONDS_PER_DAY - ahead, presses },
  );
  const cycleOf = cycleTeller(cycles);
  return runs.map((run) => {
    const { station, letter } = run;
    const span = { station, on: run.on + ahead, off: run.off + ahead };
    return letter === null ? span : { ...span, letter, cycle: cycleOf(run) };
  });
}

/** Manual runs that meet no cycle change nothing else, and need no simulation; null: other actions, or they meet a cycle. */
function besideCycles(world: World, first: EpochDay, days: number): SeenRun[] | null {
  const { plan, ahead, presses, wet } = world;
  const byHand: SeenRun[] = [];
  for (const press of presses) {
    if (press.do !== 'manual' || press.station === undefined || wet.length > 0) return null;
    const on = momentOf(press) + ahead;
    byHand.push({ station: press.station, on, off: on + (press.seconds ?? 0) });
  }
  const isThere = ({ station }: SeenRun) =>
    plan.settings.mode !== 'off' &&
    plan.stations.some(({ number, enabled }) => number === station && enabled !== false);
  if (!byHand.every(isThere) || byHand.length > 1) return null;
  const { cycles, runs } = simulate(plan, first, days);
  const isMet = cycles.some(({ began, ended }) =>
    byHand.some(({ on, off }) => (began ?? Infinity) <= off && on <= (ended ?? -Infinity)),
  );
  return isMet ? null : [...runs, ...byHand].sort((a, b) => a.on - b.on);
}

/** Assigns each run, in order, to the first cycle of its program that has not ended. */
function cycleTeller(cycles: readonly TimerCycle[]): (run: TimerRun) => number {
  const byLetter = new Map<string | null, { at: number; cycle: TimerCycle }[]>();
  cycles.forEach((cycle, at) => {
    if (cycle.began === null) return;
    const own = byLetter.get(cycle.letter);
    if (own) own.push({ at, cycle });
    else byLetter.set(cycle.letter, [{ at, cycle }]);
  });
  const next = new Map<string | null, number>();
  return ({ letter, off }) => {
    const own = byLetter.get(letter) ?? [];
    let i = next.get(letter) ?? 0;
    while (
      i < own.length - 1 &&
      assertDefined(assertDefined(own[i], 'own[i]').cycle.ended, 'own[i].cycle.ended') < off
    )
      i++;
    next.set(letter, i);
    return own[i]?.at ?? -1;
  };
}

/** Runs of a world over a span, by the timer's clock, for evaluation at any clock error. */
export class Timeline {
  readonly runs: readonly SeenRun[];
  /** Whether the sensor's effect is in the runs; otherwise its spans are compared with them. */
  readonly withSensor: boolean;
  private readonly byStation = new Map<number, SeenRun[]>();

  /**
   * @param from first second of the span by the timer's clock; `to`: the last. The day before is simulated too, for what is still running.
   * @param shifts whether other clock errors will be evaluated; then the sensor is compared with the runs.
   * @throws TooMuchWork
   */
  constructor(world: World, from: ClockSecond, to: ClockSecond, shifts = false) {
    const first = Math.floor(from / SECONDS_PER_DAY) - 1;
    const days = Math.ceil(to / SECONDS_PER_DAY) - first + 1;
    this.withSensor = world.presses.length > 0 || (world.wet.length > 0 && !shifts);
    const all: readonly SeenRun[] = this.withSensor
      ? (besideCycles(world, first, days) ?? pressedRuns(world, first, days))
      : simulate(world.plan, first, days).runs;
    this.runs = all.filter(({ station }) => station === null || !world.dead.includes(station));
    for (const run of this.runs) {
      const station = assertDefined(run.station, 'run.station');
      const list = this.byStation.get(station);
      if (list) list.push(run);
      else this.byStation.set(station, [run]);
    }
  }

  /** Runs of a station, or of all, in order of start. */
  of(station: number | null): readonly SeenRun[] {
    return station === null ? this.runs : (this.byStation.get(station) ?? []);
  }

  /** Runs that touch a span by the timer's clock. */
  within(station: number | null, from: ClockSecond, to: ClockSecond): SeenRun[] {
    const runs = this.of(station);
    const found: SeenRun[] = [];
    // A run lasts a day at most.
    for (let i = firstFrom(runs, from - SECONDS_PER_DAY); i < runs.length; i++) {
      const run = runs[i];
      if (!run || run.on >= to) break;
      if (run.off > from) found.push(run);
    }
    return found;
  }
}

export interface TimeSpan {
  readonly from: ClockSecond;
  readonly to: ClockSecond;
}

/** First to last second of each cycle that runs belong to, in order. */
export function cyclesOf(runs: readonly SeenRun[], timeline: Timeline): TimeSpan[] {
  const wanted = new Set(runs.map(({ cycle }) => cycle));
  const spans = new Map<number | undefined, TimeSpan>();
  for (const { cycle, on, off } of timeline.runs) {
    if (!wanted.has(cycle)) continue;
    const { from, to } = spans.get(cycle) ?? { from: on, to: off };
    spans.set(cycle, { from: Math.min(from, on), to: Math.max(to, off) });
  }
  return [...spans.values()];
}

/** Index of the first run starting at a moment or later. */
export function firstFrom(runs: readonly SeenRun[], moment: ClockSecond): number {
  let [low, high] = [0, runs.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (assertDefined(runs[middle], 'runs[middle]').on < moment) low = middle + 1;
    else high = middle;
  }
  return low;
}

const beyond = (value: number, tolerance: number, scale: number) =>
  Math.max(0, value - tolerance) / scale;

/** How far a length is from the reported one. */
const lengthCost = (seconds: number, told: number) =>
  beyond(Math.abs(seconds - told), Math.max(90, told * 0.12), 24 + told * 0.02);

/** Waterings as an onlooker counts them. */
function wateringsOf(runs: readonly SeenRun[]): SeenRun[] {
  const joined: SeenRun[] = [];
  for (const run of runs) {
    const last = joined.at(-1);
    if (last && run.on - last.off <= ONE_WATERING)
      joined[joined.length - 1] = { ...last, off: Math.max(last.off, run.off) };
    else joined.push(run);
  }
  return joined;
}

/** It ran for the reported length, but hours early or late: wrong, but closer than no run. */
const SO_LONG = MISS - 2.5;

function momentCost(seen: Seen, runs: readonly SeenRun[]): number {
  let least = MISS;
  for (const { on, off } of runs) {
    const told = seen.seconds;
    const apart =
      told !== null
        ? Math.abs(on - seen.from)
        : seen.from < on
          ? on - seen.from
          : Math.max(0, seen.from - off);
    // A time without a length most likely means the start.
    const into = told === null ? Math.min(1, beyond(seen.from - on, seen.giveOrTake, 900)) : 0;
    const long = told === null ? 0 : lengthCost(off - on, told);
    least = Math.min(least, beyond(apart, seen.giveOrTake, MOMENT_SCALE) + into + long);
    if (told !== null && seen.station !== null && long < 1) least = Math.min(least, SO_LONG);
  }
  return least;
}

/** Whether a sensor prevents a run of the timeline. */
const isWet = (run: SeenRun, world: World, ahead: number): boolean =>
  world.wet.some(
    ({ from, to }) => run.on - ahead < to && run.off - ahead > from && obeys(world, run),
  );

/** Whether a sensor opens or closes during a cycle. */
export function cutsCycle(timeline: Timeline, world: World): boolean {
  const kept = new Map<number, boolean>();
  return timeline.runs.some((run) => {
    if (run.cycle === undefined || !obeys(world, run)) return false;
    const isKept = isWet(run, world, world.ahead);
    const before = kept.get(run.cycle) ?? isKept;
    kept.set(run.cycle, isKept);
    return before !== isKept;
  });
}

/** What ran at a station, or anywhere, in a span of true time: runs no sensor prevented, and manual runs at unknown stations. */
function runsSeen(
  station: number | null,
  from: ClockSecond,
  to: ClockSecond,
  timeline: Timeline,
  world: World,
  ahead: number,
): SeenRun[] {
  const runs = timeline
    .within(station, from + ahead, to + ahead)
    .filter((run) => timeline.withSensor || world.wet.length === 0 || !isWet(run, world, ahead))
    .map((run) => (ahead === 0 ? run : { ...run, on: run.on - ahead, off: run.off - ahead }));
  const byHand = world.somewhere
    .filter(({ on, off }) => on < to && off > from)
    .map((run) => ({ ...run, station: null }));
  return byHand.length === 0 ? runs : [...runs, ...byHand].sort((a, b) => a.on - b.on);
}

/** How close a reported run may be to the end of a dry span, seconds: people know the hour, roughly. */
export const AROUND_DRY = 5400;
/** How far a run may reach into the span, seconds: people give its ends to five minutes. */
const DRY_TOLERANCE = 300;
/** People are surer of a dry span than of its ends. */
const END_MISSED = 12;

/** @param between what ran at the sighting's station in a span of true time */
function dryCost(seen: Seen, between: (from: ClockSecond, to: ClockSecond) => SeenRun[]): number {
  const { from, to, ranBefore, ranAfter } = seen;
  const [first, last] =
    to === null ? [from - MOMENT_TOLERANCE, from + MOMENT_TOLERANCE] : [from, to];
  const intrusion = ({ station, on, off }: SeenRun): number => {
    // A manual run no one located may have been at another station.
    if (station === null && seen.station !== null) return 0;
    // People place the run before or after the span to a few minutes.
    if (ranBefore && on <= first) return beyond(off - first, DRY_TOLERANCE, MOMENT_SCALE);
    if (ranAfter && off >= last) return beyond(last - on, DRY_TOLERANCE, MOMENT_SCALE);
    return MISS;
  };
  const lacks = (told: boolean, begin: ClockSecond, end: ClockSecond) =>
    told && between(begin, end).length === 0 ? END_MISSED : 0;
  return (
    Math.max(0, ...between(first, last).map(intrusion)) +
    lacks(ranBefore, first - AROUND_DRY, first + 1) +
    lacks(ranAfter, last - 1, last + AROUND_DRY)
  );
}

/**
 * Cost of believing a sighting in a world, in nats: 0 if it fits, `MISS` if it contradicts.
 *
 * @param ahead seconds by which the timer's clock is ahead
 */
export function misfitOf(
  seen: Seen,
  timeline: Timeline,
  world: World,
  ahead = world.ahead,
): number {
  const between = (from: ClockSecond, to: ClockSecond) =>
    runsSeen(seen.station, from, to, timeline, world, ahead);
  const { from, to } = seen;
  if (seen.saw === 'dry') return Math.min(MISS, dryCost(seen, between));
  if (to === null)
    return Math.min(
      MISS,
      momentCost(seen, between(from - 10_800 - seen.giveOrTake, from + 10_800 + seen.giveOrTake)),
    );
  const runs = between(from, to);
  if (seen.times !== null) {
    const times = wateringsOf(runs).length;
    // A count may be off by one, but no one counts a run that is not there.
    return times === 0 ? MISS : Math.min(MISS, 10 * Math.abs(times - seen.times));
  }
  if (runs.length === 0) return MISS;
  const told = seen.seconds;
  if (told === null) return 0;
  const all = [...runs, ...wateringsOf(runs)];
  return Math.min(MISS, ...all.map(({ on, off }) => lengthCost(off - on, told)));
}

function obeys({ plan }: World, { station }: SeenRun): boolean {
  return plan.stations.find(({ number }) => number === station)?.obeysRainSensor ?? true;
}
