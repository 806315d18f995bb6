/**
 * How much of a test with random cases runs: a third by `bin/test`, all of it by `npm run test:long` (CASES=1), ten times as much by
 * `npm run fuzz`.
 */
const SHARE = Number(process.env['CASES'] ?? 0.3);

/** So many of `all` cases, at least one. */
export const cases = (all: number): number => Math.ceil(all * SHARE);

/** The same of cases that take seconds each, such as those of models that live through every second: half as many by `bin/test`. */
const FEW_SHARE = SHARE >= 1 ? SHARE : SHARE / 2;
export const fewCases = (all: number): number => Math.ceil(all * FEW_SHARE);

/** The first of a list of cases. */
export const someOf = <T>(all: readonly T[]): T[] => all.slice(0, cases(all.length));

/** Whether everything runs that there is. */
export const isLong = SHARE >= 1;

/**
 * How many of the cases must have shown something, so that a comparison cannot go empty: so many of all, and at least half as many of few, which
 * chance treats more roughly.
 */
const enoughAt = (share: number) => (ofAll: number) =>
  isLong ? Math.floor(ofAll * share) : Math.floor((ofAll * share) / 2);
export const enough = enoughAt(SHARE);
export const enoughOfFew = enoughAt(FEW_SHARE);
