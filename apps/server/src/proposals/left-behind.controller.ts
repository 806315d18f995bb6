import { Body, Controller, HttpCode, Post } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { CurrentLeaver } from '../identity/access.ts';
import { ApiError } from '../http/api-error.ts';
import { Answers, JSON_WRITE } from '../http/openapi.ts';
import { Public } from '../http/public.ts';
import { LeftBehindBody } from './left-behind-body.ts';
import { ProposalsService } from './proposals.service.ts';

/** A removed person can change nothing, but earlier entries are not lost: the office gets them as a suggestion. */
@Public()
@Controller('left-behind')
export class LeftBehindController {
  constructor(private readonly proposals: ProposalsService) {}

  @Answers({
    schema: 'Changed',
    fails: [
      ...JSON_WRITE,
      ...(['another-person', 'not-signed-in', 'not-found', 'id-reused', 'not-accepted'] as const),
    ],
    open: true,
  })
  @Post()
  @HttpCode(200)
  async handOver(
    @CurrentLeaver() leaver: Actor | undefined,
    @Body() body: LeftBehindBody,
  ): Promise<{ changed: number }> {
    if (!leaver) throw new ApiError({ code: 'not-signed-in', message: 'sign in first' });
    return this.proposals.leaveBehind(leaver, body);
  }
}
