import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { DataSource, LessThan, MoreThan } from 'typeorm';
import { Company } from './company.entity.ts';
import { Person } from './person.entity.ts';
import type { Actor } from './actor.ts';
import type { PreferencesView } from './preferences.ts';
import { Session } from './session.entity.ts';

export const SESSION_COOKIE = 'water_clock_session';
export const SESSION_DAYS = 30;
const DAY_MS = 86_400_000;

const hashToken = (token: string) => createHash('sha256').update(token).digest('hex');

/** Passwords are kept by argon2id (the library's default variant) with its default costs. */
export const hashPassword = (password: string) => hash(password);

/** Signs people in and out, and knows who a session belongs to. */
@Injectable()
export class SessionService {
  /** Verified where no account has the address, so that the answer takes as long either way. */
  private readonly nobody = hashPassword(randomUUID());

  constructor(private readonly database: DataSource) {}

  /** A new session's token; null where address and password do not match. */
  async signIn(email: string, password: string): Promise<string | null> {
    const person = await this.database.manager.findOneBy(Person, { email: email.toLowerCase() });
    const matches = await verify(person?.passwordHash ?? (await this.nobody), password);
    if (!person || !matches) return null;
    const token = randomBytes(32).toString('base64url');
    const sessions = this.database.getRepository(Session);
    await sessions.delete({ companyId: person.companyId, expiresAt: LessThan(new Date()) });
    await sessions.insert({
      tokenHash: hashToken(token),
      companyId: person.companyId,
      personId: person.id,
      expiresAt: new Date(Date.now() + SESSION_DAYS * DAY_MS),
    });
    return token;
  }

  /** What a person likes; null: they are gone. */
  async preferencesOf({ companyId, personId: id }: Actor): Promise<PreferencesView | null> {
    const person = await this.database.manager.findOneBy(Person, { companyId, id });
    return person && { version: person.version, preferences: person.preferences };
  }

  async signOut(token: string): Promise<void> {
    await this.database.getRepository(Session).delete({ tokenHash: hashToken(token) });
  }

  /** Who a token belongs to; null where it is unknown or has expired. */
  async actorOf(token: string): Promise<Actor | null> {
    const session = await this.database.manager.findOneBy(Session, {
      tokenHash: hashToken(token),
      expiresAt: MoreThan(new Date()),
    });
    if (!session) return null;
    const { companyId, personId } = session;
    const [person, company] = await Promise.all([
      this.database.manager.findOneBy(Person, { companyId, id: personId }),
      this.database.manager.findOneBy(Company, { id: companyId }),
    ]);
    if (!person || !company) return null;
    return { companyId, companyName: company.name, personId, personName: person.name };
  }
}
