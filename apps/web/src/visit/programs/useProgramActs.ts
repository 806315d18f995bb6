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

/** Starts that an hourly rule replaced, by program, so that going back to another rule restores them. */
const replaced = new WeakMap<TimerEditor, Map<string, readonly string[]>>();

/** Actions on a program's starts and days. */
export function useProgramActs({ letter, starts }: Program, editor: TimerEditor): ProgramActs {
  // By content: the program changes with every run time.
  const set = starts.join(' ');
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
        const now = set === '' ? [] : set.split(' ');
        const own = replaced.get(editor) ?? new Map<string, readonly string[]>();
        replaced.set(editor, own);
        const before = own.get(letter);
        if (days?.rule === 'hours') {
          if (now.length === 0) return commitWords(editor, change);
          own.set(letter, now);
          // An hourly rule replaces the starts, so they are removed in the same step, and undo restores them.
          return commitWords(editor, { type: 'several', changes: [startsChange([]), change] });
        }
        if (now.length > 0 || !before) return commitWords(editor, change);
        own.delete(letter);
        return commitWords(editor, { type: 'several', changes: [change, startsChange(before)] });
      },
      remove: () => void editor.commit({ type: 'remove-program', program: letter }),
    };
  }, [editor, letter, set]);
}
