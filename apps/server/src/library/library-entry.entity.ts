import { Check, Column, Entity, Index, JoinColumn, ManyToOne, type Relation } from 'typeorm';
import { CompanyRow } from '../platform/company-row.ts';
import { oneOfWords } from '../platform/one-of.ts';
import { Company } from '../identity/company.entity.ts';

/** What the office keeps: each shelf holds documents of one open format. */
export const SHELVES = ['rules', 'kinds', 'minutes', 'climates', 'office', 'tasks'] as const;
export type Shelf = (typeof SHELVES)[number];

/** A document of the office's library. */
@Entity('library')
@Check('library_shelf_words', oneOfWords('shelf', SHELVES))
@Index('library_shelf', ['companyId', 'shelf'])
export class LibraryEntry extends CompanyRow {
  @ManyToOne(() => Company)
  @JoinColumn({ name: 'company_id', foreignKeyConstraintName: 'library_company' })
  company: Relation<Company>;

  @Column('text')
  shelf: Shelf;

  /** Counts the changes; a write names the one that it was based on, 0 for a new document. */
  @Column('integer')
  version: number;

  /** Sound by the reader of its shelf; null: deleted, and its version goes on. */
  @Column('jsonb', { nullable: true })
  document: object | null;
}
