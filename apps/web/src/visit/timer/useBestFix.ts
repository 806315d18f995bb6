import { type Brief, type EpochDay, type Finding, say } from '@water-clock/core';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import type { TimerAnswer } from '../../data/workers/timerQuestion.ts';

export interface BestFix {
  readonly words: string;
  /** Why it could not be made; null: it was. */
  readonly make: () => Promise<string | null>;
}

/** The fix next to the verdict: moves the start of the first overlap. The new time is found on request. */
export function useBestFix(
  answer: TimerAnswer | null,
  brief: Brief,
  today: EpochDay,
  editor: TimerEditor,
): BestFix | null {
  const [overlap] = answer?.check.overlaps ?? [];
  if (!answer || !overlap) return null;
  const { letter, start, day } = overlap.second;
  const finding: Finding = {
    code: 'overlap',
    severity: 'error',
    overlap,
    onOverlap: answer.plan.timer.onOverlap,
    where: { program: letter, start, date: day },
  };
  return {
    words: say`Move ${letter} to a free time`,
    make: async () => {
      const { fixOf } = await import('./fixOf.ts');
      const fix = fixOf(answer.plan, finding, today, brief);
      return fix ? commitWords(editor, fix.change) : say`No free time was found for ${letter}.`;
    },
  };
}
