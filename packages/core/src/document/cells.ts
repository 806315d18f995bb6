/** Cells of a spreadsheet: what is wrong with one, and the few kinds of value that stand in them. */
import type { Fault } from './fault.ts';
import { shown } from './reader.ts';
import { say } from '../language/say.ts';

/** A cell that could not be used; its path stays empty, since line and column say where it is. */
export interface CellFault {
  /** Line of the file, the headings being line 1. */
  readonly line: number;
  readonly column: string;
  readonly fault: Fault;
}

export const faultsOfCell = (line: number, column: string, fault: Fault): CellFault => ({
  line,
  column,
  fault,
});

/** A number, with a point or a comma for its fraction; a fault where it is none or out of range. */
export function numberCell(
  cell: string,
  least: number,
  most: number,
  whole = false,
): number | Fault {
  const text = cell.replace(',', '.').replace('−', '-');
  const value = /^-?\d{1,9}(\.\d{1,9})?$/.test(text) ? Number(text) : NaN;
  if (Number.isNaN(value) || (whole && !Number.isInteger(value)))
    return {
      code: 'malformed',
      path: [],
      expected: say`a ${whole ? 'whole ' : ''}number, ${least} to ${most}`,
      actual: shown(cell),
    };
  if (value < least || value > most)
    return { code: 'out-of-range', path: [], least, most, actual: value };
  return value;
}

/** One of some names, however it is written: capitals and spaces make no difference. */
export function nameCell<T extends string>(cell: string, allowed: readonly T[]): T | Fault {
  const text = cell
    .trim()
    .toLowerCase()
    .replaceAll(/[\s_]+/g, '-');
  return (
    allowed.find((one) => one === text) ?? {
      code: 'not-one-of',
      path: [],
      allowed,
      actual: shown(cell),
    }
  );
}

const YES = ['yes', 'y', 'true', '1', 'x'];
const NO = ['no', 'n', 'false', '0'];

export function yesNoCell(cell: string): boolean | Fault {
  const text = cell.trim().toLowerCase();
  if (YES.includes(text)) return true;
  if (NO.includes(text)) return false;
  return { code: 'not-one-of', path: [], allowed: ['yes', 'no'], actual: shown(cell) };
}
