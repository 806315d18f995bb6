import { Controller, Get } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { May } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';
import { Answers } from '../http/openapi.ts';
import { IdQuery } from '../http/parameters.ts';
import { AuditService, type AuditView } from './audit.service.ts';

@Controller('audit')
export class AuditController {
  constructor(private readonly audit: AuditService) {}

  /** A page of 100 entries, newest first; `before` is the id of the entry that the page ends before. */
  @Answers({ schema: ['AuditEntry'], fails: ['malformed-request', 'not-allowed'] })
  @May('company')
  @Get()
  list(
    @CurrentActor() actor: Actor,
    @IdQuery('before') before: string | null,
  ): Promise<AuditView[]> {
    return this.audit.list(actor.companyId, before);
  }
}
