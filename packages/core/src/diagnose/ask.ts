/** The next question to the homeowner, to decide between the remaining explanations. */
import { assertDefined } from '../document/assertDefined.ts';
import { SECONDS_PER_DAY, type ClockSecond } from '../time/calendar.ts';
import { attempt } from '../engine/effort.ts';
import type { Explanation } from './triedWorlds.ts';
import { misfitOf, MISS, Timeline, type Seen } from './timeline.ts';

/** Did this station run between noon and noon? */
export interface Ask {
  readonly station: number;
  readonly from: ClockSecond;
  readonly to: ClockSecond;
}

/** Nights that people still remember. */
const NIGHTS_REMEMBERED = 7;

/** Relative likelihood of the explanations, from their costs. */
function sharesOf(explanations: readonly Explanation[]): number[] {
  const least = Math.min(...explanations.map(({ cost }) => cost));
  const weights = explanations.map(({ cost }) => Math.exp(least - cost));
  const all = weights.reduce((a, b) => a + b, 0);
  return weights.map((weight) => weight / all);
}

/**
 * The station and night on which the explanations disagree most, weighted by likelihood; null if they agree on everything.
 *
 * @param today only nights before it are considered
 */
export function askNext(
  explanations: readonly Explanation[],
  stations: readonly number[],
  today: ClockSecond,
): Ask | null {
  const noon = Math.floor(today / SECONDS_PER_DAY) * SECONDS_PER_DAY - SECONDS_PER_DAY / 2;
  const first = noon - (NIGHTS_REMEMBERED - 1) * SECONDS_PER_DAY;
  const shares = sharesOf(explanations);
  const told = explanations.flatMap(({ world }, i) => {
    const made = attempt(
      () => new Timeline(world, first + world.ahead, noon + SECONDS_PER_DAY + world.ahead),
    );
    return made.ok
      ? [{ world, timeline: made.value, share: assertDefined(shares[i], 'shares[i]') }]
      : [];
  });
  let best: Ask | null = null;
  let most = 0.02;
  for (const station of stations)
    for (let from = first; from <= noon; from += SECONDS_PER_DAY) {
      const to = from + SECONDS_PER_DAY;
      const seen: Seen = {
        ...{ saw: 'dry', from, to, station, seconds: null, times: null, giveOrTake: 0 },
        ...{ ranBefore: false, ranAfter: false },
      };
      let ran = 0;
      for (const { world, timeline, share } of told)
        if (misfitOf(seen, timeline, world) === MISS) ran += share;
      // The closer to one half, the more an answer tells.
      const tells = Math.min(ran, 1 - ran);
      if (tells > most + 1e-9) [best, most] = [{ station, from, to }, tells];
    }
  return best;
}
