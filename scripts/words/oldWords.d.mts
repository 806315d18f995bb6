interface OldWord {
  readonly old: string;
  readonly now: string;
}
export function oldWordsIn(messages: Iterable<string>, words?: readonly OldWord[]): string[];
