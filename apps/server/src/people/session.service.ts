import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { DataSource, LessThan } from 'typeorm';
import { AuditService } from './audit.service.ts';
import { Settings } from '../platform/settings.ts';
import { Person, type Role } from './person.entity.ts';
import type { Actor } from './actor.ts';
import type { PreferencesView } from './preferences.ts';
import { Session } from './session.entity.ts';

export const SESSION_DAYS = 30;
const DAY_MS = 86_400_000;

const hashToken = (token: string) => createHash('sha256').update(token).digest('hex');

/** Passwords are kept by argon2id (the library's default variant) with its default costs. */
export const hashPassword = (password: string) => hash(password);

/** Signs people in and out, and knows who a session belongs to. */
@Injectable()
export class SessionService {
  /** Over https a browser takes it only from the very host, by its name. */
  readonly cookie: string;
  /** Verified where no account has the address, so that the answer takes as long either way. */
  private readonly nobody = hashPassword(randomUUID());

  constructor(
    private readonly database: DataSource,
    private readonly audit: AuditService,
    private readonly settings: Settings,
  ) {
    this.cookie = `${settings.secureCookies ? '__Host-' : ''}water_clock_session`;
  }

  /** A new session's token; null where account and password do not match. @param address of the network */
  async signIn(email: string, password: string, address?: string): Promise<string | null> {
    const person = await this.database.manager.findOneBy(Person, { email: email.toLowerCase() });
    const matches = await verify(person?.passwordHash ?? (await this.nobody), password);
    if (!person) return null;
    const { companyId, id: personId } = person;
    if (!matches) {
      await this.audit.note({ companyId, personId, what: 'sign-in-failed', address });
      return null;
    }
    const token = randomBytes(32).toString('base64url');
    await this.database.transaction(async (database) => {
      await database.delete(Session, { companyId, expiresAt: LessThan(new Date()) });
      const expiresAt = new Date(Date.now() + SESSION_DAYS * DAY_MS);
      const session = { tokenHash: hashToken(token), companyId, personId, expiresAt };
      await database.insert(Session, session);
      await this.audit.note({ companyId, personId, what: 'sign-in', address }, database);
    });
    return token;
  }

  /** What a person likes; null: they are gone. */
  async preferencesOf({ companyId, personId: id }: Actor): Promise<PreferencesView | null> {
    const person = await this.database.manager.findOneBy(Person, { companyId, id });
    return person && { version: person.version, preferences: person.preferences };
  }

  async signOut(cookies: Readonly<Record<string, unknown>>, actor: Actor): Promise<void> {
    const { companyId, personId } = actor;
    const tokenHash = hashToken(this.tokenIn(cookies) ?? '');
    await this.database.transaction(async (database) => {
      await database.delete(Session, { tokenHash });
      await this.audit.note({ companyId, personId, what: 'sign-out' }, database);
    });
  }

  /** Who a request's cookies belong to; null where there is no session, or it has expired or was not used for too long. */
  async actorIn(cookies: Readonly<Record<string, unknown>>): Promise<Actor | null> {
    const token = this.tokenIn(cookies);
    if (token === null) return null;
    const tokenHash = hashToken(token);
    const [row]: (Actor & { role: Role; isStale: boolean })[] = await this.database.query(
      `select p.company_id as "companyId", c.name as "companyName", p.id as "personId", p.name as "personName", p.role,
         s.seen_at < now() - interval '5 minutes' as "isStale"
       from sessions s
       join people p on p.company_id = s.company_id and p.id = s.person_id
       join companies c on c.id = s.company_id
       where s.token_hash = $1 and s.expires_at > $2 and s.seen_at > now() - make_interval(hours => $3)`,
      [tokenHash, new Date(), this.settings.idleHours],
    );
    if (!row) return null;
    const { isStale, ...actor } = row;
    if (isStale)
      await this.database.query('update sessions set seen_at = now() where token_hash = $1', [
        tokenHash,
      ]);
    return actor;
  }

  private tokenIn(cookies: Readonly<Record<string, unknown>>): string | null {
    const token = cookies[this.cookie];
    return typeof token === 'string' ? token : null;
  }
}
