import { Body, Controller, Get, HttpCode, Post } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { May } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';
import { Answers, JSON_WRITE } from '../http/openapi.ts';
import { ChangeCompanyBody } from './company-body.ts';
import { CompanyService, type CompanyView } from './company.service.ts';

@May('company')
@Controller('company')
export class CompanyController {
  constructor(private readonly company: CompanyService) {}

  @Answers({ schema: 'Company', fails: ['not-allowed'] })
  @Get()
  one(@CurrentActor() actor: Actor): Promise<CompanyView> {
    return this.company.one(actor);
  }

  @Answers({
    schema: 'Company',
    fails: [...JSON_WRITE, 'stale-version', 'id-reused'],
  })
  @Post('changes')
  @HttpCode(200)
  change(@CurrentActor() actor: Actor, @Body() body: ChangeCompanyBody): Promise<CompanyView> {
    return this.company.change(actor, body);
  }
}
