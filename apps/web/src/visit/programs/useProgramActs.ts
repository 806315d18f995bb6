import { useMemo } from 'react';
import type { Days, PlanChange, Program } from '@water-clock/core';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';

export interface ProgramActs {
  /** Shows other starts without making them; null ends that. */
  readonly draftStarts: (starts: readonly string[] | null) => void;
  readonly commitStarts: (starts: readonly string[]) => void;
  /** The refusal in words, or null where it is made. */
  readonly commitDays: (days: Days | null) => string | null;
  readonly remove: () => void;
}

/** What can be done with a program's starts and days. */
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
        // Hours take the place of starts, so those go in the same step, and come back with its undo.
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
