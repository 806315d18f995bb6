import type { Rules } from '@water-clock/core';
import { IsNull, Not, type EntityManager } from 'typeorm';
import { LibraryEntry } from '../library/library-entry.entity.ts';

export interface RulesEdition {
  readonly rules: Rules;
  /** Of the document in the library. */
  readonly version: number;
}

/** The rules in a company's library, by their ids. */
export async function rulesOfCompany(
  database: EntityManager,
  companyId: string,
): Promise<ReadonlyMap<string | null, RulesEdition>> {
  const entries = await database.find(LibraryEntry, {
    where: { companyId, shelf: 'rules', document: Not(IsNull()) },
  });
  return new Map(
    entries.map(({ id, document, version }) => [
      id,
      // The cast holds because only `readRules` lets a document onto this shelf.
      { rules: document as Rules, version },
    ]),
  );
}
