import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Inject,
  Ip,
  Optional,
  Post,
  Req,
  Res,
} from '@nestjs/common';
import { ApiProperty } from '@nestjs/swagger';
import { IsString, MaxLength, MinLength } from 'class-validator';
import type { Response } from 'express';
import { ApiError } from '../platform/api-error.ts';
import { Answers, JSON_BODY } from '../platform/openapi.ts';
import { Public } from '../platform/public.ts';
import { Settings } from '../platform/settings.ts';
import { Tries } from '../platform/tries.ts';
import type { Actor } from './actor.ts';
import type { Role } from './person.entity.ts';
import { DEMO_SIGN_IN, type DemoSignIn } from './demo-sign-in.ts';
import type { PreferencesView } from './preferences.ts';
import { CurrentActor, type SignedInRequest } from './session.guard.ts';
import { SESSION_DAYS, SessionService } from './session.service.ts';

class SignInBody {
  @ApiProperty()
  @MinLength(3, { message: 'type your e-mail address' })
  @MaxLength(254, { message: 'an e-mail address has at most 254 characters' })
  @IsString({ message: 'the e-mail address must be text' })
  email: string;

  @ApiProperty()
  @MinLength(1, { message: 'type your password' })
  @MaxLength(1000, { message: 'a password has at most 1000 characters' })
  @IsString({ message: 'the password must be text' })
  password: string;
}

interface SessionAnswer {
  readonly person: {
    readonly id: string;
    readonly name: string;
    readonly companyId: string;
    readonly company: string;
    readonly role: Role;
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
    const { actor } = request;
    return {
      person: actor
        ? {
            id: actor.personId,
            name: actor.personName,
            companyId: actor.companyId,
            company: actor.companyName,
            role: actor.role,
          }
        : null,
      preferences: actor ? await this.sessions.preferencesOf(actor) : null,
      demo: actor ? null : this.demo,
    };
  }

  @Answers({
    status: 204,
    fails: [...JSON_BODY, 'wrong-sign-in', 'too-many-tries'],
    open: true,
  })
  @Public()
  @Post()
  @HttpCode(204)
  async signIn(
    @Body() body: SignInBody,
    @Ip() address: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const succeeded = await this.tries.signIn(address, body.email);
    const token = await this.sessions.signIn(body.email.trim(), body.password, address);
    if (token === null)
      throw new ApiError({
        code: 'wrong-sign-in',
        message: 'the address and the password do not match; check both and try again',
      });
    await succeeded();
    response.cookie(this.sessions.cookie, token, {
      httpOnly: true,
      sameSite: 'lax',
      secure: this.settings.secureCookies,
      path: '/',
      maxAge: SESSION_DAYS * 86_400_000,
    });
  }

  @Answers({ status: 204, fails: ['foreign-origin'] })
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
