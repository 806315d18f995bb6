import {
  Check,
  Column,
  CreateDateColumn,
  Entity,
  Index,
  JoinColumn,
  ManyToOne,
  type Relation,
} from 'typeorm';
import { Company } from '../identity/company.entity.ts';
import { Person } from '../identity/person.entity.ts';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { oneOfWords } from '../platform/one-of.ts';

const AUDITED = [
  'sign-in',
  'sign-in-failed',
  'sign-out',
  'link-made',
  'link-opened',
  'link-withdrawn',
  'export',
  'deletion',
  'setting',
  'founded',
  'invited',
  'invitation-withdrawn',
  'joined',
  'role-changed',
  'taken-out',
  'password-changed',
  'password-forgotten',
  'second-factor-on',
  'second-factor-off',
  'sessions-ended',
  'timer-deleted',
  'site-deleted',
  'personal-data-deleted',
  'token-made',
  'token-withdrawn',
] as const;
export type Audited = (typeof AUDITED)[number];

/** One entry of the activity log. Never updated. */
@Entity('audit')
@Check('audit_what_words', oneOfWords('what', AUDITED))
@Index('audit_by_time', { synchronize: false })
@Index('audit_of_person', ['companyId', 'personId'])
export class AuditRow extends CompanyRow {
  @ManyToOne(() => Company)
  @JoinColumn({ name: 'company_id', foreignKeyConstraintName: 'audit_company' })
  company: Relation<Company>;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;

  /** Null for someone without an account, using a link. */
  @Column('uuid', { name: 'person_id', nullable: true })
  personId: string | null;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'audit_person'))
  person: Relation<Person> | null;

  @Column('text')
  what: Audited;

  /** Id of the timer, site, document or person. */
  @Column('uuid', { name: 'subject_id', nullable: true })
  subjectId: string | null;

  /** Name of a subject that has been deleted. */
  @Column('text', { name: 'subject_name', nullable: true })
  subjectName: string | null;

  /** Network address, for sign-ins. */
  @Column('text', { nullable: true })
  address: string | null;
}
