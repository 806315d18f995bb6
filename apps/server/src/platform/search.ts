/** A word that SQL's `like` takes letter by letter. */
export const literally = (word: string): string => word.replaceAll(/[\\%_]/g, '\\$&');
