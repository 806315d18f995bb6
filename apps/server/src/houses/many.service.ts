import { say } from '@water-clock/core';
import { Injectable } from '@nestjs/common';
import { DataSource, In, IsNull, Not, type EntityManager } from 'typeorm';
import { idempotentWrite } from '../changes/record.ts';
import { LibraryEntry } from '../library/library-entry.entity.ts';
import type { Actor } from '../identity/actor.ts';
import { Person } from '../identity/person.entity.ts';
import { ApiError, notAccepted, notFound } from '../http/api-error.ts';
import { Site } from '../sites/site.entity.ts';
import type { ManyBody, ManyTo } from './many-body.ts';

const unknown = (path: string, message: string) =>
  notAccepted([{ code: 'unknown-document', path: `to.${path}`, message }]);

/** Makes the same change on many sites; all or none. */
@Injectable()
export class ManyService {
  constructor(private readonly database: DataSource) {}

  async change(actor: Actor, { id, sites, to }: ManyBody): Promise<{ changed: number }> {
    const { companyId } = actor;
    const wanted = new Map(sites.map((one) => [one.id.toLowerCase(), one.baseVersion]));
    const ids = [...wanted.keys()].sort();
    const answer = { changed: ids.length };
    return idempotentWrite(this.database, actor, {
      id: id.toLowerCase(),
      meaning: ['many-sites', [...wanted].sort(), to],
      again: () => answer,
      make: async (database, written) => {
        const columns = await columnsOf(database, companyId, to);
        const rows = await database.find(Site, {
          where: { companyId, id: In(ids) },
          select: { companyId: true, id: true, version: true, name: true },
          order: { id: 'asc' },
          lock: { mode: 'pessimistic_write' },
        });
        if (rows.length < ids.length) throw notFound('site');
        const stale = rows.filter((row) => row.version !== wanted.get(row.id));
        const [first] = stale;
        if (first)
          throw new ApiError({
            code: 'stale-version',
            message: say`${stale.length} of these sites were changed by someone else, including ${first.name}; nothing was changed now`,
            current: stale.map(({ id: siteId, version }) => ({ id: siteId, version })),
          });
        if (columns.archivedAt) await assertNoVisit(database, companyId, ids);
        await database.update(
          Site,
          { companyId, id: In(ids) },
          { ...columns, version: () => 'version + 1' },
        );
        const [one] = rows;
        if (one) await written({ subject: 'site', subjectId: one.id, version: one.version + 1 });
        return answer;
      },
    });
  }
}

async function columnsOf(
  database: EntityManager,
  companyId: string,
  to: ManyTo,
): Promise<Partial<Pick<Site, 'rulesId' | 'personId' | 'archivedAt'>>> {
  const { rulesId, personId, isArchived } = to;
  const given = [rulesId, personId, isArchived].filter((one) => one !== undefined);
  if (given.length !== 1)
    throw notAccepted([
      { code: 'missing', path: 'to', message: 'send one of rulesId, personId and isArchived' },
    ]);
  if (rulesId) {
    const where = { companyId, id: rulesId, shelf: 'rules' as const, document: Not(IsNull()) };
    if (!(await database.existsBy(LibraryEntry, where)))
      throw unknown('rulesId', say`these rules are not in your library`);
  }
  if (
    personId &&
    !(await database.existsBy(Person, { companyId, id: personId, takenOutAt: IsNull() }))
  )
    throw unknown('personId', say`this person is not in your company`);
  if (rulesId !== undefined) return { rulesId };
  return personId === undefined ? { archivedAt: isArchived ? new Date() : null } : { personId };
}

async function assertNoVisit(
  database: EntityManager,
  companyId: string,
  ids: readonly string[],
): Promise<void> {
  const [busy]: { name: string }[] = await database.query(
    `select s.name from timers t join sites s on s.company_id = t.company_id and s.id = t.site_id
     where t.company_id = $1 and t.site_id = any($2) and t.survey ? 'visit' order by s.name limit 1`,
    [companyId, ids],
  );
  if (busy)
    throw new ApiError({
      code: 'visit-open',
      message: say`a visit at ${busy.name} is in progress; close it first. Nothing was archived.`,
    });
}
