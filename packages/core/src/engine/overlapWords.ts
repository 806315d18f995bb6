/** Messages about overlaps: which cycles, what this timer does, how often. */
import type { OnOverlap } from '../plan/plan.ts';
import { type Speech, lengthWords, dateWords, startWords, timeOfMoment } from '../words/words.ts';
import type { Overlap } from './overlap.ts';
import { say } from '../language/say.ts';

/** What happens on the first date, naming both starts. */
export function overlapSentence(overlap: Overlap, { on, clock, order }: Speech): string {
  const { first, second, sharedSeconds } = overlap;
  const shared = say`${lengthWords(sharedSeconds)} of overlap`;
  const date = dateWords(second.day, on, order);
  const at = startWords(second.start, clock);
  if (first.begins === second.begins)
    return first.letter === second.letter
      ? say`${date}: ${first.letter} has start time ${at} twice, ${shared}.`
      : say`${date}: ${first.letter} and ${second.letter} both start at ${at}, ${shared}.`;
  const begun =
    first.day === second.day
      ? say`started at ${startWords(first.start, clock)}`
      : say`started ${dateWords(first.day, on, order)} at ${startWords(first.start, clock)}`;
  if (first.letter === second.letter)
    return say`${date}: ${second.letter} starts again at ${at} while its own cycle, ${begun}, is still running, ${shared}.`;
  // On the same date only one can be meant.
  const other = first.day === second.day ? first.letter : `${first.letter}, ${begun},`;
  return say`${date}: ${second.letter} starts at ${at} while ${other} is still running, ${shared}.`;
}

/** What the timer does about two overlapping cycles, considered alone. */
export function consequenceSentence(
  { first, second, sharedSeconds }: Overlap,
  onOverlap: OnOverlap,
  { clock }: Speech,
): string {
  switch (onOverlap) {
    case 'queue':
      return say`${second.letter} waits until ${timeOfMoment(first.ends, clock)} and finishes ${lengthWords(first.ends - second.begins)} late.`;
    case 'drop':
      return say`This timer skips the ${startWords(second.start, clock)} start of ${second.letter}, so that watering is lost.`;
    case 'cut':
      return say`This timer cuts off ${first.letter} at ${timeOfMoment(second.begins, clock)}. Its last ${lengthWords(first.ends - second.begins)} of watering is lost.`;
    case 'together':
      return say`This timer runs both at once, so they share pressure for ${lengthWords(sharedSeconds)}.`;
    case 'share':
      return say`This timer runs both at once, but never opens more stations than its limit.`;
  }
}

/** `once a year`, `about 26 times a year`, `once in about 12 years`. */
export function oftenWords(perYear: number): string {
  if (perYear >= 1.5) return say`about ${Math.round(perYear)} times a year`;
  if (perYear >= 0.75) return say`about once a year`;
  return perYear <= 0 ? say`never again` : say`about once every ${Math.round(1 / perYear)} years`;
}

/** Which two starts overlap first one step above the headroom. */
export function meetsSentence(
  percent: number,
  { first, second }: Overlap,
  { on, clock, order }: Speech,
): string {
  const one = `${first.letter} ${startWords(first.start, clock)}`;
  const other = `${second.letter} ${startWords(second.start, clock)}`;
  const date = dateWords(second.day, on, order);
  return one === other
    ? say`At ${percent} %, ${one} would run into itself first, on ${date}.`
    : say`At ${percent} %, ${one} and ${other} would overlap first, on ${date}.`;
}
