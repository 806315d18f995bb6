import { wordsOf } from '@water-clock/core';
import { Check, Column, Entity, Index, JoinColumn, ManyToOne, type Relation } from 'typeorm';
import { CompanyRow } from '../platform/company-row.ts';
import { oneOfWords } from '../platform/one-of.ts';
import { Company } from './company.entity.ts';
import type { Preferences } from './preferences.ts';

/** What somebody is in their company. */
export const ROLES = ['owner', 'office', 'technician', 'apprentice'] as const;
export type Role = (typeof ROLES)[number];
export const ROLE_WORDS: Readonly<Record<Role, string>> = wordsOf({
  owner: 'owners',
  office: 'the office',
  technician: 'technicians',
  apprentice: 'apprentices',
});

@Entity('people')
@Check('people_role_words', oneOfWords('role', ROLES))
export class Person extends CompanyRow {
  @ManyToOne(() => Company)
  @JoinColumn({ name: 'company_id', foreignKeyConstraintName: 'people_company' })
  company: Relation<Company>;

  @Column('text')
  name: string;

  /** In lower case; of all who are not taken out, one account an address over all companies, since people sign in by it. */
  @Index('people_email', { unique: true, where: 'taken_out_at is null' })
  @Column('text')
  email: string;

  /** argon2id, in its own text form. */
  @Column('text', { name: 'password_hash' })
  passwordHash: string;

  @Column('text')
  role: Role;

  /** Counts the changes of what somebody is in the company. */
  @Column('integer', { name: 'member_version', default: 1 })
  memberVersion: number;

  /** Since then nobody signs in as them; what they did stays theirs. */
  @Column('timestamptz', { name: 'taken_out_at', nullable: true })
  takenOutAt: Date | null;

  /** What an authenticator app knows too, in base32; null: no second factor. */
  @Column('text', { name: 'second_factor', nullable: true })
  secondFactor: string | null;

  /** The step of time of the last code that was taken; none is taken twice. */
  @Column('integer', { name: 'second_factor_step', nullable: true })
  secondFactorStep: number | null;

  /** Of the preferences. */
  @Column('integer', { default: 1 })
  version: number;

  @Column('jsonb', { default: {} })
  preferences: Preferences;
}
