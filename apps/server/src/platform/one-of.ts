/** The condition of a check constraint: a column holds one of a closed list of words, or nothing where that is allowed (SQL's null passes). */
export const oneOfWords = (column: string, words: readonly string[]): string =>
  `${column} in (${words.map((word) => `'${word}'`).join(', ')})`;
