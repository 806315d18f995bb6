import { Injectable } from '@nestjs/common';
import type { Request } from 'express';
import { bearer } from '../platform/token.ts';
import type { Actor } from '../identity/actor.ts';
import { ApiTokensService, TOKEN_PREFIX } from './api-tokens.service.ts';
import { SessionService } from './session.service.ts';

type Asking = Pick<Request, 'headers'> & { readonly cookies: Record<string, unknown> };

const tokenIn = ({ headers }: Pick<Request, 'headers'>): string | null => {
  const borne = bearer(headers.authorization);
  return borne.startsWith(TOKEN_PREFIX) ? borne.slice(TOKEN_PREFIX.length) : null;
};

/** Whether a program asks, by somebody's token. */
export const isByToken = (request: Pick<Request, 'headers'>): boolean => tokenIn(request) !== null;

/** Knows who a request is of: by its session, or by a token. A token that is not good is not made good by a session beside it. */
@Injectable()
export class Who {
  constructor(
    private readonly sessions: SessionService,
    private readonly tokens: ApiTokensService,
  ) {}

  asks(request: Asking): Promise<Actor | null> {
    const token = tokenIn(request);
    return token === null ? this.sessions.actorIn(request.cookies) : this.tokens.actorOf(token);
  }

  /** Whoever was taken out of the company since they signed in here; null: nobody. */
  leaver(request: Asking): Promise<Actor | null> {
    return tokenIn(request) === null
      ? this.sessions.leaverIn(request.cookies)
      : Promise.resolve(null);
  }
}
