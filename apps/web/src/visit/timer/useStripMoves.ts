import { useMemo, useState } from 'react';
import type { TimerEditor } from '../../data/editor/editor.ts';
import type { Answered } from '../../data/workers/useTimerAnswer.ts';
import type { MoveOutcome } from '../../shared/charts/useMoves.ts';

interface Block {
  readonly letter: string;
  readonly start: string;
}

/**
 * Moving a block of the strip, and choosing one to list to the second.
 *
 * @param ahead seconds by which the what-if clock is ahead
 */
export function useStripMoves(
  editor: TimerEditor,
  askBlocked: Answered['askBlocked'],
  ahead: number,
): { readonly moves: MoveOutcome; readonly opened: Block | null; readonly close: () => void } {
  const [opened, setOpened] = useState<Block | null>(null);
  const moves = useMemo(
    (): MoveOutcome => ({
      // With a wrong clock the strip's hours are not the timer's, so nothing is marked.
      onTaken: (letter, start) =>
        ahead === 0 && askBlocked({ plan: editor.snapshot().settled, letter, start }),
      onMoving: (letter, start, to) => editor.moveStart(letter, start, to, 'draft'),
      onMoved: (letter, start, to) => {
        askBlocked(null);
        editor.moveStart(letter, start, to, 'commit');
      },
      onCancelled: () => {
        askBlocked(null);
        editor.setDraft(null);
      },
      onChosen: (letter, start) =>
        setOpened((last) =>
          last?.letter === letter && last.start === start ? null : { letter, start },
        ),
    }),
    [askBlocked, editor, ahead],
  );
  return { moves, opened, close: () => setOpened(null) };
}
