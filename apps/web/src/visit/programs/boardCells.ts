/** The board's cells as a spreadsheet: moving, ranges, copy, paste, fill down. No interface code. */
import {
  parseRunEntry,
  programsByLetter,
  runEntryHelp,
  runsWithLinked,
  runEntryText,
  type Plan,
  type PlanChange,
  type RunEntry,
  say,
} from '@water-clock/core';

/** A cell by position: station row, program column. */
export interface Cell {
  readonly row: number;
  readonly column: number;
}

/** The selected cells, from the anchor to the focused cell. */
export interface Chosen {
  readonly anchor: Cell;
  readonly active: Cell;
}

export interface Range {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

/** What the board shows: station numbers, program letters, run times. */
export interface BoardPlan {
  readonly stations: readonly number[];
  readonly letters: readonly string[];
  /** For a linked station, those of the station it is linked to. */
  readonly secondsAt: (cell: Cell) => number;
  /** Linked stations, whose cells cannot be set. */
  readonly linked: ReadonlyMap<number, number>;
}

export function boardOf(plan: Plan): BoardPlan {
  const programs = programsByLetter(plan);
  const stations = plan.stations.map(({ number }) => number);
  const runs = programs.map(
    (program) =>
      new Map(runsWithLinked(plan, program).map(({ station, seconds }) => [station, seconds])),
  );
  return {
    stations,
    letters: programs.map(({ letter }) => letter),
    secondsAt: ({ row, column }) => runs[column]?.get(stations[row] ?? 0) ?? 0,
    linked: new Map(
      plan.stations.flatMap(({ number, linkedTo }) =>
        linkedTo === undefined ? [] : [[number, linkedTo]],
      ),
    ),
  };
}

export const rangeOf = ({ anchor, active }: Chosen): Range => ({
  top: Math.min(anchor.row, active.row),
  bottom: Math.max(anchor.row, active.row),
  left: Math.min(anchor.column, active.column),
  right: Math.max(anchor.column, active.column),
});

export const isIn = ({ top, bottom, left, right }: Range, { row, column }: Cell): boolean =>
  row >= top && row <= bottom && column >= left && column <= right;

const PAGE = 10;

/** The cell a key moves to; null: not a moving key. */
export function cellAfter(
  key: string,
  toEnd: boolean,
  { row, column }: Cell,
  { stations, letters }: BoardPlan,
): Cell | null {
  const [last, lastColumn] = [stations.length - 1, letters.length - 1];
  const to = (nextRow: number, nextColumn: number): Cell => ({
    row: Math.max(0, Math.min(last, nextRow)),
    column: Math.max(0, Math.min(lastColumn, nextColumn)),
  });
  switch (key) {
    case 'ArrowUp':
      return to(toEnd ? 0 : row - 1, column);
    case 'ArrowDown':
      return to(toEnd ? last : row + 1, column);
    case 'ArrowLeft':
      return to(row, toEnd ? 0 : column - 1);
    case 'ArrowRight':
      return to(row, toEnd ? lastColumn : column + 1);
    case 'Home':
      return to(toEnd ? 0 : row, 0);
    case 'End':
      return to(toEnd ? last : row, lastColumn);
    case 'PageUp':
      return to(row - PAGE, column);
    case 'PageDown':
      return to(row + PAGE, column);
    default:
      return null;
  }
}

const steps = (from: number, to: number): number[] =>
  Array.from({ length: to - from + 1 }, (_, i) => from + i);

/** One change for several cells, with a part for each program; 0 seconds clears a cell. */
function changeOf(
  cells: readonly { readonly cell: Cell; readonly seconds: number }[],
  board: BoardPlan,
): PlanChange | null {
  const byProgram = new Map<string, RunEntry[]>();
  for (const { cell, seconds } of cells) {
    const [station, letter] = [board.stations[cell.row], board.letters[cell.column]];
    if (station === undefined || letter === undefined || board.linked.has(station)) continue;
    if (seconds === board.secondsAt(cell)) continue;
    const entry = { station, seconds: seconds === 0 ? null : seconds };
    byProgram.set(letter, [...(byProgram.get(letter) ?? []), entry]);
  }
  const changes = [...byProgram].map(
    ([program, runs]) => ({ type: 'set-runs', program, runs }) as const,
  );
  const [only] = changes;
  return changes.length > 1 ? { type: 'several', changes } : (only ?? null);
}

export const setCell = (cell: Cell, seconds: number, board: BoardPlan): PlanChange | null =>
  changeOf([{ cell, seconds }], board);

const cellsOf = ({ top, bottom, left, right }: Range): Cell[] =>
  steps(top, bottom).flatMap((row) => steps(left, right).map((column) => ({ row, column })));

/** The cells as text for a spreadsheet: tabs between programs, a line for each station. */
export const copied = ({ top, bottom, left, right }: Range, board: BoardPlan): string =>
  steps(top, bottom)
    .map((row) =>
      steps(left, right)
        .map((column) => runEntryText(board.secondsAt({ row, column })))
        .join('\t'),
    )
    .join('\n');

export const cleared = (range: Range, board: BoardPlan): PlanChange | null =>
  changeOf(
    cellsOf(range).map((cell) => ({ cell, seconds: 0 })),
    board,
  );

/** Fills the range's first row down; for a single row, copies the row above. */
export function filledDown(range: Range, board: BoardPlan): PlanChange | null {
  const { top, bottom, left, right } = range;
  const source = top === bottom ? top - 1 : top;
  if (source < 0) return null;
  return changeOf(
    cellsOf({ top: source + 1, bottom, left, right }).map((cell) => ({
      cell,
      seconds: board.secondsAt({ row: source, column: cell.column }),
    })),
    board,
  );
}

/** Pasted text as rows of cells, without the empty last line that spreadsheets add. */
const pastedRows = (text: string): string[][] =>
  text
    .replace(/\r\n?/gu, '\n')
    .replace(/\n$/u, '')
    .split('\n')
    .map((line) => line.split('\t'));

export type Pasted =
  | { readonly ok: true; readonly change: PlanChange | null; readonly range: Range }
  | { readonly ok: false; readonly fault: string };

/** The change for a paste at the first selected cell. A single value goes into every selected cell. All of it fits, or nothing is pasted. */
export function pasted(text: string, range: Range, board: BoardPlan): Pasted {
  const rows = pastedRows(text);
  const wide = Math.max(...rows.map(({ length }) => length));
  const isOne = rows.length === 1 && wide === 1;
  const { top, left } = range;
  const into = isOne ? range : { top, left, bottom: top + rows.length - 1, right: left + wide - 1 };
  if (into.bottom >= board.stations.length)
    return {
      ok: false,
      fault: say`You pasted ${rows.length} lines, but only ${board.stations.length - top} stations follow. Nothing was changed.`,
    };
  if (into.right >= board.letters.length)
    return {
      ok: false,
      fault: say`You pasted ${wide} columns, but only ${board.letters.length - left} programs follow. Nothing was changed.`,
    };
  const cells: { cell: Cell; seconds: number }[] = [];
  for (const cell of cellsOf(into)) {
    const typed = isOne ? rows[0]?.[0] : rows[cell.row - top]?.[cell.column - left];
    if (typed === undefined) continue;
    const seconds = parseRunEntry(typed);
    if (seconds === null)
      return {
        ok: false,
        fault: say`Line ${cell.row - into.top + 1}, column ${cell.column - left + 1}: “${typed.slice(0, 20)}” is not a run time. Nothing was changed. ${runEntryHelp()}`,
      };
    cells.push({ cell, seconds });
  }
  return { ok: true, change: changeOf(cells, board), range: into };
}

/** Moves a cell's run time to another program; null if the cell is empty or nothing would move. */
export function movedTo(cell: Cell, column: number, board: BoardPlan): PlanChange | null {
  const seconds = board.secondsAt(cell);
  if (seconds === 0 || column === cell.column || board.letters[column] === undefined) return null;
  return changeOf(
    [
      { cell, seconds: 0 },
      { cell: { row: cell.row, column }, seconds },
    ],
    board,
  );
}
