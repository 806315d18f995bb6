import { say } from '@water-clock/core';
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { verify } from '@node-rs/argon2';
import { DataSource, IsNull, MoreThan, QueryFailedError, type EntityManager } from 'typeorm';
import { idempotentWrite } from '../changes/record.ts';
import { MailService } from '../mail/mail.service.ts';
import type { Actor } from '../identity/actor.ts';
import { AuditService } from '../audit/audit.service.ts';
import { Company } from '../identity/company.entity.ts';
import { Person, type Role } from '../identity/person.entity.ts';
import { Session } from '../auth/session.entity.ts';
import { hashPassword } from '../auth/session.service.ts';
import { ApiError, notFound } from '../http/api-error.ts';
import { hashOfToken, newToken } from '../platform/token.ts';
import { PersonLink, type Purpose } from './person-link.entity.ts';
import type { InviteBody, JoinBody, PasswordLinkBody } from './people-body.ts';

const HOUR_MS = 3_600_000;
const LASTS_HOURS: Readonly<Record<Purpose, number>> = { invitation: 48, password: 2 };
const UNIQUE_VIOLATION = '23505';

export interface InvitationView {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly madeAt: string;
  readonly expiresAt: string;
}

/** What the holder of a link sees. */
export interface LinkView {
  readonly purpose: Purpose;
  readonly company: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role | null;
}

const addressTaken = (email: string) =>
  new ApiError({
    code: 'address-taken',
    message: say`${email} already has an account; use another e-mail address, or have that account removed first`,
  });

const place = (token: string) => `/join#${token}`;

/** Links with which people set their first password or a new one. */
@Injectable()
export class LinksService {
  constructor(
    private readonly database: DataSource,
    private readonly audit: AuditService,
    private readonly mail: MailService,
  ) {}

  /** Links that are still valid. */
  async invitations({ companyId }: Actor): Promise<readonly InvitationView[]> {
    const rows = await this.database.manager.find(PersonLink, {
      where: {
        companyId,
        purpose: 'invitation',
        usedAt: IsNull(),
        withdrawnAt: IsNull(),
        expiresAt: MoreThan(new Date()),
      },
      order: { at: 'DESC' },
    });
    return rows.map(invitationView);
  }

  async invite(actor: Actor, body: InviteBody): Promise<InvitationView> {
    const { companyId, personId, companyName, personName } = actor;
    const id = body.id.toLowerCase();
    const { token, name, email, role } = body;
    const tokenHash = hashOfToken(token);
    const view = await idempotentWrite(this.database, actor, {
      id,
      meaning: ['invitation', tokenHash, name, email, role],
      again: async (_earlier, database) =>
        invitationView(await database.findOneByOrFail(PersonLink, { companyId, id })),
      make: async (database, written) => {
        // Only the holder of the link learns whether another company has this address.
        if (await database.existsBy(Person, { companyId, email, takenOutAt: IsNull() }))
          throw addressTaken(email);
        const link = await this.insert(database, {
          ...{ companyId, id, purpose: 'invitation', tokenHash, name, email, role },
          madeBy: personId,
        });
        await written({ subject: 'invitation', subjectId: id, version: 1 });
        await this.audit.note({ companyId, personId, what: 'invited' }, database);
        await this.mail.write(database, {
          companyId,
          recipient: email,
          subject: say`${companyName} invites you to Water Clock`,
          text: say`Hello ${name},\n\n${personName} invites you to ${companyName} on Water Clock. Choose a password within 48 hours:\n\n${this.mail.address(place(token))}\n\nThe link works once. If you do not know ${companyName}, do nothing.\n`,
        });
        return invitationView(link);
      },
    });
    this.mail.deliver();
    return view;
  }

  /** Revoking a link twice, or after its use, is harmless. */
  async withdraw({ companyId, personId }: Actor, id: string): Promise<void> {
    await this.database.transaction(async (database) => {
      const link = await database.findOneBy(PersonLink, { companyId, id, purpose: 'invitation' });
      if (!link) throw notFound('invitation');
      const withdrawn = await database.update(
        PersonLink,
        { companyId, id, usedAt: IsNull(), withdrawnAt: IsNull() },
        { withdrawnAt: new Date() },
      );
      if (withdrawn.affected)
        await this.audit.note({ companyId, personId, what: 'invitation-withdrawn' }, database);
    });
  }

  /** A link for a member who cannot sign in. Creating it again under the same id changes nothing. */
  async helpIn(actor: Actor, personId: string, body: PasswordLinkBody): Promise<void> {
    const { companyId } = actor;
    const id = body.id.toLowerCase();
    await idempotentWrite(this.database, actor, {
      id,
      meaning: ['password-link', personId, hashOfToken(body.token)],
      again: () => undefined,
      make: async (database, written) => {
        const person = await database.findOneBy(Person, {
          companyId,
          id: personId,
          takenOutAt: IsNull(),
        });
        if (!person) throw notFound('person');
        await this.passwordLink(database, person, {
          id,
          token: body.token,
          madeBy: actor.personId,
        });
        await written({ subject: 'invitation', subjectId: id, version: 1 });
      },
    });
    this.mail.deliver();
  }

