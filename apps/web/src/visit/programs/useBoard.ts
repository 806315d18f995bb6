import { useCallback, useLayoutEffect, useMemo, useRef, useState, type RefObject } from 'react';
import type { PlanChange } from '@water-clock/core';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import {
  cleared,
  copied,
  filledDown,
  movedTo,
  pasted,
  rangeOf,
  setCell,
  type BoardPlan,
  type Cell,
  type Chosen,
} from './boardCells.ts';

/** What the board's cells need. Stays the same object, so that a cell re-renders only when its own value changes. */
export interface BoardActs {
  readonly board: () => BoardPlan;
  /** Focuses a cell; `extend` selects from the anchor to it. */
  readonly choose: (cell: Cell, extend: boolean) => void;
  /** The focus moved by itself. */
  readonly focused: (cell: Cell) => void;
  /** Shows a value while it is typed; null ends that. */
  readonly draft: (cell: Cell, seconds: number | null) => void;
  /** Core's refusal as a message, or null if the change was made. */
  readonly set: (cell: Cell, seconds: number) => string | null;
  readonly tell: (fault: string | null) => void;
  readonly copy: () => string;
  readonly paste: (text: string) => void;
  readonly clear: () => void;
  readonly fillDown: () => void;
  readonly move: (cell: Cell, column: number) => void;
}

const FIRST: Chosen = { anchor: { row: 0, column: 0 }, active: { row: 0, column: 0 } };

const cellKey = ({ row, column }: Cell) => `${row}:${column}`;
/** Attribute that identifies a cell's field. */
export const dataCell = cellKey;

/** Selection of the board, actions on it, and the last fault. */
export function useBoard(
  board: BoardPlan,
  editor: TimerEditor,
  root: RefObject<HTMLElement | null>,
): { readonly chosen: Chosen; readonly fault: string | null; readonly acts: BoardActs } {
  const [chosen, setChosen] = useState(FIRST);
  const [fault, setFault] = useState<string | null>(null);
  const latest = useRef({ board, chosen });
  useLayoutEffect(() => {
    latest.current = { board, chosen };
  });
  const wantsFocus = useRef(false);

  const make = useCallback(
    (change: PlanChange | null) => setFault(change && commitWords(editor, change)),
    [editor],
  );
  const acts = useMemo((): BoardActs => {
    const now = () => latest.current;
    const range = () => rangeOf(now().chosen);
    return {
      board: () => now().board,
      choose: (cell, extend) => {
        wantsFocus.current = true;
        setChosen((last) => ({ anchor: extend ? last.anchor : cell, active: cell }));
      },
      focused: (cell) => {
        if (cellKey(cell) !== cellKey(now().chosen.active))
          setChosen({ anchor: cell, active: cell });
      },
      draft: (cell, seconds) =>
        editor.setDraft(seconds === null ? null : setCell(cell, seconds, now().board)),
      set: (cell, seconds) => {
        const change = setCell(cell, seconds, now().board);
        return change && commitWords(editor, change);
      },
      tell: setFault,
      copy: () => copied(range(), now().board),
      paste: (text) => {
        const answer = pasted(text, range(), now().board);
        if (!answer.ok) return setFault(answer.fault);
        make(answer.change);
        const { top, bottom, left, right } = answer.range;
        wantsFocus.current = true;
        setChosen({
          anchor: { row: bottom, column: right },
          active: { row: top, column: left },
        });
      },
      clear: () => make(cleared(range(), now().board)),
      fillDown: () => make(filledDown(range(), now().board)),
      move: (cell, column) => {
        const change = movedTo(cell, column, now().board);
        if (!change) return;
        make(change);
        const to = { row: cell.row, column };
        wantsFocus.current = true;
        setChosen({ anchor: to, active: to });
      },
    };
  }, [editor, make]);

  useLayoutEffect(() => {
    if (!wantsFocus.current) return;
    wantsFocus.current = false;
    const field = root.current?.querySelector<HTMLInputElement>(
      `[data-cell="${cellKey(chosen.active)}"]`,
    );
    field?.focus({ preventScroll: true });
    field?.select();
    field?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [chosen, root]);

  return { chosen, fault, acts };
}
