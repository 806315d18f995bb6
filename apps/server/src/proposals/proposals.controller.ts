import { Body, Controller, Get, HttpCode, Post } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { May } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';
import { Answers, JSON_WRITE } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import { ChangePlanBody } from '../timers/change-body.ts';
import { AnswerProposalBody, MoveProposalBody } from './proposal-body.ts';
import { ProposalsService, type ProposalView } from './proposals.service.ts';

const STEP = [...JSON_WRITE, 'not-found', 'stale-version', 'proposal-moved', 'id-reused'] as const;

/** Apprentices' suggestions. */
@Controller()
export class ProposalsController {
  constructor(private readonly proposals: ProposalsService) {}

  /** Suggestions waiting for an answer, and one's own. */
  @Answers({ schema: ['Proposal'], fails: ['not-found'] })
  @Get('timers/:id/proposals')
  list(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
  ): Promise<readonly ProposalView[]> {
    return this.proposals.list(actor, id);
  }

  /** Adds a change to one's suggestion. The first change creates it, at base version 1. */
  @Answers({ schema: 'Version', fails: [...STEP, 'not-accepted'] })
  @May('propose')
  @Post('timers/:id/proposals/changes')
  @HttpCode(200)
  change(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @Body() body: ChangePlanBody,
  ): Promise<{ version: number }> {
    return this.proposals.change(actor, id, body);
  }

  /** The author sends, withdraws or discards a suggestion. */
  @Answers({ schema: 'Proposal', fails: STEP })
  @May('propose')
  @Post('proposals/:id/moves')
  @HttpCode(200)
  move(
    @CurrentActor() actor: Actor,
    @IdParam('proposal') id: string,
    @Body() body: MoveProposalBody,
  ): Promise<ProposalView> {
    return this.proposals.move(actor, id, body);
  }

  /** Accepting makes one change of the timer; the base version is the timer's. */
  @Answers({ schema: 'Proposal', fails: [...STEP, 'not-accepted'] })
  @Post('proposals/:id/answers')
  @HttpCode(200)
  answer(
    @CurrentActor() actor: Actor,
    @IdParam('proposal') id: string,
    @Body() body: AnswerProposalBody,
  ): Promise<ProposalView> {
    return this.proposals.answer(actor, id, body);
  }
}
