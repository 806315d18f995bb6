import { Controller, Get } from '@nestjs/common';
import type { Actor } from './actor.ts';
import { May } from './rights.ts';
import { CurrentActor } from './session.guard.ts';
import { Answers } from '../platform/openapi.ts';
import { IdQuery } from '../platform/parameters.ts';
import { AuditService, type AuditView } from './audit.service.ts';

@Controller('audit')
export class AuditController {
  constructor(private readonly audit: AuditService) {}

  /** The audit record, a hundred entries at a time, the latest first; `before` is the id of an entry, for those before it. */
  @Answers({ schema: ['AuditEntry'], fails: ['malformed-request', 'not-allowed'] })
  @May('firm')
  @Get()
  list(
    @CurrentActor() actor: Actor,
    @IdQuery('before') before: string | null,
  ): Promise<AuditView[]> {
    return this.audit.list(actor.companyId, before);
  }
}
