import { Injectable } from '@nestjs/common';
import { readPlan, siteFields, type Plan, type SiteFields, say } from '@water-clock/core';
import { DataSource, type EntityManager } from 'typeorm';
import { LibraryEntry, type Shelf } from '../library/library-entry.entity.ts';
import { claimId, idempotentWrite } from '../changes/record.ts';
import type { Actor } from '../identity/actor.ts';
import { ApiError, apiFaults, notAccepted, notFound } from '../http/api-error.ts';
import { Timer } from './timer.entity.ts';
import { literally } from '../platform/search.ts';
import type { ChangeSiteBody, NewSiteBody, SiteBody, SitesQuery } from './site-body.ts';
import { Site } from './site.entity.ts';

export interface SiteView extends SiteFields {
  readonly id: string;
  readonly version: number;
}

/** Enough for a picker; people narrow it down by typing. */
const MOST_LISTED = 100;

export const siteView = (site: SiteView): SiteView => ({
  id: site.id,
  version: site.version,
  ...siteFields(site),
});

/** Shelf to which each reference of a site points. */
const REFERENCES = {
  climateId: 'climates',
  rulesId: 'rules',
  minutesId: 'minutes',
} as const satisfies Partial<Record<keyof SiteFields, Shelf>>;

/** References of a site that point to nothing in the company's library. */
export async function danglingReferences(
  database: EntityManager,
  companyId: string,
  site: SiteFields,
): Promise<(keyof typeof REFERENCES)[]> {
  const dangling: (keyof typeof REFERENCES)[] = [];
  for (const [field, shelf] of Object.entries(REFERENCES)) {
    // Safe cast: the entries are those of the table.
    const key = field as keyof typeof REFERENCES;
    const id = site[key];
    if (id !== null && !(await database.existsBy(LibraryEntry, { companyId, id, shelf })))
      dangling.push(key);
  }
  return dangling;
}

/**
 * A site ready to save.
 *
 * @param path of the site in the request
 * @throws ApiError 422 if a reference points to nothing or the weather has two sources
 */
export async function soundSite(
  database: EntityManager,
  companyId: string,
  body: SiteBody,
  path = 'site',
): Promise<SiteFields> {
  const site = siteFields(body);
  const faults = (await danglingReferences(database, companyId, site)).map((field) => ({
    code: 'unknown-document',
    path: `${path}.${field}`,
    message: `there is no such document among the ${REFERENCES[field]} of your library; choose one that is there, or null`,
  }));
  if (site.town !== null && site.climateId !== null)
    faults.push({
      code: 'two-weathers',
      path: `${path}.climateId`,
      message: say`a site has a town or a climate, not both; leave one of them out`,
    });
  if (faults.length > 0) throw notAccepted(faults);
  return site;
}

/** A site's columns, with lists the database may keep. */
export const columnsOf = ({ mowing, people, ...site }: SiteFields) => ({
  ...site,
  mowing: [...mowing],
  people: [...people],
});

/** A validated plan document without its `site`; fault paths start below `plan`. */
export function readPlanBody(value: unknown): Plan {
  const read = readPlan(value);
  if (!read.ok) throw notAccepted(apiFaults(read.faults, ['plan']));
  const { site: _site, ...plan } = read.value;
  return plan;
}

@Injectable()
export class SitesService {
  constructor(private readonly database: DataSource) {}

  /** The first sites by name that contain all words. */
  async list({ companyId }: Actor, { find = '', state = 'kept' }: SitesQuery): Promise<SiteView[]> {
    const query = this.database.manager
      .createQueryBuilder(Site, 's')
      .where('s.companyId = :companyId', { companyId })
      .andWhere(`s.archivedAt is ${state === 'kept' ? '' : 'not'} null`);
    for (const [i, word] of find.split(/\s+/u).filter(Boolean).entries())
      query.andWhere(
        `concat_ws(' ', s.name, s.houseNumber, s.street, s.locality) ilike :word${i}`,
        { [`word${i}`]: `%${literally(word)}%` },
      );
    const sites = await query.orderBy('s.name').addOrderBy('s.id').take(MOST_LISTED).getMany();
    return sites.map(siteView);
  }

  async add(actor: Actor, body: NewSiteBody): Promise<{ siteId: string; timerId: string }> {
    const { companyId } = actor;
    const siteId = body.siteId.toLowerCase();
    const timerId = body.timerId.toLowerCase();
    const plan = readPlanBody(body.plan);
    const answer = { siteId, timerId };
    return idempotentWrite(this.database, actor, {
      // The site's id is also the id of the write.
      id: siteId,
      meaning: ['site', siteId, timerId, siteFields(body.site), plan],
      again: () => answer,
      make: async (database, written) => {
        await claimId(database, actor, Site, siteId, 'site');
        await claimId(database, actor, Timer, timerId, 'timer');
        const site = await soundSite(database, companyId, body.site);
        await database.insert(Site, { companyId, id: siteId, version: 1, ...columnsOf(site) });
        await database.insert(Timer, { companyId, id: timerId, siteId, version: 1, plan });
        await written({ subject: 'site', subjectId: siteId, version: 1 });
        return answer;
      },
    });
  }

  async change(actor: Actor, id: string, body: ChangeSiteBody): Promise<SiteView> {
    const { companyId } = actor;
    return idempotentWrite(this.database, actor, {
      id: body.id.toLowerCase(),
      meaning: ['site', id, body.baseVersion, siteFields(body.site)],
      again: async (_earlier, database) =>
        siteView(await database.findOneByOrFail(Site, { companyId, id })),
      make: async (database, written) => {
        const site = await database.findOne(Site, {
          where: { companyId, id },
          lock: { mode: 'pessimistic_write' },
        });
        if (!site) throw notFound('site');
        if (site.version !== body.baseVersion)
          throw new ApiError({
            code: 'stale-version',
            message: say`someone else changed this site: it is now at version ${site.version}; your change was based on version ${body.baseVersion}`,
            current: siteView(site),
          });
        const fields = await soundSite(database, companyId, body.site);
        const version = site.version + 1;
        await database.update(Site, { companyId, id }, { ...columnsOf(fields), version });
        await written({ subject: 'site', subjectId: id, version });
        return siteView({ ...site, ...fields, version });
      },
    });
  }
}
