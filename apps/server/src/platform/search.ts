/** A word for SQL's `like`, escaped. */
export const literally = (word: string): string => word.replaceAll(/[\\%_]/g, '\\$&');
