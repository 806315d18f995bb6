import { verify } from '@node-rs/argon2';
import { say } from '@water-clock/core';
import type { EntityManager } from 'typeorm';
import { notAccepted } from '../http/api-error.ts';
import { Person } from '../identity/person.entity.ts';

/** @throws ApiError 422 if it is not the person's password */
export async function checkPassword(
  database: EntityManager,
  who: Pick<Person, 'companyId' | 'id'>,
  password: string,
): Promise<void> {
  const { passwordHash } = await database.findOneByOrFail(Person, who);
  if (!(await verify(passwordHash, password)))
    throw notAccepted([
      {
        code: 'wrong-password',
        path: 'password',
        message: say`this is not your current password`,
      },
    ]);
}
