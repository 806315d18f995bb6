import { createHash } from 'node:crypto';
import type { EntityManager } from 'typeorm';
import { ApiError } from '../platform/api-error.ts';
import type { Actor } from '../people/actor.ts';
import { Change, type Subject } from './change.entity.ts';

/** SHA-256 of a request's meaning, to tell a repeated write from another one under the same id. */
export const fingerprintOf = (meaning: unknown) =>
  createHash('sha256').update(JSON.stringify(meaning)).digest('hex');

/**
 * The earlier write under this id where this is a repetition of it; null where the id is new.
 *
 * @throws ApiError 409 `id-reused` where the id was used for something else.
 */
export async function repeatedWrite(
  database: EntityManager,
  { companyId }: Actor,
  id: string,
  fingerprint: string,
): Promise<Change | null> {
  const earlier = await database.findOneBy(Change, { companyId, id });
  if (earlier && earlier.fingerprint !== fingerprint)
    throw new ApiError({
      code: 'id-reused',
      message: 'another change was saved under this id; every change needs an id of its own',
    });
  return earlier;
}

/** Writes a change into the record. */
export async function record(
  database: EntityManager,
  { companyId, personId }: Actor,
  change: Pick<Change, 'id' | 'subjectId' | 'version' | 'fingerprint'> &
    Partial<Pick<Change, 'way' | 'change' | 'inverse'>> & { readonly subject: Subject },
): Promise<void> {
  await database.insert(Change, {
    way: 'do',
    change: null,
    inverse: null,
    ...change,
    companyId,
    personId,
  });
}
