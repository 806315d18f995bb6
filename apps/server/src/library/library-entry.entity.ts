import { Check, Column, Entity, Index, JoinColumn, ManyToOne, type Relation } from 'typeorm';
import { CompanyRow } from '../platform/company-row.ts';
import { oneOfWords } from '../platform/one-of.ts';
import { Company } from '../identity/company.entity.ts';

/** Shelves of the library; each holds documents of one open format. */
export const SHELVES = ['rules', 'kinds', 'minutes', 'climates', 'office', 'tasks'] as const;
export type Shelf = (typeof SHELVES)[number];

/** A document in the company's library. */
@Entity('library')
@Check('library_shelf_words', oneOfWords('shelf', SHELVES))
@Index('library_shelf', ['companyId', 'shelf'])
export class LibraryEntry extends CompanyRow {
  @ManyToOne(() => Company)
  @JoinColumn({ name: 'company_id', foreignKeyConstraintName: 'library_company' })
  company: Relation<Company>;

  @Column('text')
  shelf: Shelf;

  /** Version; a write names the one it is based on, 0 for a new document. */
  @Column('integer')
  version: number;

  /** Valid for its shelf; null: deleted, while the version goes on. */
  @Column('jsonb', { nullable: true })
  document: object | null;
}
