/** Imports a company archive into an empty company, part by part, through the ordinary routes. */
import { unzip, type UnzipFileInfo } from 'fflate';
import { newId, RefusedError, request } from './request.ts';
import { bringSite } from './sites.ts';
import { say } from '@water-clock/core';

const INDEX = 'firm.json';

interface CompanyIndex {
  readonly name: string;
  readonly library: readonly {
    readonly shelf: string;
    readonly id: string;
    readonly document: object;
  }[];
  readonly sites: readonly { readonly id: string; readonly name: string }[];
}

const partsOf = (bytes: Uint8Array, filter: (file: UnzipFileInfo) => boolean) =>
  new Promise<Record<string, Uint8Array<ArrayBuffer>>>((resolve, reject) => {
    unzip(bytes, { filter }, (error, files) => {
      if (error) reject(new Error(say`This is not a ZIP file, or it is damaged.`));
      // Safe cast: the library makes them from buffers of their own.
      else resolve(files);
    });
  });

const isIndex = (value: unknown): value is CompanyIndex =>
  typeof value === 'object' &&
  value !== null &&
  'format' in value &&
  value.format === 'water-clock-firm' &&
  'version' in value &&
  value.version === 1 &&
  'library' in value &&
  Array.isArray(value.library) &&
  'sites' in value &&
  Array.isArray(value.sites);

export interface Brought {
  readonly sites: number;
  /** What was refused, and why. */
  readonly refused: readonly string[];
}

/** The server was too busy, which passes soon. */
const BUSY = ['busy', 'too-much-work'];
const TRIES = 4;
const REST_MILLISECONDS = 3_000;

/** Retries while the server is busy. All parts have ids, so none is imported twice. */
async function patiently(bring: () => Promise<unknown>, tries = TRIES): Promise<unknown> {
  try {
    return await bring();
  } catch (error) {
    if (tries === 1 || !(error instanceof RefusedError && BUSY.includes(error.code))) throw error;
    await new Promise((resolve) => setTimeout(resolve, REST_MILLISECONDS));
    return patiently(bring, tries - 1);
  }
}

/**
 * Imports the library first, since sites refer to it, then each site. What exists is not imported again.
 *
 * @param progress parts done and in total
 * @throws Error if it is not a company archive
 */
export async function importCompany(
  file: Blob,
  progress: (done: number, of: number) => void,
): Promise<Brought> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const first = (await partsOf(bytes, ({ name }) => name === INDEX))[INDEX];
  const index: unknown = first ? JSON.parse(new TextDecoder().decode(first)) : null;
  if (!isIndex(index))
    throw new Error(
      say`This file is not a company export. Choose a .zip file that Water Clock exported.`,
    );
  const refused: string[] = [];
  const of = index.library.length + index.sites.length;
  let done = 0;
  const part = async (name: string, bring: () => Promise<unknown>) => {
    await patiently(bring).catch((error: unknown) => {
      refused.push(`${name}: ${error instanceof Error ? error.message : say`not imported`}`);
    });
    progress(++done, of);
  };
  for (const { shelf, id, document } of index.library)
    await part(`${shelf} ${id}`, () =>
      request('POST', `/api/library/${shelf}/${id}/changes`, {
        ...{ id: newId(), baseVersion: 0, document },
      }),
    );
  for (const { id, name } of index.sites) {
    const path = `sites/${id}.zip`;
    const archive = (await partsOf(bytes, (one) => one.name === path))[path];
    await part(name, () =>
      archive
        ? bringSite(id, new Blob([archive]))
        : Promise.reject(new Error(say`it is missing from the archive`)),
    );
  }
  return { sites: index.sites.length, refused };
}
