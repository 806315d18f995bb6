/** Downloads and uploads. */

/** Offers text as a download. */
export function saveFile(name: string, text: string, mediaType: string): void {
  const address = URL.createObjectURL(new Blob([text], { type: mediaType }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name.replaceAll(/[/\\:*?"<>|]/g, '-');
  link.click();
  // Some browsers read the address only after the click has returned.
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}

export const saveJson = (name: string, document: unknown): void =>
  saveFile(name, `${JSON.stringify(document, null, 2)}\n`, 'application/json');

/** None of our text documents comes near this. */
const MOST_TEXT_BYTES = 8_000_000;

/** Text of a file; null if it is too large to be one of ours. */
export const textOf = async (file: File): Promise<string | null> =>
  file.size > MOST_TEXT_BYTES ? null : file.text();
