import { Body, Controller, Delete, Get, HttpCode, Ip, Post, Req } from '@nestjs/common';
import { Answers, JSON_BODY } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import { Tries } from './tries.ts';
import { ChangePasswordBody, PasswordBody, SecondFactorBody } from './account-body.ts';
import { AccountService, type SessionEntry } from './account.service.ts';
import type { Actor } from '../identity/actor.ts';
import { Fresh, May } from '../identity/rights.ts';
import type { NewFactor } from './second-factor.ts';
import { CurrentActor, type SignedInRequest } from '../identity/access.ts';
import { SessionService } from './session.service.ts';

/** The signed-in person's password, second factor and sessions. */
@May('own')
@Controller('account')
export class AccountController {
  constructor(
    private readonly account: AccountService,
    private readonly signed: SessionService,
    private readonly tries: Tries,
  ) {}

  @Answers({ schema: ['SessionEntry'] })
  @Get('sessions')
  sessions(
    @CurrentActor() actor: Actor,
    @Req() request: SignedInRequest,
  ): Promise<readonly SessionEntry[]> {
    return this.account.sessions(actor, this.signed.hashIn(request.cookies));
  }

  /** All except the current session. */
  @Fresh()
  @Answers({ status: 204, fails: ['foreign-origin'] })
  @Delete('sessions')
  @HttpCode(204)
  endOthers(@CurrentActor() actor: Actor, @Req() request: SignedInRequest): Promise<void> {
    return this.account.endOtherSessions(actor, this.signed.hashIn(request.cookies));
  }

  @Answers({ status: 204, fails: ['foreign-origin', 'not-found'] })
  @Delete('sessions/:id')
  @HttpCode(204)
  end(@CurrentActor() actor: Actor, @IdParam('session') id: string): Promise<void> {
    return this.account.endSession(actor, id);
  }

  @Answers({ status: 204, fails: [...JSON_BODY, 'not-accepted', 'too-many-tries'] })
  @Post('password')
  @HttpCode(204)
  async changePassword(
    @CurrentActor() actor: Actor,
    @Ip() address: string,
    @Req() request: SignedInRequest,
    @Body() body: ChangePasswordBody,
  ): Promise<void> {
    const succeeded = await this.tries.signIn(address, actor.personId);
    await this.account.changePassword(actor, this.signed.hashIn(request.cookies), body);
    await succeeded();
  }

  /** A new secret for an authenticator app. It is not saved yet. */
  @Answers({ schema: 'NewFactor' })
  @Get('second-factor/new')
  newFactor(@CurrentActor() actor: Actor): Promise<NewFactor> {
    return this.account.newFactor(actor);
  }

  @Answers({ status: 204, fails: [...JSON_BODY, 'not-accepted', 'too-many-tries'] })
  @Post('second-factor')
  @HttpCode(204)
  async setFactor(
    @CurrentActor() actor: Actor,
    @Ip() address: string,
    @Body() body: SecondFactorBody,
  ): Promise<void> {
    const succeeded = await this.tries.signIn(address, actor.personId);
    await this.account.setFactor(actor, body);
    await succeeded();
  }

  @Answers({ status: 204, fails: [...JSON_BODY, 'not-accepted', 'too-many-tries'] })
  @Post('second-factor/off')
  @HttpCode(204)
  async dropFactor(
    @CurrentActor() actor: Actor,
    @Ip() address: string,
    @Body() { password }: PasswordBody,
  ): Promise<void> {
    const succeeded = await this.tries.signIn(address, actor.personId);
    await this.account.dropFactor(actor, password);
    await succeeded();
  }
}
