import { Check, Column, Entity, Index, JoinColumn, ManyToOne, type Relation } from 'typeorm';
import { CompanyRow } from '../platform/company-row.ts';
import { oneOfWords } from '../platform/one-of.ts';
import { Company } from './company.entity.ts';
import type { Preferences } from './preferences.ts';

/** What somebody is in their firm. */
export const ROLES = ['owner', 'office', 'technician', 'apprentice'] as const;
export type Role = (typeof ROLES)[number];

@Entity('people')
@Check('people_role_words', oneOfWords('role', ROLES))
export class Person extends CompanyRow {
  @ManyToOne(() => Company)
  @JoinColumn({ name: 'company_id', foreignKeyConstraintName: 'people_company' })
  company: Relation<Company>;

  @Column('text')
  name: string;

  /** In lower case; one account an address, over all companies, since people sign in by it. */
  @Index('people_email', { unique: true })
  @Column('text')
  email: string;

  /** argon2id, in its own text form. */
  @Column('text', { name: 'password_hash' })
  passwordHash: string;

  @Column('text')
  role: Role;

  /** Of the preferences. */
  @Column('integer', { default: 1 })
  version: number;

  @Column('jsonb', { default: {} })
  preferences: Preferences;
}
