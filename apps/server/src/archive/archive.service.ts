import { isUtf8 } from 'node:buffer';
import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import {
  readClosedVisit,
  readPlan,
  readSurvey,
  siteFields,
  type ClosedVisit,
  type GivenSite,
  type Outcome,
  type Plan,
  type SiteFields,
  type Survey,
} from '@water-clock/core';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import { DataSource, In } from 'typeorm';
import { claimId, writeOnce } from '../changes/record.ts';
import type { Actor } from '../people/actor.ts';
import { apiFaults, notAccepted, notFound, type ApiFault } from '../platform/api-error.ts';
import { bodyFault } from '../platform/body.ts';
import { faultsOf } from '../platform/validation.ts';
import { digestOf, NoPhoto, photoContent, type PhotoContent } from '../photos/photo-content.ts';
import { Photo } from '../photos/photo.entity.ts';
import { keepPhoto } from '../photos/photos.service.ts';
import { SiteBody } from '../sites/site-body.ts';
import { Site } from '../sites/site.entity.ts';
import { columnsOf, danglingReferences } from '../sites/sites.service.ts';
import { Timer } from '../sites/timer.entity.ts';
import { VisitRow } from '../visits/visit.entity.ts';
import { BadZip, unzip, zipped } from './zip.ts';

export const ARCHIVE_FORMAT = 'water-clock-site';
export const ARCHIVE_VERSION = 1;
const INDEX = 'site.json';

/** The list of contents, at the root of the archive. */
interface Index {
  readonly format: typeof ARCHIVE_FORMAT;
  readonly version: typeof ARCHIVE_VERSION;
  readonly site: object;
  /** How many visits of each timer there are, in its folder `timers/N/`. */
  readonly timers: readonly { readonly visits: number }[];
  readonly photos: readonly string[];
}

interface Contents {
  readonly site: SiteFields;
  readonly timers: readonly {
    readonly plan: Plan;
    readonly survey: Survey;
    readonly visits: readonly ClosedVisit[];
  }[];
  readonly photos: readonly { readonly id: string; readonly content: PhotoContent }[];
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const json = (value: unknown) => Buffer.from(`${JSON.stringify(value, null, 2)}\n`);
const folderOf = (index: number) => `timers/${index + 1}`;
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** Ids of photos anywhere in a record: lists under the name `photos`. */
function photosIn(value: unknown): string[] {
  if (Array.isArray(value)) return value.flatMap(photosIn);
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, child]) =>
    key === 'photos' && Array.isArray(child)
      ? child.filter((one): one is string => typeof one === 'string')
      : photosIn(child),
  );
}

/**
 * An id derived from another one, so that the same archive under the same id makes the same rows: a UUID by name, with the
 * version and variant that one has (RFC 9562, 5.5; the hash is SHA-256).
 */
function idFrom(id: string, name: string): string {
  const hash = createHash('sha256').update(`${id} ${name}`).digest('hex');
  const parts = [
    hash.slice(0, 8),
    hash.slice(8, 12),
    `5${hash.slice(13, 16)}`,
    `a${hash.slice(17, 20)}`,
    hash.slice(20, 32),
  ];
  return parts.join('-');
}

/** A site of an earlier archive had its weather in one field: a town, or the id of a climate. */
function presentSite(site: object): object {
  if (!('place' in site)) return site;
  const { place, ...rest } = site;
  const isClimate = typeof place === 'string' && UUID.test(place);
  return { ...rest, [isClimate ? 'climateId' : 'town']: place };
}

/** What an archive holds, or everything that is wrong with it, by file. */
class ArchiveReader {
  readonly faults: ApiFault[] = [];
  private readonly files: ReadonlyMap<string, Buffer>;
  private readonly used = new Set<string>();

  constructor(files: ReadonlyMap<string, Buffer>) {
    this.files = files;
  }

  private fault(code: string, path: string, message: string): null {
    this.faults.push({ code, path, message });
    return null;
  }

