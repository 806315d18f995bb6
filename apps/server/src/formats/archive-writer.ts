/** Packs a site archive. Slow; run in a worker thread. */
import type { SiteFields } from '@water-clock/core';
import {
  ARCHIVE_FORMAT,
  ARCHIVE_VERSION,
  filesOf,
  INDEX,
  photoFile,
  type Contents,
  type Index,
} from './archive-format.ts';
import { zipped } from './zip.ts';

/** The rows of a site for its archive. */
export interface Packed {
  readonly site: SiteFields;
  readonly timers: Contents['timers'];
  readonly photos: readonly { readonly id: string; readonly bytes: Uint8Array }[];
}

const json = (value: unknown) => Buffer.from(`${JSON.stringify(value, null, 2)}\n`);

export function packArchive({ site, timers, photos }: Packed): Promise<Buffer> {
  const index: Index = {
    format: ARCHIVE_FORMAT,
    version: ARCHIVE_VERSION,
    site,
    timers: timers.map(({ name, visits }) => ({
      visits: visits.length,
      ...(name ? { name } : {}),
    })),
    photos: photos.map(({ id }) => id),
  };
  const files = new Map<string, Uint8Array>([[INDEX, json(index)]]);
  timers.forEach(({ plan, survey, visits }, i) => {
    const names = filesOf(i, visits.length);
    files.set(names.plan, json(plan));
    files.set(names.survey, json(survey));
    names.visits.forEach((name, k) => files.set(name, json(visits[k])));
  });
  for (const { id, bytes } of photos) files.set(photoFile(id), bytes);
  return zipped(files);
}
