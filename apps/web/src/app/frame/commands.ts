/** What can be opened or done by typing a few letters. No interface code. */
export interface Command {
  readonly key: string;
  /** Kind: a site, a step, an action. */
  readonly kind: string;
  readonly name: string;
  readonly run: () => void;
}

/** Score of letters found in order in a text; smaller is closer together and nearer the beginning. Null: no match. */
function closeness(letters: string, text: string): number | null {
  let at = -1;
  let gaps = 0;
  for (const letter of letters) {
    const next = text.indexOf(letter, at + 1);
    if (next < 0) return null;
    gaps += at < 0 ? next : (next - at - 1) * 2;
    at = next;
  }
  return gaps;
}

const plain = (text: string) => text.toLowerCase().replaceAll(/[^\p{L}\p{N}]+/gu, '');

/** Matching commands, best first; all of them for an empty search. */
export function commandsFor(typed: string, commands: readonly Command[]): Command[] {
  const letters = plain(typed);
  return commands
    .flatMap((command) => {
      const near = closeness(letters, plain(command.name));
      return near === null ? [] : [{ command, near }];
    })
    .sort((a, b) => a.near - b.near)
    .map(({ command }) => command);
}
