/** Reads an untrusted site archive. Slow; run in a worker thread. */
import { isUtf8 } from 'node:buffer';
import {
  readClosedVisit,
  readPlan,
  readSurvey,
  type ClosedVisit,
  type Outcome,
  say,
} from '@water-clock/core';
import { apiFaults, type ApiFault } from '../http/api-error.ts';
import { bodyFault } from '../http/body.ts';
import { NOT_IN_NAMES } from '../http/fields.ts';
import { NoPhoto, photoContent, type PhotoContent } from '../photos/photo-content.ts';
import {
  ARCHIVE_FORMAT,
  ARCHIVE_VERSION,
  filesOf,
  INDEX,
  photoFile,
  type Contents,
  type Index,
} from './archive-format.ts';
import { BadZip, Zip } from './zip.ts';

/** The contents of an archive, or everything wrong with it, by file. */
export type ReadArchive =
  { readonly contents: Contents } | { readonly faults: readonly ApiFault[] };

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** Older archives had the weather in one field: a town or the id of a climate. */
function presentSite(site: object): object {
  if (!('place' in site)) return site;
  const { place, ...rest } = site;
  const isClimate = typeof place === 'string' && UUID.test(place);
  return { ...rest, [isClimate ? 'climateId' : 'town']: place };
}

class ArchiveReader {
  readonly faults: ApiFault[] = [];
  private readonly zip: Zip;

  constructor(zip: Zip) {
    this.zip = zip;
  }

  private fault(code: string, path: string, message: string): null {
    this.faults.push({ code, path, message });
    return null;
  }

  /** A JSON object; null, with a fault, if it is missing or not an object. */
  private async json(name: string): Promise<object | null> {
    const bytes = await this.zip.read(name);
    if (!bytes) return this.fault('missing-part', name, say`this part is missing from the archive`);
    if (!isUtf8(bytes)) return this.fault('not-json', name, say`this is not UTF-8`);
    let value: unknown;
    try {
      value = JSON.parse(bytes.toString('utf8'));
    } catch (error) {
      return this.fault('not-json', name, say`this is not JSON: ${String(error)}`);
    }
    const unsafe = bodyFault(value);
    if (unsafe) return this.fault(unsafe.code, `${name}: ${unsafe.path}`, unsafe.message);
    return isRecord(value) ? value : this.fault('malformed', name, say`this must be an object`);
  }

  private async read<T>(name: string, reader: (value: unknown) => Outcome<T>): Promise<T | null> {
    const value = await this.json(name);
    if (value === null) return null;
    const read = reader(value);
    if (read.ok) return read.value;
    const told = apiFaults(read.faults, []);
    this.faults.push(...told.map((fault) => ({ ...fault, path: `${name}: ${fault.path}` })));
    return null;
  }

  private async index(): Promise<Index | null> {
    const value: Partial<Index> | null = await this.json(INDEX);
    if (value === null) return null;
    if (value.format !== ARCHIVE_FORMAT)
      return this.fault('not-one-of', `${INDEX}: format`, `must be "${ARCHIVE_FORMAT}"`);
    if (value.version !== ARCHIVE_VERSION)
      return this.fault(
        'wrong-version',
        `${INDEX}: version`,
        say`version ${JSON.stringify(value.version)} is not supported; use version ${ARCHIVE_VERSION}`,
      );
    const { timers, photos, site } = value;
    const isCount = (visits: unknown) =>
      Number.isInteger(visits) && Number(visits) >= 0 && Number(visits) <= 1000;
    const isName = (name: unknown) =>
      typeof name === 'string' && name.length <= 80 && NOT_IN_NAMES.test(name);
    const sound =
      isRecord(site) &&
      Array.isArray(timers) &&
      timers.length <= 100 &&
      timers.every(
        (timer: unknown) =>
          isRecord(timer) && isCount(timer['visits']) && isName(timer['name'] ?? ''),
      ) &&
      Array.isArray(photos) &&
      photos.every((id) => typeof id === 'string' && UUID.test(id));
    if (!sound)
      return this.fault(
        'malformed',
        INDEX,
        say`this must contain site, timers with their visit counts, and photo ids`,
      );
    if (new Set(photos).size < photos.length)
      return this.fault('duplicate', `${INDEX}: photos`, say`each photo may be listed only once`);
    return { format: ARCHIVE_FORMAT, version: ARCHIVE_VERSION, site, timers, photos };
  }

  /** Whether the archive holds exactly the files its index names. Nothing is unpacked for this. */
  private isComplete({ timers, photos }: Index): boolean {
    const parts = timers.flatMap(({ visits }, i) => {
      const files = filesOf(i, visits);
      return [files.plan, files.survey, ...files.visits];
    });
    const named = new Set([INDEX, ...parts, ...photos.map(photoFile)]);
    const there = new Set(this.zip.names);
    for (const name of named)
      if (!there.has(name))
        this.fault('missing-part', name, say`this part is missing from the archive`);
    for (const name of there)
      if (!named.has(name))
        this.fault('unknown-field', name, say`this does not belong in a site archive`);
    return this.faults.length === 0;
  }

  async contents(): Promise<Contents | null> {
    const index = await this.index();
    if (!index || !this.isComplete(index)) return null;
    const timers = [];
    for (const [i, { visits: count, name: called = '' }] of index.timers.entries()) {
      const files = filesOf(i, count);
      const visits: (ClosedVisit | null)[] = [];
      const plan = await this.read(files.plan, readPlan);
      const survey = await this.read(files.survey, readSurvey);
      for (const name of files.visits) visits.push(await this.read(name, readClosedVisit));
      timers.push({ name: called, plan, survey, visits });
    }
    const photos: { id: string; content: PhotoContent }[] = [];
    for (const id of index.photos) {
      const content = await this.photo(photoFile(id));
      if (content) photos.push({ id, content });
    }
    if (this.faults.length > 0) return null;
    // Safe casts: missing parts are faults.
    return { site: presentSite(index.site), timers: timers as Contents['timers'], photos };
  }

  private async photo(name: string): Promise<PhotoContent | null> {
    const bytes = await this.zip.read(name);
    try {
      return bytes && (await photoContent(bytes));
    } catch (error) {
      if (!(error instanceof NoPhoto)) throw error;
      return this.fault('not-a-photo', name, error.message);
    }
  }
}

export async function readArchive(bytes: Uint8Array): Promise<ReadArchive> {
  try {
    const zip = await Zip.open(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length));
    const reader = new ArchiveReader(zip);
    const contents = await reader.contents();
    return contents ? { contents } : { faults: reader.faults };
  } catch (error) {
    if (!(error instanceof BadZip)) throw error;
    return {
      faults: [{ code: 'malformed', path: error.file ?? 'document', message: error.message }],
    };
  }
}
