import { say } from '@water-clock/core';
import { verify } from '@node-rs/argon2';
import { IsNull, type EntityManager } from 'typeorm';
import { ApiError } from '../http/api-error.ts';
import { AuditRow } from '../audit/audit.entity.ts';
import { Company } from '../identity/company.entity.ts';
import { Person } from '../identity/person.entity.ts';
import { hashPassword } from './session.service.ts';

export interface NewCompany {
  readonly id: string;
  readonly personId: string;
  readonly company: string;
  readonly name: string;
  /** Lower case. */
  readonly email: string;
  readonly password: string;
}

/** Advisory lock number: of several people creating companies at once, one proceeds and the others wait. */
const CREATION_LOCK = 1_884_202;

export const lockCreation = (database: EntityManager): Promise<unknown> =>
  database.query('select pg_advisory_xact_lock($1)', [CREATION_LOCK]);

/** Whether this company was created before by someone who knows its password. */
export async function isCreated(
  database: EntityManager,
  { id: companyId, personId: id, email, password }: NewCompany,
): Promise<boolean> {
  const person = await database.findOneBy(Person, { companyId, id, email });
  return person !== null && verify(person.passwordHash, password);
}

/** @throws ApiError 409 if the address or an id is taken */
export async function createCompany(
  database: EntityManager,
  { id: companyId, personId: id, company, name, email, password }: NewCompany,
): Promise<void> {
  if (await database.existsBy(Person, { email, takenOutAt: IsNull() }))
    throw new ApiError({
      code: 'address-taken',
      message: say`${email} already has an account; sign in with it or use another address`,
      faults: [{ code: 'address-taken', path: 'email', message: say`this address has an account` }],
    });
  if (await database.existsBy(Company, { id: companyId }))
    throw new ApiError({
      code: 'id-reused',
      message: 'another company has this id; every company needs an id of its own',
    });
  const passwordHash = await hashPassword(password);
  await database.insert(Company, { id: companyId, name: company });
  await database.insert(Person, { companyId, id, name, email, role: 'owner', passwordHash });
  const founded = { companyId, id: companyId, personId: id, what: 'founded' } as const;
  await database.insert(AuditRow, {
    ...founded,
    subjectId: null,
    subjectName: null,
    address: null,
  });
}
