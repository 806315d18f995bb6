import { say } from '@water-clock/core';
import { Injectable } from '@nestjs/common';
import { verify } from '@node-rs/argon2';
import { DataSource, MoreThan, Not, type EntityManager } from 'typeorm';
import { notAccepted, notFound } from '../http/api-error.ts';
import { Settings } from '../platform/settings.ts';
import type { ChangePasswordBody, SecondFactorBody } from './account-body.ts';
import type { Actor } from '../identity/actor.ts';
import type { Audited } from '../audit/audit.entity.ts';
import { AuditService } from '../audit/audit.service.ts';
import { Person } from '../identity/person.entity.ts';
import { checkPassword } from './check-password.ts';
import { newFactor, stepOf, type NewFactor } from './second-factor.ts';
import { Session } from './session.entity.ts';
import { hashPassword } from './session.service.ts';

const HOUR_MS = 3_600_000;

export interface SessionEntry {
  readonly id: string;
  /** User agent. */
  readonly device: string;
  readonly address: string | null;
  /** ISO instants. */
  readonly since: string;
  readonly seen: string;
  /** The session that sent the request. */
  readonly isThis: boolean;
}

interface OwnChange {
  readonly what: Audited;
  readonly isDone: (person: Person) => boolean | Promise<boolean>;
  readonly columns: Partial<Pick<Person, 'passwordHash' | 'secondFactor' | 'secondFactorStep'>>;
  readonly and?: (database: EntityManager) => Promise<unknown>;
}

const refused = (code: string, path: string, message: string) =>
  notAccepted([{ code, path, message }]);

/** Changes to a person's own account. Each asks for the password again, so that an unattended browser is not enough. */
@Injectable()
export class AccountService {
  constructor(
    private readonly database: DataSource,
    private readonly audit: AuditService,
    private readonly settings: Settings,
  ) {}

  /**
   * Valid sessions, last used first.
   *
   * @param tokenHash of the current session
   */
  async sessions(
    { companyId, personId }: Actor,
    tokenHash: string,
  ): Promise<readonly SessionEntry[]> {
    const now = Date.now();
    const rows = await this.database.manager.find(Session, {
      where: {
        companyId,
        personId,
        expiresAt: MoreThan(new Date(now)),
        seenAt: MoreThan(new Date(now - this.settings.idleHours * HOUR_MS)),
      },
      order: { seenAt: 'DESC' },
    });
    return rows.map((row) => ({
      id: row.id,
      device: row.device,
      address: row.address,
      since: row.at.toISOString(),
      seen: row.seenAt.toISOString(),
      isThis: row.tokenHash === tokenHash,
    }));
  }

  /** Ending a session twice is harmless. */
  async endSession({ companyId, personId }: Actor, id: string): Promise<void> {
    await this.database.transaction(async (database) => {
      const { affected } = await database.delete(Session, { companyId, personId, id });
      if (affected)
        await this.audit.note({ companyId, personId, what: 'sessions-ended' }, database);
    });
  }

  async endOtherSessions({ companyId, personId }: Actor, tokenHash: string): Promise<void> {
    await this.database.transaction(async (database) => {
      await database.delete(Session, { companyId, personId, tokenHash: Not(tokenHash) });
      await this.audit.note({ companyId, personId, what: 'sessions-ended' }, database);
    });
  }

  async newFactor({ companyId, personId: id }: Actor): Promise<NewFactor> {
    const { email } = await this.database.manager.findOneByOrFail(Person, { companyId, id });
    return newFactor(email);
  }

  /** Ends all other sessions, because someone may have known the old password. */
  async changePassword(
    actor: Actor,
    tokenHash: string,
    { password, newPassword }: ChangePasswordBody,
  ): Promise<void> {
    const passwordHash = await hashPassword(newPassword);
    const { companyId, personId } = actor;
    await this.change(actor, password, {
      what: 'password-changed',
      isDone: (person) => verify(person.passwordHash, newPassword),
      columns: { passwordHash },
      and: (database) =>
        database.delete(Session, { companyId, personId, tokenHash: Not(tokenHash) }),
    });
  }

  async setFactor(actor: Actor, { password, secret, code }: SecondFactorBody): Promise<void> {
    const step = stepOf(secret, code, null);
    if (step === null)
      throw refused(
        'wrong-code',
        'code',
        say`this code is wrong or has expired; check the app again`,
      );
    await this.change(actor, password, {
      what: 'second-factor-on',
      isDone: ({ secondFactor }) => secondFactor === secret,
      columns: { secondFactor: secret, secondFactorStep: step },
    });
  }

  dropFactor(actor: Actor, password: string): Promise<void> {
    return this.change(actor, password, {
      what: 'second-factor-off',
      isDone: ({ secondFactor }) => secondFactor === null,
      columns: { secondFactor: null, secondFactorStep: null },
    });
  }

  /**
   * Repeating a change is harmless.
   *
   * @throws ApiError 422 if the password is wrong
   */
  private async change(
    { companyId, personId: id }: Actor,
    password: string,
    { what, isDone, columns, and }: OwnChange,
  ): Promise<void> {
    const person = await this.database.manager.findOneBy(Person, { companyId, id });
    if (!person) throw notFound('person');
    if (await isDone(person)) return;
    await checkPassword(this.database.manager, { companyId, id }, password);
    await this.database.transaction(async (database) => {
      await database.update(Person, { companyId, id }, columns);
      await and?.(database);
      await this.audit.note({ companyId, personId: id, what }, database);
    });
  }
}
