import { createHash } from 'node:crypto';
import type { DataSource, EntityManager, EntityTarget } from 'typeorm';
import { ApiError } from '../http/api-error.ts';
import type { Actor } from '../identity/actor.ts';
import type { CompanyRow } from '../platform/company-row.ts';
import { Change, type Subject } from './change.entity.ts';
import { tell } from './tell.ts';
import { touch } from './ticks.ts';

/** A client's write, under the client's id. */
interface Write<T> {
  readonly id: string;
  /** What the request asks for. A repeated request must ask for the same. */
  readonly meaning: unknown;
  /** Answer to a repeated request. */
  readonly again: (earlier: Change, database: EntityManager) => T | Promise<T>;
  /** Makes the write and calls `written` exactly once to record it. */
  readonly make: (
    database: EntityManager,
    written: (change: Written) => Promise<void>,
  ) => Promise<T>;
}

export type Written = Pick<Change, 'subjectId' | 'version'> &
  Partial<Pick<Change, 'way' | 'change' | 'inverse' | 'madeOn'>> & { readonly subject: Subject };

/** SHA-256 of what a request asks for, which tells a repeated write from a different one with the same id. */
const fingerprintOf = (meaning: unknown) =>
  createHash('sha256').update(JSON.stringify(meaning)).digest('hex');

/** Locks an id until the transaction ends. Always lock ids before rows, so that two writes never deadlock. */
async function lockId(database: EntityManager, companyId: string, id: string): Promise<void> {
  await database.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [
    `${companyId} ${id}`,
  ]);
}

/**
 * Makes a write in one transaction. Every write goes through here: the second of two under one id waits, and a repeated write gets the
 * first one's answer and changes nothing.
 *
 * @throws ApiError 409 `id-reused` if the id was used for something else
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
 * @throws ApiError 409 `id-reused` if the row exists
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
