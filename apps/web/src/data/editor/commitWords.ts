import { faultSentence, plural, type Fault, type RecordChange, say } from '@water-clock/core';

/** Makes a change; returns core's refusal as a message, or null. */
export function commitWords(
  editor: { readonly commit: (change: RecordChange) => readonly Fault[] },
  change: RecordChange,
): string | null {
  const [fault] = editor.commit(change);
  return fault ? say`Not possible: ${faultSentence(fault)}.` : null;
}

/**
 * Why a change was not saved.
 *
 * @param left number of changes built on the refused one
 */
export function refusalWords(why: string, left: number): string {
  const refused = say`Not saved: ${why.replace(/\.$/u, '')}.`;
  return left === 0
    ? refused
    : `${refused} ${plural(left, '1 later change that depends on it was not saved either.', '# later changes that depend on it were not saved either.')}`;
}
