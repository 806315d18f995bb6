/** A check constraint: a column holds one of a closed list of words (or null, where the column allows it). */
export const oneOfWords = (column: string, words: readonly string[]): string =>
  `${column} in (${words.map((word) => `'${word}'`).join(', ')})`;
