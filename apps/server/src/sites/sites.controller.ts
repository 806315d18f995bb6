import { Body, Controller, Get, HttpCode, Param, Post, Query } from '@nestjs/common';
import type { Actor } from '../people/actor.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { parseId } from '../platform/validation.ts';
import { ChangeSiteBody, NewSiteBody } from './site-body.ts';
import { SitesService, type SiteSummary, type SiteView } from './sites.service.ts';

@Controller('sites')
export class SitesController {
  constructor(private readonly sites: SitesService) {}

  /** All sites of the company by name, each with its timers and their verdicts. `clock` is how times are written in them. */
  @Get()
  list(@CurrentActor() actor: Actor, @Query('clock') clock?: string): Promise<SiteSummary[]> {
    return this.sites.list(actor, clock === '12' ? '12' : '24');
  }

  @Post()
  @HttpCode(201)
  add(
    @CurrentActor() actor: Actor,
    @Body() body: NewSiteBody,
  ): Promise<{ siteId: string; timerId: string }> {
    return this.sites.add(actor, body);
  }

  @Post(':id/changes')
  @HttpCode(200)
  change(
    @CurrentActor() actor: Actor,
    @Param('id') id: string,
    @Body() body: ChangeSiteBody,
  ): Promise<SiteView> {
    return this.sites.change(actor, parseId(id, 'site'), body);
  }
}
