import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { checkPassword } from './check-password.ts';
import { DataSource, IsNull, LessThan } from 'typeorm';
import { AuditService } from '../audit/audit.service.ts';
import { Settings } from '../platform/settings.ts';
import { hashOfToken, newToken } from '../platform/token.ts';
import { Person, type Role } from '../identity/person.entity.ts';
import type { Actor } from '../identity/actor.ts';
import type { PreferencesView } from '../identity/preferences.ts';
import { stepOf } from './second-factor.ts';
import { Session } from './session.entity.ts';

export const SESSION_DAYS = 30;
const DAY_MS = 86_400_000;
const MOST_DEVICE_CHARACTERS = 300;

/** Passwords are hashed with argon2id, at the library's default cost. */
export const hashPassword = (password: string) => hash(password);

/** Where a sign-in comes from. */
export interface Device {
  /** Network address. */
  readonly address?: string;
  /** User agent. */
  readonly browser?: string;
}

export interface SignInTry {
  /** Lower case. */
  readonly email: string;
  readonly password: string;
  /** From the authenticator app; absent until asked for. */
  readonly code?: string;
}

/** Why a sign-in failed: account or password, or a missing or wrong code. */
export type NotSignedIn = 'wrong-sign-in' | 'code-needed' | 'wrong-code';

export interface Signed {
  readonly id: string;
  readonly email: string;
  readonly secondFactor: boolean;
  readonly preferences: PreferencesView;
}

/** Signs people in and out, and finds the owner of a session. */
/** Days in which a removed person can still hand in waiting changes. */
export const LEAVER_DAYS = 90;

@Injectable()
export class SessionService {
  /** Over HTTPS, the prefix binds the cookie to this host. */
  readonly cookie: string;
  /** Verified when no account has the address, so that both answers take the same time. */
  private readonly nobody = hashPassword(randomUUID());

  constructor(
    private readonly database: DataSource,
    private readonly audit: AuditService,
    private readonly settings: Settings,
  ) {
    this.cookie = `${settings.secureCookies ? '__Host-' : ''}water_clock_session`;
  }

  /** Token of the new session, or why there is none. */
  async signIn(
    { email, password, code }: SignInTry,
    { address, browser = '' }: Device = {},
  ): Promise<{ readonly token: string } | NotSignedIn> {
    const { manager } = this.database;
    const person = await manager.findOneBy(Person, { email, takenOutAt: IsNull() });
    const matches = await verify(person?.passwordHash ?? (await this.nobody), password);
    if (!person) return 'wrong-sign-in';
    const { companyId, id: personId } = person;
    const failed = { companyId, personId, what: 'sign-in-failed', address } as const;
    if (!matches) {
      await this.audit.note(failed);
      return 'wrong-sign-in';
    }
    if (person.secondFactor !== null && code === undefined) return 'code-needed';
    if (person.secondFactor !== null && !(await this.takesCode(person, code ?? ''))) {
      await this.audit.note(failed);
      return 'wrong-code';
    }
    const token = newToken();
    await this.database.transaction(async (database) => {
      await database.delete(Session, { companyId, expiresAt: LessThan(new Date()) });
      await database.insert(Session, {
        tokenHash: hashOfToken(token),
        companyId,
        personId,
        expiresAt: new Date(Date.now() + SESSION_DAYS * DAY_MS),
        device: browser.slice(0, MOST_DEVICE_CHARACTERS),
        address: address ?? null,
      });
      await this.audit.note({ companyId, personId, what: 'sign-in', address }, database);
    });
    return { token };
  }

  /**
   * Notes that the person of a session has just given the password.
   *
   * @throws ApiError 422 if it is wrong
   */
  async confirm(
    cookies: Readonly<Record<string, unknown>>,
    { companyId, personId: id }: Actor,
    password: string,
  ): Promise<void> {
    await checkPassword(this.database.manager, { companyId, id }, password);
    const tokenHash = this.hashIn(cookies);
    await this.database.query('update sessions set confirmed_at = now() where token_hash = $1', [
      tokenHash,
    ]);
  }

  /** When two requests use the same code at once, only one succeeds. */
  private async takesCode(person: Person, code: string): Promise<boolean> {
    const step = stepOf(person.secondFactor ?? '', code, person.secondFactorStep);
    if (step === null) return false;
    const taken = await this.database.manager
      .createQueryBuilder()
      .update(Person)
      .set({ secondFactorStep: step })
      .where('company_id = :companyId and id = :id', person)
      .andWhere('(second_factor_step is null or second_factor_step < :step)', { step })
      .execute();
    return taken.affected === 1;
  }

  /** Details of a person besides the name; null if they no longer exist. */
  async signedAs({ companyId, personId: id }: Actor): Promise<Signed | null> {
    const person = await this.database.manager.findOneBy(Person, { companyId, id });
    if (!person) return null;
    const { email, secondFactor, version, preferences } = person;
    return {
      id,
      email,
      secondFactor: secondFactor !== null,
      preferences: { version, preferences },
    };
  }

  async signOut(cookies: Readonly<Record<string, unknown>>, actor: Actor): Promise<void> {
    const { companyId, personId } = actor;
    const tokenHash = this.hashIn(cookies);
    await this.database.transaction(async (database) => {
      await database.delete(Session, { tokenHash });
      await this.audit.note({ companyId, personId, what: 'sign-out' }, database);
    });
  }

  /** The person a request's cookies belong to; null if there is no session or it has expired. */
  async actorIn(cookies: Readonly<Record<string, unknown>>): Promise<Actor | null> {
    if (this.tokenIn(cookies) === null) return null;
    const tokenHash = this.hashIn(cookies);
    const [row]: (Actor & { role: Role; isStale: boolean })[] = await this.database.query(
      `select p.company_id as "companyId", c.name as "companyName", p.id as "personId", p.name as "personName", p.role,
         s.confirmed_at > now() - make_interval(mins => $4) as "isConfirmed", s.seen_at < now() - interval '5 minutes' as "isStale"
       from sessions s
       join people p on p.company_id = s.company_id and p.id = s.person_id
       join companies c on c.id = s.company_id
       where s.token_hash = $1 and s.expires_at > $2 and s.seen_at > now() - make_interval(hours => $3)
         and p.taken_out_at is null`,
      [tokenHash, new Date(), this.settings.idleHours, this.settings.confirmMinutes],
    );
    if (!row) return null;
    const { isStale, ...actor } = row;
    if (isStale)
      await this.database.query('update sessions set seen_at = now() where token_hash = $1', [
        tokenHash,
      ]);
    return actor;
  }

  /** The person last signed in in this browser, if removed from the company since. Gives no access. */
  async leaverIn(cookies: Readonly<Record<string, unknown>>): Promise<Actor | null> {
    if (this.tokenIn(cookies) === null) return null;
    const [row]: Actor[] = await this.database.query(
      `select p.company_id as "companyId", c.name as "companyName", p.id as "personId", p.name as "personName", p.role
       from sessions s
       join people p on p.company_id = s.company_id and p.id = s.person_id
       join companies c on c.id = s.company_id
       where s.token_hash = $1 and p.taken_out_at > now() - make_interval(days => $2)`,
      [this.hashIn(cookies), LEAVER_DAYS],
    );
    return row ?? null;
  }

  private tokenIn(cookies: Readonly<Record<string, unknown>>): string | null {
    const token = cookies[this.cookie];
    return typeof token === 'string' ? token : null;
  }

  /** Condition that finds the session of a request. */
  hashIn(cookies: Readonly<Record<string, unknown>>): string {
    return hashOfToken(this.tokenIn(cookies) ?? '');
  }
}
