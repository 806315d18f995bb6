import { Controller, Get } from '@nestjs/common';
import type { Actor } from '../people/actor.ts';
import { May } from '../people/rights.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { Answers } from '../platform/openapi.ts';
import { MailService, type MailView } from './mail.service.ts';

@May('firm')
@Controller('mails')
export class MailController {
  constructor(private readonly mail: MailService) {}

  /** The newest mails of the firm; those that no mail server took can be read here. */
  @Answers({ schema: ['Mail'], fails: ['not-allowed'] })
  @Get()
  list(@CurrentActor() actor: Actor): Promise<readonly MailView[]> {
    return this.mail.list(actor.companyId);
  }
}
