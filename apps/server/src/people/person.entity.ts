import { Column, Entity, Index, JoinColumn, ManyToOne, type Relation } from 'typeorm';
import { CompanyRow } from '../platform/company-row.ts';
import { Company } from './company.entity.ts';
import type { Preferences } from './preferences.ts';

@Entity('people')
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

  /** Of the preferences. */
  @Column('integer', { default: 1 })
  version: number;

  @Column('jsonb', { default: {} })
  preferences: Preferences;
}
