import { say } from '@water-clock/core';
import { Injectable } from '@nestjs/common';
import { DataSource, MoreThan } from 'typeorm';
import { ApiError, notAccepted } from '../http/api-error.ts';
import { hashOfToken } from '../platform/token.ts';
import type { Actor } from '../identity/actor.ts';
import type { Scope } from '../identity/rights.ts';
import { checkPassword } from './check-password.ts';
import { USUAL_DAYS, type ApiTokenBody } from './api-token-body.ts';
import { ApiToken } from './api-token.entity.ts';
import { AuditService } from '../audit/audit.service.ts';

const DAY_MS = 86_400_000;
const MOST_TOKENS = 20;

/** Prefix that tells a personal token from other bearer values. */
export const TOKEN_PREFIX = 'wct_';

export interface ApiTokenView {
  readonly id: string;
  readonly name: string;
  readonly scopes: readonly Scope[];
  /** ISO instants. */
  readonly madeAt: string;
  readonly expiresAt: string;
  readonly usedAt: string | null;
}

const tokenView = ({ id, name, scopes, at, expiresAt, usedAt }: ApiToken): ApiTokenView => ({
  id,
  name,
  scopes,
  madeAt: at.toISOString(),
  expiresAt: expiresAt.toISOString(),
  usedAt: usedAt?.toISOString() ?? null,
});

/** Personal tokens for programs that use the API. */
@Injectable()
export class ApiTokensService {
  constructor(
    private readonly database: DataSource,
    private readonly audit: AuditService,
  ) {}

  /** Valid tokens, newest first. */
  async list({ companyId, personId }: Actor): Promise<readonly ApiTokenView[]> {
    const rows = await this.database.manager.find(ApiToken, {
      where: { companyId, personId, expiresAt: MoreThan(new Date()) },
      order: { at: 'DESC', id: 'ASC' },
    });
    return rows.map(tokenView);
  }

  /**
   * Creating a token again under the same id changes nothing.
   *
   * @throws ApiError 422 if the password is wrong
   */
  async make(
    { companyId, personId }: Actor,
    { id: given, token, name, scopes, password, days = USUAL_DAYS }: ApiTokenBody,
  ): Promise<ApiTokenView> {
    await checkPassword(this.database.manager, { companyId, id: personId }, password);
    const id = given.toLowerCase();
    const tokenHash = hashOfToken(token);
    const made = await this.database.transaction(async (database) => {
      // One at a time for each person, so that the second request under one id sees the first.
      await database.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [
        `${companyId} tokens ${personId}`,
      ]);
      const earlier = await database.findOneBy(ApiToken, { companyId, id });
      if (earlier) return earlier;
      if ((await database.countBy(ApiToken, { companyId, personId })) >= MOST_TOKENS)
        throw notAccepted([
          {
            code: 'too-many',
            path: 'id',
            message: say`each person can have ${MOST_TOKENS} tokens; revoke one first`,
          },
        ]);
      const expiresAt = new Date(Date.now() + days * DAY_MS);
      await database.insert(ApiToken, {
        companyId,
        id,
        personId,
        name,
        scopes,
        tokenHash,
        expiresAt,
      });
      await this.audit.note({ companyId, personId, what: 'token-made' }, database);
      return database.findOneByOrFail(ApiToken, { companyId, id });
    });
    if (made.tokenHash !== tokenHash || made.personId !== personId)
      throw new ApiError({
        code: 'id-reused',
        message: 'another token was made under this id; every token needs an id of its own',
      });
    return tokenView(made);
  }

  /** Revoking twice is harmless. */
  async withdraw({ companyId, personId }: Actor, id: string): Promise<void> {
    await this.database.transaction(async (database) => {
      const { affected } = await database.delete(ApiToken, { companyId, personId, id });
      if (affected)
        await this.audit.note({ companyId, personId, what: 'token-withdrawn' }, database);
    });
  }

  /** Owner of a token; null if it is not valid. */
  async actorOf(token: string): Promise<Actor | null> {
    const tokenHash = hashOfToken(token);
    const [row]: (Actor & { isStale: boolean })[] = await this.database.query(
      `select p.company_id as "companyId", c.name as "companyName", p.id as "personId", p.name as "personName", p.role,
         t.scopes, coalesce(t.used_at < now() - interval '5 minutes', true) as "isStale"
       from api_tokens t
       join people p on p.company_id = t.company_id and p.id = t.person_id
       join companies c on c.id = t.company_id
       where t.token_hash = $1 and t.expires_at > now() and p.taken_out_at is null`,
      [tokenHash],
    );
    if (!row) return null;
    const { isStale, ...actor } = row;
    if (isStale)
      await this.database.query('update api_tokens set used_at = now() where token_hash = $1', [
        tokenHash,
      ]);
    return actor;
  }
}
