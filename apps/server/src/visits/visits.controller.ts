import { Body, Controller, Get, HttpCode, Post } from '@nestjs/common';
import type { Actor } from '../people/actor.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { Answers, JSON_WRITE } from '../platform/openapi.ts';
import { IdParam } from '../platform/parameters.ts';
import { CloseVisitBody } from './close-visit-body.ts';
import { VisitsService, type VisitSummary, type VisitView } from './visits.service.ts';

@Controller()
export class VisitsController {
  constructor(private readonly visits: VisitsService) {}

  /** The logbook of a timer, the latest first, without the plans. */
  @Answers({ schema: ['VisitSummary'], fails: ['not-found'] })
  @Get('timers/:id/visits')
  list(@CurrentActor() actor: Actor, @IdParam('timer') id: string): Promise<VisitSummary[]> {
    return this.visits.list(actor, id);
  }

  @Answers({
    schema: 'Version',
    fails: [...JSON_WRITE, 'not-found', 'stale-version', 'id-reused', 'not-accepted'],
  })
  @Post('timers/:id/visits')
  @HttpCode(200)
  close(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @Body() body: CloseVisitBody,
  ): Promise<{ version: number }> {
    return this.visits.close(actor, id, body);
  }

  @Answers({ schema: 'VisitView', fails: ['not-found'] })
  @Get('visits/:id')
  one(@CurrentActor() actor: Actor, @IdParam('visit') id: string): Promise<VisitView> {
    return this.visits.one(actor, id);
  }
}
