/** A table from a spreadsheet: header first, columns in any order, then one thing a row. */
import { faultsOfCell, type CellFault } from './cells.ts';
import { say } from '../language/say.ts';

interface Shape {
  /** The required column. */
  readonly key: string;
  readonly headings: readonly string[];
  readonly most: number;
}

export interface TableRow {
  /** Line in the file; the header is line 1. */
  readonly line: number;
  /** Trimmed; empty if there is no such column. */
  readonly cell: (heading: string) => string;
}

/** The non-empty rows of a table, and faults in its header. Without the key column, or with too many rows, there are none. */
export function readTable(
  rows: readonly (readonly string[])[],
  { key, headings, most }: Shape,
): { readonly rows: readonly TableRow[]; readonly faults: readonly CellFault[] } {
  const found = (rows[0] ?? []).map((one) => one.trim().toLowerCase());
  if (!found.includes(key))
    return {
      rows: [],
      faults: [
        faultsOfCell(1, key, { code: 'missing-field', path: [], expected: say`a column "${key}"` }),
      ],
    };
  if (rows.length > most + 1)
    return {
      rows: [],
      faults: [
        faultsOfCell(1, key, {
          code: 'wrong-length',
          path: [],
          expected: say`at most ${most} rows`,
          actual: rows.length - 1,
        }),
      ],
    };
  return {
    faults: found
      .filter((heading) => heading !== '' && !headings.includes(heading))
      .map((heading) =>
        faultsOfCell(1, heading, { code: 'unknown-field', path: [heading], allowed: headings }),
      ),
    rows: rows.slice(1).flatMap((row, i) =>
      row.every((cell) => cell.trim() === '')
        ? []
        : [
            {
              line: i + 2,
              cell: (heading: string) => {
                const place = found.indexOf(heading);
                // A leading apostrophe keeps a spreadsheet from reading a cell as a formula.
                return place < 0 ? '' : (row[place] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
              },
            },
          ],
    ),
  };
}
