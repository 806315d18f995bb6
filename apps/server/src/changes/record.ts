import { createHash } from 'node:crypto';
import type { DataSource, EntityManager, EntityTarget } from 'typeorm';
import { ApiError } from '../http/api-error.ts';
import type { Actor } from '../identity/actor.ts';
import type { CompanyRow } from '../platform/company-row.ts';
import { Change, type Subject } from './change.entity.ts';
import { tell } from './tell.ts';
import { touch } from './ticks.ts';

/** One write of a client, under the id that it made. */
interface Write<T> {
  readonly id: string;
  /** What the request asks for: a repetition asks for the same. */
  readonly meaning: unknown;
  /** The answer to a repetition. */
  readonly again: (earlier: Change, database: EntityManager) => T | Promise<T>;
  /** Makes the write; `written` puts it on record, once. */
  readonly make: (
    database: EntityManager,
    written: (change: Written) => Promise<void>,
  ) => Promise<T>;
}

export type Written = Pick<Change, 'subjectId' | 'version'> &
  Partial<Pick<Change, 'way' | 'change' | 'inverse' | 'madeOn'>> & { readonly subject: Subject };

/** SHA-256 of a request's meaning, to tell a repeated write from another one under the same id. */
const fingerprintOf = (meaning: unknown) =>
  createHash('sha256').update(JSON.stringify(meaning)).digest('hex');

/** Until the transaction ends nobody else writes under this id. Ids are locked before rows are, so that two writes never wait for each other. */
async function lockId(database: EntityManager, companyId: string, id: string): Promise<void> {
  await database.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [
    `${companyId} ${id}`,
  ]);
}

/**
 * Makes a write in one transaction. All writes go this way: of two under one id at once the second waits; a repetition gets the
 * answer of the first, and changes nothing.
 *
 * @throws ApiError 409 `id-reused` where the id was used for something else.
 */
export async function idempotentWrite<T>(
  database: DataSource,
  { companyId, personId, personName: by }: Actor,
  { id, meaning, again, make }: Write<T>,
): Promise<T> {
  const fingerprint = fingerprintOf(meaning);
  const made = await database.transaction(async (manager) => {
    await lockId(manager, companyId, id);
    const earlier = await manager.findOneBy(Change, { companyId, id });
    if (earlier && earlier.fingerprint !== fingerprint)
      throw new ApiError({
        code: 'id-reused',
        message: 'another change was saved under this id; every change needs an id of its own',
      });
    if (earlier) return again(earlier, manager);
    return make(manager, async (change) => {
      await manager.insert(Change, {
        way: 'do',
        change: null,
        inverse: null,
        ...change,
        id,
        fingerprint,
        companyId,
        personId,
      });
      const { subject, subjectId: timerId, version } = change;
      if (subject === 'timer')
        await tell(manager, { kind: 'changed', companyId, timerId, version, personId, by });
      else if (subject !== 'company') await tell(manager, { kind: 'stale', companyId });
    });
  });
  touch(companyId);
  return made;
}

/**
 * Claims an id for a new row.
 *
 * @throws ApiError 409 `id-reused` where there is such a row.
 */
export async function claimId(
  database: EntityManager,
  { companyId }: Actor,
  rows: EntityTarget<CompanyRow>,
  id: string,
  what: string,
): Promise<void> {
  await lockId(database, companyId, id);
  if (await database.existsBy(rows, { companyId, id }))
    throw new ApiError({
      code: 'id-reused',
      message: `another ${what} has this id; every ${what} needs an id of its own`,
    });
}
