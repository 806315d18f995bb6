import type { Rules } from '@water-clock/core';
import { IsNull, Not, type EntityManager } from 'typeorm';
import { LibraryEntry } from '../library/library-entry.entity.ts';

/** The rules in a company's library, by their ids. */
export async function rulesOfCompany(
  database: EntityManager,
  companyId: string,
): Promise<ReadonlyMap<string | null, Rules>> {
  const entries = await database.find(LibraryEntry, {
    where: { companyId, shelf: 'rules', document: Not(IsNull()) },
  });
  return new Map(
    // The cast holds because only `readRules` lets a document onto this shelf.
    entries.map(({ id, document }) => [id, document as Rules]),
  );
}
