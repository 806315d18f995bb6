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

/** Finds the person behind a request, by session or by token. A session does not make up for an invalid token. */
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

  /** Someone removed from the company since they signed in here; null if there is no such person. */
  leaver(request: Asking): Promise<Actor | null> {
    return tokenIn(request) === null
      ? this.sessions.leaverIn(request.cookies)
      : Promise.resolve(null);
  }
}