  /** A document as JSON; null, and a fault, where it is missing or is no object. */
  private json(name: string): object | null {
    this.used.add(name);
    const bytes = this.files.get(name);
    if (!bytes) return this.fault('missing-part', name, 'this part is missing from the archive');
    if (!isUtf8(bytes)) return this.fault('not-json', name, 'this is not UTF-8');
    let value: unknown;
    try {
      value = JSON.parse(bytes.toString('utf8'));
    } catch (error) {
      return this.fault('not-json', name, `this is not JSON: ${String(error)}`);
    }
    const unsafe = bodyFault(value);
    if (unsafe) return this.fault(unsafe.code, `${name}: ${unsafe.path}`, unsafe.message);
    return isRecord(value) ? value : this.fault('malformed', name, 'this must be an object');
  }

  private read<T>(name: string, reader: (value: unknown) => Outcome<T>): T | null {
    const value = this.json(name);
    if (value === null) return null;
    const read = reader(value);
    if (read.ok) return read.value;
    const told = apiFaults(read.faults, []);
    this.faults.push(...told.map((fault) => ({ ...fault, path: `${name}: ${fault.path}` })));
    return null;
  }

  private index(): Index | null {
    const value: Partial<Index> | null = this.json(INDEX);
    if (value === null) return null;
    if (value.format !== ARCHIVE_FORMAT)
      return this.fault('not-one-of', `${INDEX}: format`, `must be "${ARCHIVE_FORMAT}"`);
    if (value.version !== ARCHIVE_VERSION)
      return this.fault(
        'wrong-version',
        `${INDEX}: version`,
        `version ${JSON.stringify(value.version)} is not supported; version ${ARCHIVE_VERSION} is`,
      );
    const { timers, photos, site } = value;
    const isCount = (visits: unknown) =>
      Number.isInteger(visits) && Number(visits) >= 0 && Number(visits) <= 1000;
    const sound =
      isRecord(site) &&
      Array.isArray(timers) &&
      timers.length <= 100 &&
      timers.every((timer: unknown) => isRecord(timer) && isCount(timer['visits'])) &&
      Array.isArray(photos) &&
      photos.every((id) => typeof id === 'string' && UUID.test(id));
    if (!sound)
      return this.fault(
        'malformed',
        INDEX,
        'this must hold site, timers with their numbers of visits, and the ids of photos',
      );
    if (new Set(photos).size < photos.length)
      return this.fault('duplicate', `${INDEX}: photos`, 'each photo may be named once');
    return { format: ARCHIVE_FORMAT, version: ARCHIVE_VERSION, site, timers, photos };
  }

  async contents(): Promise<Contents | null> {
    const index = this.index();
    if (!index) return null;
    const site = plainToInstance(SiteBody, presentSite(index.site));
    const errors = await validate(site, { whitelist: true, forbidNonWhitelisted: true });
    for (const fault of faultsOf(errors, 'site'))
      this.fault(fault.code, `${INDEX}: ${fault.path}`, fault.message);
    const timers = index.timers.map(({ visits }, i) => {
      const folder = folderOf(i);
      return {
        plan: this.read(`${folder}/timer.plan.json`, readPlan),
        survey: this.read(`${folder}/survey.json`, readSurvey),
        visits: Array.from({ length: visits }, (_, k) =>
          this.read(`${folder}/visits/${k + 1}.json`, readClosedVisit),
        ),
      };
    });
    const photos: { id: string; content: PhotoContent }[] = [];
    for (const id of index.photos) {
      const name = `photos/${id}`;
      this.used.add(name);
      const bytes = this.files.get(name);
      if (!bytes) {
        this.fault('missing-part', name, 'this photo is missing from the archive');
        continue;
      }
      try {
        photos.push({ id, content: await photoContent(bytes) });
      } catch (error) {
        if (!(error instanceof NoPhoto)) throw error;
        this.fault('not-a-photo', name, error.message);
      }
    }
    for (const name of this.files.keys())
      if (!this.used.has(name))
        this.fault('unknown-field', name, 'this does not belong in the archive of a site');
    if (this.faults.length > 0) return null;
    // The casts hold because whatever is missing is a fault.
    return { site: siteFields(site), timers: timers as Contents['timers'], photos };
  }
}

