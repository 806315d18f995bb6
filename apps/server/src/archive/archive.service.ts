import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import { Injectable } from '@nestjs/common';
import { siteFields, type GivenSite, type SiteFields, say } from '@water-clock/core';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import { DataSource, In, IsNull, Not } from 'typeorm';
import { AuditService } from '../audit/audit.service.ts';
import { claimId, idempotentWrite } from '../changes/record.ts';
import { LibraryEntry } from '../library/library-entry.entity.ts';
import type { Actor } from '../identity/actor.ts';
import { notAccepted, notFound } from '../http/api-error.ts';
import { digestOf } from '../photos/photo-content.ts';
import { Photo } from '../photos/photo.entity.ts';
import { keepPhoto } from '../photos/photos.service.ts';
import { faultsOf } from '../http/validation.ts';
import { SiteBody } from '../sites/site-body.ts';
import { Site } from '../sites/site.entity.ts';
import { columnsOf, danglingReferences } from '../sites/sites.service.ts';
import { Timer } from '../sites/timer.entity.ts';
import { VisitRow } from '../visits/visit.entity.ts';
import { WorkService } from '../work/work.service.ts';
import {
  COMPANY_FORMAT,
  COMPANY_INDEX,
  COMPANY_VERSION,
  folderOf,
  INDEX,
  type CompanyIndex,
} from '../formats/archive-format.ts';
import { zipStream } from '../formats/zip.ts';

/** Ids of the photos in a record: every list named `photos`. */
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
 * Derives an id from another, so that importing an archive twice under one id makes the same rows. A name-based UUID (RFC 9562 section 5.5)
 * with SHA-256 as its hash.
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

/**
 * The site in an archive, checked by the rules for sites.
 *
 * @throws ApiError 422
 */
async function soundSite(value: object): Promise<SiteFields> {
  const site = plainToInstance(SiteBody, value);
  const errors = await validate(site, { whitelist: true, forbidNonWhitelisted: true });
  const faults = faultsOf(errors, 'site').map((fault) => ({
    ...fault,
    path: `${INDEX}: ${fault.path}`,
  }));
  if (faults.length > 0) throw notAccepted(faults);
  return siteFields(site);
}

@Injectable()
export class ArchiveService {
  constructor(
    private readonly database: DataSource,
    private readonly work: WorkService,
    private readonly audit: AuditService,
  ) {}

  async write(actor: Actor, id: string): Promise<{ name: string; bytes: Buffer }> {
    const { companyId, personId } = actor;
    const written = await this.pack(companyId, id, false);
    await this.audit.note({ companyId, personId, what: 'export', subjectId: id });
    return written;
  }

  /** The whole company as a stream; each site is packed when its turn comes. */
  async writeCompany({ companyId, companyName, personId }: Actor): Promise<Readable> {
    const { manager } = this.database;
    const library = await manager.find(LibraryEntry, {
      where: { companyId, document: Not(IsNull()) },
      order: { shelf: 'asc', id: 'asc' },
    });
    const sites = await manager.find(Site, {
      where: { companyId },
      select: { companyId: true, id: true, name: true },
      order: { id: 'asc' },
    });
    await this.audit.note({ companyId, personId, what: 'export', subjectId: companyId });
    const index: CompanyIndex = {
      ...{ format: COMPANY_FORMAT, version: COMPANY_VERSION, name: companyName },
      library: library.flatMap(({ shelf, id, document }) =>
        document ? [{ shelf, id, document }] : [],
      ),
      sites: sites.map(({ id, name }) => ({ id, name })),
    };
    return zipStream([
      { name: COMPANY_INDEX, bytes: () => Promise.resolve(Buffer.from(JSON.stringify(index))) },
      ...sites.map(({ id }) => ({
        name: `sites/${id}.zip`,
        bytes: async () => (await this.pack(companyId, id, true)).bytes,
      })),
    ]);
  }

  private async pack(
    companyId: string,
    id: string,
    inBackground: boolean,
  ): Promise<{ name: string; bytes: Buffer }> {
    const { manager } = this.database;
    const site = await manager.findOneBy(Site, { companyId, id });
    if (!site) throw notFound('site');
    const rows = await manager.find(Timer, {
      where: { companyId, siteId: id },
      order: { id: 'asc' },
    });
    const visits = await manager.find(VisitRow, {
      where: { companyId, timerId: In(rows.map((timer) => timer.id)) },
      order: { began: 'asc', at: 'asc' },
    });
    const timers = rows.map(({ id: timerId, name, plan, survey }) => ({
      name,
      plan,
      survey,
      visits: visits.filter((visit) => visit.timerId === timerId).map(({ document }) => document),
    }));
    const photos = await manager.find(Photo, {
      where: { companyId, id: In([...new Set(photosIn(timers))]) },
      order: { id: 'asc' },
    });
    const bytes = await this.work.run(
      companyId,
      'pack',
      {
        site: siteFields(site),
        timers,
        photos: photos.map((photo) => ({ id: photo.id, bytes: photo.bytes })),
      },
      { inBackground },
    );
    return { name: site.name, bytes: Buffer.from(bytes) };
  }

  async read(
    actor: Actor,
    siteId: string,
    body: unknown,
  ): Promise<{ siteId: string; timerIds: string[] }> {
    if (!Buffer.isBuffer(body) || body.length === 0)
      throw notAccepted([
        { code: 'malformed', path: 'document', message: say`no ZIP file was received` },
      ]);
    const { companyId, personId } = actor;
    const read = await this.work.run(companyId, 'unpack', body);
    if ('faults' in read) throw notAccepted(read.faults);
    const { contents } = read;
    const given = await soundSite(contents.site);
    const timerIds = contents.timers.map((_, i) => idFrom(siteId, folderOf(i)));
    const answer = { siteId, timerIds };
    return idempotentWrite(this.database, actor, {
      id: siteId,
      meaning: ['archive', siteId, digestOf(body)],
      again: () => answer,
      make: async (database, written) => {
        await claimId(database, actor, Site, siteId, 'site');
        // An archive has no library, so a reference to a document that does not exist here is dropped.
        const dangling = await danglingReferences(database, companyId, given);
        const site: GivenSite = {
          ...given,
          ...Object.fromEntries(dangling.map((field) => [field, null])),
        };
        const columns = columnsOf(siteFields(site));
        await database.insert(Site, { companyId, id: siteId, version: 1, ...columns });
        for (const { id, content } of contents.photos)
          await keepPhoto(database, actor, id, { ...content, bytes: Buffer.from(content.bytes) });
        for (const [i, { name, plan, survey, visits }] of contents.timers.entries()) {
          const { site: _site, ...bare } = plan;
          const id = timerIds[i] ?? siteId;
          await database.insert(Timer, {
            ...{ companyId, id, siteId, version: 1 },
            ...{ name, plan: bare, survey },
          });
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
}
