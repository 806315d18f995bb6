import { Body, Controller, Get, HttpCode, Post } from '@nestjs/common';
import type { Actor } from '../people/actor.ts';
import { May } from '../people/rights.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { Answers, JSON_WRITE } from '../platform/openapi.ts';
import { ChangeFirmBody } from './firm-body.ts';
import { FirmService, type FirmView } from './firm.service.ts';

@May('firm')
@Controller('firm')
export class FirmController {
  constructor(private readonly firm: FirmService) {}

  @Answers({ schema: 'Firm', fails: ['not-allowed'] })
  @Get()
  one(@CurrentActor() actor: Actor): Promise<FirmView> {
    return this.firm.one(actor);
  }

  @Answers({
    schema: 'Firm',
    fails: [...JSON_WRITE, 'stale-version', 'id-reused'],
  })
  @Post('changes')
  @HttpCode(200)
  change(@CurrentActor() actor: Actor, @Body() body: ChangeFirmBody): Promise<FirmView> {
    return this.firm.change(actor, body);
  }
}
