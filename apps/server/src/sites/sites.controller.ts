import { Body, Controller, Get, HttpCode, Post, Query } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { CurrentActor } from '../identity/access.ts';
import { Answers, JSON_WRITE } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import { ChangeSiteBody, NewSiteBody, SitesQuery } from './site-body.ts';
import { SitesService, type SiteView } from './sites.service.ts';

@Controller('sites')
export class SitesController {
  constructor(private readonly sites: SitesService) {}

  /** The company's sites by name, the first 100 that contain all words of `find`. */
  @Answers({ schema: ['Site'], fails: ['malformed-request'] })
  @Get()
  list(@CurrentActor() actor: Actor, @Query() query: SitesQuery): Promise<SiteView[]> {
    return this.sites.list(actor, query);
  }

  @Answers({
    status: 201,
    schema: 'NewSite',
    fails: [...JSON_WRITE, 'id-reused', 'not-accepted'],
  })
  @Post()
  @HttpCode(201)
  add(
    @CurrentActor() actor: Actor,
    @Body() body: NewSiteBody,
  ): Promise<{ siteId: string; timerId: string }> {
    return this.sites.add(actor, body);
  }

  @Answers({
    schema: 'Site',
    fails: [...JSON_WRITE, 'not-found', 'stale-version', 'id-reused', 'not-accepted'],
  })
  @Post(':id/changes')
  @HttpCode(200)
  change(
    @CurrentActor() actor: Actor,
    @IdParam('site') id: string,
    @Body() body: ChangeSiteBody,
  ): Promise<SiteView> {
    return this.sites.change(actor, id, body);
  }
}
