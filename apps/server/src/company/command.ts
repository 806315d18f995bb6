/** Administration commands, called by bin/company. */
import { randomUUID } from 'node:crypto';
import { IsNull, type DataSource } from 'typeorm';
import { databaseOptions, openDatabase } from '../database/database.ts';
import { createCompany, lockCreation } from '../auth/new-company.ts';
import { AuditRow } from '../audit/audit.entity.ts';
import { Company } from '../identity/company.entity.ts';
import { Person } from '../identity/person.entity.ts';
import { Session } from '../auth/session.entity.ts';
import { readSettings } from '../platform/settings.ts';
import { hashOfToken, newToken } from '../platform/token.ts';
import { PersonLink } from './person-link.entity.ts';

const HOURS = 48;
const ENTITIES = [Company, Person, Session, AuditRow, PersonLink];

async function withDatabase<T>(
  databaseUrl: string,
  work: (database: DataSource) => Promise<T>,
): Promise<T> {
  const settings = readSettings({ DATABASE_URL: databaseUrl });
  const database = await openDatabase({ ...databaseOptions(settings), entities: ENTITIES });
  try {
    return await work(database);
  } finally {
    await database.destroy();
  }
}

/** Path of a page on which someone chooses a password. */
const linkFor = (
  database: DataSource,
  email: string,
  { dropsFactor }: { readonly dropsFactor: boolean },
): Promise<string | null> =>
  database.transaction(async (manager) => {
    const person = await manager.findOneBy(Person, { email, takenOutAt: IsNull() });
    if (!person) return null;
    const { companyId, id: personId, name } = person;
    const token = newToken();
    const own = { companyId, id: randomUUID(), name, email, personId };
    await manager.insert(PersonLink, {
      ...{ ...own, purpose: 'password', tokenHash: hashOfToken(token) },
      expiresAt: new Date(Date.now() + HOURS * 3_600_000),
    });
    if (dropsFactor)
      await manager.update(
        Person,
        { companyId, id: personId },
        { secondFactor: null, secondFactorStep: null },
      );
    return `/join#${token}`;
  });

/**
 * Creates a company.
 *
 * @returns the path on which its owner chooses a password
 */
export const found = (
  databaseUrl: string,
  company: { readonly company: string; readonly name: string; readonly email: string },
): Promise<string | null> =>
  withDatabase(databaseUrl, async (database) => {
    const email = company.email.trim().toLowerCase();
    await database.transaction(async (manager) => {
      await lockCreation(manager);
      const ids = { id: randomUUID(), personId: randomUUID() };
      await createCompany(manager, { ...company, ...ids, email, password: newToken() });
    });
    return linkFor(database, email, { dropsFactor: false });
  });

/**
 * Gives someone access again.
 *
 * @returns the path on which they choose a password; null if there is no such account
 */
export const letIn = (
  databaseUrl: string,
  email: string,
  how: { readonly dropsFactor: boolean },
): Promise<string | null> =>
  withDatabase(databaseUrl, (database) => linkFor(database, email.trim().toLowerCase(), how));
