import { Controller, Get } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { Fresh, May } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';
import { Answers } from '../http/openapi.ts';
import { MailService, type MailView } from './mail.service.ts';

@May('company')
@Fresh()
@Controller('mails')
export class MailController {
  constructor(private readonly mail: MailService) {}

  /** The company's newest mails; owners can read here what no mail server took. */
  @Answers({ schema: ['Mail'], fails: ['not-allowed'] })
  @Get()
  list(@CurrentActor() actor: Actor): Promise<readonly MailView[]> {
    return this.mail.list(actor.companyId);
  }
}
