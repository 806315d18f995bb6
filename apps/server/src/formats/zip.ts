/** Writes ZIP files in memory, and reads untrusted ones. */
import { say } from '@water-clock/core';
import { once } from 'node:events';
import { PassThrough, Readable } from 'node:stream';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { ZipFile as ZipWriter } from 'yazl';

/** A site with many timers and years of visits has a few hundred files. */
const MOST_FILES = 3000;
/** Largest file, a photo or a document. */
const MOST_FILE_BYTES = 3_000_000;
/** Largest total size, unpacked. */
const MOST_BYTES = 150_000_000;

/** Why a ZIP is refused; `file` names the file at fault, if one is. */
export class BadZip extends Error {
  readonly file: string | null;
  constructor(message: string, file: string | null = null) {
    super(message);
    this.file = file;
  }
}

const inWords = (error: unknown, file: string | null = null) =>
  error instanceof BadZip
    ? error
    : new BadZip(error instanceof Error ? error.message : String(error), file);

async function bytesOf(stream: Readable, file: string): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > MOST_FILE_BYTES)
      throw new BadZip(say`it unpacks to more than ${MOST_FILE_BYTES} bytes`, file);
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

/** The files in a ZIP by its directory, which is checked before anything is unpacked. */
async function listed(zip: ZipFile): Promise<ReadonlyMap<string, Entry>> {
  if (zip.entryCount > MOST_FILES) throw new BadZip(say`it contains more than ${MOST_FILES} files`);
  const entries = new Map<string, Entry>();
  let total = 0;
  for await (const entry of zip.eachEntry()) {
    const name = entry.fileName;
    if (name.endsWith('/')) continue;
    if (entries.has(name)) throw new BadZip(say`it is in the archive twice`, name);
    if (entry.uncompressedSize > MOST_FILE_BYTES)
      throw new BadZip(say`it unpacks to more than ${MOST_FILE_BYTES} bytes`, name);
    total += entry.uncompressedSize;
    if (total > MOST_BYTES)
      throw new BadZip(say`all files together are more than ${MOST_BYTES} bytes`);
    entries.set(name, entry);
  }
  return entries;
}

/** A ZIP with a valid directory. Unpacking enforces the sizes listed there. */
export class Zip {
  readonly names: readonly string[];
  private readonly zip: ZipFile;
  private readonly entries: ReadonlyMap<string, Entry>;

  private constructor(zip: ZipFile, entries: ReadonlyMap<string, Entry>) {
    this.zip = zip;
    this.entries = entries;
    this.names = [...entries.keys()];
  }

  /** @throws BadZip if it is not a ZIP, has paths that lead outside, or is too large */
  static async open(bytes: Buffer): Promise<Zip> {
    // The library itself refuses paths that lead outside (`validateFileName`).
    const options = {
      autoClose: false,
      lazyEntries: true,
      validateEntrySizes: true,
      decodeStrings: true,
      strictFileNames: true,
    };
    const zip = await yauzl.fromBufferPromise(bytes, options).catch((error: unknown) => {
      throw new BadZip(say`this is not a ZIP file: ${inWords(error).message}`);
    });
    try {
      return new Zip(zip, await listed(zip));
    } catch (error) {
      throw inWords(error);
    }
  }

  /**
   * @returns null if there is no such file
   * @throws BadZip if it is damaged or does not match the directory
   */
  async read(name: string): Promise<Buffer | null> {
    const entry = this.entries.get(name);
    if (!entry) return null;
    try {
      return await bytesOf(await this.zip.openReadStreamPromise(entry), name);
    } catch (error) {
      throw inWords(error, name);
    }
  }
}

const MTIME = new Date(Date.UTC(2000, 0, 1));

/** Packs files; the same files give the same bytes. */
export async function zipped(files: ReadonlyMap<string, Uint8Array>): Promise<Buffer> {
  const zip = new ZipWriter();
  for (const [name, bytes] of files) zip.addBuffer(Buffer.from(bytes), name, { mtime: MTIME });
  zip.end();
  const chunks: Buffer[] = [];
  zip.outputStream.on('data', (chunk: Buffer) => chunks.push(chunk));
  await once(zip.outputStream, 'end');
  return Buffer.concat(chunks);
}

/** Streams a ZIP of files made one after another, each when the previous one is sent. The files are already compressed. */
export function zipStream(
  files: readonly { readonly name: string; readonly bytes: () => Promise<Buffer> }[],
): Readable {
  const zip = new ZipWriter();
  const out = new PassThrough();
  for (const { name, bytes } of files)
    zip.addReadStreamLazy(name, { compress: false, mtime: MTIME }, (done) => {
      bytes().then(
        (made) => done(null, Readable.from([made])),
        // Break the download off: half an archive must not look complete.
        (error: Error) => out.destroy(error),
      );
    });
  zip.end();
  zip.outputStream.pipe(out);
  return out;
}
