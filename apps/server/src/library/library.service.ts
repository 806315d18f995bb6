import { Injectable } from '@nestjs/common';
import {
  readClimate,
  readMinutesTable,
  readOffice,
  readRules,
  readTask,
  readTimerKind,
  type Outcome,
  say,
} from '@water-clock/core';
import { DataSource, IsNull, Not } from 'typeorm';
import { AuditService } from '../audit/audit.service.ts';
import { idempotentWrite } from '../changes/record.ts';
import type { Actor } from '../identity/actor.ts';
import { ApiError, apiFaults, notAccepted } from '../http/api-error.ts';
import type { ChangeLibraryBody } from './library-body.ts';
import { LibraryEntry, type Shelf } from './library-entry.entity.ts';

const READERS: Record<Shelf, (value: unknown) => Outcome<object>> = {
  rules: readRules,
  kinds: readTimerKind,
  minutes: readMinutesTable,
  climates: readClimate,
  office: readOffice,
  tasks: readTask,
};

/** A document of a shelf, read by the reader of its format. */
export const readLibraryDocument = (shelf: Shelf, value: unknown): Outcome<object> =>
  READERS[shelf](value);

/** A larger shelf would be unusable. */
const MOST_DOCUMENTS = 500;

export interface LibraryView {
  readonly id: string;
  readonly version: number;
  readonly document: object | null;
}

@Injectable()
export class LibraryService {
  constructor(
    private readonly database: DataSource,
    private readonly audit: AuditService,
  ) {}

  /** All documents of a shelf, including deleted ones that hide a shipped document (null). */
  async list({ companyId }: Actor, shelf: Shelf): Promise<LibraryView[]> {
    const entries = await this.database.manager.find(LibraryEntry, {
      where: { companyId, shelf },
      order: { id: 'asc' },
    });
    return entries.map(({ id, version, document }) => ({ id, version, document }));
  }

  /** Saves or deletes a whole document in one transaction. */
  async change(
    actor: Actor,
    shelf: Shelf,
    id: string,
    body: ChangeLibraryBody,
  ): Promise<{ version: number }> {
    const { companyId } = actor;
    const read = body.document === null ? null : readLibraryDocument(shelf, body.document);
    if (read && !read.ok) throw notAccepted(apiFaults(read.faults, ['document']));
    const document = read ? read.value : null;
    return idempotentWrite(this.database, actor, {
      id: body.id.toLowerCase(),
      meaning: ['library', shelf, id, body.baseVersion, document],
      again: ({ version }) => ({ version }),
      make: async (database, written) => {
        const key = { companyId, id };
        // Insert first, so that two people who add the same document wait for each other.
        await database
          .createQueryBuilder()
          .insert()
          .into(LibraryEntry)
          .values({ ...key, shelf, version: 0, document: null })
          .orIgnore()
          .execute();
        const entry = await database.findOneOrFail(LibraryEntry, {
          where: key,
          lock: { mode: 'pessimistic_write' },
        });
        if (entry.shelf !== shelf)
          throw new ApiError({
            code: 'id-reused',
            message: `another document, on the shelf "${entry.shelf}", has this id`,
          });
        if (entry.version !== body.baseVersion)
          throw new ApiError({
            code: 'stale-version',
            message: say`someone else changed this document: it is now at version ${entry.version}; your change was based on version ${body.baseVersion}`,
            current: { id, version: entry.version, document: entry.document },
          });
        if (entry.document === null && document !== null) {
          const count = await database.countBy(LibraryEntry, {
            companyId,
            shelf,
            document: Not(IsNull()),
          });
          if (count >= MOST_DOCUMENTS)
            throw new ApiError({
              code: 'not-accepted',
              message: say`each part of the library can hold ${MOST_DOCUMENTS} documents; delete some first`,
            });
        }
        const version = entry.version + 1;
        await database.update(LibraryEntry, key, { version, document });
        await written({ subject: 'library', subjectId: id, version });
        if (document === null) {
          const { personId } = actor;
          await this.audit.note({ companyId, personId, what: 'deletion', subjectId: id }, database);
        }
        return { version };
      },
    });
  }
}
