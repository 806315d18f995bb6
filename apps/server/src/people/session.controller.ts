import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Inject,
  Post,
  Req,
  Res,
  UseGuards,
} from '@nestjs/common';
import { SkipThrottle, ThrottlerGuard } from '@nestjs/throttler';
import { IsString, MaxLength, MinLength } from 'class-validator';
import type { Response } from 'express';
import { DEMO_PERSON } from '../demo/demo-data.ts';
import { ApiError } from '../platform/api-error.ts';
import { CONFIG, type Config } from '../platform/config.ts';
import { Public, type SignedInRequest } from './session.guard.ts';
import { SESSION_COOKIE, SESSION_DAYS, SessionService } from './session.service.ts';

class SignInBody {
  @MinLength(3, { message: 'type your e-mail address' })
  @MaxLength(254, { message: 'an e-mail address has at most 254 characters' })
  @IsString({ message: 'the e-mail address must be text' })
  email: string;

  @MinLength(1, { message: 'type your password' })
  @MaxLength(1000, { message: 'a password has at most 1000 characters' })
  @IsString({ message: 'the password must be text' })
  password: string;
}

interface SessionAnswer {
  readonly person: { readonly id: string; readonly name: string; readonly company: string } | null;
  /** In demo mode, who may be signed in with one press. */
  readonly demo: {
    readonly name: string;
    readonly email: string;
    readonly password: string;
  } | null;
}

@Controller('session')
export class SessionController {
  constructor(
    private readonly sessions: SessionService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** Who is signed in, and whom the sign-in page offers. */
  @Public()
  @Get()
  current(@Req() request: SignedInRequest): SessionAnswer {
    const { actor } = request;
    return {
      person: actor
        ? { id: actor.personId, name: actor.personName, company: actor.companyName }
        : null,
      demo: this.config.demo && !actor ? DEMO_PERSON : null,
    };
  }

  @Public()
  @UseGuards(ThrottlerGuard)
  @SkipThrottle({ page: true })
  @Post()
  @HttpCode(204)
  async signIn(
    @Body() body: SignInBody,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const token = await this.sessions.signIn(body.email.trim(), body.password);
    if (token === null)
      throw new ApiError(401, {
        code: 'wrong-sign-in',
        message: 'address and password do not belong together; check both and try again',
      });
    response.cookie(SESSION_COOKIE, token, {
      httpOnly: true,
      sameSite: 'lax',
      secure: this.config.secureCookies,
      path: '/',
      maxAge: SESSION_DAYS * 86_400_000,
    });
  }

  @Delete()
  @HttpCode(204)
  async signOut(
    @Req() request: SignedInRequest,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const token: unknown = request.cookies[SESSION_COOKIE];
    if (typeof token === 'string') await this.sessions.signOut(token);
    response.clearCookie(SESSION_COOKIE, { path: '/' });
  }
}