@Injectable()
export class ArchiveService {
  constructor(private readonly database: DataSource) {}

  async write({ companyId }: Actor, id: string): Promise<{ name: string; bytes: Buffer }> {
    const { manager } = this.database;
    const site = await manager.findOneBy(Site, { companyId, id });
    if (!site) throw notFound('site');
    const timers = await manager.find(Timer, {
      where: { companyId, siteId: id },
      order: { id: 'asc' },
    });
    const visits = await manager.find(VisitRow, {
      where: { companyId, timerId: In(timers.map((timer) => timer.id)) },
      order: { began: 'asc', at: 'asc' },
    });
    const files = new Map<string, Buffer>();
    const named = new Set<string>();
    const index: { visits: number }[] = [];
    timers.forEach(({ id: timerId, plan, survey }, i) => {
      const folder = folderOf(i);
      const own = visits.filter((visit) => visit.timerId === timerId);
      index.push({ visits: own.length });
      files.set(`${folder}/timer.plan.json`, json(plan));
      files.set(`${folder}/survey.json`, json(survey));
      own.forEach(({ document }, k) => files.set(`${folder}/visits/${k + 1}.json`, json(document)));
      for (const photo of photosIn([survey, own.map(({ document }) => document)])) named.add(photo);
    });
    const photos = await manager.find(Photo, {
      where: { companyId, id: In([...named]) },
      order: { id: 'asc' },
    });
    for (const photo of photos) files.set(`photos/${photo.id}`, photo.bytes);
    const contents: Index = {
      format: ARCHIVE_FORMAT,
      version: ARCHIVE_VERSION,
      site: siteFields(site),
      timers: index,
      photos: photos.map((photo) => photo.id),
    };
    return { name: site.name, bytes: await zipped(new Map([[INDEX, json(contents)], ...files])) };
  }

  async read(
    actor: Actor,
    siteId: string,
    body: unknown,
  ): Promise<{ siteId: string; timerIds: string[] }> {
    if (!Buffer.isBuffer(body) || body.length === 0)
      throw notAccepted([{ code: 'malformed', path: 'document', message: 'no ZIP file was sent' }]);
    const contents = await this.contentsOf(body);
    const { companyId, personId } = actor;
    const timerIds = contents.timers.map((_, i) => idFrom(siteId, folderOf(i)));
    const answer = { siteId, timerIds };
    return writeOnce(this.database, actor, {
      id: siteId,
      meaning: ['archive', siteId, digestOf(body)],
      again: () => answer,
      make: async (database, written) => {
        await claimId(database, actor, Site, siteId, 'site');
        // An archive has no library: a reference without a document here stays empty.
        const dangling = await danglingReferences(database, companyId, contents.site);
        const site: GivenSite = {
          ...contents.site,
          ...Object.fromEntries(dangling.map((field) => [field, null])),
        };
        const columns = columnsOf(siteFields(site));
        await database.insert(Site, { companyId, id: siteId, version: 1, ...columns });
        for (const { id, content } of contents.photos)
          await keepPhoto(database, actor, id, content);
        for (const [i, { plan, survey, visits }] of contents.timers.entries()) {
          const { site: _site, ...bare } = plan;
          const id = timerIds[i] ?? siteId;
          await database.insert(Timer, { companyId, id, siteId, version: 1, plan: bare, survey });
          for (const [k, document] of visits.entries())
            await database.insert(VisitRow, {
              companyId,
              id: idFrom(id, `visit ${k + 1}`),
              timerId: id,
              personId,
              began: document.began,
              document,
            });
        }
        await written({ subject: 'site', subjectId: siteId, version: 1 });
        return answer;
      },
    });
  }

  private async contentsOf(body: Buffer): Promise<Contents> {
    let reader: ArchiveReader;
    try {
      reader = new ArchiveReader(await unzip(body));
    } catch (error) {
      if (!(error instanceof BadZip)) throw error;
      throw notAccepted([
        { code: 'malformed', path: error.file ?? 'document', message: error.message },
      ]);
    }
    const contents = await reader.contents();
    if (!contents) throw notAccepted(reader.faults);
    return contents;
  }
}
