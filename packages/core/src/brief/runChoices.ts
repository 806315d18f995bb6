/** The run of a station closest to its need, and the next longer and shorter ones. */
import type { Timer } from '../plan/plan.ts';
import { adjustedSeconds } from '../plan/program.ts';
import { NEED_TOLERANCE } from './wanted.ts';

/** Shares are floating-point; smaller differences do not count. */
const SMALL = 1e-9;
/** A run of a station as entered, and its effect. */
export interface RunChoice {
  /** As entered. */
  readonly seconds: number;
  /** What the station gets in an average week at 100 percent. */
  readonly given: number;
  /** |given − wanted| ÷ wanted. */
  readonly off: number;
  /** Within the tolerance. */
  readonly fits: boolean;
}

/** Effect of a run as entered, repeated a number of times in an average week. */
export function runChoice(
  timer: Timer,
  wanted: number,
  seconds: number,
  runsAWeek: number,
): RunChoice {
  const given = adjustedSeconds(seconds, 100, timer.seasonal) * runsAWeek;
  const off = Math.abs(given - wanted) / wanted;
  return { seconds, given, off, fits: off <= NEED_TOLERANCE + SMALL };
}

/**
 * The run closest to a need, the shorter of two equally close ones; null if the timer cannot be set to any.
 *
 * @param longest upper limit for a run, seconds at 100 percent
 */
export function nearestRun(
  timer: Timer,
  wanted: number,
  runsAWeek: number,
  longest: number,
): RunChoice | null {
  const { runStepSeconds: step, seasonal } = timer;
  const mostSteps = Math.floor(timer.longestRunSeconds / step);
  const ideal = wanted / runsAWeek;
  // The timer rounds entries to `roundToSeconds`, so the closest may be that far away on either side.
  const reach = Math.ceil(seasonal.roundToSeconds / step) + 1;
  const middle = Math.round(ideal / step);
  let best: RunChoice | null = null;
  for (
    let steps = Math.max(1, Math.min(middle, mostSteps) - reach);
    steps <= middle + reach;
    steps++
  ) {
    if (steps > mostSteps) break;
    const choice = runChoice(timer, wanted, steps * step, runsAWeek);
    if (choice.given > longest * runsAWeek + SMALL) break;
    if (!best || choice.off < best.off - SMALL || isPlainer(choice, best, runsAWeek)) best = choice;
  }
  if (best) return best;
  // Every run near the need is longer than allowed without a break, so take the longest allowed.
  for (let steps = Math.min(mostSteps, Math.floor(longest / step) + reach); steps >= 1; steps--) {
    const choice = runChoice(timer, wanted, steps * step, runsAWeek);
    if (choice.given <= longest * runsAWeek + SMALL) return choice;
  }
  return null;
}

/** Of two entries with the same effect, whether this one shows it. */
const isPlainer = (a: RunChoice, b: RunChoice, runsAWeek: number) =>
  Math.abs(a.given - b.given) <= SMALL &&
  Math.abs(a.seconds - a.given / runsAWeek) < Math.abs(b.seconds - b.given / runsAWeek) - SMALL;
/** The next longer run that gives more, or null. */
export function longerRun(
  timer: Timer,
  wanted: number,
  runsAWeek: number,
  { seconds, given }: RunChoice,
): RunChoice | null {
  for (
    let more = seconds + timer.runStepSeconds;
    more <= timer.longestRunSeconds;
    more += timer.runStepSeconds
  ) {
    const choice = runChoice(timer, wanted, more, runsAWeek);
    if (choice.given > given + SMALL) return choice;
  }
  return null;
}

/** The shortest run within the tolerance; null if there is none. */
export function leastRun(timer: Timer, wanted: number, runsAWeek: number): RunChoice | null {
  const { runStepSeconds: step, longestRunSeconds, seasonal } = timer;
  const ideal = ((1 - NEED_TOLERANCE) * wanted) / runsAWeek;
  const reach = Math.ceil(seasonal.roundToSeconds / step) + 1;
  const from = Math.max(1, Math.floor(ideal / step) - reach);
  for (
    let steps = from;
    steps <= from + 2 * reach + 2 && steps * step <= longestRunSeconds;
    steps++
  ) {
    const choice = runChoice(timer, wanted, steps * step, runsAWeek);
    if (choice.fits) return choice;
  }
  return null;
}

/** The next shorter run that gives less, or null. */
export function shorterRun(
  timer: Timer,
  wanted: number,
  runsAWeek: number,
  { seconds, given }: RunChoice,
): RunChoice | null {
  for (let less = seconds - timer.runStepSeconds; less > 0; less -= timer.runStepSeconds) {
    const choice = runChoice(timer, wanted, less, runsAWeek);
    if (choice.given < given - SMALL) return choice;
  }
  return null;
}
