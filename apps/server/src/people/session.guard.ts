import {
  createParamDecorator,
  Injectable,
  type CanActivate,
  type ExecutionContext,
} from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { ApiError } from '../platform/api-error.ts';
import { PUBLIC } from '../platform/public.ts';
import type { Actor } from './actor.ts';
import { SessionService, SESSION_COOKIE } from './session.service.ts';

export type SignedInRequest = Request & { actor?: Actor; cookies: Record<string, unknown> };

/** The person who is signed in; only in handlers that are not `Public`. */
export const CurrentActor = createParamDecorator((_data: unknown, context: ExecutionContext) => {
  return context.switchToHttp().getRequest<SignedInRequest>().actor;
});

/** Lets nobody in without a session, except where a handler is `Public`. */
@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly sessions: SessionService,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<SignedInRequest>();
    const token: unknown = request.cookies[SESSION_COOKIE];
    const actor = typeof token === 'string' ? await this.sessions.actorOf(token) : null;
    if (actor) request.actor = actor;
    const open = this.reflector.getAllAndOverride<boolean | undefined>(PUBLIC, [
      context.getHandler(),
      context.getClass(),
    ]);
    if (actor || open) return true;
    throw new ApiError({ code: 'not-signed-in', message: 'sign in first' });
  }
}
