/** Nights tried for given kinds of program. */
import type { Brief } from '../brief/brief.ts';
import { bitsOf, EVERY_MONTH_DAY } from '../time/dayRules.ts';
import type { DayPattern, Patterns } from './patterns.ts';
import type { SlotKind } from './slots.ts';

/** Number of choices of nights tried for one choice of kinds. */
export const MOST_NIGHTS = 6;
const MOST_NIGHTS_OF_ONE = 40;

/** One pattern for each kind, in order. */
type Nights = readonly DayPattern[];

export interface NightChoices {
  readonly choices: readonly Nights[];
  /** Whether nothing was left out. */
  readonly complete: boolean;
}

/** Choices of nights for the kinds, most popular first, including choices that share few nights. */
export function nightChoices(
  kinds: readonly SlotKind[],
  brief: Brief,
  patterns: Patterns,
): NightChoices {
  const [only] = kinds;
  if (kinds.length === 1 && only) {
    const all = nightsDiffer(brief) ? only.variants : only.variants.slice(0, 1);
    const choices = all.slice(0, MOST_NIGHTS_OF_ONE).map((pattern) => [pattern]);
    return { choices, complete: all.length <= MOST_NIGHTS_OF_ONE };
  }
  const made: Nights[] = [kinds.flatMap(({ variants }) => variants.slice(0, 1))];
  for (let nth = 0; nth < MOST_NIGHTS - 1; nth++) {
    const nights = apartFrom(kinds, nth, patterns);
    if (nights.length === kinds.length) made.push(nights);
  }
  const byKey = new Map(made.map((nights) => [nights.map(({ key }) => key).join(), nights]));
  return { choices: [...byKey.values()], complete: false };
}

/** The nth variant of the first kind, and for each other kind the variant that shares the fewest nights with the ones before. */
function apartFrom(kinds: readonly SlotKind[], nth: number, patterns: Patterns): DayPattern[] {
  const chosen: DayPattern[] = [];
  for (const { variants } of kinds) {
    const sharedWithChosen = (pattern: DayPattern) =>
      chosen.reduce((sum, other) => sum + sharedNights(pattern, other, patterns), 0);
    let best: DayPattern | null = null;
    let least = Infinity;
    for (const pattern of chosen.length === 0 ? variants.slice(nth, nth + 1) : variants) {
      const shared = sharedWithChosen(pattern);
      if (shared >= least) continue;
      least = shared;
      best = pattern;
    }
    if (best) chosen.push(best);
  }
  return chosen;
}

/** Whether a program alone depends on which nights it waters. */
function nightsDiffer({ rules, mowing }: Brief): boolean {
  return (
    mowing !== undefined ||
    rules?.weekdays !== undefined ||
    rules?.parity !== undefined ||
    rules?.mostDaysPerWeek !== undefined ||
    (rules?.noWaterWindows ?? []).some(({ weekdays }) => weekdays !== undefined)
  );
}

/** Nights of a week for weekday rules; for others 1 if they ever share a night, otherwise 0. */
function sharedNights({ set: a }: DayPattern, { set: b }: DayPattern, patterns: Patterns): number {
  const areWeekly =
    a.every === 1 &&
    b.every === 1 &&
    a.monthDays === b.monthDays &&
    a.monthDays === EVERY_MONTH_DAY;
  if (areWeekly) return bitsOf(a.weekdays & b.weekdays);
  return patterns.meet(a, b, 0) ? 1 : 0;
}
