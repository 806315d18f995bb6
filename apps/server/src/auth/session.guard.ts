import { say } from '@water-clock/core';
import { Injectable, type CanActivate, type ExecutionContext } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request, RequestHandler } from 'express';
import type { SignedInRequest } from '../identity/access.ts';
import { ApiError } from '../http/api-error.ts';
import { isPublicWrite, PUBLIC } from '../http/public.ts';
import type { Actor } from '../identity/actor.ts';
import { ROLE_WORDS } from '../identity/person.entity.ts';
import {
  isAllowed,
  FRESH,
  isInScope,
  RIGHT,
  rightOf,
  RIGHTS,
  SCOPE,
  type Right,
  type Scope,
} from '../identity/rights.ts';
import { Who } from './who.ts';

/** Only owners can change roles, so the message refers people to an owner. */
const notAllowed = (right: Right) =>
  new ApiError({
    code: 'not-allowed',
    message: say`only these roles can do this: ${RIGHTS[right].roles.map((role) => ROLE_WORDS[role]).join(', ')}. Ask an owner`,
  });

/** A lost token must not be enough to take over the account or the company. */
const notByToken = (right: Right) =>
  new ApiError({
    code: 'not-allowed',
    message:
      right === 'own' || right === 'company'
        ? say`a token cannot do this; sign in with your password`
        : say`this token’s scopes do not allow this`,
  });

const notConfirmed = () =>
  new ApiError({ code: 'confirm-needed', message: say`confirm your password first` });

const notSignedIn = () => new ApiError({ code: 'not-signed-in', message: say`sign in first` });

/** Reason for the refusal. Removed people learn that their device still has to hand in its changes. */
const refusalOf = (leaver: Actor | null): ApiError =>
  leaver
    ? new ApiError({
        code: 'taken-out',
        message: say`you were removed from ${leaver.companyName}; you can only send your waiting changes`,
      })
    : notSignedIn();

/** Route on which removed people hand in waiting changes. */
const HANDS_OVER = /^\/api\/left-behind\/?$/i;

/** The page belongs to another person than the one signed in in this browser now. */
const notForAnother = ({ headers }: Request, { personId }: Actor): ApiError | undefined => {
  const person = headers['water-clock-person'];
  return person === undefined || person === personId
    ? undefined
    : new ApiError({
        code: 'another-person',
        message: say`someone else has signed in; reload the page`,
      });
};

/** Checks writes before their bodies are read, so that strangers cannot make the server hold data. */
export const sessionFirst =
  (who: Who): RequestHandler =>
  (request, _response, next) => {
    const isStrangers = request.method === 'POST' && isPublicWrite(request.path);
    if (isStrangers || !['POST', 'PUT', 'PATCH', 'DELETE'].includes(request.method)) {
      next();
      return;
    }
    // The cookie parser has run.
    const signedIn = request as SignedInRequest;
    void who.asks(signedIn).then(
      async (actor) => {
        const leaver = actor ? null : await who.leaver(signedIn);
        const mayHandOver = leaver !== null && HANDS_OVER.test(request.path);
        const refusal = actor
          ? notForAnother(request, actor)
          : leaver && mayHandOver
            ? notForAnother(request, leaver)
            : refusalOf(leaver);
        if (actor) signedIn.actor = actor;
        if (leaver) signedIn.leaver = leaver;
        // Drain the body, so that the client gets this answer and not a broken connection.
        if (refusal) request.resume();
        next(refusal);
      },
      (error: unknown) => {
        request.resume();
        next(error);
      },
    );
  };

/** Requires a session, except on handlers marked `Public`. */
@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly who: Who,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<SignedInRequest>();
    const places = [context.getHandler(), context.getClass()];
    const marked = <T>(mark: string) =>
      this.reflector.getAllAndOverride<T | undefined>(mark, places);
    const actor = request.actor ?? (await this.who.asks(request));
    if (actor) request.actor = actor;
    if (marked<boolean>(PUBLIC)) return true;
    const refusal = actor
      ? notForAnother(request, actor)
      : refusalOf(await this.who.leaver(request));
    if (refusal) throw refusal;
    const right = rightOf(marked<Right>(RIGHT), request.method);
    const { scopes } = actor ?? {};
    if (scopes && !isInScope(scopes, right, marked<Scope | 'none'>(SCOPE))) throw notByToken(right);
    if (!actor || !isAllowed(actor.role, right)) throw notAllowed(right);
    const isFresh = marked<boolean>(FRESH) ?? (right === 'company' && request.method !== 'GET');
    if (isFresh && !actor.isConfirmed) throw notConfirmed();
    return true;
  }
}
