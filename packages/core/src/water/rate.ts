/** How fast and how evenly a station applies water (water-need.md sections 5, 6 and 8). */

/** Precipitation rate, mm an hour, from a station's flow and its area; both above 0. */
export const rateFromFlow = (litresPerMinute: number, squareMetres: number): number =>
  (60 * litresPerMinute) / squareMetres;

/** Precipitation rate of drip line, mm an hour, from an emitter's litres an hour and the two spacings in metres; all above 0. */
export const rateOfDripLine = (
  emitterLitresPerHour: number,
  emitterSpacingMetres: number,
  rowSpacingMetres: number,
): number => emitterLitresPerHour / (emitterSpacingMetres * rowSpacingMetres);

/** Catch-cup measurements. */
export interface CupTest {
  /** Opening of a cup, cm², above 0. */
  readonly mouthSquareCentimetres: number;
  /** Run time of the station, above 0. */
  readonly minutes: number;
  /** Millilitres in each cup, 0 or more; at least one cup, and not all empty. */
  readonly millilitres: readonly number[];
}

export interface CupResult {
  /** mm an hour. */
  readonly rate: number;
  /** Distribution uniformity of the low quarter, 0 to 1. */
  readonly uniformity: number;
  /** Indexes in `millilitres` of the cups in the low quarter, driest first. */
  readonly lowQuarter: readonly number[];
}

const mean = (values: readonly number[]) =>
  values.reduce((sum, one) => sum + one, 0) / values.length;

/** Rate and uniformity from a catch-cup test (section 5); null without cups, or if all are empty. */
export function cupResult({
  mouthSquareCentimetres,
  minutes,
  millilitres,
}: CupTest): CupResult | null {
  const all = mean(millilitres);
  if (millilitres.length === 0 || all === 0) return null;
  const driest = millilitres
    .map((caught, cup) => ({ caught, cup }))
    .sort((a, b) => a.caught - b.caught)
    .slice(0, Math.max(1, Math.floor(millilitres.length / 4)));
  return {
    rate: ((10 * all) / mouthSquareCentimetres) * (60 / minutes),
    uniformity: mean(driest.map(({ caught }) => caught)) / all,
    lowQuarter: driest.map(({ cup }) => cup),
  };
}

/** Factor by which a station runs longer so that its drier places get enough, from its uniformity, 0 to 1 (section 6). */
export const schedulingMultiplier = (uniformity: number): number => 1 / (0.4 + 0.6 * uniformity);

/** Flow, litres a minute, from two readings of a meter in litres and the minutes between them; minutes above 0. */
export const flowFromMeter = (before: number, after: number, minutes: number): number =>
  (after - before) / minutes;

/** Flow, litres a minute, from a bucket of some litres and the seconds it takes to fill; seconds above 0. */
export const flowFromBucket = (litres: number, seconds: number): number => (60 * litres) / seconds;

/**
 * Longest run without a break, in seconds, if the time to run-off was not measured (section 8).
 *
 * @param rate precipitation rate, mm an hour
 * @param intake of the soil, mm an hour
 * @param allowance allowable surface accumulation of soil and slope, mm
 * @returns Infinity if the soil takes everything
 */
export const longestRunSeconds = (rate: number, intake: number, allowance: number): number =>
  rate <= intake ? Infinity : (3600 * allowance) / (rate - intake);

/** How to combine the attempts of a run-off test. */
export type TriesTaken = 'mean' | 'least';

/**
 * The longest cycle from the attempts of a run-off test, in whole seconds, at least 1.
 *
 * @param seconds of each attempt to the first puddle or run-off; at least one
 * @param safetyShare safety margin, 0 to below 1
 */
export function pieceFromTries(
  seconds: readonly number[],
  taken: TriesTaken,
  safetyShare: number,
): number {
  const time = taken === 'least' ? Math.min(...seconds) : mean(seconds);
  return Math.max(1, Math.floor(time * (1 - safetyShare)));
}

/**
 * The longest cycle a timer can be set to within the measured one: rounded down to its step, but never to zero.
 *
 * @param stepSeconds step of run times
 */
export const pieceOnTimer = (seconds: number, stepSeconds: number): number =>
  seconds < stepSeconds ? seconds : Math.floor(seconds / stepSeconds) * stepSeconds;

/**
 * A run time in cycles, full ones first: `7 + 5` for 12 minutes at 7 a cycle.
 *
 * @returns seconds of each
 */
export function piecesOf(seconds: number, pieceSeconds: number): number[] {
  const full = Math.floor(seconds / pieceSeconds);
  const rest = seconds - full * pieceSeconds;
  return [...Array.from({ length: full }, () => pieceSeconds), ...(rest > 0 ? [rest] : [])];
}
