import type { Rules } from '@water-clock/core';
import { IsNull, Not, type EntityManager } from 'typeorm';
import { LibraryEntry } from '../library/library-entry.entity.ts';

/** A company's rules by id. */
export async function rulesOfCompany(
  database: EntityManager,
  companyId: string,
): Promise<ReadonlyMap<string | null, Rules>> {
  const entries = await database.find(LibraryEntry, {
    where: { companyId, shelf: 'rules', document: Not(IsNull()) },
  });
  return new Map(
    // Safe cast: only documents accepted by `readRules` are on this shelf.
    entries.map(({ id, document }) => [id, document as Rules]),
  );
}
