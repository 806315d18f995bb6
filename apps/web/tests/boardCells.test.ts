/** The board as a spreadsheet: moving, copy, paste, fill down, drag, and refusals. */
import { describe, expect, test } from '@jest/globals';
import { applyChange, emptyPlan, TIMER_KINDS, type Plan, type PlanChange } from '@water-clock/core';
import {
  boardOf,
  cellAfter,
  cleared,
  copied,
  filledDown,
  movedTo,
  pasted,
  rangeOf,
  type Cell,
} from '../src/visit/programs/boardCells.ts';

const [, kind] = TIMER_KINDS;
if (!kind) throw new Error('no kinds');
const station = (number: number) => ({ number });
const plan: Plan = {
  ...emptyPlan({ ...kind, stationCount: 4 }),
  stations: [1, 2, 3, 4].map(station),
  programs: [
    {
      letter: 'B',
      starts: [],
      days: null,
      runs: [
        { station: 2, seconds: 450 },
        { station: 4, seconds: 60 },
      ],
    },
    { letter: 'A', starts: [], days: null, runs: [{ station: 1, seconds: 600 }] },
  ],
};
const board = boardOf(plan);
const at = (row: number, column: number): Cell => ({ row, column });
const range = (a: Cell, b: Cell) => rangeOf({ anchor: a, active: b });
/** The board after a change, row by row. */
const after = (change: PlanChange | null): string => {
  if (!change) return 'no change';
  const made = applyChange(plan, change);
  if (!made.ok) throw new Error(JSON.stringify(made));
  return copied(range(at(0, 0), at(3, 1)), boardOf(made.value.plan));
};
const AS_IT_IS = '10\t\n\t7:30\n\t\n\t1';

test('programs stand in the order of their letters, and a range is copied as a spreadsheet takes it', () => {
  expect(board.letters).toEqual(['A', 'B']);
  expect(copied(range(at(3, 1), at(0, 0)), board)).toBe(AS_IT_IS);
});

test.each([
  ['ArrowUp', false, at(2, 1), at(1, 1)],
  ['ArrowUp', false, at(0, 1), at(0, 1)],
  ['ArrowDown', true, at(0, 1), at(3, 1)],
  ['ArrowRight', false, at(1, 1), at(1, 1)],
  ['ArrowLeft', true, at(1, 1), at(1, 0)],
  ['Home', true, at(3, 1), at(0, 0)],
  ['End', false, at(3, 0), at(3, 1)],
  ['End', true, at(0, 0), at(3, 1)],
  ['PageDown', false, at(1, 0), at(3, 0)],
  ['PageUp', false, at(2, 0), at(0, 0)],
  ['x', false, at(2, 0), null],
])('%s, to the end %s, from %j leads to %j', (key, toEnd, from, to) => {
  expect(cellAfter(key, toEnd, from, board)).toEqual(to);
});

describe('pasting', () => {
  const from = (cell: Cell, text: string) => pasted(text, range(cell, cell), board);
  const made = (cell: Cell, text: string) => {
    const answer = from(cell, text);
    return answer.ok ? after(answer.change) : answer.fault;
  };

  test('a block goes in from the chosen cell on; an empty cell empties; the last line break is no line', () => {
    expect(made(at(0, 0), '5\t6\r\n\t2:30\r\n')).toBe('5\t6\n\t2:30\n\t\n\t1');
    expect(made(at(1, 1), '\n3\n')).toBe('10\t\n\t\n\t3\n\t1');
  });

  test('one value goes into every chosen cell', () => {
    const answer = pasted('4', range(at(1, 0), at(2, 1)), board);
    expect(answer.ok && after(answer.change)).toBe('10\t\n4\t4\n4\t4\n\t1');
  });

  test('what is there already is no change', () => {
    expect(made(at(1, 1), '7:30')).toBe('no change');
  });

  test('too many lines, too many columns and what is no run time are told, and none of it is taken', () => {
    expect(made(at(2, 0), '1\n2\n3')).toBe(
      'You pasted 3 lines, but only 2 stations follow. Nothing was changed.',
    );
    expect(made(at(0, 1), '1\t2')).toBe(
      'You pasted 2 columns, but only 1 programs follow. Nothing was changed.',
    );
    expect(made(at(0, 0), '1\t2\n3\tsoon')).toMatch(
      /^Line 2, column 2: “soon” is not a run time\. Nothing was changed\. /,
    );
    expect(made(at(0, 0), '1\nsoon')).toMatch(/^Line 2, column 1: “soon”/);
  });
});

test('the first row of a range fills the rows below it; of one row, the row above fills it', () => {
  expect(after(filledDown(range(at(1, 0), at(3, 1)), board))).toBe('10\t\n\t7:30\n\t7:30\n\t7:30');
  expect(after(filledDown(range(at(2, 1), at(2, 1)), board))).toBe('10\t\n\t7:30\n\t7:30\n\t1');
  expect(filledDown(range(at(0, 0), at(0, 1)), board)).toBeNull();
});

test('a range is emptied as one step', () => {
  const change = cleared(range(at(0, 0), at(3, 1)), board);
  expect(change?.type).toBe('several');
  expect(after(change)).toBe('\t\n\t\n\t\n\t');
});

test('a run time moves to another program, and replaces what the station had there', () => {
  expect(after(movedTo(at(0, 0), 1, board))).toBe('\t10\n\t7:30\n\t\n\t1');
  expect(movedTo(at(2, 0), 1, board)).toBeNull();
  expect(movedTo(at(0, 0), 0, board)).toBeNull();
  expect(movedTo(at(0, 0), 2, board)).toBeNull();
});
