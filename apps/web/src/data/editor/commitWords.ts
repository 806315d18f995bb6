import { faultSentence, type RecordChange, say } from '@water-clock/core';
import type { TimerEditor } from './editor.ts';

/** Makes a change; the refusal in words where core does not accept it, else null. */
export function commitWords(
  editor: Pick<TimerEditor, 'commit'>,
  change: RecordChange,
): string | null {
  const [fault] = editor.commit(change);
  return fault ? say`Not possible: ${faultSentence(fault)}.` : null;
}
