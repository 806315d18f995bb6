/** How many random cases run: a third in `bin/test`, all in `npm run test:long` (CASES=1), ten times as many in `npm run fuzz`. */
const SHARE = Number(process.env['CASES'] ?? 0.3);

/** A share of `all` cases, at least one. */
export const cases = (all: number): number => Math.ceil(all * SHARE);

/** The same for cases of seconds each, such as models that step through every second: half as many in `bin/test`. */
const FEW_SHARE = SHARE >= 1 ? SHARE : SHARE / 2;
export const fewCases = (all: number): number => Math.ceil(all * FEW_SHARE);

/** The first of a list of cases. */
export const someOf = <T>(all: readonly T[]): T[] => all.slice(0, cases(all.length));

/** Whether all cases run. */
export const isLong = SHARE >= 1;

/**
 * Minimum number of cases that must have shown something, so that a comparison cannot be empty: a share of all, and at least half that of a
 * few, which vary more.
 */
const enoughAt = (share: number) => (ofAll: number) =>
  isLong ? Math.floor(ofAll * share) : Math.floor((ofAll * share) / 2);
export const enough = enoughAt(SHARE);
export const enoughOfFew = enoughAt(FEW_SHARE);
