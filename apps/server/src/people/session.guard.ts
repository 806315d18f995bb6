import {
  createParamDecorator,
  Injectable,
  type CanActivate,
  type ExecutionContext,
} from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request, RequestHandler } from 'express';
import { ApiError } from '../platform/api-error.ts';
import { PUBLIC } from '../platform/public.ts';
import type { Actor } from './actor.ts';
import { SessionService, SESSION_COOKIE } from './session.service.ts';

export type SignedInRequest = Request & { actor?: Actor; cookies: Record<string, unknown> };

/** The person who is signed in; only in handlers that are not `Public`. */
export const CurrentActor = createParamDecorator((_data: unknown, context: ExecutionContext) => {
  return context.switchToHttp().getRequest<SignedInRequest>().actor;
});

const tokenOf = ({ cookies }: SignedInRequest): string | null => {
  const token: unknown = cookies[SESSION_COOKIE];
  return typeof token === 'string' ? token : null;
};

const notSignedIn = () => new ApiError({ code: 'not-signed-in', message: 'sign in first' });

/** A write is looked at before its body is read: strangers do not make the server hold what they send. */
export const sessionFirst =
  (sessions: SessionService): RequestHandler =>
  (request, _response, next) => {
    const isSignIn = /^\/api\/session\/?$/i.test(request.path);
    if (isSignIn || !['POST', 'PUT', 'PATCH', 'DELETE'].includes(request.method)) {
      next();
      return;
    }
    // The cast holds behind the parser of cookies.
    const signedIn = request as SignedInRequest;
    const token = tokenOf(signedIn);
    void (token === null ? Promise.resolve(null) : sessions.actorOf(token)).then((actor) => {
      if (actor) signedIn.actor = actor;
      // Read and drop the rest, so that the client gets this answer and not a broken connection.
      else request.resume();
      next(actor ? undefined : notSignedIn());
    }, next);
  };

/** Lets nobody in without a session, except where a handler is `Public`. */
@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly sessions: SessionService,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<SignedInRequest>();
    const token = tokenOf(request);
    const actor = request.actor ?? (token === null ? null : await this.sessions.actorOf(token));
    if (actor) request.actor = actor;
    const open = this.reflector.getAllAndOverride<boolean | undefined>(PUBLIC, [
      context.getHandler(),
      context.getClass(),
    ]);
    if (actor || open) return true;
    throw notSignedIn();
  }
}
