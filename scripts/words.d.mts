/** The name of each message of the code, and the files in which it stands. */
export function messages(): ReadonlyMap<string, readonly string[]>;
export function readCatalogue(
  language: string,
): ReadonlyMap<string, { readonly text: string; readonly isFuzzy: boolean; readonly note: string }>;
