import { Body, Controller, Get, HttpCode, Post } from '@nestjs/common';
import { CLOCK_STYLES, DATE_ORDERS, type ClockStyle, type DateOrder } from '@water-clock/core';
import type { Actor } from '../people/actor.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { Answers, JSON_WRITE } from '../platform/openapi.ts';
import { IdParam, WordQuery } from '../platform/parameters.ts';
import { ChangeSiteBody, NewSiteBody } from './site-body.ts';
import {
  SITE_STATES,
  SitesService,
  type SiteState,
  type SiteSummary,
  type SiteView,
} from './sites.service.ts';

@Controller('sites')
export class SitesController {
  constructor(private readonly sites: SitesService) {}

  /** All sites of the company by name, each with its timers and their verdicts. `clock` and `order` are how times and dates are written in them. */
  @Answers({ schema: ['SiteSummary'], fails: ['malformed-request', 'busy'] })
  @Get()
  list(
    @CurrentActor() actor: Actor,
    @WordQuery('clock', ['24', ...CLOCK_STYLES]) clock: ClockStyle,
    @WordQuery('order', DATE_ORDERS) order: DateOrder,
    @WordQuery('state', SITE_STATES) state: SiteState,
  ): Promise<SiteSummary[]> {
    return this.sites.list(actor, { clock, order }, state);
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
