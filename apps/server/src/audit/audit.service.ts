import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import { AuditRow, type Audited } from './audit.entity.ts';

interface Noted {
  readonly companyId: string;
  readonly personId?: string | null;
  readonly what: Audited;
  readonly subjectId?: string;
  /** Set when the subject is being deleted. */
  readonly subjectName?: string;
  readonly address?: string | undefined;
}

export interface AuditView {
  readonly id: string;
  /** ISO instant. */
  readonly at: string;
  readonly what: Audited;
  /** Null for someone without an account. */
  readonly by: string | null;
  /** The site or person the entry is about. */
  readonly about: string | null;
  readonly address: string | null;
}

const PAGE = 100;

/** Writes and reads the activity log. */
@Injectable()
export class AuditService {
  constructor(private readonly database: DataSource) {}

  async note(
    { companyId, personId = null, what, subjectId, subjectName, address }: Noted,
    database: EntityManager = this.database.manager,
  ): Promise<void> {
    const row = { companyId, id: randomUUID(), personId, what };
    await database.insert(AuditRow, {
      ...row,
      subjectId: subjectId ?? null,
      subjectName: subjectName ?? null,
      address: address ?? null,
    });
  }

  /**
   * Returns 100 entries, newest first.
   *
   * @param before id of an entry; only older ones are returned
   */
  async list(companyId: string, before: string | null): Promise<AuditView[]> {
    const query = this.database.manager
      .createQueryBuilder(AuditRow, 'entry')
      .leftJoinAndSelect('entry.person', 'person')
      .where('entry.companyId = :companyId', { companyId })
      .orderBy('entry.at', 'DESC')
      .addOrderBy('entry.id', 'DESC')
      .limit(PAGE);
    if (before)
      query.andWhere(
        `(entry.at, entry.id) <
          (select at, id from audit where company_id = :companyId and id = :before)`,
        { before },
      );
    const rows = await query.getMany();
    const names = await this.namesOf(companyId, rows);
    return rows.map(({ id, at, what, person, subjectId, subjectName, address }) => ({
      id,
      at: at.toISOString(),
      what,
      by: person?.name ?? null,
      about: names.get(subjectId) ?? subjectName,
      address,
    }));
  }

  /** Names of sites and people, by the ids of the timers, sites or people that entries are about. */
  private async namesOf(
    companyId: string,
    rows: readonly AuditRow[],
  ): Promise<ReadonlyMap<string | null, string>> {
    const found: { id: string; name: string }[] = await this.database.query(
      `select id, name from sites where company_id = $1 and id = any($2)
       union all select id, name from people where company_id = $1 and id = any($2)
       union all select t.id, s.name from timers t
         join sites s on s.company_id = t.company_id and s.id = t.site_id
         where t.company_id = $1 and t.id = any($2)`,
      [companyId, rows.map(({ subjectId }) => subjectId)],
    );
    return new Map(found.map(({ id, name }) => [id, name]));
  }
}