  /** A request from the sign-in page. The answer is the same whether or not the account exists. */
  async forgotten(email: string): Promise<void> {
    const person = await this.database.manager.findOneBy(Person, { email, takenOutAt: IsNull() });
    if (!person) return;
    const link = { id: randomUUID(), token: newToken(), madeBy: null };
    await this.database.transaction((database) => this.passwordLink(database, person, link));
    this.mail.deliver();
  }

  private async passwordLink(
    database: EntityManager,
    { companyId, id: personId, name, email }: Person,
    link: { readonly id: string; readonly token: string; readonly madeBy: string | null },
  ): Promise<void> {
    const { id, token, madeBy } = link;
    await this.insert(database, {
      ...{ companyId, id, purpose: 'password', tokenHash: hashOfToken(token) },
      ...{ name, email, personId, madeBy },
    });
    const by = madeBy ?? personId;
    const noted = { companyId, personId: by, what: 'password-forgotten', subjectId: personId };
    await this.audit.note({ ...noted, what: 'password-forgotten' }, database);
    await this.mail.write(database, {
      companyId,
      recipient: email,
      subject: say`A new password for Water Clock`,
      text: say`Hello ${name},\n\nchoose a new password within 2 hours:\n\n${this.mail.address(place(token))}\n\nThe link works once. If you did not ask for it, do nothing: your password stays.\n`,
    });
  }

  private async insert(
    database: EntityManager,
    link: Pick<PersonLink, 'companyId' | 'id' | 'purpose' | 'tokenHash' | 'name' | 'email'> &
      Partial<PersonLink>,
  ): Promise<PersonLink> {
    const expiresAt = new Date(Date.now() + LASTS_HOURS[link.purpose] * HOUR_MS);
    await database.insert(PersonLink, { ...link, expiresAt });
    return database.findOneByOrFail(PersonLink, { companyId: link.companyId, id: link.id });
  }

  /**
   * What a link is for.
   *
   * @throws ApiError 404 or 410 if it is not valid
   */
  async opened(token: string): Promise<LinkView> {
    const { manager } = this.database;
    const link = await manager.findOneBy(PersonLink, { tokenHash: hashOfToken(token) });
    assertGood(link);
    const { companyId, purpose, name, email, role } = link;
    const { name: company } = await manager.findOneByOrFail(Company, { id: companyId });
    return { purpose, company, name, email, role };
  }

  /**
   * Sets the password; an invitation also creates the person. Repeating it with the same password is harmless.
   *
   * @returns the account to sign in
   * @throws ApiError 404, 409 `address-taken`, 410
   */
  async use(token: string, { personId, password }: JoinBody): Promise<{ readonly email: string }> {
    const passwordHash = await hashPassword(password);
    try {
      return await this.database.transaction(async (database) => {
        const link = await database.findOne(PersonLink, {
          where: { tokenHash: hashOfToken(token) },
          lock: { mode: 'pessimistic_write' },
        });
        if (link?.usedAt && (await isSame(database, link, password))) return { email: link.email };
        assertGood(link);
        const { companyId, purpose, name, email } = link;
        const id = link.personId ?? personId.toLowerCase();
        if (link.role !== null)
          await database.insert(Person, {
            ...{ companyId, id, name, email, role: link.role, passwordHash },
          });
        else {
          await database.update(Person, { companyId, id }, { passwordHash });
          await database.delete(Session, { companyId, personId: id });
        }
        const used = { usedAt: new Date(), personId: id };
        await database.update(PersonLink, { companyId, id: link.id }, used);
        const what = purpose === 'invitation' ? 'joined' : 'password-changed';
        await this.audit.note({ companyId, personId: id, what }, database);
        return { email };
      });
    } catch (error) {
      if (isTaken(error)) throw addressTaken('this address');
      throw error;
    }
  }
}

const invitationView = ({ id, name, email, role, at, expiresAt }: PersonLink): InvitationView => ({
  id,
  name,
  email,
  role: role ?? 'technician',
  madeAt: at.toISOString(),
  expiresAt: expiresAt.toISOString(),
});

/** Whether this same request used the link before and its answer was lost. */
async function isSame(
  database: EntityManager,
  { companyId, personId }: PersonLink,
  password: string,
): Promise<boolean> {
  const person = personId && (await database.findOneBy(Person, { companyId, id: personId }));
  return person ? verify(person.passwordHash, password) : false;
}

function assertGood(link: PersonLink | null): asserts link is PersonLink {
  if (!link) throw notFound('invitation or password link; check that you copied all of it');
  if (link.usedAt)
    throw new ApiError({
      code: 'link-used',
      message: say`this link was already used; sign in with the password you chose then`,
    });
  if (link.withdrawnAt || link.expiresAt < new Date())
    throw new ApiError({
      code: 'link-expired',
      message: link.withdrawnAt
        ? say`this link was revoked; ask for a new one`
        : say`this link has expired; ask for a new one`,
    });
}

const isTaken = (error: unknown): boolean =>
  error instanceof QueryFailedError &&
  (error.driverError as { code?: string; constraint?: string }).code === UNIQUE_VIOLATION;
