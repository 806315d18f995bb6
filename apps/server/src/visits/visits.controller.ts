import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import type { Actor } from '../people/actor.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { parseId } from '../platform/validation.ts';
import { CloseVisitBody } from './close-visit-body.ts';
import { VisitsService, type VisitSummary, type VisitView } from './visits.service.ts';

@Controller()
export class VisitsController {
  constructor(private readonly visits: VisitsService) {}

  /** The logbook of a timer, the latest first, without the plans. */
  @Get('timers/:id/visits')
  list(@CurrentActor() actor: Actor, @Param('id') id: string): Promise<VisitSummary[]> {
    return this.visits.list(actor, parseId(id, 'timer'));
  }

  @Post('timers/:id/visits')
  @HttpCode(200)
  close(
    @CurrentActor() actor: Actor,
    @Param('id') id: string,
    @Body() body: CloseVisitBody,
  ): Promise<{ version: number }> {
    return this.visits.close(actor, parseId(id, 'timer'), body);
  }

  @Get('visits/:id')
  one(@CurrentActor() actor: Actor, @Param('id') id: string): Promise<VisitView> {
    return this.visits.one(actor, parseId(id, 'visit'));
  }
}
