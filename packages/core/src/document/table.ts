/** A table as a spreadsheet writes it: the headings first, in any order, then a thing to a row. */
import { faultsOfCell, type CellFault } from './cells.ts';
import { say } from '../language/say.ts';

interface Shape {
  /** The column that no row can do without. */
  readonly key: string;
  readonly headings: readonly string[];
  readonly most: number;
}

export interface TableRow {
  /** Line of the file, the headings being line 1. */
  readonly line: number;
  /** Trimmed; empty where there is no such column. */
  readonly cell: (heading: string) => string;
}

/** The rows of a table that are not empty, and what is wrong with its headings. Without the key column, or with too many rows, there are none. */
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
                // A leading apostrophe stops a spreadsheet from reading a cell as a formula.
                return place < 0 ? '' : (row[place] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
              },
            },
          ],
    ),
  };
}
