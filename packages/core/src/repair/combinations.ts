/** All combinations of a number of items, each in list order. */
export function* combinations<T>(list: readonly T[], count: number): Generator<T[]> {
  if (count === 0) {
    yield [];
    return;
  }
  for (const [i, one] of list.entries())
    for (const rest of combinations(list.slice(i + 1), count - 1)) yield [one, ...rest];
}
