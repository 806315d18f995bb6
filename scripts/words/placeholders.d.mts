export function namesIn(text: string): string[];
export function named(text: string, names: readonly string[]): string;
export function numbered(text: string, names: readonly string[]): string;
export function renumbered(
  text: string,
  texts: readonly (string | undefined)[],
): (string | undefined)[];
