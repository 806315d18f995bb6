import { wordsOf } from '@water-clock/core';
import { Check, Column, Entity, Index, JoinColumn, ManyToOne, type Relation } from 'typeorm';
import { CompanyRow } from '../platform/company-row.ts';
import { oneOfWords } from '../platform/one-of.ts';
import { Company } from './company.entity.ts';
import type { Preferences } from './preferences.ts';

/** Role in the company. */
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

  /** Lower case. Unique over all companies among people who are not removed, since it is the sign-in name. */
  @Index('people_email', { unique: true, where: 'taken_out_at is null' })
  @Column('text')
  email: string;

  /** argon2id in its own text form. */
  @Column('text', { name: 'password_hash' })
  passwordHash: string;

  @Column('text')
  role: Role;

  /** Version of role and membership. */
  @Column('integer', { name: 'member_version', default: 1 })
  memberVersion: number;

  /** Time of removal. No one signs in as them afterwards; their work keeps their name. */
  @Column('timestamptz', { name: 'taken_out_at', nullable: true })
  takenOutAt: Date | null;

  /** Secret shared with the authenticator app, base32; null: no second factor. */
  @Column('text', { name: 'second_factor', nullable: true })
  secondFactor: string | null;

  /** Time step of the last accepted code; no code is accepted twice. */
  @Column('integer', { name: 'second_factor_step', nullable: true })
  secondFactorStep: number | null;

  /** Version of the preferences. */
  @Column('integer', { default: 1 })
  version: number;

  @Column('jsonb', { default: {} })
  preferences: Preferences;
}
