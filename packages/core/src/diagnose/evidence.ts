/** Which start was behind what was seen, in the world of an explanation: the evidence that stands on its strip. */
import { sure } from '../document/sure.ts';
import { SECONDS_PER_DAY, type ClockSecond } from '../time/calendar.ts';
import { attempt } from '../engine/effort.ts';
import { simulate } from '../engine/simulate.ts';
import type { Sighting } from '../visit/visit.ts';
import type { Explanation } from './triedWorlds.ts';
import { seenOf } from './timeline.ts';

export interface Behind {
  /** Index of the sighting. */
  readonly sighting: number;
  readonly program: string;
  readonly start: string;
  /** Seconds that the cycle waited for its turn; 0: it began when it was due. */
  readonly waited: number;
  /** Set where its cycle ran together with, or was held up by, another program's. */
  readonly after: string | null;
}

/** People who name a time mean a quarter of an hour either way. */
const ABOUT = 900;

function behindOne(
  { world }: Explanation,
  seen: { from: ClockSecond; station: number | null },
): Omit<Behind, 'sighting'> | null {
  const shown = seen.from + world.ahead;
  const first = Math.floor(shown / SECONDS_PER_DAY) - 2;
  const simulated = attempt(() => simulate(world.plan, first, 4));
  if (!simulated.ok) return null;
  const { cycles, runs } = simulated.value;
  const near = runs
    .filter(
      ({ station, on, off }) =>
        (seen.station === null || station === seen.station) &&
        !world.dead.includes(station) &&
        on - ABOUT <= shown &&
        off + ABOUT > shown,
    )
    .sort((a, b) => Math.abs(a.on - shown) - Math.abs(b.on - shown));
  const cycle = near[0] && cycles[near[0].cycle];
  if (!cycle || cycle.began === null) return null;
  const { due } = cycle;
  const waited = cycle.began - due.due;
  const before = cycles.find(
    (one) => one !== cycle && one.ended === cycle.began && one.due.letter !== due.letter,
  );
  return {
    program: due.letter,
    start: due.start,
    waited,
    after: waited > 0 && before ? before.due.letter : null,
  };
}

/** For each sighting of water, the start that caused it, if there is one. */
export function evidenceOf(explanation: Explanation, sightings: readonly Sighting[]): Behind[] {
  return sightings.flatMap((sighting, i) => {
    const seen = seenOf(sighting);
    if (seen.saw === 'dry' || seen.to !== null || sure(explanation.fits[i]) > 3) return [];
    const behind = behindOne(explanation, seen);
    return behind ? [{ sighting: i, ...behind }] : [];
  });
}
