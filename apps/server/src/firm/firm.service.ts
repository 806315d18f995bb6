import { say } from '@water-clock/core';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { AuditService } from '../people/audit.service.ts';
import { idempotentWrite } from '../changes/record.ts';
import type { Actor } from '../people/actor.ts';
import { Company } from '../people/company.entity.ts';
import { ApiError } from '../platform/api-error.ts';
import type { ChangeFirmBody } from './firm-body.ts';

export interface FirmView {
  readonly name: string;
  readonly version: number;
  /** Days after which the record of changes is thinned; null: never. */
  readonly keepChangesDays: number | null;
}

const firmView = ({ name, version, keepChangesDays }: Company): FirmView => ({
  name,
  version,
  keepChangesDays,
});

/** What an owner decides for the whole firm. */
@Injectable()
export class FirmService {
  constructor(
    private readonly database: DataSource,
    private readonly audit: AuditService,
  ) {}

  async one({ companyId }: Actor): Promise<FirmView> {
    return firmView(await this.database.manager.findOneByOrFail(Company, { id: companyId }));
  }

  async change(
    actor: Actor,
    { id, baseVersion, keepChangesDays }: ChangeFirmBody,
  ): Promise<FirmView> {
    const { companyId, personId } = actor;
    return idempotentWrite(this.database, actor, {
      id: id.toLowerCase(),
      meaning: ['firm', baseVersion, keepChangesDays],
      again: async (_earlier, database) =>
        firmView(await database.findOneByOrFail(Company, { id: companyId })),
      make: async (database, written) => {
        const company = await database.findOneOrFail(Company, {
          where: { id: companyId },
          lock: { mode: 'pessimistic_write' },
        });
        if (company.version !== baseVersion)
          throw new ApiError({
            code: 'stale-version',
            message: say`the settings of the firm were changed by somebody else: they are now at version ${company.version}; your change was based on version ${baseVersion}`,
            current: firmView(company),
          });
        const version = company.version + 1;
        await database.update(Company, { id: companyId }, { version, keepChangesDays });
        await written({ subject: 'company', subjectId: companyId, version });
        await this.audit.note({ companyId, personId, what: 'setting' }, database);
        return firmView({ ...company, version, keepChangesDays });
      },
    });
  }
}
