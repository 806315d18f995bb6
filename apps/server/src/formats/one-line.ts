/** Text for a line of a file: a break in a name would begin a line of its own there. */
export const oneLine = (text: string): string =>
  text.replaceAll(/[\p{Cc}\u2028\u2029\u202a-\u202e\u2066-\u2069]+/gu, ' ').trim();
