/** Makes text one line, so that a line break in a name cannot start a new line in a file. */
export const oneLine = (text: string): string =>
  text.replaceAll(/[\p{Cc}\u2028\u2029\u202a-\u202e\u2066-\u2069]+/gu, ' ').trim();
