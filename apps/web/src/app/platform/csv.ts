/** CSV files, as spreadsheets write and read them. */
import Papa from 'papaparse';
import { saveFile } from './files.ts';

/**
 * Rows of a file, header first. Returns one row more than the limit, so that the caller sees there are too many, and reads no further.
 * Detects commas, semicolons and tabs.
 */
export const rowsOf = (file: File | string, most: number): Promise<string[][]> =>
  new Promise((resolve, reject) => {
    const options = {
      preview: most + 2,
      skipEmptyLines: 'greedy' as const,
      complete: ({ data }: { readonly data: string[][] }) =>
        // Spreadsheets start a file with a byte order mark.
        resolve(
          data.map((row, i) => (i === 0 ? row.map((cell) => cell.replace(/^\uFEFF/, '')) : row)),
        ),
    };
    if (typeof file === 'string') Papa.parse<string[]>(file, options);
    else Papa.parse<string[]>(file, { ...options, error: reject });
  });

/** Rows as text; cells that a spreadsheet would read as a formula are made harmless. */
export const csvText = (rows: readonly (readonly string[])[]): string =>
  `${Papa.unparse(rows as string[][], { escapeFormulae: true, newline: '\r\n' })}\r\n`;

export const saveCsv = (name: string, rows: readonly (readonly string[])[]): void =>
  saveFile(name, `\uFEFF${csvText(rows)}`, 'text/csv');
