import { Body, Controller, Get, HttpCode, Post, Query } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { CurrentActor } from '../identity/access.ts';
import { Answers, JSON_WRITE } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import { AcceptanceService } from './acceptance.service.ts';
import { ReplanActBody, ReplanBody, ReplanQuery } from './replan-body.ts';
import { ReplansService, type ReplanPage, type ReplanView } from './replans.service.ts';

@Controller('replans')
export class ReplansController {
  constructor(
    private readonly replans: ReplansService,
    private readonly acceptance: AcceptanceService,
  ) {}

  /** The latest replans, with their progress. */
  @Answers({ schema: ['Replan'] })
  @Get()
  list(@CurrentActor() actor: Actor): Promise<ReplanView[]> {
    return this.replans.list(actor);
  }

  /** A page of a replan's timers, by town and street. */
  @Answers({ schema: 'ReplanPage', fails: ['malformed-request', 'not-found'] })
  @Get(':id')
  one(
    @CurrentActor() actor: Actor,
    @IdParam('replan') id: string,
    @Query() query: ReplanQuery,
  ): Promise<ReplanPage> {
    return this.replans.one(actor, id, query);
  }

  /**
   * Replans, in the background, all timers that break rules now or later or whose percent should change in a month. Results are
   * suggestions.
   */
  @Answers({
    status: 201,
    schema: 'NewReplan',
    fails: [...JSON_WRITE, 'not-found', 'id-reused', 'not-accepted'],
  })
  @Post()
  @HttpCode(201)
  add(@CurrentActor() actor: Actor, @Body() body: ReplanBody): Promise<{ timers: number }> {
    return this.replans.add(actor, body);
  }

  /**
   * Accepts everything waiting for an answer, in the background. The counts show the progress, and each line says if it could not be
   * accepted.
   */
  @Answers({
    status: 202,
    schema: 'Acceptance',
    fails: [...JSON_WRITE, 'not-found', 'id-reused'],
  })
  @Post(':id/acceptance')
  @HttpCode(202)
  accept(
    @CurrentActor() actor: Actor,
    @IdParam('replan') id: string,
    @Body() body: ReplanActBody,
  ): Promise<{ accepting: number }> {
    return this.acceptance.start(actor, id, body.id);
  }

  /** Stops accepting; what was accepted stays accepted. */
  @Answers({ schema: 'StoppedAcceptance', fails: [...JSON_WRITE, 'not-found', 'id-reused'] })
  @Post(':id/acceptance/stop')
  @HttpCode(200)
  stop(
    @CurrentActor() actor: Actor,
    @IdParam('replan') id: string,
    @Body() body: ReplanActBody,
  ): Promise<{ left: number }> {
    return this.acceptance.stop(actor, id, body.id);
  }
}
