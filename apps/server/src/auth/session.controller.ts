import { say, wordsOf } from '@water-clock/core';
import {
  Body,
  Controller,
  Delete,
  Get,
  Headers,
  HttpCode,
  Inject,
  Ip,
  Optional,
  Post,
  Req,
  Res,
} from '@nestjs/common';
import { ApiProperty } from '@nestjs/swagger';
import { IsOptional, IsString, MaxLength, MinLength } from 'class-validator';
import type { Response } from 'express';
import { ApiError } from '../http/api-error.ts';
import { Answers, JSON_BODY } from '../http/openapi.ts';
import { Public } from '../http/public.ts';
import { Settings } from '../platform/settings.ts';
import { Tries } from './tries.ts';
import type { Actor } from '../identity/actor.ts';
import type { Role } from '../identity/person.entity.ts';
import { DEMO_SIGN_IN, type DemoSignIn } from './demo-sign-in.ts';
import type { PreferencesView } from '../identity/preferences.ts';
import { CurrentActor, type SignedInRequest } from '../identity/access.ts';
import { Fresh, May } from '../identity/rights.ts';
import { PasswordBody } from './account-body.ts';
import { PasswordField } from '../identity/person-fields.ts';
import { SESSION_DAYS, SessionService, type NotSignedIn } from './session.service.ts';

class SignInBody {
  @ApiProperty()
  @MinLength(3, { message: () => say`type your e-mail address` })
  @MaxLength(254, { message: () => say`an e-mail address has at most 254 characters` })
  @IsString({ message: 'the e-mail address must be text' })
  email: string;

  @PasswordField()
  password: string;

  /** From the authenticator app, if the person uses a second factor. */
  @ApiProperty({ type: String, required: false, nullable: true })
  @MaxLength(20, { message: () => say`a code has six digits` })
  @IsString({ message: 'the code must be text' })
  @IsOptional()
  code?: string | null;
}

const NOT_SIGNED_IN: Readonly<Record<NotSignedIn, string>> = wordsOf({
  'wrong-sign-in': 'the address or password is wrong; check both and try again',
  'code-needed': 'enter the code from your authenticator app as well',
  'wrong-code': 'this code is wrong; each code works once, for 30 seconds',
});

interface SessionAnswer {
  readonly person: {
    readonly id: string;
    readonly name: string;
    readonly companyId: string;
    readonly company: string;
    readonly role: Role;
    readonly email: string;
    /** Whether sign-in asks for a code. */
    readonly secondFactor: boolean;
  } | null;
  readonly preferences: PreferencesView | null;
  /** In demo mode, the person who can sign in with one press. */
  readonly demo: DemoSignIn | null;
}

@Controller('session')
export class SessionController {
  constructor(
    private readonly sessions: SessionService,
    private readonly settings: Settings,
    private readonly tries: Tries,
    @Optional() @Inject(DEMO_SIGN_IN) private readonly demo: DemoSignIn | null = null,
  ) {}

  /** Who is signed in, and who the sign-in page offers. */
  @Answers({ schema: 'Session', open: true })
  @Public()
  @Get()
  async current(@Req() request: SignedInRequest): Promise<SessionAnswer> {
    const { actor = null } = request;
    const signed = actor && (await this.sessions.signedAs(actor));
    if (!signed) return { person: null, preferences: null, demo: this.demo };
    const { preferences, ...own } = signed;
    const { personName: name, companyId, companyName: company, role } = actor;
    return { person: { ...own, name, companyId, company, role }, preferences, demo: null };
  }

  @Answers({
    status: 204,
    fails: [...JSON_BODY, 'wrong-sign-in', 'code-needed', 'wrong-code', 'too-many-tries'],
    open: true,
  })
  @Public()
  @Post()
  @HttpCode(204)
  async signIn(
    @Body() body: SignInBody,
    @Ip() address: string,
    @Headers('user-agent') browser = '',
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const succeeded = await this.tries.signIn(address, body.email);
    const signedIn = await this.sessions.signIn(
      {
        email: body.email.trim().toLowerCase(),
        password: body.password,
        ...(body.code ? { code: body.code } : {}),
      },
      { address, browser },
    );
    if (typeof signedIn === 'string')
      throw new ApiError({ code: signedIn, message: NOT_SIGNED_IN[signedIn] });
    await succeeded();
    response.cookie(this.sessions.cookie, signedIn.token, {
      httpOnly: true,
      sameSite: 'lax',
      secure: this.settings.secureCookies,
      path: '/',
      maxAge: SESSION_DAYS * 86_400_000,
    });
  }

  /** Whether the password counts as just given; else `confirm-needed`. */
  @Answers({ status: 204, fails: ['confirm-needed'] })
  @May('own')
  @Fresh()
  @Get('confirm')
  @HttpCode(204)
  confirmed(): void {
    // The guard has looked.
  }

  @Answers({ status: 204, fails: [...JSON_BODY, 'not-accepted', 'too-many-tries'] })
  @May('own')
  @Post('confirm')
  @HttpCode(204)
  async confirm(
    @CurrentActor() actor: Actor,
    @Ip() address: string,
    @Req() request: SignedInRequest,
    @Body() { password }: PasswordBody,
  ): Promise<void> {
    const succeeded = await this.tries.signIn(address, actor.personId);
    await this.sessions.confirm(request.cookies, actor, password);
    await succeeded();
  }

  @Answers({ status: 204, fails: ['foreign-origin'] })
  @May('own')
  @Delete()
  @HttpCode(204)
  async signOut(
    @CurrentActor() actor: Actor,
    @Req() request: SignedInRequest,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    await this.sessions.signOut(request.cookies, actor);
    response.clearCookie(this.sessions.cookie, {
      path: '/',
      secure: this.settings.secureCookies,
    });
  }
}
