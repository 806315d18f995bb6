/** Which start caused a sighting, in the world of an explanation: the evidence on its strip. */
import { assertDefined } from '../document/assertDefined.ts';
import { SECONDS_PER_DAY, type ClockSecond } from '../time/calendar.ts';
import { attempt } from '../engine/effort.ts';
import { simulate } from '../engine/simulate.ts';
import { momentOf } from '../simulatedTimer/events.ts';
import { pressedFrom } from '../simulatedTimer/simulateEvents.ts';
import type { Sighting } from '../visit/visit.ts';
import { pressesOf, type World } from './causes.ts';
import type { Explanation } from './triedWorlds.ts';
import { seenOf } from './timeline.ts';

export interface Behind {
  /** Index of the sighting. */
  readonly sighting: number;
  readonly program: string;
  readonly start: string;
  /** Seconds that the cycle waited; 0: it began on time. */
  readonly waited: number;
  /** Set if its cycle overlapped another program's, or waited for it. */
  readonly after: string | null;
}

/** People who give a time mean a quarter of an hour either way. */
const ABOUT = 900;

/** A cycle of some world, by the timer's original clock. */
interface Ran {
  readonly program: string | null;
  /** Null: a manual run. */
  readonly start: string | null;
  readonly due: ClockSecond;
  readonly began: ClockSecond | null;
  readonly ended: ClockSecond | null;
}

interface About {
  readonly cycles: readonly Ran[];
  readonly runs: readonly {
    readonly station: number;
    readonly letter: string | null;
    readonly on: ClockSecond;
    readonly off: ClockSecond;
  }[];
}

/**
 * What a world does around a moment.
 *
 * @throws TooMuchWork
 */
function about(world: World, shown: ClockSecond): About {
  const first = Math.floor(shown / SECONDS_PER_DAY) - 2;
  const presses = pressesOf(world);
  if (presses.length === 0) {
    const { cycles, runs } = simulate(world.plan, first, 4);
    return {
      runs,
      cycles: cycles.map(({ due, began, ended }) => ({
        ...{ program: due.letter, start: due.start, due: due.due, began, ended },
      })),
    };
  }
  const { ahead } = world;
  const from = Math.min(first * SECONDS_PER_DAY - ahead, ...presses.slice(0, 1).map(momentOf));
  const to = (first + 4) * SECONDS_PER_DAY - ahead;
  const { cycles, runs } = pressedFrom(world, { from, to, presses });
  const onClock = (at: ClockSecond | null) => at && at + ahead;
  return {
    runs: runs.map((run) => ({ ...run, on: run.on + ahead, off: run.off + ahead })),
    cycles: cycles.map(({ letter, start, due, began, ended }) => ({
      ...{ program: letter, start, due, began: onClock(began), ended: onClock(ended) },
    })),
  };
}

function behindOne(
  { world }: Explanation,
  seen: { from: ClockSecond; station: number | null },
): Omit<Behind, 'sighting'> | null {
  const shown = seen.from + world.ahead;
  const made = attempt(() => about(world, shown));
  if (!made.ok) return null;
  const { cycles, runs } = made.value;
  const [near] = runs
    .filter(
      ({ station, on, off }) =>
        (seen.station === null || station === seen.station) &&
        !world.dead.includes(station) &&
        on - ABOUT <= shown &&
        off + ABOUT > shown,
    )
    .sort((a, b) => Math.abs(a.on - shown) - Math.abs(b.on - shown));
  const cycle = cycles.find(
    ({ program, began, ended }) =>
      near?.letter === program && (began ?? Infinity) <= near.on && near.off <= (ended ?? 0),
  );
  if (!cycle || cycle.program === null || cycle.start === null || cycle.began === null) return null;
  const { program, start, began, due } = cycle;
  // If the clock was set or lost in between, waiting cannot be told.
  const waited = began - due >= 0 && began - due < SECONDS_PER_DAY ? began - due : 0;
  const before = cycles.find((one) => one.ended === began && one.program !== program);
  return { program, start, waited, after: waited > 0 ? (before?.program ?? null) : null };
}

/** For each sighting of water, the start that caused it, if any. */
export function evidenceOf(explanation: Explanation, sightings: readonly Sighting[]): Behind[] {
  return sightings.flatMap((sighting, i) => {
    const seen = seenOf(sighting);
    if (
      seen.saw === 'dry' ||
      seen.to !== null ||
      assertDefined(explanation.fits[i], 'explanation.fits[i]') > 3
    )
      return [];
    const behind = behindOne(explanation, seen);
    return behind ? [{ sighting: i, ...behind }] : [];
  });
}
