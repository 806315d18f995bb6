import { faultSentence, type PlanChange } from '@water-clock/core';
import type { TimerEditor } from './editor.ts';

/** Makes a change; the refusal in words where core does not accept it, else null. */
export function commitWords(editor: TimerEditor, change: PlanChange): string | null {
  const [fault] = editor.commit(change);
  return fault ? `Not possible: ${faultSentence(fault)}.` : null;
}
