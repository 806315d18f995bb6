/** ZIP files in memory: written in the plainest way, and read with distrust. */
import { once } from 'node:events';
import type { Readable } from 'node:stream';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { ZipFile as ZipWriter } from 'yazl';

/** A house of many timers with years of visits has some hundred files. */
export const MOST_FILES = 3000;
/** A photo, or a document. */
export const MOST_FILE_BYTES = 3_000_000;
/** All files together, unpacked. */
export const MOST_BYTES = 150_000_000;

/** Why a ZIP is refused; `file` where it is about one of them. */
export class BadZip extends Error {
  readonly file: string | null;
  constructor(message: string, file: string | null = null) {
    super(message);
    this.file = file;
  }
}

async function bytesOf(stream: Readable, most: number, file: string): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > most) {
      stream.destroy();
      throw new BadZip(`it unpacks to more than ${most} bytes`, file);
    }
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

const opened = (bytes: Buffer) =>
  new Promise<ZipFile>((resolve, reject) => {
    // Names that lead out of the archive are refused by the library itself (`validateFileName`).
    yauzl.fromBuffer(
      bytes,
      { lazyEntries: true, validateEntrySizes: true, decodeStrings: true, strictFileNames: true },
      (error, zip) => {
        if (error) reject(new BadZip(`this is no ZIP file: ${error.message}`));
        else resolve(zip);
      },
    );
  });

const streamOf = (zip: ZipFile, entry: Entry) =>
  new Promise<Readable>((resolve, reject) => {
    zip.openReadStream(entry, (error, stream) => {
      if (error) reject(new BadZip(error.message, entry.fileName));
      else resolve(stream);
    });
  });

/**
 * Unpacks a ZIP.
 *
 * @throws BadZip where it is not a ZIP, holds names that lead elsewhere, or is too large.
 */
export async function unzip(bytes: Buffer): Promise<Map<string, Buffer>> {
  const zip = await opened(bytes);
  if (zip.entryCount > MOST_FILES) throw new BadZip(`it holds more than ${MOST_FILES} files`);
  const files = new Map<string, Buffer>();
  let total = 0;
  const work = new Promise<void>((resolve, reject) => {
    zip.on('error', (error: Error) => reject(new BadZip(error.message)));
    zip.on('end', () => resolve());
    zip.on('entry', (entry: Entry) => {
      void (async () => {
        const name = entry.fileName;
        if (!name.endsWith('/')) {
          if (files.has(name)) throw new BadZip('it stands in the archive twice', name);
          if (entry.uncompressedSize > MOST_FILE_BYTES)
            throw new BadZip(`it unpacks to more than ${MOST_FILE_BYTES} bytes`, name);
          const content = await bytesOf(await streamOf(zip, entry), MOST_FILE_BYTES, name);
          total += content.length;
          if (total > MOST_BYTES)
            throw new BadZip(`all files together are more than ${MOST_BYTES} bytes`);
          files.set(name, content);
        }
        zip.readEntry();
      })().catch((error: unknown) =>
        reject(error instanceof BadZip ? error : new BadZip(String(error), entry.fileName)),
      );
    });
  });
  zip.readEntry();
  try {
    await work;
  } finally {
    zip.close();
  }
  return files;
}

/** Packs files; the same ones give the same bytes. */
export async function zipped(files: ReadonlyMap<string, Buffer>): Promise<Buffer> {
  const zip = new ZipWriter();
  const mtime = new Date(Date.UTC(2000, 0, 1));
  for (const [name, bytes] of files) zip.addBuffer(bytes, name, { mtime });
  zip.end();
  const chunks: Buffer[] = [];
  zip.outputStream.on('data', (chunk: Buffer) => chunks.push(chunk));
  await once(zip.outputStream, 'end');
  return Buffer.concat(chunks);
}
