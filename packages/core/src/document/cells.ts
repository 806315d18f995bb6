/** Cells of a spreadsheet: faults, and the kinds of value they hold. */
import type { Fault } from './fault.ts';
import { shown } from './reader.ts';
import { say } from '../language/say.ts';

/** A cell that cannot be used; its path is empty, since line and column locate it. */
export interface CellFault {
  /** Line in the file; the header is line 1. */
  readonly line: number;
  readonly column: string;
  readonly fault: Fault;
}

export const faultsOfCell = (line: number, column: string, fault: Fault): CellFault => ({
  line,
  column,
  fault,
});

/** A number with a decimal point or comma; a fault if it is not one or out of range. */
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

/** One of some names, ignoring case and spaces. */
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
