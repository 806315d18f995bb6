import { Body, Controller, Delete, Get, HttpCode, Ip, Post } from '@nestjs/common';
import { Answers, JSON_BODY } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import type { Actor } from '../identity/actor.ts';
import { Tries } from './tries.ts';
import { ApiTokenBody } from './api-token-body.ts';
import { ApiTokensService, type ApiTokenView } from './api-tokens.service.ts';
import { May } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';

/** The signed-in person's API tokens. */
@May('own')
@Controller('account/tokens')
export class ApiTokensController {
  constructor(
    private readonly tokens: ApiTokensService,
    private readonly tries: Tries,
  ) {}

  @Answers({ schema: ['ApiToken'] })
  @Get()
  list(@CurrentActor() actor: Actor): Promise<readonly ApiTokenView[]> {
    return this.tokens.list(actor);
  }

  /** `Authorization: Bearer wct_TOKEN` gives the person's rights within its scopes, never to their account or the company. */
  @Answers({
    schema: 'ApiToken',
    fails: [...JSON_BODY, 'id-reused', 'not-accepted', 'too-many-tries'],
  })
  @Post()
  @HttpCode(200)
  async make(
    @CurrentActor() actor: Actor,
    @Ip() address: string,
    @Body() body: ApiTokenBody,
  ): Promise<ApiTokenView> {
    const succeeded = await this.tries.signIn(address, actor.personId);
    const made = await this.tokens.make(actor, body);
    await succeeded();
    return made;
  }

  @Answers({ status: 204, fails: ['foreign-origin', 'not-found'] })
  @Delete(':id')
  @HttpCode(204)
  withdraw(@CurrentActor() actor: Actor, @IdParam('token') id: string): Promise<void> {
    return this.tokens.withdraw(actor, id);
  }
}
