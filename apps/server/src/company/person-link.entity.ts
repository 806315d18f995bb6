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
import { Person, ROLES, type Role } from '../identity/person.entity.ts';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { oneOfWords } from '../platform/one-of.ts';

const PURPOSES = ['invitation', 'password'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** A link with which someone sets a password once: an invitation, or for someone who cannot sign in. */
@Entity('person_links')
@Check('person_links_purpose_words', oneOfWords('purpose', PURPOSES))
@Check('person_links_role_words', oneOfWords('role', ROLES))
@Index('person_links_of_person', ['companyId', 'personId'])
@Index('person_links_of_maker', ['companyId', 'madeBy'])
export class PersonLink extends CompanyRow {
  @ManyToOne(() => Company)
  @JoinColumn({ name: 'company_id', foreignKeyConstraintName: 'person_links_company' })
  company: Relation<Company>;

  @Column('text')
  purpose: Purpose;

  /** SHA-256 of the token, so that a leaked database gives no access. */
  @Index('person_links_token', { unique: true })
  @Column('text', { name: 'token_hash' })
  tokenHash: string;

  @Column('text')
  name: string;

  /** Lower case. */
  @Column('text')
  email: string;

  /** For an invitation. */
  @Column('text', { nullable: true })
  role: Role | null;

  /** The person whose password it is, or the person the invitation created. */
  @Column('uuid', { name: 'person_id', nullable: true })
  personId: string | null;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'person_links_person'))
  person: Relation<Person> | null;

  /** Null if requested on the sign-in page. */
  @Column('uuid', { name: 'made_by', nullable: true })
  madeBy: string | null;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('made_by', 'person_links_maker'))
  maker: Relation<Person> | null;

  @Column('timestamptz', { name: 'expires_at' })
  expiresAt: Date;

  @Column('timestamptz', { name: 'used_at', nullable: true })
  usedAt: Date | null;

  @Column('timestamptz', { name: 'withdrawn_at', nullable: true })
  withdrawnAt: Date | null;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}
