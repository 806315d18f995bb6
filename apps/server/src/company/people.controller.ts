import { Body, Controller, Get, HttpCode, Post } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { May, Within } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';
import { Answers, JSON_WRITE, WRITE } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import { WriteBody } from '../http/write-body.ts';
import { LinksService, type InvitationView } from './links.service.ts';
import { MembersService, type MemberView } from './members.service.ts';
import { InviteBody, PasswordLinkBody, RoleBody } from './people-body.ts';

const CHANGE = [...JSON_WRITE, 'not-found', 'stale-version', 'id-reused', 'last-owner'] as const;

/** The company's people. */
@Controller('people')
export class PeopleController {
  constructor(
    private readonly members: MembersService,
    private readonly links: LinksService,
  ) {}

  @Answers({ schema: ['Member'] })
  @Within('none')
  @Get()
  list(@CurrentActor() actor: Actor): Promise<readonly MemberView[]> {
    return this.members.list(actor);
  }

  @Answers({ schema: 'Member', fails: CHANGE })
  @May('company')
  @Post(':id/role')
  @HttpCode(200)
  setRole(
    @CurrentActor() actor: Actor,
    @IdParam('person') id: string,
    @Body() body: RoleBody,
  ): Promise<MemberView> {
    return this.members.setRole(actor, id, body);
  }

  @Answers({ schema: 'Member', fails: CHANGE })
  @May('company')
  @Post(':id/removal')
  @HttpCode(200)
  takeOut(
    @CurrentActor() actor: Actor,
    @IdParam('person') id: string,
    @Body() body: WriteBody,
  ): Promise<MemberView> {
    return this.members.takeOut(actor, id, body);
  }

  @Answers({ schema: 'Member', fails: CHANGE })
  @May('company')
  @Post(':id/second-factor/off')
  @HttpCode(200)
  dropFactor(
    @CurrentActor() actor: Actor,
    @IdParam('person') id: string,
    @Body() body: WriteBody,
  ): Promise<MemberView> {
    return this.members.dropFactor(actor, id, body);
  }

  /** A link to a new password, for someone who cannot sign in. */
  @Answers({ status: 204, fails: [...JSON_WRITE, 'not-found', 'id-reused'] })
  @May('company')
  @Post(':id/password-link')
  @HttpCode(204)
  helpIn(
    @CurrentActor() actor: Actor,
    @IdParam('person') id: string,
    @Body() body: PasswordLinkBody,
  ): Promise<void> {
    return this.links.helpIn(actor, id, body);
  }
}

@May('company')
@Controller('invitations')
export class InvitationsController {
  constructor(private readonly links: LinksService) {}

  /** Links that are still valid. */
  @Answers({ schema: ['Invitation'], fails: ['not-allowed'] })
  @Get()
  list(@CurrentActor() actor: Actor): Promise<readonly InvitationView[]> {
    return this.links.invitations(actor);
  }

  @Answers({
    schema: 'Invitation',
    fails: [...JSON_WRITE, 'address-taken', 'id-reused'],
  })
  @Post()
  @HttpCode(200)
  invite(@CurrentActor() actor: Actor, @Body() body: InviteBody): Promise<InvitationView> {
    return this.links.invite(actor, body);
  }

  @Answers({ status: 204, fails: [...WRITE, 'not-found'] })
  @Post(':id/withdraw')
  @HttpCode(204)
  withdraw(@CurrentActor() actor: Actor, @IdParam('invitation') id: string): Promise<void> {
    return this.links.withdraw(actor, id);
  }
}
