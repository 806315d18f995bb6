import { faultSentence, type RecordChange } from '@water-clock/core';
import type { TimerEditor } from './editor.ts';

/** Makes a change; the refusal in words where core does not accept it, else null. */
export function commitWords(
  editor: Pick<TimerEditor, 'commit'>,
  change: RecordChange,
): string | null {
  const [fault] = editor.commit(change);
  return fault ? `Not possible: ${faultSentence(fault)}.` : null;
}
