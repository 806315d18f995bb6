import { useMemo } from 'react';
import type { Days, PlanChange, Program } from '@water-clock/core';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';

export interface ProgramActs {
  /** Shows changed starts without making them; null ends that. */
  readonly draftStarts: (starts: readonly string[] | null) => void;
  readonly commitStarts: (starts: readonly string[]) => void;
  /** Core's refusal as a message, or null if the change was made. */
  readonly commitDays: (days: Days | null) => string | null;
  readonly remove: () => void;
}

/** Actions on a program's starts and days. */
export function useProgramActs(
  { letter, starts: { length: startCount } }: Program,
  editor: TimerEditor,
): ProgramActs {
  const hasStarts = startCount > 0;
  return useMemo(() => {
    const startsChange = (starts: readonly string[]): PlanChange => ({
      type: 'set-starts',
      program: letter,
      starts,
    });
    return {
      draftStarts: (starts) => editor.setDraft(starts && startsChange(starts)),
      commitStarts: (starts) => void editor.commit(startsChange(starts)),
      commitDays: (days) => {
        const change = { type: 'set-days', program: letter, days } as const;
        // An hourly rule replaces the starts, so they are removed in the same step, and undo restores them.
        return commitWords(
          editor,
          days?.rule === 'hours' && hasStarts
            ? { type: 'several', changes: [startsChange([]), change] }
            : change,
        );
      },
      remove: () => void editor.commit({ type: 'remove-program', program: letter }),
    };
  }, [editor, letter, hasStarts]);
}
