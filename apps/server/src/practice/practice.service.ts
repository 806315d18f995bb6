import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Actor } from '../identity/actor.ts';
import { isAllowed } from '../identity/rights.ts';
import { ApiError } from '../http/api-error.ts';
import type { PracticeBody } from './practice-body.ts';
import { PracticeResult } from './practice-result.entity.ts';

/** A person's best result, count and last date for a task. */
export interface PracticeView {
  readonly personId: string;
  readonly person: string;
  readonly task: string;
  readonly title: string;
  readonly points: number;
  readonly times: number;
  readonly lastAt: string;
}

/** Results of bench tasks. */
@Injectable()
export class PracticeService {
  constructor(private readonly database: DataSource) {}

  /** One's own; everyone's for people who look after sites, since they teach. */
  async list({ companyId, personId, role }: Actor): Promise<PracticeView[]> {
    const rows: (Omit<PracticeView, 'lastAt'> & { readonly lastAt: Date })[] =
      await this.database.query(
        `select r.person_id as "personId", p.name as person, r.task, max(r.title) as title, max(r.points) as points,
           count(*)::int as times, max(r.at) as "lastAt"
         from practice_results r join people p on p.company_id = r.company_id and p.id = r.person_id
         where r.company_id = $1 and ($2::uuid is null or r.person_id = $2)
         group by r.person_id, p.name, r.task order by p.name, r.person_id, r.task`,
        [companyId, isAllowed(role, 'work') ? null : personId],
      );
    return rows.map((row) => ({ ...row, lastAt: row.lastAt.toISOString() }));
  }

  /** Sent again under its id, it counts once. */
  async add(actor: Actor, { id: given, ...result }: PracticeBody): Promise<PracticeView[]> {
    const id = given.toLowerCase();
    const { companyId, personId } = actor;
    const { manager } = this.database;
    await manager
      .createQueryBuilder()
      .insert()
      .into(PracticeResult)
      .values({ companyId, id, personId, ...result })
      .orIgnore()
      .execute();
    const row = await manager.findOneByOrFail(PracticeResult, { companyId, id });
    if (row.personId !== personId || row.task !== result.task || row.points !== result.points)
      throw new ApiError({
        code: 'id-reused',
        message: 'another result has this id; every result needs an id of its own',
      });
    return this.list(actor);
  }
}
