import { memo, useState, type CSSProperties, type KeyboardEvent } from 'react';
import { HolderOutlined } from '@ant-design/icons';
import { useDraggable } from '@dnd-kit/core';
import {
  adjustedSeconds,
  lengthWords,
  parseRunEntry,
  runEntryHelp,
  runEntryText,
  stepped,
  type Seasonal,
  say,
} from '@water-clock/core';
import { useTyped } from '../../shared/fields/useTyped.ts';
import { colourOf } from '../../shared/charts/patterns.tsx';
import { cellAfter } from './boardCells.ts';
import { dataCell, type BoardActs } from './useBoard.ts';

interface Props {
  readonly row: number;
  readonly column: number;
  readonly letter: string;
  readonly station: number;
  readonly name: string;
  readonly seconds: number;
  readonly stepSeconds: number;
  readonly longestSeconds: number;
  /** Current percent; if not 100, the actual run time stands beside the entered one. */
  readonly percent: number;
  readonly seasonal: Seasonal;
  /** The program's start times: with several, the total of a day stands beside the run time. */
  readonly starts: number;
  /** Station this one takes its run times from; null: its own. */
  readonly follows: number | null;
  readonly isActive: boolean;
  readonly isChosen: boolean;
  readonly acts: BoardActs;
}

const STEPS: Readonly<Record<string, 1 | -1>> = { '+': 1, '-': -1 };

/** The actual run time where it differs from the entered one, and the total of a day with several starts. */
function beside(entered: number, percent: number, seasonal: Seasonal, starts: number): string {
  const seconds = percent === 100 ? entered : adjustedSeconds(entered, percent, seasonal);
  const runs = runEntryText(seconds);
  if (starts < 2) return say`runs ${runs}`;
  const total = lengthWords(seconds * starts);
  return percent === 100
    ? say`× ${starts} = ${total} a day`
    : say`runs ${runs} × ${starts} = ${total} a day`;
}

/** Handle for dragging a run time to another program. */
function Grip({ row, column, station, letter, isActive }: Props) {
  const { attributes, listeners, setNodeRef } = useDraggable({
    id: dataCell({ row, column }),
    data: { row, column },
    attributes: { roleDescription: say`run time, can be moved to another program` },
  });
  return (
    <span
      {...attributes}
      {...listeners}
      ref={setNodeRef}
      className="board-grip"
      tabIndex={isActive ? 0 : -1}
      aria-label={say`Move station ${station} from ${letter} to another program`}
    >
      <HolderOutlined />
    </span>
  );
}

/**
 * A station's run time in a program, with spreadsheet keys: arrows, Enter and Home move, Shift extends the selection, typing replaces,
 * Delete clears, + and - step, Alt with an arrow moves it to another program, Escape reverts.
 */
export const BoardCell = memo(function BoardCell(props: Props) {
  const { row, column, letter, station, name, seconds, stepSeconds, longestSeconds, acts } = props;
  const { percent, seasonal, starts, follows, isActive, isChosen } = props;
  /** Arrow keys move in the text instead of between cells. */
  const [inText, setInText] = useState(false);
  const cell = { row, column };
  const { text, typed, read, isFaulty, change, stepBy, finish, drop, takesBack } = useTyped<number>(
    {
      value: seconds,
      read: (entry) => parseRunEntry(entry) ?? undefined,
      write: runEntryText,
      draft: (value) => acts.draft(cell, value ?? null),
      commit: (value) => acts.set(cell, value),
      tell: acts.tell,
      fault: (entry) => say`Station ${station}: “${entry}” is not a run time. ${runEntryHelp()}`,
      step: (value, direction) => stepped(value, direction, stepSeconds, 0, longestSeconds),
    },
  );
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const { key, shiftKey, altKey } = event;
    const control = event.ctrlKey || event.metaKey;
    const done = () => event.preventDefault();
    if (altKey && (key === 'ArrowLeft' || key === 'ArrowRight')) {
      done();
      if (finish()) acts.move(cell, column + (key === 'ArrowRight' ? 1 : -1));
    } else if (key === 'Enter') {
      done();
      const to = cellAfter(shiftKey ? 'ArrowUp' : 'ArrowDown', false, cell, acts.board());
      if (finish() && to) acts.choose(to, false);
    } else if (takesBack(event)) setInText(false);
    else if (key === 'F2') setInText(true);
    else if (control && key === 'd') {
      done();
      if (finish()) acts.fillDown();
    } else if ((key === 'Delete' || key === 'Backspace') && typed === null) {
      done();
      acts.clear();
    } else if (STEPS[key] && !control && stepBy(STEPS[key])) done();
    else if (!inText) {
      const to = cellAfter(key, control, cell, acts.board());
      if (!to) return;
      done();
      if (finish()) acts.choose(to, shiftKey);
    }
  };
  return (
    <div
      role="gridcell"
      aria-colindex={column + 2}
      aria-selected={isChosen}
      className={`board-cell${isChosen ? ' board-chosen' : ''}${seconds > 0 ? ' board-set' : ''}${follows === null ? '' : ' board-follows'}`}
      // Safe cast: a custom property is one, too.
      style={{ '--program': colourOf(letter) } as CSSProperties}
      onPointerDown={(event) => {
        if (!event.shiftKey) return;
        event.preventDefault();
        acts.choose(cell, true);
      }}
    >
      {seconds > 0 && follows === null && <Grip {...props} />}
      <input
        data-cell={dataCell(cell)}
        aria-label={
          follows === null
            ? say`Minutes of ${station} ${name} in ${letter}`
            : say`Minutes of ${station} ${name} in ${letter}, same as station ${follows}`
        }
        readOnly={follows !== null}
        aria-invalid={isFaulty}
        value={text}
        placeholder="–"
        tabIndex={isActive ? 0 : -1}
        inputMode="text"
        autoComplete="off"
        spellCheck={false}
        onFocus={(event) => {
          event.target.select();
          acts.focused(cell);
        }}
        onDoubleClick={() => setInText(true)}
        onChange={(event) => change(event.target.value)}
        onBlur={() => {
          setInText(false);
          finish();
        }}
        onKeyDown={onKeyDown}
        onCopy={(event) => {
          if (typed !== null) return;
          event.preventDefault();
          event.clipboardData.setData('text/plain', acts.copy());
        }}
        onCut={(event) => {
          if (typed !== null) return;
          event.preventDefault();
          event.clipboardData.setData('text/plain', acts.copy());
          acts.clear();
        }}
        onPaste={(event) => {
          const text = event.clipboardData.getData('text/plain');
          if (typed !== null && !/[\t\n]/u.test(text)) return;
          event.preventDefault();
          drop();
          acts.paste(text);
        }}
      />
      {(percent !== 100 || starts > 1) && (read ?? 0) > 0 && (
        <span className="board-adjusted soft small">
          {beside(read ?? 0, percent, seasonal, starts)}
        </span>
      )}
    </div>
  );
});
