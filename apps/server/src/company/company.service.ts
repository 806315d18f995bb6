import { say } from '@water-clock/core';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { AuditService } from '../audit/audit.service.ts';
import { idempotentWrite } from '../changes/record.ts';
import type { Actor } from '../identity/actor.ts';
import { Company } from '../identity/company.entity.ts';
import { ApiError } from '../http/api-error.ts';
import type { ChangeCompanyBody } from './company-body.ts';

export interface CompanyView {
  readonly name: string;
  readonly version: number;
  /** Days after which old changes are thinned out; null: never. */
  readonly keepChangesDays: number | null;
}

const companyView = ({ name, version, keepChangesDays }: Company): CompanyView => ({
  name,
  version,
  keepChangesDays,
});

/** Settings an owner decides for the company. */
@Injectable()
export class CompanyService {
  constructor(
    private readonly database: DataSource,
    private readonly audit: AuditService,
  ) {}

  async one({ companyId }: Actor): Promise<CompanyView> {
    return companyView(await this.database.manager.findOneByOrFail(Company, { id: companyId }));
  }

  async change(
    actor: Actor,
    { id, baseVersion, keepChangesDays }: ChangeCompanyBody,
  ): Promise<CompanyView> {
    const { companyId, personId } = actor;
    return idempotentWrite(this.database, actor, {
      id: id.toLowerCase(),
      meaning: ['company', baseVersion, keepChangesDays],
      again: async (_earlier, database) =>
        companyView(await database.findOneByOrFail(Company, { id: companyId })),
      make: async (database, written) => {
        const company = await database.findOneOrFail(Company, {
          where: { id: companyId },
          lock: { mode: 'pessimistic_write' },
        });
        if (company.version !== baseVersion)
          throw new ApiError({
            code: 'stale-version',
            message: say`someone else changed the company settings: they are now at version ${company.version}; your change was based on version ${baseVersion}`,
            current: companyView(company),
          });
        const version = company.version + 1;
        await database.update(Company, { id: companyId }, { version, keepChangesDays });
        await written({ subject: 'company', subjectId: companyId, version });
        await this.audit.note({ companyId, personId, what: 'setting' }, database);
        return companyView({ ...company, version, keepChangesDays });
      },
    });
  }
}
