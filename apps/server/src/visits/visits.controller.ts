import { Body, Controller, Get, HttpCode, Post } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { May } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';
import { Answers, JSON_WRITE } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import { CloseVisitBody } from './close-visit-body.ts';
import { CommentBody } from './comment-body.ts';
import { CommentsService, type CommentView } from './comments.service.ts';
import { VisitsService, type VisitSummary, type VisitView } from './visits.service.ts';

@Controller()
export class VisitsController {
  constructor(
    private readonly visits: VisitsService,
    private readonly comments: CommentsService,
  ) {}

  /** A timer's logbook, newest first, without the plans. */
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

  /** Comments on the visit, oldest first. */
  @Answers({ schema: ['Comment'], fails: ['not-found'] })
  @Get('visits/:id/comments')
  commentsOf(@CurrentActor() actor: Actor, @IdParam('visit') id: string): Promise<CommentView[]> {
    return this.comments.list(actor, id);
  }

  @May('propose')
  @Answers({
    schema: ['Comment'],
    fails: [...JSON_WRITE, 'not-found', 'id-reused', 'not-accepted'],
  })
  @Post('visits/:id/comments')
  @HttpCode(200)
  comment(
    @CurrentActor() actor: Actor,
    @IdParam('visit') id: string,
    @Body() body: CommentBody,
  ): Promise<CommentView[]> {
    return this.comments.add(actor, id, body);
  }
}
