/** What can be gone to or done by a few letters. No interface code. */
export interface Command {
  readonly key: string;
  /** What it is: a site, a step, an act. */
  readonly kind: string;
  readonly name: string;
  readonly run: () => void;
}

/** Whether the letters stand in a text in their order; the smaller the number, the closer together and the nearer to its beginning. */
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

/** The commands that a few letters can mean, the closest first; all of them for none. */
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
